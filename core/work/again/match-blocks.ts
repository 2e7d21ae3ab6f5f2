/**
 * Which block of text as it was is which as it is now. Texts that occur once are anchors; what lies between anchors is
 * matched by equal neighbours, by order, then by likeness. A match says where a block is, not that it is unchanged.
 */
import { alike, evened, pairsOf, type Pairs } from './similarity.ts'

export interface Line {
  tag: string
  text: string
}
/** `sure` false: offered to an editor, never taken by itself. */
export interface Match {
  to: number
  sure: boolean
}

/** A text of so many characters is told from others by itself. */
const LONG = 25
const LIKE_ENOUGH = 0.5
const SHORT_LIKE_ENOUGH = 0.7
const FAR_LIKE_ENOUGH = 0.8
const FAR_MARGIN = 0.15
/** So many pairs of blocks between two anchors are compared; more are left to the later steps. */
const MOST_PAIRS = 40_000
/** So many blocks anywhere are compared with one that is nowhere near. */
const MOST_FAR = 5_000

/** Headings are one sort whatever their level, as are lines of lists and cells of tables. */
function sortOf(tag: string): string {
  if (/^h[1-6]$/.test(tag)) return 'heading'
  if (tag === 'td' || tag === 'th') return 'cell'
  return tag
}

interface Known {
  tag: string
  sort: string
  text: string
  /** What the editor wants there, evened out; null where nothing was decided. */
  wanted: string | null
}

/**
 * Matches for the old lines, by their index; one that is gone has none. `wantedAt` gives what was decided for a line:
 * its text may stand in the new page already. `asked` are the lines that a match is needed for: the last steps, which
 * cost more, are taken for these alone.
 */
export function matchBlocks(
  before: readonly Line[],
  now: readonly Line[],
  wantedAt: (index: number) => string | null = () => null,
  asked: ReadonlySet<number> = new Set(before.keys()),
): Map<number, Match> {
  const matcher = new Matcher(
    before.map(({ tag, text }, i): Known => {
      const wanted = wantedAt(i)
      return { tag, sort: sortOf(tag), text: evened(text), wanted: wanted === null ? null : evened(wanted) }
    }),
    now.map(({ tag, text }): Known => ({ tag, sort: sortOf(tag), text: evened(text), wanted: null })),
  )
  matcher.anchorLong()
  matcher.extend()
  matcher.anchorShort()
  matcher.extend()
  matcher.inOrder()
  matcher.extend()
  matcher.byLikeness()
  matcher.farAway(asked)
  matcher.onlyOneLeft(asked)
  return matcher.matches
}

class Matcher {
  readonly matches = new Map<number, Match>()
  private readonly taken = new Map<number, number>()
  private readonly before: readonly Known[]
  private readonly now: readonly Known[]
  private readonly pairs = new Map<string, Pairs>()

  constructor(before: readonly Known[], now: readonly Known[]) {
    this.before = before
    this.now = now
  }

  private match(i: number, to: number, sure = true): void {
    this.matches.set(i, { to, sure })
    this.taken.set(to, i)
  }
  private readonly isFree = (i: number, to: number): boolean => !this.matches.has(i) && !this.taken.has(to)

  private says(i: number, to: number): boolean {
    const { text, wanted } = this.before[i]!
    const there = this.now[to]!.text
    return there === text || there === wanted
  }

  /** Texts of 25 characters or more that occur once on both sides, anywhere. */
  anchorLong(): void {
    const places = onlyPlaces(this.now.map(({ text }) => text))
    const placesBefore = onlyPlaces(this.before.map(({ text }) => text))
    for (const [i, { text, wanted }] of this.before.entries()) {
      if (text.length < LONG || placesBefore.get(text) !== i) continue
      const asWas = places.get(text)
      const asWanted = wanted === null || wanted === text ? undefined : places.get(wanted)
      // Where both wordings stand in the page, its neighbours say which is which.
      if (asWas !== undefined && asWanted !== undefined) continue
      const to = asWas ?? (wanted !== null && wanted.length >= LONG ? asWanted : undefined)
      if (to !== undefined && to >= 0 && this.isFree(i, to)) this.match(i, to)
    }
  }

  /** Matched blocks in an order that both sides share: the longest such chain. */
  private chain(): [number, number][] {
    const all = [...this.matches].map(([i, { to }]): [number, number] => [i, to]).sort((a, b) => a[0] - b[0])
    return longestRising(all)
  }

  /** What lies between the anchors: runs of the old and of the new side. */
  private *gaps(): Generator<{ from: number; until: number; start: number; end: number }> {
    let [i, j] = [0, 0]
    for (const [to, at] of [...this.chain(), [this.before.length, this.now.length] as [number, number]]) {
      yield { from: i, until: to, start: j, end: at }
      i = to + 1
      j = at + 1
    }
  }

  /** Shorter texts that occur once within a gap on both sides, of the same sort. */
  anchorShort(): void {
    for (const gap of this.gaps()) {
      const key = (k: Known, text = k.text) => `${k.sort} ${text}`
      const places = onlyPlaces(this.now.slice(gap.start, gap.end).map((k) => key(k)))
      const placesBefore = onlyPlaces(this.before.slice(gap.from, gap.until).map((k) => key(k)))
      for (let i = gap.from; i < gap.until; i++) {
        const known = this.before[i]!
        if (placesBefore.get(key(known)) !== i - gap.from) continue
        const asWas = places.get(key(known))
        const { wanted } = known
        const asWanted = wanted === null || wanted === known.text ? undefined : places.get(key(known, wanted))
        if (asWas !== undefined && asWanted !== undefined) continue
        const to = asWas ?? asWanted
        if (to !== undefined && to >= 0 && this.isFree(i, to + gap.start)) this.match(i, to + gap.start)
      }
    }
  }

  /** To equal neighbours of what is matched, as far as they go; where both sides disagree, to none. */
  extend(): void {
    const waiting = [...this.matches].map(([i, { to }]): [number, number] => [i, to])
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop())
      for (const step of [1, -1]) {
        const [i, to] = [next[0] + step, next[1] + step]
        if (this.before[i] === undefined || this.now[to] === undefined || !this.isFree(i, to)) continue
        if (this.before[i].sort !== this.now[to].sort || !this.says(i, to)) continue
        const other = this.matches.get(i + step)?.to
        const otherSays = other === undefined ? undefined : other - step
        if (otherSays !== undefined && otherSays !== to && this.now[otherSays] && this.says(i, otherSays))
          continue
        this.match(i, to)
        waiting.push([i, to])
      }
  }

  /** The same text as often on both sides of a gap: in order. */
  inOrder(): void {
    for (const gap of this.gaps()) {
      const here = grouped(gap.from, gap.until, (i) =>
        this.matches.has(i) ? null : `${this.before[i]!.sort} ${this.before[i]!.text}`,
      )
      const there = grouped(gap.start, gap.end, (j) =>
        this.taken.has(j) ? null : `${this.now[j]!.sort} ${this.now[j]!.text}`,
      )
      for (const [text, old] of here) {
        const current = there.get(text)
        if (current?.length === old.length) old.forEach((i, n) => this.match(i, current[n]!))
      }
    }
  }

  private pairsFor(text: string): Pairs {
    let pairs = this.pairs.get(text)
    if (!pairs) this.pairs.set(text, (pairs = pairsOf(text)))
    return pairs
  }
  /** How alike an old block and a new one are, by the old or the wanted wording; 0 for different sorts. */
  private likeness(i: number, j: number): number {
    const [old, current] = [this.before[i]!, this.now[j]!]
    if (old.sort !== current.sort) return 0
    const there = this.pairsFor(current.text)
    const asWas = alike(this.pairsFor(old.text), there)
    return old.wanted === null ? asWas : Math.max(asWas, alike(this.pairsFor(old.wanted), there))
  }

  /** In each gap the order-keeping choice of pairs that are the most alike in all. */
  byLikeness(): void {
    for (const gap of this.gaps()) {
      const old: number[] = []
      for (let i = gap.from; i < gap.until; i++) if (!this.matches.has(i)) old.push(i)
      const current: number[] = []
      for (let j = gap.start; j < gap.end; j++) if (!this.taken.has(j)) current.push(j)
      if (old.length === 0 || current.length === 0 || old.length * current.length > MOST_PAIRS) continue
      for (const [i, j] of bestInOrder(old, current, (i, j) => this.enough(i, j))) this.match(i, j)
    }
  }
  private enough(i: number, j: number): number {
    const short = Math.min(this.before[i]!.text.length, this.now[j]!.text.length) < LONG
    const likeness = this.likeness(i, j)
    return likeness >= (short ? SHORT_LIKE_ENOUGH : LIKE_ENOUGH) ? likeness : 0
  }

  /** Anywhere in the page, where one block is by far the most alike. */
  farAway(asked: ReadonlySet<number>): void {
    const free: number[] = []
    for (const j of this.now.keys()) if (!this.taken.has(j)) free.push(j)
    if (free.length > MOST_FAR) return
    for (const i of asked) {
      if (this.matches.has(i) || (this.before[i]?.text.length ?? 0) < LONG) continue
      let [best, second, to] = [0, 0, -1]
      for (const j of free) {
        if (this.taken.has(j)) continue
        const likeness = this.likeness(i, j)
        if (likeness > best) [best, second, to] = [likeness, best, j]
        else if (likeness > second) second = likeness
      }
      if (best >= FAR_LIKE_ENOUGH && best - second >= FAR_MARGIN) this.match(i, to)
    }
  }

  /** The only one of its tag that is left between the same neighbours: a suggestion. */
  onlyOneLeft(asked: ReadonlySet<number>): void {
    for (const gap of this.gaps()) {
      const tags = grouped(gap.from, gap.until, (i) => (this.matches.has(i) ? null : this.before[i]!.tag))
      const there = grouped(gap.start, gap.end, (j) => (this.taken.has(j) ? null : this.now[j]!.tag))
      for (const [tag, [i, ...more]] of tags) {
        const current = there.get(tag)
        if (more.length === 0 && current?.length === 1 && asked.has(i!)) this.match(i!, current[0]!, false)
      }
    }
  }
}

/** Where each text stands, of those that occur once; -1 for one that occurs more often. */
function onlyPlaces(texts: readonly string[]): Map<string, number> {
  const places = new Map<string, number>()
  for (const [i, text] of texts.entries()) places.set(text, places.has(text) ? -1 : i)
  return places
}

function grouped(from: number, until: number, keyOf: (i: number) => string | null): Map<string, number[]> {
  const groups = new Map<string, number[]>()
  for (let i = from; i < until; i++) {
    const key = keyOf(i)
    if (key === null) continue
    const group = groups.get(key)
    if (group) group.push(i)
    else groups.set(key, [i])
  }
  return groups
}

/** The longest run of pairs, given in the order of their first, that rises in the second too. */
function longestRising(pairs: readonly [number, number][]): [number, number][] {
  const ends: number[] = []
  const before = new Array<number>(pairs.length).fill(-1)
  for (const [n, [, value]] of pairs.entries()) {
    let [low, high] = [0, ends.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (pairs[ends[middle]!]![1] < value) low = middle + 1
      else high = middle
    }
    before[n] = low > 0 ? ends[low - 1]! : -1
    ends[low] = n
  }
  const chain: [number, number][] = []
  for (let n = ends.at(-1) ?? -1; n >= 0; n = before[n]!) chain.push(pairs[n]!)
  return chain.reverse()
}

/** Pairs of the two lists, each once and in order, of the greatest worth in all; what is worth 0 is no pair. */
function bestInOrder(
  a: readonly number[],
  b: readonly number[],
  worth: (x: number, y: number) => number,
): [number, number][] {
  const width = b.length + 1
  const best = new Float64Array((a.length + 1) * width)
  const values = new Float64Array(a.length * b.length)
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--) {
      const value = worth(a[i]!, b[j]!)
      values[i * b.length + j] = value
      const with_ = value > 0 ? value + best[(i + 1) * width + j + 1]! : 0
      best[i * width + j] = Math.max(with_, best[(i + 1) * width + j]!, best[i * width + j + 1]!)
    }
  const pairs: [number, number][] = []
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const value = values[i * b.length + j]!
    if (value > 0 && best[i * width + j] === value + best[(i + 1) * width + j + 1]!)
      pairs.push([a[i++]!, b[j++]!])
    else if (best[i * width + j] === best[(i + 1) * width + j]) i++
    else j++
  }
  return pairs
}
