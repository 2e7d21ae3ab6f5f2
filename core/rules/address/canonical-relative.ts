import { canonicalOf } from '../../page/facts.ts'
import { rule } from '../rule.ts'

/** A canonical that is not a whole address. */
export const canonicalRelative = rule({
  id: 'canonical-relative',
  family: 'address',
  severity: 'nit',
  sign: 'order',
  name: 'A canonical that is not a whole address',
  basis: 'common practice, no source: an absolute address',
  why: 'Copied to another host, or read under another address, it points to the wrong page.',
  mend: 'Write it out with https and the host.',
  needs: ['head'],
  message: ({ href, expected }) =>
    `“${href}” is relative${expected === null ? '' : `; ${expected} is expected`}.`,
  check({ page, baseKnown }, mark) {
    const canonical = canonicalOf(page)
    if (!canonical?.url || /^https?:\/\//i.test(canonical.href)) return
    const expected = baseKnown ? canonical.url : null
    mark(
      canonical,
      { href: canonical.href, expected },
      expected === null
        ? undefined
        : { label: 'Write it out', edits: [{ target: 'canonical', edit: { value: expected } }] },
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
