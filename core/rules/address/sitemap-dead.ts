import type { PageId } from '../../site/page-identity.ts'
import { idAt, type SiteIndex } from '../../site/site-index.ts'
import { collisionKey, queryKey } from '../../addresses/addresses.ts'
import { siteRule } from '../rule.ts'

/** A sitemap lists what it should not: no page, a redirect, a page that is kept out of results or names another canonical. */
export const sitemapDead = siteRule({
  id: 'sitemap-dead',
  family: 'address',
  severity: 'flaw',
  sign: 'too-much',
  name: 'The sitemap lists an address that it should not',
  basis: 'sitemaps.org; common practice',
  why: 'Search engines trust a sitemap less for each address in it that leads nowhere or elsewhere.',
  mend: 'Take the address out of the sitemap, or put the page’s own in its place.',
  needs: ['address'],
  message: ({ url, reason, more }) =>
    `The sitemap lists ${url}, which ${reason}.${more === 0 ? '' : ` The same is true of ${more} more.`}`,
  check({ site }, mark) {
    const nowhere: string[] = []
    for (const url of site.sitemap ?? []) {
      if (!url.startsWith(site.base)) continue
      const id = idAt(site, url)
      const reason = id === undefined ? null : whyNot(site, url, id)
      if (id !== undefined && reason !== null) mark([id], { url, reason, more: 0 })
      if (id === undefined && site.whole) nowhere.push(url)
    }
    // No page of the site is at fault: it is said of the home page, or of the first there is.
    const home = site.addresses.get(site.base) ?? site.entries.keys().next().value
    if (nowhere.length > 0 && home !== undefined && site.entries.has(home))
      mark([home], { url: nowhere[0]!, reason: 'is no page of the site', more: nowhere.length - 1 })
  },
  examples: {
    clean: [{ html: '<p>x</p>', sitemap: ['https://site.example/page.html'] }],
    marked: [
      { html: '<p>x</p>', sitemap: ['https://site.example/gone'], says: /gone, which is no page/ },
      {
        html: '<meta name=robots content=noindex>',
        sitemap: ['https://site.example/page.html'],
        says: /is kept out of results/,
      },
      {
        html: '<link rel=canonical href="https://site.example/other.html">',
        sitemap: ['https://site.example/page.html'],
        says: /names another canonical/,
      },
      {
        html: '<p>x</p>',
        served: { redirects: [{ url: 'https://site.example/old', status: 301 }] },
        sitemap: ['https://site.example/old', 'https://site.example/page.html'],
        says: /old, which redirects to https:\/\/site\.example\/page\.html/,
      },
    ],
  },
})

/** What is wrong with a page that the sitemap lists at an address, as it stands behind "which"; null for nothing. */
function whyNot(site: SiteIndex, url: string, id: PageId): string | null {
  const entry = site.entries.get(id)
  if (!entry) return null
  if (site.redirects.get(queryKey(url)) === id && collisionKey(entry.url) !== collisionKey(url))
    return `redirects to ${entry.url}`
  return entry.unindexed
}
