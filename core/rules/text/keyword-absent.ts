import { rule } from '../rule.ts'

/** The primary keyword is nowhere in the text. */
export const keywordAbsent = rule({
  id: 'keyword-absent',
  family: 'text',
  shownOn: { snippet: 'keyword', galley: 'text' },
  severity: 'flaw',
  sign: 'missing',
  name: 'The keyword is not in the text',
  basis: 'common practice, no source',
  why: 'A page is found for what it says.',
  mend: 'Use it where it belongs, or choose a keyword that the page is about.',
  needs: ['text'],
  silences: ['keyword-lead'],
  message: ({ keyword }) => `“${keyword}” is nowhere in the main content, in any of its word forms.`,
  check({ page, primary, placed }, mark) {
    if (primary && page.main.text !== '' && placed()!.matches === 0) mark(null, { keyword: primary.text })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en><main><p>Learn three knots in our courses.</p></main>',
        keywords: { primary: 'knot course', secondary: [] },
      },
      '<main><p>No keyword</p></main>',
    ],
    marked: [
      {
        html: '<html lang=en><main><p>Learn to tie.</p></main>',
        keywords: { primary: 'knot course', secondary: [] },
        at: null,
        says: /“knot course” is nowhere/,
      },
    ],
  },
})
