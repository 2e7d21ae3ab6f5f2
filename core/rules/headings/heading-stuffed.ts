import { hasKeyword } from '../../words/match.ts'
import { rule } from '../rule.ts'
import { contentHeadings, nameOf } from '../../page/read/content-headings.ts'

/** The keyword in nearly every heading. */
export const headingStuffed = rule({
  id: 'heading-stuffed',
  family: 'headings',
  severity: 'flaw',
  sign: 'too-much',
  name: 'Keyword in too many headings',
  basis: 'common practice, no source: more than two thirds of four headings or more',
  why: 'Headings that repeat one phrase no longer tell the sections apart, and read as if written for machines.',
  mend: 'Keep it in the H1 and one section; name the others after what is in them.',
  needs: ['headings'],
  message: ({ keyword, count, of }) =>
    `“${keyword}” is in ${count} of ${of} headings; two thirds are the most.`,
  check({ page, primary }, mark) {
    if (!primary) return
    const all = contentHeadings(page)
    if (all.length < 4) return
    const with_ = all.filter((h) => hasKeyword(nameOf(h), primary))
    if (with_.length * 3 > all.length * 2)
      mark(with_[0]!, { keyword: primary.text, count: with_.length, of: all.length })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en><h1>Knots</h1><h2>Reef knot</h2><h2>Bowline</h2><h2>When</h2>',
        keywords: { primary: 'knot', secondary: [] },
      },
      { html: '<html lang=en><h1>Knots</h1><h2>Knots</h2>', keywords: { primary: 'knot', secondary: [] } },
    ],
    marked: [
      {
        html: '<html lang=en><h1>Knots</h1><h2>Best knots</h2><h2>Knots to learn</h2><h2>When</h2>',
        keywords: { primary: 'knot', secondary: [] },
        at: '<h1',
        says: /“knot” is in 3 of 4 headings/,
      },
    ],
  },
})
