/** Which page of a site as it was is which page now: by its address, by a redirect, by what it says. */
import { collisionKey, queryKey } from '../../addresses/addresses.ts'
import type { PageId } from '../../site/page-identity.ts'
import { evened } from './similarity.ts'

/** What a page is told by when its address is another: its own words. */
export interface PageWords {
  title: string | null
  h1: string | null
  description: string | null
}
export interface OldPage extends PageWords {
  id: PageId
  url: string
  file: string | null
}
export interface NewPage {
  url: string
  file: string | null
  /** Addresses that redirect to it. */
  redirects: readonly string[]
}
export interface MatchedPage {
  id: PageId
  by: 'address' | 'redirect' | 'content'
}

/**
 * Matches for the new pages, by their index; a page that is new has none. `wordsOf` is asked of pages alone whose
 * address says nothing.
 */
export async function matchPages(
  before: readonly OldPage[],
  now: readonly NewPage[],
  wordsOf: (index: number) => Promise<PageWords | null>,
): Promise<Map<number, MatchedPage>> {
  const matches = new Map<number, MatchedPage>()
  const left = new Map(before.map((page) => [page.id, page]))
  const take = (index: number, id: PageId, by: MatchedPage['by']) => {
    matches.set(index, { id, by })
    left.delete(id)
  }
  const byFile = new Map(before.flatMap(({ file, id }) => (file === null ? [] : [[file, id] as const])))
  for (const [i, { file }] of now.entries()) {
    const id = file === null ? undefined : byFile.get(file)
    if (id !== undefined && left.has(id)) take(i, id, 'address')
  }
  const byAddress = (keyOf: (url: string) => string) => {
    const pages = new Map<string, PageId>()
    // Of two pages that share an address, the one whose file is the usual index answers there.
    for (const { url, id, file } of left.values())
      if (!pages.has(keyOf(url)) || /(?:^|\/)index\.html$/i.test(file ?? '')) pages.set(keyOf(url), id)
    const current = only(
      [...now.entries()].filter(([i]) => !matches.has(i)).map(([i, { url }]) => [keyOf(url), i]),
    )
    for (const [key, id] of pages) {
      const index = current.get(key)
      if (index !== undefined) take(index, id, 'address')
    }
  }
  byAddress(queryKey)
  byAddress((url) => collisionKey(url) + (/\?[^#]*/.exec(url)?.[0] ?? ''))
  const old = new Map([...left.values()].map((page) => [queryKey(page.url), page.id]))
  for (const [i, { redirects }] of now.entries()) {
    const id = matches.has(i)
      ? undefined
      : redirects.map((r) => old.get(queryKey(r))).find((r) => r !== undefined)
    if (id !== undefined && left.has(id)) take(i, id, 'redirect')
  }
  if (left.size === 0) return matches
  const words: [number, PageWords][] = []
  for (const i of now.keys()) {
    const said = matches.has(i) ? null : await wordsOf(i)
    if (said) words.push([i, said])
  }
  for (const keyOf of [wholeKey, titleKey, headKey]) {
    const pages = only([...left.values()].flatMap((page) => withKey(keyOf(page), page.id)))
    const current = only(words.flatMap(([i, said]) => (matches.has(i) ? [] : withKey(keyOf(said), i))))
    for (const [key, id] of pages) {
      const index = current.get(key)
      if (index !== undefined) take(index, id, 'content')
    }
  }
  return matches
}

const withKey = <T>(key: string | null, value: T): [string, T][] => (key === null ? [] : [[key, value]])

/** Those whose key is nobody else's. */
function only<T>(entries: readonly (readonly [string, T])[]): Map<string, T> {
  const unique = new Map<string, T>()
  const twice = new Set<string>()
  for (const [key, value] of entries) {
    if (unique.has(key)) twice.add(key)
    unique.set(key, value)
  }
  for (const key of twice) unique.delete(key)
  return unique
}

const wholeKey = ({ title, h1, description }: PageWords): string | null =>
  title && h1 ? [title, h1, description ?? ''].map(evened).join('\n') : null
const titleKey = ({ title, h1 }: PageWords): string | null =>
  title && h1 ? `${evened(title)}\n${evened(h1)}` : null
/** Two of three are the same: a title that was put right is no other page. */
const headKey = ({ h1, description }: PageWords): string | null =>
  h1 && description ? `${evened(h1)}\n${evened(description)}` : null
