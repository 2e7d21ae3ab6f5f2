import { isEmptyHeading, outlineOf, type HeadingFact, type PageFacts } from './facts.ts'

/** Whether a heading belongs to the content and not to a menu, a side column, a header or a footer. */
export const isOfContent = (h: HeadingFact): boolean => h.landmark === null || h.landmark === 'main'

/** The visible headings of the content that say something, in order. */
export const contentHeadings = (page: PageFacts): HeadingFact[] =>
  outlineOf(page).filter((h) => isOfContent(h) && !isEmptyHeading(h))

/** What a heading is called: its label, else its text. */
export const nameOf = (h: HeadingFact): string => h.label || h.text
