/** The sitemap of a site with its decisions carried out. */
import { addressKey } from '../addresses/addresses.ts'
import { MOST_SITEMAP_BYTES, readSitemap } from '../site/read-sitemap.ts'
import { changesOf, type SiteAtHand } from './hand-off.ts'
import { pagesToList, writeSitemaps } from './sitemap.ts'

/** Every indexable page that the index knows, in the order of the site's own sitemap where it has one. */
export async function sitemapFiles(site: SiteAtHand): Promise<{ path: string; text: string }[]> {
  const { index, base, date } = site.setting
  const { pages } = await changesOf(site)
  const changed = new Set(pages.filter((page) => page.changes.length > 0).map((page) => page.id))
  const listed = pagesToList(
    [...index.entries.values()].map(({ id, url, indexable }) => ({
      url,
      indexable,
      changed: changed.has(id),
    })),
    { existing: await existingOrder(site), date },
  )
  return writeSitemaps(listed, base)
}

/** Addresses of the site's own sitemap, those that moved by where they are now; none where it has no plain one. */
async function existingOrder({ setting, bytesOf }: SiteAtHand): Promise<string[]> {
  const bytes = await bytesOf(`${setting.root}sitemap.xml`)
  if (!bytes || bytes.length > MOST_SITEMAP_BYTES) return []
  const read = readSitemap([new TextDecoder().decode(bytes)])
  if (!read.ok || read.of !== 'pages') return []
  return read.entries.map(({ address }) => movedAddress(address, setting.moves.addresses))
}

const movedAddress = (address: string, moved: ReadonlyMap<string, string>): string =>
  URL.canParse(address) ? (moved.get(addressKey(address)) ?? address) : address
