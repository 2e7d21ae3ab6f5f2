import { segmentsOf } from '../../site/path-below.ts'
import { rule } from '../rule.ts'

const placeholder =
  /^(?:page[-_]?\d*|untitled(?:[-_ ]?(?:page|document))?(?:[-_ ]?\d+)?|new[-_]page(?:[-_]\d+)?|copy[-_]of[-_].*|.*[-_]copy(?:[-_]?\d+)?|p=\d+|\d+)$/i

/** A placeholder for a slug. */
export const slugPlaceholder = rule({
  id: 'slug-placeholder',
  family: 'address',
  severity: 'flaw',
  sign: 'missing',
  name: 'Placeholder instead of a slug',
  basis: 'common practice, no source',
  why: 'It says nothing about the page.',
  mend: 'Make a slug from the title.',
  needs: ['address'],
  message: ({ slug }) => `“${slug}” says nothing about the page; words from the title are expected.`,
  check({ page, site }, mark) {
    const slug = segmentsOf(page, site).at(-1) ?? ''
    const query = /[?&](?:p|page_id|id)=\d+/.exec(page.url)?.[0]
    if (placeholder.test(slug)) mark(null, { slug })
    else if (query !== undefined) mark(null, { slug: query.slice(1) })
  },
  examples: {
    clean: [
      { html: '', path: 'page-turner.html' },
      { html: '', path: 'storm-1861.html' },
    ],
    marked: [
      { html: '', path: 'page1.html', at: null, says: /“page1” says nothing/ },
      { html: '', path: 'copy-of-lamps.html', says: /copy-of-lamps/ },
      { html: '', path: 'x/2024/index.html', says: /“2024”/ },
      { html: '', path: 'new-page-2.html', says: /new-page-2/ },
      { html: '', url: 'https://site.example/?p=123', says: /“p=123”/ },
    ],
  },
})
