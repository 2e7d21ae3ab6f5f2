import { inOrder } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'

/** A page to which no other page of the site links. */
export const pageOrphan = siteRule({
  id: 'page-orphan',
  family: 'text',
  severity: 'flaw',
  sign: 'missing',
  name: 'No page links to it',
  basis: 'common practice, no source',
  why: 'Readers do not come across it, and search engines find it late and rate it low.',
  mend: 'Link to it from a page on which readers would look for it.',
  needs: ['links'],
  message: () => 'No other page of the site links to it.',
  check({ site }, mark) {
    if (!site.whole) return
    const home = site.addresses.get(site.base)
    const orphans = [...site.entries.keys()].filter((id) => id !== home && !site.inbound.has(id))
    if (orphans.length > 0) mark(inOrder(orphans, site), {})
  },
  examples: {
    clean: [
      { html: '<p>x</p>', pages: { 'index.html': '<a href="page.html">To the page</a>' } },
      { html: '<p>the home page</p>', path: 'index.html' },
    ],
    marked: [
      {
        html: '<a href="page.html">itself</a>',
        pages: { 'index.html': '<p>no link' },
        says: /No other page/,
      },
    ],
  },
})
