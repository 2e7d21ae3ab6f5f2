/** What the site's index keeps of a page's things: enough for who points to whom, and for what two pages say of one. */
import type { PageFacts } from '../page/read/facts.ts'
import {
  schemaTypes,
  textOf,
  thingsUnder,
  valueText,
  type PageData,
  type Property,
  type Thing,
} from './page-data.ts'
import { dataOf } from './read.ts'
import { isA } from './vocabulary.ts'

export interface SiteThing {
  id: string | null
  types: string[]
  name: string | null
  /** What it says of itself that cannot be said in two ways: by property, as it is compared. */
  says: Record<string, string>
}
/** From one of the page's things, by its place in the list, to another or to an id. */
export interface SiteLink {
  from: number
  property: string
  to: number | string
}
export interface PageThings {
  things: SiteThing[]
  links: SiteLink[]
}

/** Of one page at most: a list of a thousand products is no map of the site. */
const MOST = 60
const identity = new Set([
  'name',
  'legalName',
  'url',
  'logo',
  'telephone',
  'email',
  'address',
  'foundingDate',
  'vatID',
])

const digits = (text: string) => text.replace(/[^\d+]/g, '')
const asCompared: Record<string, (text: string) => string> = {
  telephone: digits,
  url: (t) => t.replace(/^https?:/i, '').replace(/\/$/, ''),
  email: (t) => t.toLowerCase().replace(/^mailto:/, ''),
}
const plain = (text: string) => text.normalize('NFC').replace(/\s+/g, ' ').trim().slice(0, 160)
/** A value as two pages' are compared. */
export const compared = (property: string, text: string): string =>
  (asCompared[property] ?? ((t) => t.toLowerCase()))(plain(text))

const organisations = new Map<string, boolean>()
/** Whether a thing is an organisation; asked of every thing of every page. */
const isOrganisation = (thing: Thing): boolean =>
  thing.types.some(({ name }) => {
    let is = organisations.get(name)
    if (is === undefined) organisations.set(name, (is = isA(name, 'Organization')))
    return is
  })

/** What a thing says under a property, as text: an address by its parts, a picture by where it stands. */
function said(thing: Thing, { name: property, values: value }: Property, data: PageData): string | null {
  if (value.length !== 1) return null
  const [v] = value
  if (v!.kind === 'literal') return v!.iri ?? String(v!.value)
  const [inner] = thingsUnder(thing, property, data)
  if (!inner) return null
  if (property === 'address')
    return (
      ['streetAddress', 'addressLocality', 'postalCode', 'addressCountry']
        .map((p) => textOf(inner, p, data))
        .filter(Boolean)
        .join(', ') || null
    )
  return textOf(inner, 'url', data) ?? textOf(inner, 'contentUrl', data) ?? valueText(v!, data)
}

function saysOf(thing: Thing, data: PageData): Record<string, string> {
  const says: Record<string, string> = {}
  for (const property of thing.properties) {
    if (property.reverse || !identity.has(property.name)) continue
    const text = said(thing, property, data)
    if (text !== null) says[property.name] = plain(text)
  }
  return says
}

/** A page's things as the site's index keeps them; null where its data describes nothing. */
export function siteThings(page: PageFacts): PageThings | null {
  if (page.data.length === 0) return null
  const data = dataOf(page)
  const kept = data.things
    .filter((t) => t.id !== null || t.within === null || isOrganisation(t))
    .slice(0, MOST)
  if (kept.length === 0) return null
  const place = new Map(kept.map((t, i) => [t, i]))
  const links: SiteLink[] = []
  /** Everything under a kept thing that leads to another kept one, or to an id. */
  const follow = (thing: Thing, from: number, depth: number) => {
    for (const { name, values } of thing.properties)
      for (const v of values) {
        if (v.kind === 'reference') links.push({ from, property: name, to: v.id })
        else if (v.kind === 'thing') {
          const to = place.get(v.thing)
          if (to !== undefined) links.push({ from, property: name, to })
          else if (depth < 6) follow(v.thing, from, depth + 1)
        }
      }
  }
  kept.forEach((thing, i) => follow(thing, i, 0))
  return {
    things: kept.map((thing) => ({
      id: thing.id,
      types: schemaTypes(thing),
      name: textOf(thing, 'name', data) ?? textOf(thing, 'headline', data),
      says: saysOf(thing, data),
    })),
    links: links.slice(0, MOST * 4),
  }
}

/** A page's pointers that lead nowhere: into itself, or, where all of the site is known, into the site. */
export function danglingLinks(
  { things, links }: PageThings,
  url: string,
  isDefined: (id: string) => boolean,
  site: { base: string; whole: boolean; isAddress(url: string): boolean },
): SiteLink[] {
  const defined = new Set(
    things.flatMap((t) => (t.id === null || (t.types.length === 0 && t.name === null) ? [] : [t.id])),
  )
  return links.filter(({ to }) => {
    if (typeof to !== 'string' || defined.has(to) || isDefined(to)) return false
    if (to.startsWith('_:')) return true
    const [address, fragment] = to.split('#')
    if (address === url.split('#')[0]) return fragment !== undefined && fragment !== ''
    if (!site.whole || !to.startsWith(site.base)) return false
    // A page's own address names that page, whether its data says so or not.
    return fragment !== undefined ? true : !site.isAddress(to)
  })
}
