import { rule } from '../rule.ts'

/** A canonical outside the head. */
export const canonicalOutsideHead = rule({
  id: 'canonical-outside-head',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'links' },
  severity: 'flaw',
  sign: 'order',
  name: 'Canonical outside the head',
  basis: 'RFC 6596; WHATWG HTML 4.2.4',
  why: 'Search engines ignore a canonical in the body, where anybody who can write text could set one.',
  mend: 'Move it into the head, and remove from the head what does not belong there.',
  needs: ['head'],
  message: ({ href }) => `The canonical link “${href}” is in the body.`,
  check({ page }, mark) {
    for (const canonical of page.canonicals) if (!canonical.inHead) mark(canonical, { href: canonical.href })
  },
  examples: {
    clean: ['<link rel=canonical href=page.html><p>x'],
    marked: [
      {
        html: '<p>x</p><link rel=canonical href=/page.html>',
        at: '<link',
        says: /“\/page\.html” is in the body/,
      },
    ],
  },
})
