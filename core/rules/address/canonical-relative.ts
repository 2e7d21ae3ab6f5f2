import { canonicalOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** A canonical that is not a full URL. */
export const canonicalRelative = rule({
  id: 'canonical-relative',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'links' },
  severity: 'nit',
  sign: 'order',
  name: 'The canonical is not a full URL',
  basis: 'common practice, no source: an absolute address',
  why: 'Copied to another host, or served at another address, it points to the wrong page.',
  mend: 'Write it in full, with https and the host.',
  needs: ['head'],
  message: ({ href, expected }) =>
    `“${href}” is relative${expected === null ? '' : `; ${expected} is expected`}.`,
  check({ page, baseKnown }, mark) {
    const canonical = canonicalOf(page)
    if (!canonical?.url || /^[a-z][a-z0-9+.-]*:/i.test(canonical.href) || canonical.href === '') return
    const expected = baseKnown ? canonical.url : null
    mark(
      canonical,
      { href: canonical.href, expected },
      expected === null
        ? undefined
        : { label: 'Write the full URL', edits: [{ target: 'canonical', edit: { value: expected } }] },
    )
  },
  examples: {
    clean: ['<link rel=canonical href=https://site.example/page.html>', '<p>none'],
    marked: [
      {
        html: '<link rel="canonical" href="/page.html">',
        at: '<link',
        says: /“\/page\.html” is relative; https:\/\/site\.example\/page\.html is expected/,
      },
    ],
  },
})
