/**
 * Sitemaps written: the indexable pages of a site, or an existing one with the dates of what changed. Source of form and
 * limits: sitemaps.org, protocol 0.9.
 */
import { queryKey } from '../addresses/addresses.ts'
import type { Replacement } from '../addresses/page-moves.ts'
import { MOST_ADDRESSES, MOST_SITEMAP_BYTES } from '../site/read-sitemap.ts'
import { escapeMarkup } from '../strings.ts'

export interface ListedPage {
  url: string
  /** YYYY-MM-DD; null where nothing changed. */
  lastmod: string | null
}

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n'
const NAMESPACE = 'xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"'
const encoder = new TextEncoder()

/**
 * `sitemap.xml`, or where the pages are too many for one an index of that name and its parts `sitemap-1.xml`, … `base` is
 * the site's root, ending in `/`. No pages give an empty list, which is no sitemap: then there is no file.
 */
export function writeSitemaps(
  pages: readonly ListedPage[],
  base: string,
  most: { addresses: number; bytes: number } = { addresses: MOST_ADDRESSES, bytes: MOST_SITEMAP_BYTES },
): { path: string; text: string }[] {
  const parts: string[][] = []
  let bytes = Infinity
  for (const { url, lastmod } of pages) {
    const entry = `<url><loc>${escapeMarkup(url)}</loc>${lastmod === null ? '' : `<lastmod>${lastmod}</lastmod>`}</url>\n`
    const size = encoder.encode(entry).length
    if (parts.length === 0 || parts.at(-1)!.length === most.addresses || bytes + size > most.bytes) {
      parts.push([])
      bytes = FRAME
    }
    parts.at(-1)!.push(entry)
    bytes += size
  }
  const texts = parts.map((entries) => `${HEAD}<urlset ${NAMESPACE}>\n${entries.join('')}</urlset>\n`)
  if (texts.length <= 1) return texts.map((text) => ({ path: 'sitemap.xml', text }))
  const named = texts.map((text, i) => ({ path: `sitemap-${i + 1}.xml`, text }))
  const entries = named.map(({ path }) => `<sitemap><loc>${escapeMarkup(base + path)}</loc></sitemap>\n`)
  return [
    { path: 'sitemap.xml', text: `${HEAD}<sitemapindex ${NAMESPACE}>\n${entries.join('')}</sitemapindex>\n` },
    ...named,
  ]
}
/** Bytes of a sitemap without its entries. */
const FRAME = encoder.encode(`${HEAD}<urlset ${NAMESPACE}>\n</urlset>\n`).length

/** The pages that a sitemap lists: in the order of the one that is there, then by address. */
export function pagesToList(
  pages: Iterable<{ url: string; indexable: boolean; changed: boolean }>,
  { existing, date }: { existing: readonly string[]; date: string },
): ListedPage[] {
  const listed = new Map<string, ListedPage>()
  for (const { url, indexable, changed } of pages)
    if (indexable && !listed.has(queryKey(url)))
      listed.set(queryKey(url), { url, lastmod: changed ? date : null })
  const inOrder: ListedPage[] = []
  for (const address of existing) {
    const key = URL.canParse(address) ? queryKey(address) : null
    const page = key === null ? undefined : listed.get(key)
    if (!page) continue
    inOrder.push(page)
    listed.delete(key!)
  }
  return [...inOrder, ...[...listed.values()].sort((a, b) => (a.url < b.url ? -1 : 1))]
}

/** What of an existing sitemap changes so that changed pages have a new date; everything else stays as it is written. */
export function datesInSitemap(text: string, changed: ReadonlySet<string>, date: string): Replacement[] {
  const replacements: Replacement[] = []
  for (let at = text.indexOf('<url>'); at >= 0;) {
    const end = text.indexOf('</url>', at)
    if (end < 0) break
    const loc = between(text, '<loc>', '</loc>', at, end)
    if (loc && changed.has(keyOf(text.slice(loc.start, loc.end)))) {
      const lastmod = between(text, '<lastmod>', '</lastmod>', at, end)
      if (lastmod) replacements.push({ ...lastmod, text: date })
      else {
        const behind = loc.end + '</loc>'.length
        replacements.push({ start: behind, end: behind, text: `<lastmod>${date}</lastmod>` })
      }
    }
    at = text.indexOf('<url>', end)
  }
  return replacements
}

function between(text: string, open: string, close: string, from: number, to: number) {
  const start = text.indexOf(open, from)
  if (start < 0 || start > to) return null
  const end = text.indexOf(close, start)
  return end < 0 || end > to ? null : { start: start + open.length, end }
}

const entities: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" }
/** The address that a `loc` holds, as addresses are compared; "" for none. */
function keyOf(loc: string): string {
  const address = loc.replace(/&(amp|lt|gt|quot|apos);/g, (_, name: string) => entities[name]!).trim()
  return URL.canParse(address) ? queryKey(address) : ''
}
