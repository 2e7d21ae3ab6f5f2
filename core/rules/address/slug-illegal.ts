import { decodedPath } from '../../addresses/addresses.ts'
import { safeSegment } from '../../wording/slug.ts'
import { rule } from '../rule.ts'
import { slugRepair } from './slug-repair.ts'

/** RFC 3986 3.3: unreserved, sub-delims, ":" and "@"; what lies beyond ASCII is another rule's. */
const illegal = /[^A-Za-z0-9\-._~!$&'()*+,;=:@/\u0080-\u{10ffff}]/u

/** White space or a character that may not stand in an address. */
export const slugIllegal = rule({
  id: 'slug-illegal',
  family: 'address',
  severity: 'blocker',
  sign: 'too-much',
  name: 'Illegal character in the address',
  basis: 'RFC 3986, 3.3 (pchar)',
  why: 'Such addresses break when they are copied, linked to or typed.',
  mend: 'Use letters, digits and hyphens.',
  needs: ['address'],
  message: ({ found, path }) => `The address “${path}” contains ${found}.`,
  check({ page, site }, mark) {
    const path = decodedPath(page.url)
    const sign = illegal.exec(path)?.[0]
    if (sign === undefined) return
    mark(
      null,
      { found: /\s/.test(sign) ? 'white space' : `“${sign}”`, path },
      slugRepair(page, site, 'Make the address fit', (s) => (illegal.test(s) ? safeSegment(s) : s)),
    )
  },
  examples: {
    clean: [
      { html: '', path: 'lamp-lighting.html' },
      { html: '', path: 'über/café.html' },
    ],
    marked: [
      {
        html: '',
        path: 'lamp lighting.html',
        at: null,
        says: /The address “\/lamp lighting\.html” contains white space/,
      },
      { html: '', path: 'a"b.html', says: /contains “"”/ },
    ],
  },
})
