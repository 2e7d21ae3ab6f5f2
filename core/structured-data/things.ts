/** The things that a page's structured data describes, as far as a search result shows them. */
import type { PageFacts } from '../page/read/facts.ts'
import { member, parseJson, typesOf, type JsonValue } from '../json/json.ts'

type ObjectValue = Extract<JsonValue, { kind: 'object' }>

const cache = new WeakMap<PageFacts, ObjectValue[]>()

/** All objects of a page's blocks, outer ones before those within them; blocks that are no JSON are passed over. */
export function thingsOf(page: PageFacts): ObjectValue[] {
  const known = cache.get(page)
  if (known) return known
  const objects: ObjectValue[] = []
  const queue: JsonValue[] = []
  // Not by `dataOf`: windows import this for a page's tokens, and that would bring the whole vocabulary along.
  for (const { json } of page.data) {
    const read = parseJson(json)
    if (read.ok) queue.push(read.value)
  }
  for (let i = 0; i < queue.length; i++) {
    const value = queue[i]!
    if (value.kind === 'array') for (const item of value.items) queue.push(item)
    else if (value.kind === 'object') {
      objects.push(value)
      for (const m of value.members) queue.push(m.value)
    }
  }
  cache.set(page, objects)
  return objects
}

/** Types of a page's things, each once, outer ones first, without the address of the vocabulary. */
export const typesDescribed = (page: PageFacts): string[] => [
  ...new Set(
    thingsOf(page)
      .flatMap(typesOf)
      .map((type) => type.replace(/^https?:\/\/schema\.org\//, '')),
  ),
]

/** A value as text: a string, a number, or the name of a thing, the first of several. */
function textOf(value: JsonValue | undefined): string | null {
  if (!value) return null
  if (value.kind === 'string') return value.value.trim() || null
  if (value.kind === 'number') return String(value.value)
  if (value.kind === 'array') return textOf(value.items[0])
  return value.kind === 'object' ? textOf(member(value, 'name')) : null
}
const first = (page: PageFacts, keys: string[]): string | null => {
  for (const key of keys)
    for (const thing of thingsOf(page)) {
      const text = textOf(member(thing, key))
      if (text) return text
    }
  return null
}

/** What results set beside a snippet, as far as the page's own data has it. */
export interface Furniture {
  /** ISO 8601, as written. */
  date: string | null
  rating: { value: string; best: string; count: string | null } | null
  /** The amount as written, and its ISO 4217 code where one is given. */
  price: { amount: string; currency: string | null } | null
  /** Names of the breadcrumb, in order. */
  trail: string[] | null
  author: string | null
}

export function furnitureOf(page: PageFacts): Furniture {
  const things = thingsOf(page)
  const rated = things.find((t) => member(t, 'ratingValue') && !typesOf(t).includes('Review'))
  const priced = things.find((t) => member(t, 'price') ?? member(t, 'lowPrice'))
  const crumbs = things.find((t) => member(t, 'itemListElement') && typesOf(t).includes('BreadcrumbList'))
  const value = rated && textOf(member(rated, 'ratingValue'))
  const amount = priced && textOf(member(priced, 'price') ?? member(priced, 'lowPrice'))
  return {
    date: first(page, ['datePublished', 'dateModified', 'startDate', 'uploadDate', 'datePosted']),
    rating: value
      ? {
          value,
          best: textOf(member(rated, 'bestRating')) ?? '5',
          count: textOf(member(rated, 'ratingCount') ?? member(rated, 'reviewCount')),
        }
      : null,
    price: amount ? { amount, currency: textOf(member(priced, 'priceCurrency')) } : null,
    trail: crumbs ? trailOf(crumbs) : null,
    author: first(page, ['author']) ?? page.metas.find((m) => m.name === 'author')?.content ?? null,
  }
}

function trailOf(crumbs: ObjectValue): string[] | null {
  const list = member(crumbs, 'itemListElement')
  if (list?.kind !== 'array') return null
  const items = list.items.filter((i): i is ObjectValue => i.kind === 'object')
  const position = (i: ObjectValue) => Number(textOf(member(i, 'position')) ?? 0)
  const names = items
    .sort((a, b) => position(a) - position(b))
    .map((i) => textOf(member(i, 'name')) ?? textOf(member(i, 'item')))
    .filter((n): n is string => n !== null)
  return names.length > 0 ? names : null
}

/** The year in which the page says it was published; null where it does not. */
export function publishedYear(page: PageFacts): string | null {
  const said =
    first(page, ['datePublished', 'uploadDate']) ??
    page.metas.find((m) => /^(?:article:published_time|dc\.date|date)$/.test(m.name))?.content
  return /^\d{4}/.exec(said ?? '')?.[0] ?? null
}
