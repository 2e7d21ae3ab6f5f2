/** The links of a page: to what, with which words, and where on the page they stand. */
import { addressKey } from '../addresses/addresses.ts'
import type { AnchorFact, PageFacts } from '../page/read/facts.ts'
import type { PageId } from './page-identity.ts'
import { idAt, type SiteIndex } from './site-index.ts'

export type LinkPlace = 'text' | 'heading' | 'menu' | 'header' | 'footer' | 'sidebar' | 'search'
export interface PageLink {
  /** The page or file of the site that it leads to; null for one outside, or where nothing is. */
  to: PageId | null
  /** Null for what is no address. */
  url: string | null
  href: string
  words: string
  where: LinkPlace
  /** UTF-16 units of the decoded text. */
  start: number
}

const placeOf = (link: AnchorFact, inHeading: boolean): LinkPlace => {
  switch (link.landmark) {
    case 'nav':
      return 'menu'
    case 'aside':
      return 'sidebar'
    case 'header':
    case 'footer':
    case 'search':
      return link.landmark
    default:
      return inHeading ? 'heading' : 'text'
  }
}

/** All links of a page in the order of its text; those within the page and those without an address aside. */
export function pageLinks(page: PageFacts, index: SiteIndex): PageLink[] {
  const ownKey = addressKey(page.url)
  let heading = 0
  return page.links.flatMap((link) => {
    const { url, href, text, start } = link
    if (url === null || href.startsWith('#')) return []
    if (url.includes('#') && addressKey(url) === ownKey) return []
    while (heading < page.headings.length - 1 && page.headings[heading + 1]!.start < start) heading++
    const before = page.headings[heading]
    const inHeading =
      before !== undefined && before.start < start && before.end !== null && start < before.end
    const isOfSite = addressKey(url).startsWith(index.base)
    return {
      to: isOfSite ? (idAt(index, url) ?? null) : null,
      url,
      href,
      words: text,
      where: placeOf(link, inHeading),
      start,
    }
  })
}

export type LinkState = 'page' | 'file' | 'redirects' | 'not in results' | 'missing' | 'outside' | 'other'

/** What a link leads to, as far as the site knows. `missing` only where all of the site is known. */
export function linkState({ to, url }: PageLink, index: SiteIndex): LinkState {
  if (url === null || !/^https?:/i.test(url)) return 'other'
  if (!addressKey(url).startsWith(index.base)) return 'outside'
  if (to === null) return index.whole ? 'missing' : 'other'
  const entry = index.entries.get(to)
  if (!entry) return 'file'
  if (index.redirects.size > 0 && addressKey(entry.url) !== addressKey(url)) return 'redirects'
  return entry.indexable ? 'page' : 'not in results'
}
