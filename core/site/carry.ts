/** How an address as it is written follows a page that moved: what was absolute stays so, what was relative too. */
import { resolveAddress, withoutQuery } from './addresses.ts'

/** What one page needs to know of the moves: its own old and new address, and every address that changed. */
export interface Carry {
  from: string
  to: string
  addresses: ReadonlyMap<string, string>
}

/** The base that relative addresses of a page resolve against, before and after it moved. */
export function basesOf(baseHref: string | null, { from, to }: Carry): { before: string; after: string } {
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
export function carried(
  written: string,
  bases: { before: string; after: string },
  carry: Carry,
): string | null {
  const href = written.trim()
  if (href === '' || href.startsWith('#')) return null
  if (/^[a-z][a-z0-9+.-]*:/i.test(href) && !/^https?:/i.test(href)) return null
  const old = resolveAddress(href, bases.before)
  if (old === null) return null
  const address = withoutQuery(old)
  const rest = old.slice(address.length)
  const target = (carry.addresses.get(address) ?? address) + rest
  if (resolveAddress(href, bases.after) === target) return null
  if (/^https?:/i.test(href)) return target
  if (href.startsWith('//')) return target.replace(/^https?:/, '')
  const { origin, pathname } = new URL(target)
  if (origin !== new URL(bases.after).origin) return target
  return (href.startsWith('/') ? pathname : relativeTo(bases.after, withoutQuery(target))) + rest
}

/** Addresses in a style sheet's `url(…)` and `@import`, as they must be written now; the same text where none changed. */
export function carryCss(css: string, bases: { before: string; after: string }, carry: Carry): string {
  return css.replace(
    /(url\(\s*(["']?)|@import\s+(["']))([^"'()\s]+)/gi,
    (all: string, lead: string, _q: string, _i: string, href: string) => {
      const now = carried(href, bases, carry)
      return now === null ? all : lead + now
    },
  )
}

/** Addresses in a sitemap or a feed, as they must be written now. */
export function carryXml(xml: string, carry: Carry): string {
  return xml.replace(
    /(>\s*|href=["'])(https?:\/\/[^<"'\s]+)/gi,
    (all: string, lead: string, href: string) => {
      const now = carry.addresses.get(href.replace(/&amp;/g, '&'))
      return now === undefined ? all : lead + now.replace(/&/g, '&amp;')
    },
  )
}
