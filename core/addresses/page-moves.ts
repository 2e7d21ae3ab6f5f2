/** How an address as it is written follows a page that moved: what was absolute stays so, what was relative too. */
import { addressKey, resolveAddress, withoutQuery } from './addresses.ts'

/** What one page needs to know of the moves: its own old and new address, and every address that changed. */
export interface PageMoves {
  from: string
  to: string
  addresses: ReadonlyMap<string, string>
}

/** The base that relative addresses of a page resolve against, before and after it moved. */
export function basesOf(baseHref: string | null, { from, to }: PageMoves): { before: string; after: string } {
  const against = (url: string) => (baseHref === null ? url : (resolveAddress(baseHref, url) ?? url))
  return { before: against(from), after: against(to) }
}

/** A relative reference from one address to another on the same host, as short as it can be. */
export function relativeTo(from: string, to: string): string {
  const [a, b] = [new URL(from), new URL(to)]
  const here = a.pathname.split('/').slice(0, -1)
  const there = b.pathname.split('/')
  let shared = 0
  while (shared < here.length && shared < there.length - 1 && here[shared] === there[shared]) shared++
  const path = '../'.repeat(here.length - shared) + there.slice(shared).join('/')
  // A first segment with a colon would be read for a scheme.
  return path === '' ? './' : /^[^/]*:/.test(path) ? `./${path}` : path
}

/** An address as it must be written now; null where it can stay as it is. */
export function addressAfterMoves(
  written: string,
  bases: { before: string; after: string },
  pageMoves: PageMoves,
): string | null {
  const href = written.trim()
  if (href === '' || href.startsWith('#')) return null
  if (/^[a-z][a-z0-9+.-]*:/i.test(href) && !/^https?:/i.test(href)) return null
  const old = resolveAddress(href, bases.before)
  if (old === null) return null
  const address = withoutQuery(old)
  const rest = old.slice(address.length)
  const target = (pageMoves.addresses.get(addressKey(old)) ?? address) + rest
  if (resolveAddress(href, bases.after) === target) return null
  if (/^https?:/i.test(href)) return target
  if (href.startsWith('//')) return target.replace(/^https?:/, '')
  const { origin, pathname } = new URL(target)
  if (origin !== new URL(bases.after).origin) return target
  return (href.startsWith('/') ? pathname : relativeTo(bases.after, withoutQuery(target))) + rest
}

/** A stretch of a text and what stands there from now on; places are UTF-16 units. */
export interface Replacement {
  start: number
  end: number
  text: string
}

/** Addresses in a style sheet's `url(…)` and `@import` that must be written anew, in order. */
export function cssAddresses(
  css: string,
  bases: { before: string; after: string },
  pageMoves: PageMoves,
): Replacement[] {
  const replacements: Replacement[] = []
  for (const m of css.matchAll(/(url\(\s*["']?|@import\s+["'])([^"'()\s]+)/gi)) {
    const now = addressAfterMoves(m[2]!, bases, pageMoves)
    const start = m.index + m[1]!.length
    if (now !== null) replacements.push({ start, end: start + m[2]!.length, text: now })
  }
  return replacements
}

/** Addresses in a sitemap or a feed that must be written anew, in order. */
export function xmlAddresses(xml: string, pageMoves: PageMoves): Replacement[] {
  const replacements: Replacement[] = []
  for (const m of xml.matchAll(/(?<=[>"'\s])https?:\/\/[^<"'\s]+/gi)) {
    const now = pageMoves.addresses.get(addressKey(m[0].replace(/&amp;/g, '&')))
    if (now !== undefined)
      replacements.push({ start: m.index, end: m.index + m[0].length, text: now.replace(/&/g, '&amp;') })
  }
  return replacements
}
