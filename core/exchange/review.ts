/** A page before and after, as a reviewer reads it: headings, text, things described and fields, each change by itself. */
import { diffArrays } from 'diff'
import { member, parseJson, type JsonValue } from '../json/json.ts'
import { isEmptyHeading, outlineOf, type PageFacts } from '../page/read/facts.ts'
import { fold } from '../strings.ts'
import { alike, pairsOf } from '../work/again/similarity.ts'
import { fieldChanges, type FieldChange } from './change-sheet.ts'

/** A stretch of a text that stays, goes or comes. */
export interface Piece {
  kind: 'same' | 'gone' | 'new'
  text: string
}
export interface HeadingPair {
  before: { level: number; text: string } | null
  after: { level: number; text: string } | null
  changed: boolean
}
export interface Review {
  /** Head fields, addresses and links; title, description, headings and data are told by themselves. */
  fields: FieldChange[]
  /** All headings in order where one of them changed; none otherwise. */
  headings: HeadingPair[]
  /** Blocks of text that changed, word by word. */
  text: Piece[][]
  /** Lines of what the page describes that go or come, each with the thing that it is of. */
  data: { kind: 'gone' | 'new'; thing: string; line: string }[]
}

/** So many blocks of text and lines of data are told one by one. */
const MOST = 300
/** Changes between two lists beyond which the one is told as a whole in place of the other. */
const MOST_EDITS = 2000

export function reviewOf(before: PageFacts, after: PageFacts): Review {
  return {
    fields: fieldChanges(before, after).filter(({ field }) => !toldApart.test(field)),
    headings: headingPairs(before, after),
    text: textChanges(blocksOf(before), blocksOf(after)),
    data: dataChanges(dataLines(before), dataLines(after)),
  }
}
const toldApart = /^(?:Title|Meta description|Headings?(?: \d+)?|Structured data \d+)$/

function headingPairs(before: PageFacts, after: PageFacts): HeadingPair[] {
  const list = (page: PageFacts) =>
    outlineOf(page)
      .filter((h) => !isEmptyHeading(h))
      .map(({ level, text, label }) => ({ level, text: label || text }))
  const pairs = paired(
    list(before),
    list(after),
    (h) => `${h.level} ${h.text}`,
    (h) => h.text,
  )
  return pairs.some((pair) => pair.changed) ? pairs : []
}

interface Pair<T> {
  before: T | null
  after: T | null
  changed: boolean
}

/** Two lists side by side: what stays in one line, what was changed beside what it became. */
function paired<T>(
  before: readonly T[],
  after: readonly T[],
  key: (item: T) => string,
  textOf: (item: T) => string,
): Pair<T>[] {
  const parts = diffArrays(before.map(key), after.map(key), { maxEditLength: MOST_EDITS })
  const pairs: Pair<T>[] = []
  let [i, j] = [0, 0]
  // What went and what came since the last that stayed.
  let [gone, come]: [readonly T[], readonly T[]] = [[], []]
  const flush = () => {
    pairs.push(...besideEachOther(gone, come, textOf))
    gone = come = []
  }
  // Beyond so many changes all of the one stands for all of the other.
  const whole = [
    { removed: true, added: false, count: before.length },
    { removed: false, added: true, count: after.length },
  ]
  for (const { added, removed, count } of parts ?? whole) {
    if (removed) gone = [...gone, ...before.slice(i, (i += count))]
    else if (added) come = [...come, ...after.slice(j, (j += count))]
    else {
      flush()
      for (let k = 0; k < count; k++) pairs.push({ before: before[i++]!, after: after[j++]!, changed: false })
    }
  }
  flush()
  return pairs
}

/** So many comparisons of two texts at one place are worth it. */
const MOST_COMPARED = 10_000
/** What it is worth to stand beside another at all: less than any likeness that somebody would see. */
const BESIDE = 0.05

/** What went beside what came at one place, in the order of both: those beside each other that are most alike. */
function besideEachOther<T>(gone: readonly T[], come: readonly T[], textOf: (item: T) => string): Pair<T>[] {
  const [rows, columns] = [gone.length, come.length]
  const pair = (before: T | null, after: T | null): Pair<T> => ({ before, after, changed: true })
  if (rows === 0 || columns === 0 || rows * columns > MOST_COMPARED)
    return Array.from({ length: Math.max(rows, columns) }, (_, k) => pair(gone[k] ?? null, come[k] ?? null))
  const [goneTexts, comeTexts] = [gone, come].map((items) => items.map((item) => pairsOf(textOf(item))))
  // The most that what stands from a place on in both can be worth.
  const worth = Array.from({ length: rows + 1 }, () => new Float64Array(columns + 1))
  const together = (r: number, c: number) =>
    alike(goneTexts![r]!, comeTexts![c]!) + BESIDE + worth[r + 1]![c + 1]!
  for (let r = rows - 1; r >= 0; r--)
    for (let c = columns - 1; c >= 0; c--)
      worth[r]![c] = Math.max(together(r, c), worth[r + 1]![c]!, worth[r]![c + 1]!)
  const pairs: Pair<T>[] = []
  let [r, c] = [0, 0]
  while (r < rows && c < columns) {
    const most = worth[r]![c]!
    if (most === together(r, c)) pairs.push(pair(gone[r++]!, come[c++]!))
    else if (most === worth[r + 1]![c]!) pairs.push(pair(gone[r++]!, null))
    else pairs.push(pair(null, come[c++]!))
  }
  while (r < rows) pairs.push(pair(gone[r++]!, null))
  while (c < columns) pairs.push(pair(null, come[c++]!))
  return pairs
}

/** Blocks of running text; headings are told by themselves. */
function blocksOf({ text, headings }: PageFacts): string[] {
  const told = new Set(headings.map((h) => fold(h.text)))
  return text
    .split('\n')
    .map(fold)
    .filter((block) => block !== '' && !told.has(block))
}

function textChanges(before: readonly string[], after: readonly string[]): Piece[][] {
  const asItIs = (block: string) => block
  return paired(before, after, asItIs, asItIs)
    .filter((pair) => pair.changed)
    .slice(0, MOST)
    .map((pair) => piecesBetween(pair.before ?? '', pair.after ?? ''))
}

const segmenter = new Intl.Segmenter(undefined, { granularity: 'word' })
const wordsAndGaps = (text: string) => Array.from(segmenter.segment(text), ({ segment }) => segment)

/** What stays, goes and comes between two wordings, in whole words and in reading order; a gap between two changes changes with them. */
export function piecesBetween(before: string, after: string): Piece[] {
  const parts = diffArrays(wordsAndGaps(before), wordsAndGaps(after), { maxEditLength: MOST_EDITS })
  if (!parts) return joined([{ gone: before, new: after, same: '' }])
  const stretches: Stretch[] = [{ gone: '', new: '', same: '' }]
  for (const [i, { added, removed, value }] of parts.entries()) {
    const text = value.join('')
    const last = stretches.at(-1)!
    const isGap = !added && !removed && text.trim() === '' && i > 0 && i < parts.length - 1
    if (isGap) {
      last.gone += text
      last.new += text
    } else if (!added && !removed) {
      last.same = text
      stretches.push({ gone: '', new: '', same: '' })
    } else last[added ? 'new' : 'gone'] += text
  }
  return joined(stretches)
}
/** What goes and comes at a place, and what stays behind it. */
type Stretch = Record<Piece['kind'], string>
const joined = (stretches: readonly Stretch[]): Piece[] =>
  stretches.flatMap((stretch) =>
    (['gone', 'new', 'same'] as const).flatMap((kind) =>
      stretch[kind] === '' ? [] : [{ kind, text: stretch[kind] }],
    ),
  )

interface DataLine {
  thing: string
  line: string
}

/** Every value of a page's JSON-LD as a line: the thing it is of, the property, the value. */
function dataLines({ data }: PageFacts): DataLine[] {
  const lines: DataLine[] = []
  for (const { json } of data) {
    const read = parseJson(json)
    if (read.ok) collect(read.value, lines)
    else lines.push({ thing: 'a block that is not valid JSON', line: fold(json).slice(0, 300) })
  }
  return lines
}

/** A list of work instead of recursion: what others nest may be deep. */
function collect(root: JsonValue, lines: DataLine[]): void {
  const todo: { value: JsonValue; thing: string; property: string }[] = [
    { value: root, thing: 'the page’s data', property: '' },
  ]
  for (let next = 0; next < todo.length; next++) {
    const { value, thing, property } = todo[next]!
    if (value.kind === 'array') for (const item of value.items) todo.push({ value: item, thing, property })
    else if (value.kind === 'object') {
      const type = member(value, '@type')
      const name = type?.kind === 'string' ? type.value : thing
      if (property !== '') lines.push({ thing, line: `${property}: ${name}` })
      else if (type?.kind === 'string') lines.push({ thing: name, line: name })
      for (const { key, value: inner } of value.members)
        if (key !== '@context' && key !== '@type') todo.push({ value: inner, thing: name, property: key })
    } else lines.push({ thing, line: `${property}: ${fold(String(value.value)).slice(0, 500)}` })
  }
}

function dataChanges(before: readonly DataLine[], after: readonly DataLine[]): Review['data'] {
  const parts = diffArrays(
    before.map((l) => `${l.thing}\n${l.line}`),
    after.map((l) => `${l.thing}\n${l.line}`),
    { maxEditLength: MOST_EDITS },
  )
  const changes: Review['data'] = []
  for (const { added, removed, value } of parts ?? [])
    if (added || removed)
      for (const told of value) {
        const [thing = '', line = ''] = told.split('\n')
        changes.push({ kind: added ? 'new' : 'gone', thing, line })
      }
  return changes.slice(0, MOST)
}
