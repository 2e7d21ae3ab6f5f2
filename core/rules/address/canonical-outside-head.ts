import { rule } from '../rule.ts'

/** A canonical outside the head. */
export const canonicalOutsideHead = rule({
  id: 'canonical-outside-head',
  family: 'address',
  severity: 'flaw',
  sign: 'order',
  name: 'A canonical outside the head',
  basis: 'RFC 6596; WHATWG HTML 4.2.4',
  why: 'Engines pass over a canonical in the body: anybody who can write text there could set it.',
  mend: 'Move it into the head, and take out of the head what does not belong there.',
  needs: ['head'],
  message: ({ href }) => `The canonical link “${href}” stands in the body.`,
  check({ page }, mark) {
    for (const canonical of page.canonicals) if (!canonical.inHead) mark(canonical, { href: canonical.href })
  },
  examples: {
    clean: ['<link rel=canonical href=page.html><p>x'],
    marked: [
      {
        html: '<p>x</p><link rel=canonical href=/page.html>',
        at: '<link',
        says: /“\/page\.html” stands in the body/,
      },
    ],
  },
})
