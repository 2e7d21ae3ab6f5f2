import { rule } from '../rule.ts'

/** `role="heading"` without a level. */
export const headingRole = rule({
  id: 'heading-role',
  family: 'headings',
  severity: 'flaw',
  sign: 'missing',
  name: 'Heading role without a level',
  basis: 'WAI-ARIA 1.2, the heading role: aria-level is required',
  why: 'A screen reader treats it as an H2, whatever is meant.',
  mend: 'Give it aria-level, or use h1 to h6.',
  needs: ['headings'],
  message: ({ text, level }) =>
    level === ''
      ? `“${text}” is a heading by its role and has no aria-level.`
      : `aria-level="${level}" on “${text}” is not a level; a whole number from 1 is expected.`,
  check({ page }, mark) {
    for (const h of page.headings) {
      if (h.role !== 'heading' || h.hidden) continue
      if (h.ariaLevel === null ? /^h[1-6]$/.test(h.tag) : /^\s*[1-9]\d*\s*$/.test(h.ariaLevel)) continue
      mark(
        h,
        { text: h.text || 'an empty one', level: h.ariaLevel ?? '' },
        {
          label: 'Give it level 2',
          edits: [{ target: 'heading', at: h.start, edit: { level: 2 } }],
          judgement: true,
        },
      )
    }
  },
  examples: {
    clean: ['<div role=heading aria-level=2>A</div>', '<h2 role=heading>A</h2>', '<h2>A</h2>'],
    marked: [
      {
        html: '<div role=heading>Opening hours</div>',
        at: '<div',
        says: /“Opening hours” .* has no aria-level/,
      },
      { html: '<p role="heading" aria-level="two">A</p>', says: /aria-level="two" on “A” is not a level/ },
      { html: '<h3 role=heading aria-level=0>A</h3>', at: '<h3', says: /aria-level="0"/ },
    ],
  },
})
