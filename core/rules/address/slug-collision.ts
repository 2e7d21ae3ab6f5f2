import { repeated } from '../../site/site-index.ts'
import { siteRule } from '../rule.ts'

/** Two pages that share an address, or whose addresses differ only in case or a slash at the end. */
export const slugCollision = siteRule({
  id: 'slug-collision',
  family: 'address',
  severity: 'blocker',
  sign: 'alike',
  name: 'Two pages share an address',
  basis: 'RFC 3986, 6.2.2; common practice',
  why: 'Only one of them can be reached, or readers land on the wrong one.',
  mend: 'Give each page an address of its own.',
  needs: ['address'],
  message: ({ count, url }) =>
    `${count} pages share the address ${url}, or differ from it only in case or a slash.`,
  check({ site }, mark) {
    for (const pages of repeated(site.byAddress, site))
      mark(pages, { count: pages.length, url: site.entries.get(pages[0]!)!.url })
  },
  examples: {
    clean: [{ html: '', path: 'a.html', pages: { 'b.html': '' } }],
    marked: [
      { html: '', path: 'shop/index.html', pages: { 'shop/index.htm': '' }, says: /2 pages share/ },
      { html: '', path: 'shop.html', pages: { 'Shop.html': '' }, says: /2 pages share/ },
    ],
  },
})
