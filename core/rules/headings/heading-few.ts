import { rule } from '../rule.ts'
import { contentHeadings } from '../../page/read/content-headings.ts'

/** An article with few sections. */
export const headingFew = rule({
  id: 'heading-few',
  family: 'headings',
  severity: 'nit',
  sign: 'missing',
  name: 'Few sections for an article',
  basis: 'common practice, no source; asked of pages of the type article only',
  why: 'Sections help readers and search engines find their way in a long text.',
  mend: 'Divide the text, and give each part a heading that says what is in it.',
  needs: ['headings', 'text'],
  message: ({ count, least }) =>
    `${count} second-level ${count === 1 ? 'heading' : 'headings'}; the house style asks an article for ${least} at least.`,
  check({ page, style }, mark) {
    if (style.type !== 'article') return
    const count = contentHeadings(page).filter((h) => h.level === 2).length
    if (count < style.limits.headingFewest) mark(null, { count, least: style.limits.headingFewest })
  },
  examples: {
    clean: [
      '<h1>T</h1><h2>A</h2>',
      {
        html: `<h1>T</h1>${'<h2>A</h2>'.repeat(5)}`,
        style: { addresses: [{ match: '/*', type: 'article' }] },
      },
    ],
    marked: [
      {
        html: '<h1>T</h1><h2>A</h2>',
        style: { addresses: [{ match: '/*', type: 'article' }] },
        at: null,
        says: /1 second-level heading; .* 5 at least/,
      },
    ],
  },
})
