/** What rules about the whole site read: built from the pages' facts and brought up to date page by page. */
import { fold } from '../page/read-page.ts'
import { descriptionOf, isIndexable, titleOf, type PageFacts } from '../page/facts.ts'
import { addressesOf, collisionKey } from './addresses.ts'

export type PageId = string

/** What the index keeps of a page. */
export interface IndexEntry {
  id: PageId
  path: string
  url: string
  title: string | null
  description: string | null
  indexable: boolean
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
  /** Every address at which a page or a file of the site answers. */
  addresses: Set<string>
}

export function entryOf(id: PageId, page: PageFacts): IndexEntry {
  return {
    id,
    path: page.path,
    url: page.url,
    title: titleOf(page)?.text ?? null,
    description: descriptionOf(page)?.content ?? null,
    indexable: isIndexable(page),
  }
}

/** Same to a reader: case and white space folded, NFC. */
export const sameText = (text: string): string => fold(text.normalize('NFC')).toLowerCase()

/** `paths` are all files of the site, pages or not, so that a link to any of them is no broken link. */
export function emptyIndex(base: string, whole: boolean, paths: Iterable<string>): SiteIndex {
  const addresses = new Set<string>()
  for (const path of paths) for (const address of addressesOf(path, base)) addresses.add(address)
  return {
    whole,
    base,
    entries: new Map(),
    byTitle: new Map(),
    byDescription: new Map(),
    byAddress: new Map(),
    addresses,
  }
}

function keysOf(entry: IndexEntry, index: SiteIndex): [Groups, string][] {
  const keys: [Groups, string][] = [[index.byAddress, collisionKey(entry.url)]]
  if (entry.indexable && entry.title) keys.push([index.byTitle, sameText(entry.title)])
  if (entry.indexable && entry.description) keys.push([index.byDescription, sameText(entry.description)])
  return keys
}

/** Puts a page's entry in, in place of the one it had; null takes the page out. Changes the index it is given. */
export function updateIndex(index: SiteIndex, id: PageId, entry: IndexEntry | null): void {
  const before = index.entries.get(id)
  if (before)
    for (const [groups, key] of keysOf(before, index)) {
      const group = groups.get(key)
      group?.delete(id)
      if (group?.size === 0) groups.delete(key)
    }
  index.entries.delete(id)
  if (!entry) return
  index.entries.set(id, entry)
  for (const [groups, key] of keysOf(entry, index)) {
    const group = groups.get(key)
    if (group) group.add(id)
    else groups.set(key, new Set([id]))
  }
}

/** Groups of two pages or more, pages in the order of their paths, groups by their first page. */
export function repeated(groups: Groups, index: SiteIndex): PageId[][] {
  const path = (id: PageId) => index.entries.get(id)!.path
  const order = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0)
  return [...groups.values()]
    .filter((g) => g.size > 1)
    .map((g) => [...g].sort((a, b) => order(path(a), path(b))))
    .sort((a, b) => order(path(a[0]!), path(b[0]!)))
}
