/** What the site gives to the data of one page: its name, its organisation, the pages above. */
import { titleOf, outlineOf, type PageFacts } from '../page/read/facts.ts'
import { addressKey } from '../addresses/addresses.ts'
import { withoutLastPart } from '../strings.ts'
import type { SiteIndex } from './site-index.ts'
import type { SiteSide } from '../structured-data/build.ts'
import { isA } from '../structured-data/vocabulary.ts'

const known = new WeakMap<SiteIndex, { changes: number; id: string | null }>()
/** The `@id` of the organisation that the site describes under its own address; of several, the one most pages name. */
export function organisationOf(site: SiteIndex): string | null {
  const before = known.get(site)
  if (before?.changes === site.thingChanges) return before.id
  const counts = new Map<string, number>()
  for (const page of site.withThings)
    for (const { id, types, name } of site.entries.get(page)!.things!.things)
      if (id?.startsWith(site.base) && name !== null && types.some((t) => isA(t, 'Organization')))
        counts.set(id, (counts.get(id) ?? 0) + 1)
  const [id = null] = [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).map(([i]) => i)
  known.set(site, { changes: site.thingChanges, id })
  return id
}

/** The name that a page goes by: its first heading, or its title. */
export const pageName = (h1: string | null, title: string | null): string | null =>
  h1 ?? (title ? withoutLastPart(title).trim() : null)

/** The pages above one by its address, from the home page down, and the page itself last. */
export function trailOf(page: PageFacts, site: SiteIndex, siteName: string | null): SiteSide['trail'] {
  const trail: SiteSide['trail'] = []
  if (!page.url.startsWith(site.base)) return trail
  const parts = page.url.slice(site.base.length).split('/')
  let url = site.base
  for (let i = 0; i < parts.length; i++) {
    const id = site.addresses.get(addressKey(url))
    const entry = id === undefined ? undefined : site.entries.get(id)
    if (entry && url !== page.url) {
      const name =
        url === site.base ? (siteName ?? pageName(entry.h1, entry.title)) : pageName(entry.h1, entry.title)
      if (name) trail.push({ url: entry.url, name, path: entry.path })
    }
    url += parts[i] + '/'
  }
  const h1 = outlineOf(page).find((h) => h.level === 1 && h.text)?.text ?? null
  const name =
    page.url === site.base
      ? (siteName ?? pageName(h1, titleOf(page)?.text ?? null))
      : pageName(h1, titleOf(page)?.text ?? null)
  if (name) trail.push({ url: page.url, name, path: page.path })
  return trail
}

export const siteSideOf = (page: PageFacts, site: SiteIndex, siteName: string | null): SiteSide => ({
  base: site.base,
  name: siteName,
  organisation: organisationOf(site),
  trail: trailOf(page, site, siteName),
})
