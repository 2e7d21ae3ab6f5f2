import { hasKeyword } from '../../words/match.ts'
import { firstWords } from '../../words/count-words.ts'
import { rule } from '../rule.ts'

/** The primary keyword does not come early in the text. */
export const keywordLead = rule({
  id: 'keyword-lead',
  family: 'text',
  shownOn: { snippet: 'keyword', galley: 'text' },
  severity: 'flaw',
  sign: 'missing',
  name: 'Keyword not near the beginning',
  basis: 'common practice, no source: in the first 100 words',
  why: 'People who searched for these words want to see at once that the page is about them.',
  mend: 'Use it in the opening paragraph.',
  needs: ['text'],
  message: ({ keyword, words }) => `“${keyword}” is not in the first ${words} words of the main content.`,
  check({ page, primary, style }, mark) {
    if (!primary || page.main.text === '') return
    if (hasKeyword(firstWords(page.main.text, style.limits.leadWords), primary)) return
    mark(null, { keyword: primary.text, words: style.limits.leadWords })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en><main><p>Our knot courses begin in May.</p></main>',
        keywords: { primary: 'knot course', secondary: [] },
      },
      '<main><p>No keyword given.</p></main>',
    ],
    marked: [
      {
        html: `<html lang=en><main><p>${'sea '.repeat(101)} knot course</p></main>`,
        keywords: { primary: 'knot course', secondary: [] },
        at: null,
        says: /“knot course” is not in the first 100 words/,
      },
    ],
  },
})
