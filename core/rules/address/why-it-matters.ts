import { addressKey } from '../../addresses/addresses.ts'
import type { PageCheck } from '../rule.ts'

/** What says that a page should be found, as it stands behind "the page …"; null where nothing does. */
export function whyItMatters({ page, site, keywords }: PageCheck): string | null {
  if (keywords?.primary) return 'has a primary keyword'
  const home = site.entries.get(site.addresses.get(site.base) ?? '')
  const id = site.addresses.get(addressKey(page.url))
  const isLinked = id !== undefined && home?.targets.includes(id) === true && page.url !== site.base
  return isLinked ? 'is linked from the home page' : null
}
