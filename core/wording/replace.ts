/** Finding and replacing in a short text: as it stands, as whole words, or with gaps in what is looked for. */
import { wordsOf } from '../words/stem.ts'

export interface Replacing {
  find: string
  /** What stands there instead. In a pattern each `*` and `#` puts back, in order, what the same sign of `find` took. */
  with: string
  /** A pattern: `*` takes any text, as little as will do, and `#` a number. */
  how: 'plain' | 'whole words' | 'pattern'
  matchCase: boolean
}
interface Found {
  start: number
  end: number
  /** What the gaps took, in order; none but in a pattern. */
  gaps: { sign: '*' | '#'; text: string }[]
}

/** All that is found, one behind the other, places in UTF-16 units. */
function find(text: string, { find: wanted, how, matchCase }: Replacing): Found[] {
  if (wanted === '') return []
  // A letter whose small form is longer would shift all places: then letters are compared as they stand.
  const lower = text.toLowerCase()
  const isFolded = !matchCase && lower.length === text.length
  const fold = (t: string) => (isFolded ? t.toLowerCase() : t)
  const where = isFolded ? lower : text
  if (how === 'pattern') return findPattern(text, where, wanted, fold)
  const needle = fold(wanted)
  const places: Found[] = []
  const edges = how === 'whole words' ? wordEdges(text) : null
  for (let at = where.indexOf(needle); at >= 0;) {
    const end = at + needle.length
    const isWhole = edges === null || (!edges.has(at) && !edges.has(end))
    if (isWhole) places.push({ start: at, end, gaps: [] })
    at = where.indexOf(needle, isWhole ? end : at + 1)
  }
  return places
}

/** Places within words: before a whole word begins and where it ends there is none. */
function wordEdges(text: string): Set<number> {
  const within = new Set<number>()
  for (const { start, end } of wordsOf(text)) for (let i = start + 1; i < end; i++) within.add(i)
  return within
}

type Part = { literal: string } | { gap: '*' | '#' }
function partsOf(pattern: string, fold: (t: string) => string): Part[] {
  return pattern
    .split(/([*#])/)
    .filter((part) => part !== '')
    .map((part) => (part === '*' || part === '#' ? { gap: part } : { literal: fold(part) }))
}

function findPattern(text: string, where: string, pattern: string, fold: (t: string) => string): Found[] {
  const parts = partsOf(pattern, fold)
  const places: Found[] = []
  let from = 0
  while (from <= text.length) {
    const match = matchFrom(text, where, parts, from)
    if (!match) break
    places.push(match)
    if (match.end === text.length) break
    from = Math.max(match.end, match.start + 1)
  }
  return places
}

const DIGITS = /\d+(?:[.,]\d+)*/y

/** The first match at or behind `from`: gaps take as little as will do, one at the pattern's end all that is left. */
function matchFrom(text: string, where: string, parts: readonly Part[], from: number): Found | null {
  const [first] = parts
  for (let start = from; start <= text.length; start++) {
    if (first && 'literal' in first) {
      start = where.indexOf(first.literal, start)
      if (start < 0) return null
    }
    const match = matchAt(text, where, parts, start)
    if (match === 'never') return null
    if (match) return match
  }
  return null
}

function matchAt(text: string, where: string, parts: readonly Part[], start: number): Found | 'never' | null {
  let at = start
  const gaps: Found['gaps'] = []
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i]!
    if ('literal' in part) {
      if (!where.startsWith(part.literal, at)) return null
      at += part.literal.length
    } else if (part.gap === '#') {
      const number = numberAt(text, at)
      if (number === '') return null
      gaps.push({ sign: '#', text: number })
      at += number.length
    } else {
      const end = endOfGap(text, where, parts[i + 1], at)
      // What does not come behind here comes behind no later place either.
      if (end < 0) return 'never'
      gaps.push({ sign: '*', text: text.slice(at, end) })
      at = end
    }
  }
  return at > start ? { start, end: at, gaps } : null
}

function numberAt(text: string, at: number): string {
  DIGITS.lastIndex = at
  return DIGITS.exec(text)?.[0] ?? ''
}

/** Where a `*` ends: before what comes next in the pattern; −1 where that does not come. */
function endOfGap(text: string, where: string, next: Part | undefined, at: number): number {
  if (!next) return text.length
  if ('literal' in next) return where.indexOf(next.literal, at)
  if (next.gap === '*') return at
  const number = /\d/.exec(text.slice(at))
  return number ? at + number.index : -1
}

/** A text with all that is found replaced, a capital by a capital unless capitals count; the text itself where nothing is found. */
export function replaceIn(text: string, replacing: Replacing): string {
  const places = find(text, replacing)
  if (places.length === 0) return text
  let out = ''
  let at = 0
  for (const { start, end, gaps } of places) {
    const put = filled(replacing, gaps)
    // Where capitals do not count, what begins with one is replaced by what does.
    const isCapital = !replacing.matchCase && /^\p{Lu}/u.test(text.slice(start, end))
    out += text.slice(at, start) + (isCapital ? capital(put) : put)
    at = end
  }
  return out + text.slice(at)
}

const capital = (text: string) => text.replace(/^\p{Ll}/u, (letter) => letter.toUpperCase())

function filled({ with: replacement, how }: Replacing, gaps: Found['gaps']): string {
  if (how !== 'pattern') return replacement
  const left = { '*': gaps.filter((g) => g.sign === '*'), '#': gaps.filter((g) => g.sign === '#') }
  return replacement.replace(/[*#]/g, (sign) => left[sign as '*' | '#'].shift()?.text ?? sign)
}
