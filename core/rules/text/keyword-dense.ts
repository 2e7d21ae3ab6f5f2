import { rule } from '../rule.ts'

/** Fewer words than this have no density worth speaking of; common practice, no source. */
const FEWEST_WORDS = 50

/** The primary keyword again and again. */
export const keywordDense = rule({
  id: 'keyword-dense',
  family: 'text',
  shownOn: { snippet: 'keyword', galley: 'text' },
  severity: 'flaw',
  sign: 'too-much',
  name: 'Keyword used too often',
  basis: 'common practice, no source',
  why: 'It reads as if written for machines, and search engines notice.',
  mend: 'Use other words, or leave it out where it is understood.',
  needs: ['text'],
  message: ({ keyword, matches, share, words, most }) =>
    `“${keyword}” appears ${matches} times in ${words} words (${share} %); the house style asks for ${most} % at most.`,
  check({ page, primary, placed, style }, mark) {
    const { words } = page.main
    if (!primary || words < FEWEST_WORDS) return
    const inText = placed()!
    const share = (100 * inText.matches * inText.words) / words
    const most = style.limits.keywordDensest
    if (inText.matches > 2 && share > most)
      mark(null, {
        keyword: primary.text,
        matches: inText.matches,
        words,
        share: Math.round(share * 10) / 10,
        most,
      })
  },
  examples: {
    clean: [
      {
        html: `<html lang=en><main><p>Knots. ${'sea '.repeat(100)}</p></main>`,
        keywords: { primary: 'knot', secondary: [] },
      },
      {
        html: '<html lang=en><main><p>Knots, knots, knots!</p></main>',
        keywords: { primary: 'knot', secondary: [] },
      },
    ],
    marked: [
      {
        html: `<html lang=en><main><p>${'knots and the wide sea '.repeat(20)}</p></main>`,
        keywords: { primary: 'knot', secondary: [] },
        at: null,
        says: /“knot” appears 20 times in 100 words \(20 %\); .* 3 % at most/,
      },
    ],
  },
})
