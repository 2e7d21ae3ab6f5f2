import { repeated } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'

/** The same title on two indexable pages or more. */
export const titleDuplicate = siteRule({
  id: 'title-duplicate',
  family: 'title',
  severity: 'flaw',
  sign: 'alike',
  name: 'Several pages have the same title',
  basis: 'WCAG 2.2, 2.4.2; common practice: unique on every page',
  why: 'In results and in tabs nobody can tell the pages apart.',
  mend: 'Say in each title what only that page is about.',
  needs: ['title'],
  message: ({ count, title }) => `${count} pages have the title “${title}”.`,
  check({ site }, mark) {
    for (const pages of repeated(site.byTitle, site))
      mark(pages, { count: pages.length, title: site.entries.get(pages[0]!)!.title })
  },
  examples: {
    clean: [
      { html: '<title>Knots</title>', pages: { 'b.html': '<title>Charts</title>' } },
      {
        html: '<title>Knots</title>',
        pages: { 'b.html': '<title>Knots</title><meta name=robots content=noindex>' },
      },
    ],
    marked: [
      {
        html: '<title>Knots</title>',
        pages: { 'b.html': '<title> knots </title>' },
        says: /2 pages have the title “knots”/i,
      },
    ],
  },
})
