import { isIndexable } from '../../page/read/facts.ts'
import { queryKey } from '../../addresses/addresses.ts'
import { rule } from '../rule.ts'

/** A page that may stand in results and that the site's sitemap does not list. */
export const sitemapAbsent = rule({
  id: 'sitemap-absent',
  family: 'address',
  severity: 'nit',
  sign: 'missing',
  name: 'Not in the sitemap',
  basis: 'sitemaps.org; common practice',
  why: 'Search engines find a page that no sitemap lists later, and see later that it has changed.',
  mend: 'Add its address to the sitemap, or say noindex where it should not be found.',
  needs: ['address', 'head'],
  message: () => 'The site’s sitemap does not list this page.',
  check({ page, site }, mark) {
    if (site.sitemap !== null && isIndexable(page) && !site.sitemap.has(queryKey(page.url))) mark(null, {})
  },
  examples: {
    clean: [
      '<p>no sitemap was taken in</p>',
      { html: '<p>x</p>', sitemap: ['https://site.example/page.html'] },
      { html: '<meta name=robots content=noindex>', sitemap: [] },
    ],
    marked: [{ html: '<p>x</p>', sitemap: ['https://site.example/'], says: /does not list this page/ }],
  },
})
