/** Which part of a page is its main content, and the text of it. */
import { foldLines } from '../../strings.ts'
import type { MainBy } from './facts.ts'
import { countWords } from '../../words/count-words.ts'

/** A stretch of the body's visible text. */
export interface Region {
  from: number
  to: number
}
/** An element that may hold the main content; `prose` is its text outside links, menus and furniture, in characters. */
export interface Container extends Region {
  prose: number
}

/** What the walk found that main content is chosen from; regions in document order. */
export interface Candidates {
  chosen: Region | null
  mains: (Region & { by: 'main' | 'role' })[]
  articles: Region[]
  containers: Container[]
  /** Banner, navigation, asides and footer of the page. */
  excluded: Region[]
  /** Text of the body outside links and furniture. */
  prose: number
}

/** A container is the main content when it holds this share of the page's running text, common practice, no source. */
const DOMINANT = 0.75
/** Pages with less running text than this have no text to find the main content by. */
const FEWEST = 400

/** The parts of `[from, to)` that lie in none of the excluded regions. */
function without(excluded: Region[], from: number, to: number): Region[] {
  const left: Region[] = []
  let at = from
  for (const e of [...excluded].sort((a, b) => a.from - b.from)) {
    if (e.to <= at || e.from >= to) continue
    if (e.from > at) left.push({ from: at, to: e.from })
    at = Math.max(at, e.to)
  }
  if (at < to) left.push({ from: at, to })
  return left
}

/**
 * Main content: what the house says; the first visible main; else the only article; else
 * the smallest element that holds nearly all of the running text; else the body without its furniture.
 */
export function findMain(all: string, found: Candidates): { by: MainBy; regions: Region[] } {
  if (found.chosen) return { by: 'chosen', regions: [found.chosen] }
  const main = [...found.mains].sort((a, b) => a.from - b.from)[0]
  if (main) return { by: main.by, regions: [main] }
  if (found.articles.length === 1) return { by: 'article', regions: found.articles }
  const whole = without(found.excluded, 0, all.length)
  if (found.prose >= FEWEST) {
    let best: Container | null = null
    for (const c of found.containers)
      if (c.prose >= DOMINANT * found.prose && (best === null || c.to - c.from < best.to - best.from))
        best = c
    const length = (list: Region[]) => list.reduce((n, r) => n + r.to - r.from, 0)
    // One that leaves next to nothing out is the body by another name.
    if (best) {
      const regions = without(found.excluded, best.from, best.to)
      if (length(regions) < 0.95 * length(whole)) return { by: 'density', regions }
    }
  }
  return { by: 'body', regions: whole }
}

/** A text of regions with its words counted. */
interface Content {
  text: string
  words: number
}
/** What was read last: a change of a level, a link or a title leaves the text as it is. */
let last: { all: string; regions: Region[]; content: Content } | null = null

/** The text of regions, blocks on lines of their own, and its words. */
export function textOfRegions(all: string, regions: Region[]): Content {
  if (last?.all === all && areSame(last.regions, regions)) return last.content
  const text = foldLines(contentOf(all, regions, all.length))
  const content = { text, words: countWords(text) }
  last = { all, regions, content }
  return content
}

const areSame = (a: Region[], b: Region[]): boolean =>
  a.length === b.length && a.every(({ from, to }, i) => b[i]!.from === from && b[i]!.to === to)

/** The words of regions before a place. */
export const wordsBefore = (all: string, regions: Region[], until: number): number =>
  countWords(contentOf(all, regions, until))

function contentOf(all: string, regions: Region[], until: number): string {
  const parts = regions
    .filter(({ from }) => from < until)
    .map(({ from, to }) => all.slice(from, Math.min(to, until)))
  return parts.length === 1 ? parts[0]! : parts.join('')
}

/** What a house may say of where main content stands: a tag, an id or a class, such as `article`, `#content`, `.copy`. */
export const mainChoicePattern = /^(?:[a-z][a-z0-9-]*|#[^\s#.]+|\.[^\s#.]+)$/i

/** Whether an element is what the house means by main content. */
export function isChosen(choice: string, tag: string, id: string | null, className: string | null): boolean {
  if (choice.startsWith('#')) return id === choice.slice(1)
  if (choice.startsWith('.')) return (className ?? '').split(/\s+/).includes(choice.slice(1))
  return tag === choice.toLowerCase()
}
