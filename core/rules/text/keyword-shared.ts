import { repeated } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'

/** Two pages after the same keyword. */
export const keywordShared = siteRule({
  id: 'keyword-shared',
  family: 'text',
  shownOn: { snippet: 'keyword' },
  severity: 'flaw',
  sign: 'alike',
  name: 'Several pages have the same keyword',
  basis: 'common practice, no source',
  why: 'They compete: a search engine shows one of them, and seldom the one that is meant.',
  mend: 'Give each page a keyword of its own, or join the pages.',
  needs: [],
  message: ({ count, keyword }) =>
    `${count} pages are assigned the keyword “${keyword}” or another form of it.`,
  check({ site }, mark) {
    for (const pages of repeated(site.byKeyword, site))
      mark(pages, { count: pages.length, keyword: site.entries.get(pages[0]!)!.phrase ?? null })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en>',
        keywords: { primary: 'knot course', secondary: [] },
        pages: { 'b.html': '' },
        others: { 'b.html': { primary: 'knot board', secondary: [] } },
      },
      { html: '<html lang=en>', pages: { 'b.html': '' } },
    ],
    marked: [
      {
        html: '<html lang=en>',
        keywords: { primary: 'knot course', secondary: [] },
        pages: { 'b.html': '<html lang=en>' },
        others: { 'b.html': { primary: 'courses in knots', secondary: [] } },
        says: /2 pages are assigned the keyword “courses in knots” or another form of it/,
      },
    ],
  },
})
