/** Which of the addresses that are known would be taken in, and why the others would not: before anything is fetched. */
import { decodedPath, queryKey } from '../addresses/addresses.ts'
import { matchesAddress } from '../addresses/match-address.ts'
import type { Robots } from './robots.ts'

/** Why an address is left out. `pattern`: the editor asked for it. */
export type LeftOutBy =
  'no address' | 'another site' | 'outside' | 'robots' | 'not a page' | 'query' | 'pattern' | 'limit'

/** What may be taken of a site. */
export interface Scope {
  /** The site's origin and the path that all of it lies under: `https://www.site.example/en/`. */
  under: string
  /** Patterns of paths that are left out: `/tag/*`. */
  leaveOut: readonly string[]
  /** Pages at most. */
  most: number
  /** Whether an address with a query may be a page. */
  queries: boolean
  robots: Pick<Robots, 'allows'>
}

export interface PlannedAddress {
  url: string
  /** null: it would be taken in. */
  leftOut: LeftOutBy | null
}

/** Extensions of what is served on web sites and is no page. From memory. */
const notPages =
  /\.(?:avif|bmp|css|csv|docx?|epub|exe|flac|gif|gz|ico|ics|jpe?g|js|json|m4[av]|map|mjs|mov|mp[34]|odp|ods|odt|og[agv]|pdf|png|pptx?|rar|rss|svg|tar|tiff?|txt|wav|webm|webmanifest|webp|woff2?|xlsx?|xml|zip)$/i

/** Whether an address may be one of a page, by its name. */
export const mayBePage = (url: string): boolean => !notPages.test(new URL(url).pathname)

/** Why an address is outside of what may be taken, the number of pages aside; null where it is not. */
export function leftOutBy(url: string, { under, leaveOut, queries, robots }: Scope): LeftOutBy | null {
  const { origin, pathname, search } = new URL(url)
  if (origin !== new URL(under).origin) return 'another site'
  if (!url.startsWith(under)) return 'outside'
  if (!mayBePage(url)) return 'not a page'
  if (search !== '' && !queries) return 'query'
  const path = decodedPath(url)
  if (leaveOut.some((pattern) => matchesAddress(pattern, path))) return 'pattern'
  return robots.allows(pathname + search) ? null : 'robots'
}

/** An address as it is asked for: absolute, http or https, without fragment; null for what is none. */
export function pageAddress(written: string, base?: string): string | null {
  let url: URL
  try {
    url = new URL(written.trim(), base)
  } catch {
    return null
  }
  if (url.protocol !== 'https:' && url.protocol !== 'http:') return null
  url.hash = ''
  // "?" alone asks for nothing.
  return url.search === '' ? url.href.replace(/\?$/, '') : url.href
}

/** Addresses in their order, each once, each with the reason why it is left out. */
export function planOf(written: Iterable<string>, scope: Scope): PlannedAddress[] {
  const seen = new Set<string>()
  const plan: PlannedAddress[] = []
  let taken = 0
  for (const one of written) {
    const url = pageAddress(one)
    const key = url === null ? one : queryKey(url)
    if (seen.has(key)) continue
    seen.add(key)
    if (url === null) {
      plan.push({ url: one, leftOut: 'no address' })
      continue
    }
    const leftOut = leftOutBy(url, scope) ?? (taken >= scope.most ? 'limit' : null)
    if (leftOut === null) taken++
    plan.push({ url, leftOut })
  }
  return plan
}
