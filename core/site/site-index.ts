/** What rules about the whole site read: built from the pages' facts and brought up to date page by page. */
import type { PageId, PageIdentity } from './page-identity.ts'
import { noFileSizes, type FileSizes } from './file-sizes.ts'
import type { Keyword } from '../words/match.ts'
import { fold, withoutLastPart } from '../strings.ts'
import { descriptionOf, outlineOf, titleOf, whyNotIndexable, type PageFacts } from '../page/read/facts.ts'
import { dataOf } from '../structured-data/read.ts'
import { stringsIn } from '../json/json.ts'
import { compared, siteThings, type PageThings } from '../structured-data/site-things.ts'
import { isA } from '../structured-data/vocabulary.ts'
import { addressBook, addressKey, collisionKey, queryKey, resolveAddress } from '../addresses/addresses.ts'

/** What the index keeps of a page. */
export interface IndexEntry {
  id: PageId
  /** What it is called: its file, or its address where it has none. */
  path: string
  url: string
  title: string | null
  description: string | null
  indexable: boolean
  /** Why it is not, as it stands behind "which"; null where it is. */
  unindexed: string | null
  /** The first H1 with text. */
  h1: string | null
  /** Pages and files of the site that it refers to: by links, images, canonical, alternates and structured data. */
  targets: PageId[]
  /** How many of them, from the first, it refers to by links in its content, and how many by any links. */
  inText: number
  linked: number
  /** Addresses that it links to and that redirect, as they are compared. */
  redirected: string[]
  /** The primary keyword in the page's language, as its word forms fold; null where none is assigned. */
  keyword: string | null
  /** The primary keyword as it was assigned. */
  phrase?: string | null
  /** What its data describes, as far as other pages have to do with it; null where it describes nothing. */
  things: PageThings | null
}

type Groups = Map<string, Set<PageId>>

export interface SiteIndex {
  /** Whether all of the site was taken in; else rules that need all of it keep quiet. */
  whole: boolean
  base: string
  entries: Map<PageId, IndexEntry>
  byTitle: Groups
  byDescription: Groups
  byAddress: Groups
  /** Pages by their primary keyword, word forms folded. */
  byKeyword: Groups
  /** Pages by what their data describes: `id` and an `@id`; `name` and `url` of organisations, as they are compared. */
  byThing: Groups
  withThings: Set<PageId>
  /** Counts the changes of what pages describe. */
  thingChanges: number
  /** How many other pages link to a page; a page to which none does is not in it. */
  inbound: Map<PageId, number>
  /** Titles by what they would be with their digits, or with one word, left open. */
  byNearTitle: Groups
  /** Counts the changes of groups of near titles: what was found in them holds while it stands still. */
  nearChanges: number
  /** Every address at which a page or a file of the site answers, and which that is. */
  addresses: Map<string, PageId>
  /** Addresses with a query that are pages of their own. */
  queries: Map<string, PageId>
  /** Addresses that answered with a redirect, and the page that they lead to. */
  redirects: Map<string, PageId>
  /** Addresses that are of the site and no pages, as they are compared. */
  files: ReadonlySet<string>
  /** Pages by the addresses that they link to and that redirect. */
  throughRedirect: Groups
  /** Addresses that the site's sitemap lists, as they are compared; null where none was taken in. */
  sitemap: ReadonlySet<string> | null
  /** Whether mentions of other pages’ keywords without a link are marked, which compares every page with every keyword. */
  marksMentions: boolean
  /** Of the files that are no pages. */
  sizes: FileSizes
}

/** The page or file at an address of the site, though a redirect lead there; undefined where there is none. */
export function idAt(
  index: Pick<SiteIndex, 'addresses' | 'queries' | 'redirects' | 'files'>,
  url: string,
): PageId | undefined {
  const key = addressKey(url)
  const { addresses, queries, redirects, files } = index
  if (queries.size + redirects.size + files.size === 0) return addresses.get(key)
  const whole = queryKey(url)
  return (
    queries.get(whole) ??
    redirects.get(whole) ??
    addresses.get(key) ??
    redirects.get(key) ??
    (files.has(whole) ? whole : undefined)
  )
}

/** What of the site a page refers to, each once, those it links to in its content first, then by other links; and how many those are. */
export function targetsOf(
  page: PageFacts,
  index: SiteIndex,
): Pick<IndexEntry, 'targets' | 'inText' | 'linked' | 'redirected'> {
  const redirected = new Set<string>()
  const idOf = (url: string | null): PageId | undefined =>
    url === null || !addressKey(url).startsWith(index.base) ? undefined : idAt(index, url)
  const targets = new Set<PageId>()
  const add = (url: string | null) => {
    const id = idOf(url)
    if (id !== undefined) targets.add(id)
  }
  const outsideText: PageId[] = []
  for (const { url, landmark } of page.links) {
    if (index.redirects.size > 0 && url !== null && index.redirects.has(queryKey(url)))
      redirected.add(queryKey(url))
    if (landmark === null || landmark === 'main') add(url)
    else {
      const id = idOf(url)
      if (id !== undefined) outsideText.push(id)
    }
  }
  const inText = targets.size
  for (const id of outsideText) targets.add(id)
  const linked = targets.size
  for (const list of [page.canonicals, page.alternates]) for (const { url } of list) add(url)
  // Images resolve as links do; only what may be of the site is worth resolving.
  const images = page.images.filter((m) => m.src !== '' && !/^(?:data|blob|mailto):/i.test(m.src))
  if (images.length > 0) {
    const from = resolveAddress(page.base ?? '', page.url) ?? page.url
    for (const { src } of images) add(resolveAddress(src, from))
  }
  if (page.data.length > 0)
    for (const { json } of dataOf(page).blocks) if (json) for (const { value } of stringsIn(json)) add(value)
  return { targets: [...targets], inText, linked, redirected: [...redirected] }
}

/** A keyword under which pages meet that are after the same one: its stems, in any order. */
export const keywordKey = (keyword: Keyword | null): string | null =>
  keyword && keyword.stems.length > 0 ? [...keyword.stems].sort().join(' ') : null

export function entryOf(
  id: PageId,
  page: PageFacts,
  index: SiteIndex,
  keyword: Keyword | null = null,
): IndexEntry {
  const unindexed = whyNotIndexable(page)
  return {
    id,
    path: page.path,
    url: page.url,
    title: titleOf(page)?.text ?? null,
    description: descriptionOf(page)?.content ?? null,
    indexable: unindexed === null,
    unindexed,
    h1: outlineOf(page).find((h) => h.level === 1 && h.text)?.text ?? null,
    ...targetsOf(page, index),
    keyword: keywordKey(keyword),
    phrase: keyword?.text ?? null,
    things: siteThings(page),
  }
}

/** What is known of a page before it is read: where it is. */
export const addressOnly = (id: PageId, path: string, url: string): IndexEntry => ({
  id,
  path,
  url,
  title: null,
  description: null,
  indexable: false,
  unindexed: null,
  h1: null,
  targets: [],
  inText: 0,
  linked: 0,
  redirected: [],
  keyword: null,
  things: null,
})

/** Titles of more words than this are looked at no closer: nobody writes them, and each word would be left out in turn. */
const MOST_NEAR_WORDS = 40

/** Begin the keys of a whole own part and of one with a word left out: they meet where one title has a word more. */
export const WHOLE = 'w '
export const LESS_A_WORD = 'l '
/** The key that a key of the one kind meets; null for the others, which meet themselves alone. */
const counterpart = (key: string): string | null =>
  key.startsWith(WHOLE)
    ? LESS_A_WORD + key.slice(WHOLE.length)
    : key.startsWith(LESS_A_WORD)
      ? WHOLE + key.slice(LESS_A_WORD.length)
      : null
/** Whether a change of this key's group changes which titles meet. */
const meets = (groups: Groups, key: string, group: Set<PageId>): boolean => {
  const other = counterpart(key)
  return other === null ? group.size > 1 : groups.has(other)
}

/**
 * Keys under which titles meet that differ in digits or in one word alone: another word in its place, or one more.
 * Titles of fewer than three words have no word to spare.
 */
function nearKeys(title: string): string[] {
  const plainTitle = sameText(withoutLastPart(title))
  const words = plainTitle.split(' ')
  if (words.length > MOST_NEAR_WORDS) return []
  const keys = /\d/.test(plainTitle) ? [`# ${plainTitle.replace(/\d+/g, '#')}`] : []
  if (words.length >= 2) keys.push(WHOLE + plainTitle)
  if (words.length >= 3)
    words.forEach((_, i) => {
      const [before, after] = [words.slice(0, i), words.slice(i + 1)]
      keys.push(`${i} ${[...before, '*', ...after].join(' ')}`, LESS_A_WORD + [...before, ...after].join(' '))
    })
  return keys
}

/** Same to a reader: case and white space folded, NFC. */
export const sameText = (text: string): string => fold(text.normalize('NFC')).toLowerCase()

/** What is known of a site beside its files. */
export interface Beside {
  pages?: Iterable<PageIdentity>
  /** Addresses that its sitemap lists. */
  sitemap?: Iterable<string> | null
  /** Addresses that are of the site and no pages; each is its own id. */
  files?: Iterable<string>
  /** Whether mentions without a link are marked. */
  marksMentions?: boolean
  sizes?: FileSizes
}

/**
 * `files` are all files of the site, pages or not, so that a link to any of them is no broken link; `pages` those that
 * may have been fetched.
 */
export function emptyIndex(
  base: string,
  whole: boolean,
  files: Iterable<readonly [PageId, string]>,
  {
    pages = [],
    sitemap = null,
    files: noPages = [],
    marksMentions = false,
    sizes = noFileSizes,
  }: Beside = {},
): SiteIndex {
  const queries = new Map<string, PageId>()
  const redirects = new Map<string, PageId>()
  for (const { id, url, served } of pages) {
    if (url.includes('?')) queries.set(queryKey(url), id)
    for (const redirect of served?.redirects ?? []) redirects.set(queryKey(redirect.url), id)
  }
  return {
    whole,
    base,
    entries: new Map(),
    byTitle: new Map(),
    byDescription: new Map(),
    byAddress: new Map(),
    byKeyword: new Map(),
    byThing: new Map(),
    withThings: new Set(),
    thingChanges: 0,
    inbound: new Map(),
    byNearTitle: new Map(),
    nearChanges: 0,
    addresses: addressBook(base, files),
    queries,
    redirects,
    files: new Set([...noPages].map(queryKey)),
    throughRedirect: new Map(),
    sitemap: sitemap && new Set([...sitemap].map(queryKey)),
    marksMentions,
    sizes,
  }
}

function keysOf(entry: IndexEntry, index: SiteIndex): [Groups, string][] {
  const keys: [Groups, string][] = [[index.byAddress, collisionKey(entry.url)]]
  if (entry.keyword !== null) keys.push([index.byKeyword, entry.keyword])
  for (const address of entry.redirected) keys.push([index.throughRedirect, address])
  if (entry.indexable && entry.title) {
    keys.push([index.byTitle, sameText(entry.title)])
    for (const key of nearKeys(entry.title)) keys.push([index.byNearTitle, key])
  }
  if (entry.indexable && entry.description) keys.push([index.byDescription, sameText(entry.description)])
  for (const { id, types, says } of entry.things?.things ?? []) {
    if (id !== null && (types.length > 0 || Object.keys(says).length > 0))
      keys.push([index.byThing, `id ${id}`])
    if (types.some((t) => isA(t, 'Organization')))
      for (const by of ['name', 'url'])
        if (says[by]) keys.push([index.byThing, `${by} ${compared(by, says[by])}`])
  }
  return keys
}

function count(counts: Map<PageId, number>, id: PageId, by: number): void {
  const now = (counts.get(id) ?? 0) + by
  if (now > 0) counts.set(id, now)
  else counts.delete(id)
}

const sameThings = (a: PageThings | null, b: PageThings | null): boolean =>
  a === null || b === null ? a === b : JSON.stringify(a) === JSON.stringify(b)

/** Puts a page's entry in, in place of the one it had; null takes the page out. Changes the index it is given. */
export function updateIndex(index: SiteIndex, id: PageId, entry: IndexEntry | null): void {
  const before = index.entries.get(id)
  if (!sameThings(before?.things ?? null, entry?.things ?? null)) index.thingChanges++
  if (entry?.things) index.withThings.add(id)
  else index.withThings.delete(id)
  if (before)
    for (const [groups, key] of keysOf(before, index)) {
      const group = groups.get(key)
      if (groups === index.byNearTitle && group && meets(groups, key, group)) index.nearChanges++
      group?.delete(id)
      if (group?.size === 0) groups.delete(key)
    }
  const links = (of: IndexEntry | null | undefined) => of?.targets.slice(0, of.linked) ?? []
  for (const to of links(before)) if (to !== id) count(index.inbound, to, -1)
  for (const to of links(entry)) if (to !== id) count(index.inbound, to, 1)
  index.entries.delete(id)
  if (!entry) return
  index.entries.set(id, entry)
  for (const [groups, key] of keysOf(entry, index)) {
    const group = groups.get(key)
    const now = group ? group.add(id) : new Set([id])
    if (!group) groups.set(key, now)
    if (groups === index.byNearTitle && meets(groups, key, now)) index.nearChanges++
  }
}

/** Pages in the order of their paths, whatever the order in which they came. */
export function inOrder(ids: Iterable<PageId>, { entries }: SiteIndex): PageId[] {
  const pathAt = (id: PageId) => entries.get(id)?.path ?? ''
  return [...ids].sort((a, b) => (pathAt(a) < pathAt(b) ? -1 : pathAt(a) > pathAt(b) ? 1 : 0))
}

/** Groups of two pages or more, pages in the order of their paths, groups by their first page. */
export function repeated(groups: Groups, index: SiteIndex): PageId[][] {
  const pathAt = (id: PageId) => index.entries.get(id)!.path
  const order = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0)
  return [...groups.values()]
    .filter((group) => group.size > 1)
    .map((group) => inOrder(group, index))
    .sort((a, b) => order(pathAt(a[0]!), pathAt(b[0]!)))
}
