import { decodedPath } from '../../addresses/addresses.ts'
import { rule } from '../rule.ts'

/** Letters beyond ASCII in the address. */
export const slugNonAscii = rule({
  id: 'slug-non-ascii',
  family: 'address',
  severity: 'nit',
  sign: 'order',
  name: 'Non-ASCII letters in the address',
  basis: 'RFC 3987; common practice',
  why: 'When it is copied, such an address often turns into percent signs and digits.',
  mend: 'Use plain letters; the slug can be made from the title.',
  needs: ['address'],
  message: ({ shown, encoded }) => `“${shown}” is sent as “${encoded}”.`,
  check({ page }, mark) {
    const shown = decodedPath(page.url)
    if (/[\u0080-\u{10ffff}]/u.test(shown)) mark(null, { shown, encoded: new URL(page.url).pathname })
  },
  examples: {
    clean: [{ html: '', path: 'ferry.html' }],
    marked: [
      {
        html: '',
        path: 'fyrtårn.html',
        at: null,
        says: /“\/fyrtårn\.html” is sent as “\/fyrt%C3%A5rn\.html”/,
      },
    ],
  },
})
