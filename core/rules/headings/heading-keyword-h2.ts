import { compileKeyword, hasKeyword } from '../../words/match.ts'
import { rule } from '../rule.ts'
import { contentHeadings, nameOf } from '../../page/read/content-headings.ts'

/** No keyword in any second-level heading. */
export const headingKeywordH2 = rule({
  id: 'heading-keyword-h2',
  family: 'headings',
  severity: 'nit',
  sign: 'missing',
  name: 'No keyword in any H2',
  basis: 'common practice, no source',
  why: 'Secondary keywords make good names for sections, and a section with such a name is found by it.',
  mend: 'Use the keyword or a secondary one to name a section, where that is natural.',
  needs: ['headings'],
  message: ({ keyword, count, secondary }) =>
    `None of ${count} H2s has “${keyword}”${secondary ? ` or ${secondary}` : ''}.`,
  check({ page, primary, keywords, style }, mark) {
    if (!primary || !keywords) return
    const second = contentHeadings(page).filter((h) => h.level === 2)
    if (second.length === 0) return
    const all = [primary, ...keywords.secondary.map((k) => compileKeyword(k, page.lang ?? style.language))]
    if (second.some((h) => all.some((k) => hasKeyword(nameOf(h), k)))) return
    mark(second[0]!, {
      keyword: primary.text,
      count: second.length,
      secondary: keywords.secondary.map((k) => `“${k}”`).join(', '),
    })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en><h1>T</h1><h2>Tying a bowline</h2>',
        keywords: { primary: 'knot course', secondary: ['tie a bowline'] },
      },
      { html: '<html lang=en><h1>Knots</h1>', keywords: { primary: 'knot course', secondary: [] } },
    ],
    marked: [
      {
        html: '<html lang=en><h1>T</h1><h2>When</h2><h2>Where</h2>',
        keywords: { primary: 'knot course', secondary: ['bowline'] },
        at: '<h2>When',
        says: /None of 2 H2s has “knot course” or “bowline”/,
      },
    ],
  },
})
