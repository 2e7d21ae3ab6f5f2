/** A consultant's sheet: which row speaks of which page, and what it suggests for it. */
import { decodedPath } from '../addresses/addresses.ts'
import type { PageId } from '../site/page-identity.ts'
import { pairsOf } from '../work/again/similarity.ts'
import type { Columns } from './columns.ts'
import type { Sheet } from './sheet.ts'

export interface Suggested {
  title: string
  description: string
  keyword: string
  secondary: string[]
  slug: string
  note: string
}
export interface MatchedRow extends Suggested {
  /** The line of the sheet. */
  row: number
  id: PageId
}
export interface SuggestionsRead {
  matched: MatchedRow[]
  /** Rows whose address is no page's, with the addresses that are the nearest to it. */
  unmatched: { row: number; address: string; near: string[] }[]
  /** Rows that speak of a page that a row before them speaks of, or that two pages could be meant by. */
  twice: { row: number; address: string }[]
}

export interface MatchablePage {
  id: PageId
  path: string
  url: string
}

/** Nearest addresses are looked for this many rows, and this many are named. */
const MOST_UNMATCHED = 200
const NEAREST = 3
const LONGEST = { title: 1000, description: 4000, phrase: 200, slug: 300, note: 2000 }

export function readSuggestions(
  sheet: Sheet,
  columns: Columns,
  pages: Iterable<MatchablePage>,
): SuggestionsRead {
  const all = [...pages]
  const find = finder(all)
  const read: SuggestionsRead = { matched: [], unmatched: [], twice: [] }
  const seen = new Set<PageId>()
  for (const [i, cells] of sheet.rows.entries()) {
    const cell = (role: keyof Columns) => (columns[role] === undefined ? '' : (cells[columns[role]] ?? ''))
    const row = sheet.lines[i]!
    const address = cell('address')
    const matched = find(address)
    if (matched === null) read.unmatched.push({ row, address, near: [] })
    else if (matched === 'several' || seen.has(matched)) read.twice.push({ row, address })
    else {
      seen.add(matched)
      read.matched.push({
        row,
        id: matched,
        title: cell('title').slice(0, LONGEST.title),
        description: cell('description').slice(0, LONGEST.description),
        keyword: cell('keyword').slice(0, LONGEST.phrase),
        secondary: cell('secondary')
          .split(/[;|\n]/)
          .map((p) => p.trim().slice(0, LONGEST.phrase))
          .filter(Boolean)
          .slice(0, 20),
        slug: slugFrom(cell('slug')).slice(0, LONGEST.slug),
        note: cell('note').slice(0, LONGEST.note),
      })
    }
  }
  const near = nearest(all)
  for (const one of read.unmatched.slice(0, MOST_UNMATCHED)) one.near = near(one.address)
  return read
}

/** A whole address or a path suggests its last segment. */
const slugFrom = (cell: string): string =>
  (cell.split(/[?#]/, 1)[0]!.replace(/\/+$/, '').split('/').at(-1) ?? '').replace(/\.(?:html?|xhtml)$/i, '')

/** An address as a suggestion means it: scheme, `www.` and a slash at the end aside; the host too where none is written. */
function meant(written: string): { whole: string; path: string } | null {
  const trimmed = written.trim()
  if (trimmed === '') return null
  const isPath = trimmed.startsWith('/')
  const absolute = isPath
    ? `https://x${trimmed}`
    : /^[a-z][a-z0-9+.-]*:\/\//i.test(trimmed)
      ? trimmed
      : `https://${trimmed}`
  if (!URL.canParse(absolute)) return null
  const url = new URL(absolute)
  const path = decodedPath(url.href).replace(/\/(?:index\.(?:html?|xhtml))?$/i, '') + url.search
  return { whole: isPath ? '' : url.host.replace(/^www\./i, '').toLowerCase() + path, path }
}

function finder(pages: readonly MatchablePage[]): (written: string) => PageId | 'several' | null {
  const byWhole = new Map<string, PageId | 'several'>()
  const byPath = new Map<string, PageId | 'several'>()
  const byFile = new Map<string, PageId>()
  const add = (map: Map<string, PageId | 'several'>, key: string, id: PageId) =>
    map.set(key, map.has(key) && map.get(key) !== id ? 'several' : id)
  for (const { id, path, url } of pages) {
    byFile.set(path, id)
    const keys = meant(url)
    if (!keys) continue
    add(byWhole, keys.whole, id)
    add(byPath, keys.path, id)
  }
  return (written) => {
    const file = byFile.get(written.trim())
    if (file !== undefined) return file
    const keys = meant(written)
    if (!keys) return null
    return (keys.whole === '' ? byPath.get(keys.path) : byWhole.get(keys.whole)) ?? null
  }
}

/** How alike an address must be to be named. */
const LIKE_ENOUGH = 0.3

/** The pages' addresses that are the most alike to one; looked up by the pairs of letters that they share. */
function nearest(pages: readonly MatchablePage[]): (written: string) => string[] {
  const pathOf = (url: string) => meant(url)?.path ?? url
  let known: { totals: number[]; byPair: Map<string, { page: number; count: number }[]> } | null = null
  const index = () => {
    const byPair = new Map<string, { page: number; count: number }[]>()
    const totals = pages.map(({ url }, page) => {
      const { counts, total } = pairsOf(pathOf(url))
      for (const [pair, count] of counts) {
        const entries = byPair.get(pair)
        if (entries) entries.push({ page, count })
        else byPair.set(pair, [{ page, count }])
      }
      return total
    })
    return { totals, byPair }
  }
  return (written) => {
    known ??= index()
    const { totals, byPair } = known
    const pairs = pairsOf(pathOf(written))
    const common = new Float64Array(pages.length)
    for (const [pair, count] of pairs.counts)
      for (const entry of byPair.get(pair) ?? []) common[entry.page]! += Math.min(count, entry.count)
    const alike: { page: number; likeness: number }[] = []
    for (let page = 0; page < pages.length; page++) {
      const likeness = (2 * common[page]!) / (pairs.total + totals[page]!)
      if (likeness > LIKE_ENOUGH) alike.push({ page, likeness })
    }
    return alike
      .sort((a, b) => b.likeness - a.likeness)
      .slice(0, NEAREST)
      .map(({ page }) => pages[page]!.url)
  }
}
