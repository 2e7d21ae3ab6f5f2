import { isIndexable } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** Parameters in the address. */
export const slugParameters = rule({
  id: 'slug-parameters',
  family: 'address',
  severity: 'nit',
  sign: 'too-much',
  name: 'Parameters in the address',
  basis: 'common practice, no source',
  why: 'A page at several addresses divides its reputation among them.',
  mend: 'Give the page an address without a query, and name it as canonical.',
  needs: ['address'],
  message: ({ query }) => `The address has the query “${query}”.`,
  check({ page }, mark) {
    const query = /\?[^#]*/.exec(page.url)?.[0]
    if (query && query !== '?' && isIndexable(page)) mark(null, { query })
  },
  examples: {
    clean: [
      { html: '', url: 'https://site.example/lamps' },
      { html: '<link rel=canonical href=/lamps>', url: 'https://site.example/lamps?sort=price' },
    ],
    marked: [
      {
        html: '',
        url: 'https://site.example/lamps?sort=price',
        at: null,
        says: /has the query “\?sort=price”/,
      },
    ],
  },
})
