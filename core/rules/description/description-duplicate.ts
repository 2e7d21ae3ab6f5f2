import { repeated } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'

/** The same meta description on two indexable pages or more. */
export const descriptionDuplicate = siteRule({
  id: 'description-duplicate',
  family: 'description',
  severity: 'flaw',
  sign: 'alike',
  name: 'Several pages have the same description',
  basis: 'common practice, no source: unique on every page',
  why: 'It cannot fit all of them, and results tend to show something else instead.',
  mend: 'Write for each page what only that page offers.',
  needs: ['description'],
  message: ({ count, description }) => `${count} pages have the description “${description}”.`,
  check({ site }, mark) {
    for (const pages of repeated(site.byDescription, site))
      mark(pages, { count: pages.length, description: site.entries.get(pages[0]!)!.description })
  },
  examples: {
    clean: [
      { html: '<meta name=description content=a>', pages: { 'b.html': '<meta name=description content=b>' } },
      { html: '<p>', pages: { 'b.html': '<p>' } },
    ],
    marked: [
      {
        html: '<meta name=description content="An island light.">',
        pages: { 'b.html': '<meta name=description content="An  island light.">' },
        says: /2 pages have the description “An island light\.”/,
      },
    ],
  },
})
