import { isIndexable } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** A page without a keyword on a site that has some. */
export const keywordUnassigned = rule({
  id: 'keyword-unassigned',
  family: 'text',
  shownOn: { snippet: 'keyword' },
  severity: 'nit',
  sign: 'missing',
  name: 'No keyword chosen',
  basis: 'common practice, no source',
  why: 'What a page should be found for decides its title, its headings and its address.',
  mend: 'Choose one primary keyword for it.',
  needs: ['title'],
  message: () => 'The page has no primary keyword; other pages of the site have one.',
  check({ page, site, primary }, mark) {
    if (!primary && site.byKeyword.size > 0 && isIndexable(page)) mark(null, {})
  },
  examples: {
    clean: [
      '<p>A site without keywords</p>',
      { html: '<html lang=en>', keywords: { primary: 'knots', secondary: [] } },
      {
        html: '<meta name=robots content=noindex>',
        pages: { 'b.html': '' },
        others: { 'b.html': { primary: 'knots', secondary: [] } },
      },
    ],
    marked: [
      {
        html: '<title>Tides</title>',
        pages: { 'b.html': '' },
        others: { 'b.html': { primary: 'knots', secondary: [] } },
        at: null,
        says: /no primary keyword/,
      },
    ],
  },
})
