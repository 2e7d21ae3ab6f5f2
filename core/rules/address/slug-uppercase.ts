import { decodedPath } from '../../addresses/addresses.ts'
import { rule } from '../rule.ts'
import { slugRepair } from './slug-repair.ts'

/** Capital letters in the path. */
export const slugUppercase = rule({
  id: 'slug-uppercase',
  family: 'address',
  severity: 'flaw',
  sign: 'too-much',
  name: 'Capital letters in the address',
  basis: 'RFC 3986, 6.2.2.1: paths are case-sensitive',
  why: 'The same address typed in small letters is a different address, or none at all.',
  mend: 'Use small letters, and redirect the old address to the new one.',
  needs: ['address'],
  message: ({ path, expected }) => `The path is “${path}”; “${expected}” is expected.`,
  check({ page, site }, mark) {
    const path = decodedPath(page.url)
    if (!/\p{Lu}/u.test(path)) return
    const repair = slugRepair(page, site, 'Use small letters', (s) => s.toLowerCase())
    mark(null, { path, expected: path.toLowerCase() }, repair)
  },
  examples: {
    clean: [{ html: '', path: 'shop/charts.html' }],
    marked: [
      {
        html: '',
        path: 'Shop/Charts.html',
        at: null,
        says: /“\/Shop\/Charts\.html”; “\/shop\/charts\.html” is expected/,
      },
    ],
  },
})
