import { isEmptyHeading } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { nameOf } from '../../page/read/content-headings.ts'

/** A heading that nobody sees. */
export const headingHidden = rule({
  id: 'heading-hidden',
  family: 'headings',
  severity: 'nit',
  sign: 'too-much',
  name: 'Hidden heading',
  basis: 'common practice, no source',
  why: 'It is shown to nobody, or not to everybody; if it was meant to be read, it is not.',
  mend: 'Remove it, or show it. To hide it from sight only, use a style sheet.',
  needs: ['headings'],
  message: ({ level, text }) =>
    `H${level} “${text}” is hidden by hidden, aria-hidden, or display:none in its style.`,
  check({ page }, mark) {
    for (const h of page.headings)
      if (h.hidden && !isEmptyHeading(h) && (h.role === null || h.role === 'heading'))
        mark(h, { level: h.level, text: nameOf(h) })
  },
  examples: {
    clean: ['<h2>A</h2>', '<h2 class="visually-hidden">A</h2>', '<h2 hidden></h2>'],
    marked: [
      { html: '<h2 hidden>Old prices</h2>', at: '<h2', says: /H2 “Old prices” is hidden/ },
      { html: '<div style="display: none"><h3>A</h3></div>', at: '<h3', says: /H3 “A”/ },
      { html: '<h2 aria-hidden=true>A</h2>', says: /aria-hidden/ },
    ],
  },
})
