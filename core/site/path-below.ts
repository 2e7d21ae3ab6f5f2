import type { PageFacts } from '../page/read/facts.ts'
import { pathParts } from './moves.ts'
import type { SiteIndex } from './site-index.ts'

/** A page's path below the site's root, decoded, a folder's page by its index; null for an address outside the site. */
export function pathBelow(page: PageFacts, site: Pick<SiteIndex, 'base'>): string | null {
  if (!page.url.startsWith(site.base)) return null
  const path = page.url.slice(site.base.length).replace(/[?#].*$/s, '')
  try {
    const decoded = decodeURIComponent(path)
    return decoded === '' || decoded.endsWith('/') ? `${decoded}index.html` : decoded
  } catch {
    return null
  }
}

/** The segments of a page's address, its extension off; none for the home page. */
export const segmentsOf = (page: PageFacts, site: Pick<SiteIndex, 'base'>): string[] => {
  const path = pathBelow(page, site)
  return path === null ? [] : pathParts(path).segments
}
