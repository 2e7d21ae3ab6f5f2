import { canonicalOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** No canonical link. */
export const canonicalMissing = rule({
  id: 'canonical-missing',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'links' },
  severity: 'nit',
  sign: 'missing',
  name: 'No canonical',
  basis: 'RFC 6596',
  why: 'A page that answers at several addresses competes with itself; the canonical says which one counts.',
  mend: 'Name the page’s own address.',
  needs: ['head'],
  message: ({ url }) => `No canonical link; ${url} is expected.`,
  check({ page, baseKnown }, mark) {
    const canonical = canonicalOf(page)
    if (canonical && canonical.href !== '') return
    mark(
      canonical,
      { url: page.url },
      baseKnown
        ? {
            label: 'Name the page’s own address',
            edits: [{ target: 'canonical', edit: { value: page.url } }],
          }
        : undefined,
    )
  },
  examples: {
    clean: [
      '<link rel=canonical href="https://site.example/page.html">',
      '<link rel="CANONICAL nofollow" href=/a>',
    ],
    marked: [
      { html: '<title>x</title>', at: null, says: /https:\/\/site\.example\/page\.html is expected/ },
      { html: '<!doctype html><html><head></head><body></body></html>', says: /No canonical/ },
      { html: 'just text', says: /No canonical/ },
    ],
  },
})
