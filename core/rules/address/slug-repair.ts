import type { PageFacts } from '../../page/read/facts.ts'
import { addressOf, collisionKey } from '../../addresses/addresses.ts'
import { pathParts } from '../../site/moves.ts'
import { pathBelow } from '../../site/path-below.ts'
import type { SiteIndex } from '../../site/site-index.ts'
import { safeSegment } from '../../wording/slug.ts'
import type { Repair } from '../rule.ts'

/** Words of the last segment, as hyphens and underscores part them. */
export const slugWords = (segment: string): string[] => segment.split(/[-_\s.]+/).filter(Boolean)

/** A repair that changes segments of the address; undefined where it changes nothing, leaves nothing, or meets another page. */
export function slugRepair(
  page: PageFacts,
  site: SiteIndex,
  label: string,
  change: (segment: string, last: boolean) => string,
): Repair | undefined {
  const path = pathBelow(page, site)
  if (path === null) return undefined
  const parts = pathParts(path)
  const { segments } = parts
  const next = segments.map((s, i) => {
    const changed = change(s, i === segments.length - 1)
    return changed === s ? s : safeSegment(changed)
  })
  if (next.length === 0 || next.some((s) => s === '') || next.join('/') === segments.join('/'))
    return undefined
  const url = addressOf(next.join('/') + parts.extension, site.base)
  const holders = site.byAddress.get(collisionKey(url))
  if (collisionKey(url) !== collisionKey(page.url) && holders && holders.size > 0) return undefined
  const above = next.slice(0, -1).join('/') === segments.slice(0, -1).join('/')
  const value = above ? next.at(-1)! : `/${next.join('/')}`
  return { label, edits: [{ target: 'slug', edit: { value } }] }
}
