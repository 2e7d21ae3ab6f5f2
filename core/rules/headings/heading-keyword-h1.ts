import { hasKeyword } from '../../words/match.ts'
import { isEmptyHeading, outlineOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { nameOf } from '../../page/read/content-headings.ts'

/** The primary keyword is not in the H1. */
export const headingKeywordH1 = rule({
  id: 'heading-keyword-h1',
  family: 'headings',
  severity: 'flaw',
  sign: 'missing',
  name: 'The keyword is not in the H1',
  basis: 'common practice, no source',
  why: 'The H1 names the page: people who searched for these words look for them there.',
  mend: 'Use it to name the page, where that is natural.',
  needs: ['headings'],
  message: ({ keyword, text }) => `“${keyword}” is not in “${text}”, in any of its word forms.`,
  check({ page, primary }, mark) {
    if (!primary) return
    const first = outlineOf(page).filter((h) => h.level === 1 && !isEmptyHeading(h))
    if (first.length === 0 || first.some((h) => hasKeyword(nameOf(h), primary))) return
    // Several that are one headline carry it together.
    if (hasKeyword(first.map(nameOf).join(' '), primary)) return
    mark(first[0]!, { keyword: primary.text, text: nameOf(first[0]!) })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en><h1>Courses in knots</h1>',
        keywords: { primary: 'knot course', secondary: [] },
      },
      { html: '<html lang=en><h2>Tides</h2>', keywords: { primary: 'knot course', secondary: [] } },
      '<h1>No keyword</h1>',
    ],
    marked: [
      {
        html: '<html lang=en><h1>Tides</h1>',
        keywords: { primary: 'knot course', secondary: [] },
        at: '<h1',
        says: /“knot course” is not in “Tides”/,
      },
    ],
  },
})
