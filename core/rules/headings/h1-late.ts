import { isEmptyHeading, outlineOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { isOfContent, nameOf } from '../../page/read/content-headings.ts'

/** A heading stands before the H1 in the content. */
export const h1Late = rule({
  id: 'h1-late',
  family: 'headings',
  severity: 'nit',
  sign: 'order',
  name: 'Heading before the H1',
  basis: 'common practice, no source',
  why: 'The H1 names the page; a section before it belongs to nothing yet.',
  mend: 'Put the H1 first, or make the heading before it a paragraph.',
  needs: ['headings'],
  message: ({ level, text }) => `H${level} “${text}” comes before the H1.`,
  check({ page }, mark) {
    const headings = outlineOf(page).filter((h) => !isEmptyHeading(h))
    const first = headings.findIndex((h) => h.level === 1)
    const early = headings.slice(0, Math.max(0, first)).find(isOfContent)
    if (early) mark(early, { level: early.level, text: nameOf(early) })
  },
  examples: {
    clean: [
      '<h1>Tides</h1><h2>Spring</h2>',
      '<nav><h2>Menu</h2></nav><h1>Tides</h1>',
      '<h2>No first-level heading at all</h2>',
    ],
    marked: [{ html: '<main><h2>News</h2><h1>Tides</h1></main>', at: '<h2', says: /H2 “News” comes before/ }],
  },
})
