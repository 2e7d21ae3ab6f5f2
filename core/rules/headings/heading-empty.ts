import { isEmptyHeading, outlineOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** A heading that says nothing. */
export const headingEmpty = rule({
  id: 'heading-empty',
  family: 'headings',
  severity: 'flaw',
  sign: 'too-much',
  name: 'Empty heading',
  basis: 'WCAG 2.2, 1.3.1; W3C ACT rule ffd0e9',
  why: 'Readers who move from heading to heading find nothing there.',
  mend: 'Remove it, or say what the section is about.',
  needs: ['headings'],
  message: ({ level }) => `An H${level} has no text and no image with alternative text.`,
  check({ page }, mark) {
    for (const h of outlineOf(page))
      if (isEmptyHeading(h))
        mark(
          h,
          { level: h.level },
          h.endStart !== null && h.role === null && h.id === ''
            ? { label: 'Remove it', edits: [{ target: 'heading', at: h.start, edit: { remove: true } }] }
            : undefined,
        )
  },
  examples: {
    clean: [
      '<h2>Tides</h2>',
      '<h2><img src=x alt=Tides></h2>',
      '<h2 hidden></h2>',
      '<h2 aria-label="Tides"></h2>',
    ],
    marked: [
      { html: '<h1>A</h1><h2>  </h2><p>x</p>', at: '<h2', says: /An H2 has no text/ },
      { html: '<h2><img src=x alt=""></h2>', at: '<h2', says: /no text/ },
      { html: '<h3></h3>', says: /An H3/ },
    ],
  },
})
