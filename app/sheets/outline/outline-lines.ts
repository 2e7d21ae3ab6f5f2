/** The lines of the outline as they stand by now: the worker's view with the newest decisions laid over it, so that nothing waits for it. */
import type { Decisions } from '../../../core/work/decisions.ts'
import type { Edit } from '../../../core/page/edits/draft.ts'
import type { Landmark } from '../../../core/page/read/facts.ts'
import type { PageView } from '../../workers/page-view.ts'
import type { HeadingView, OtherLine } from '../../workers/outline-view.ts'

export interface Line {
  key: string
  byte: number
  /** Line in the source. */
  line: number
  /** A heading; one that was a heading and is a paragraph now; a line that looks like a heading. */
  kind: 'heading' | 'was' | 'like'
  level: number
  text: string
  landmark: Landmark | null
  words: number
  hasKeyword: boolean
  hidden: boolean
  images: number
  /** Whether it can be changed with certainty. */
  sure: boolean
  byRole: boolean
  tag: string
  className: string
  adjacent: boolean
  byRule: boolean
  start: number | null
}

const fromHeading = (h: HeadingView): Line => ({
  key: h.key,
  byte: h.byte,
  line: h.line,
  kind: 'heading',
  level: Math.min(6, h.level),
  text: h.label || h.text,
  landmark: h.landmark,
  words: h.words,
  hasKeyword: h.hasKeyword,
  hidden: h.hidden,
  images: h.images.length,
  sure: h.endStart !== null,
  byRole: h.role !== null,
  tag: h.tag,
  className: h.className,
  adjacent: h.adjacent,
  byRule: false,
  start: h.start,
})
const fromOther = (o: OtherLine): Line => ({
  key: o.key,
  byte: o.byte,
  line: o.line,
  kind: o.kind,
  level: o.level,
  text: o.text,
  landmark: o.landmark,
  words: 0,
  hasKeyword: false,
  hidden: false,
  images: 0,
  sure: true,
  byRole: false,
  tag: o.kind === 'was' ? `h${o.level}` : 'p',
  className: '',
  adjacent: false,
  byRule: o.byRule,
  start: null,
})

/** All lines in the order of the source. What was taken out, and is not any more, comes with the worker's answer. */
export function linesOf(view: PageView | null, decisions: Decisions): Line[] {
  if (!view) return []
  const editOf = (key: string) => decisions[`edit:${key}`] as Edit | undefined
  // Headings that another is being joined with are no lines of their own any more.
  const joined = new Set<number>()
  for (const [key, edit] of Object.entries(decisions))
    if (key.startsWith('edit:heading@')) for (const at of (edit as Edit).merge ?? []) joined.add(at)
  const lines: Line[] = []
  for (const h of view.headings) {
    if (h.role !== null && h.role !== 'heading') continue
    const edit = editOf(h.key)
    if (edit?.remove || joined.has(h.byte)) continue
    const line = fromHeading(h)
    if (!edit?.merge) line.text = edit?.value ?? (h.label || h.base.text)
    if (h.base.level !== null) line.level = Math.min(6, h.base.level)
    if (edit?.tag === 'p' || edit?.hgroup !== undefined) line.kind = 'was'
    else if (edit?.level !== undefined) line.level = edit.level
    else if (h.base.level === null) line.kind = h.key.startsWith('block@') ? 'like' : 'was'
    lines.push(line)
  }
  for (const o of view.others) {
    const edit = editOf(o.key)
    if (edit?.remove || joined.has(o.byte)) continue
    const line = { ...fromOther(o), text: edit?.value ?? o.base }
    if (o.kind === 'like' && edit?.level !== undefined)
      Object.assign(line, { kind: 'heading', level: edit.level })
    else if (o.kind === 'was' && !o.byRule && edit?.tag !== 'p' && edit?.hgroup === undefined)
      Object.assign(line, { kind: 'heading', level: edit?.level ?? o.level })
    lines.push(line)
  }
  return lines.sort((a, b) => a.byte - b.byte)
}

/** Whether a line takes part in the order of levels. */
const counts = (l: Line) => l.kind === 'heading' && !l.hidden

/** For each line, the one it hangs from: the nearest before it, in its landmark, on a higher step. */
export function parentsOf(lines: Line[]): (number | null)[] {
  const open = new Map<Landmark | null, number[]>()
  return lines.map((l, i) => {
    const ancestors = open.get(l.landmark) ?? []
    open.set(l.landmark, ancestors)
    while (ancestors.length > 0 && lines[ancestors.at(-1)!]!.level >= l.level) ancestors.pop()
    const parent = ancestors.at(-1) ?? null
    if (counts(l)) ancestors.push(i)
    return parent
  })
}

/** A heading and what hangs below it, as indexes. */
export function sectionOf(lines: Line[], at: number): number[] {
  const first = lines[at]!
  const section = [at]
  for (let i = at + 1; i < lines.length; i++) {
    const line = lines[i]!
    if (!counts(line) || line.landmark !== first.landmark) continue
    if (line.level <= first.level) break
    section.push(i)
  }
  return section
}

/** Indexes of the lines that are shown when what hangs below folded ones is not. */
export function shownLines(lines: Line[], parents: (number | null)[], folded: ReadonlySet<string>): number[] {
  const hiddenBelow = lines.map(() => false)
  return [...lines.keys()].filter((i) => {
    const parent = parents[i] ?? null
    hiddenBelow[i] = parent !== null && (hiddenBelow[parent]! || folded.has(lines[parent]!.key))
    return !hiddenBelow[i]
  })
}

/** Runs of neighbouring lines that live in the same landmark, by their places among those shown. */
export function bandsOf(lines: Line[]): { landmark: Landmark | null; from: number; to: number }[] {
  const out: { landmark: Landmark | null; from: number; to: number }[] = []
  lines.forEach((l, i) => {
    const last = out.at(-1)
    if (last && last.landmark === l.landmark) last.to = i
    else out.push({ landmark: l.landmark, from: i, to: i })
  })
  return out
}

/** `edit` null takes the decision back. */
export type Change = { key: string; edit: Edit | null }
/** Edits that a wish comes to, or why it cannot be. */
export type Wish = { label: string; changes: Change[] } | { why: string }

const NOT_SURE =
  'has no end tag of its own in the source, or only a role; it cannot be changed with certainty.'

/** Levels in or out, the section below with it or alone. */
export function moveLevel(lines: Line[], at: number, by: number, alone: boolean): Wish {
  const line = lines[at]!
  if (line.kind !== 'heading') return { why: 'It is not a heading. Press H to make it one.' }
  const level = Math.min(6, Math.max(1, line.level + by))
  const step = level - line.level
  if (step === 0) return { why: by > 0 ? 'H6 is the lowest level.' : 'H1 is the highest level.' }
  const moved = alone ? [at] : sectionOf(lines, at)
  const unsure = moved.find((i) => !lines[i]!.sure)
  if (unsure !== undefined) return { why: `“${lines[unsure]!.text}” ${NOT_SURE}` }
  if (moved.some((i) => lines[i]!.level + step > 6))
    return { why: 'The headings below it would go beyond H6. Move it alone, or raise those first.' }
  return {
    label: moved.length > 1 ? `Section to H${level}` : `Heading to H${level}`,
    changes: moved.map((i) => ({ key: lines[i]!.key, edit: { level: lines[i]!.level + step } })),
  }
}

export function setLevel(line: Line, level: number): Wish {
  if (!line.sure) return { why: `“${line.text}” ${NOT_SURE}` }
  if (line.kind === 'heading' && line.level === level) return { why: `It is already an H${level}.` }
  return { label: `Heading to H${level}`, changes: [{ key: line.key, edit: { level } }] }
}

export function toParagraph(line: Line): Wish {
  if (line.kind !== 'heading') return { why: 'It is already a paragraph.' }
  if (line.key.startsWith('block@'))
    return { label: 'Back to a paragraph', changes: [{ key: line.key, edit: null }] }
  if (!line.sure || line.byRole) return { why: `“${line.text}” ${NOT_SURE}` }
  return { label: 'Heading to a paragraph', changes: [{ key: line.key, edit: { tag: 'p' } }] }
}

export function joinWithNext(lines: Line[], at: number): Wish {
  const line = lines[at]!
  const next = lines[at + 1]
  if (line.kind !== 'heading' || next?.kind !== 'heading' || !next.adjacent)
    return { why: 'No heading directly follows it; only white space may come between.' }
  if (![line, next].every((l) => l.sure && !l.byRole && l.key.startsWith('heading@')))
    return { why: `“${line.text}” or “${next.text}” ${NOT_SURE}` }
  return { label: 'Join two headings', changes: [{ key: line.key, edit: { merge: [next.byte] } }] }
}

export function toSubtitle(lines: Line[], at: number): Wish {
  const line = lines[at]!
  const above = lines[at - 1]
  if (line.kind !== 'heading' || above?.kind !== 'heading' || !line.adjacent || above.level >= line.level)
    return { why: 'A higher-level heading must come directly before it.' }
  if (![line, above].every((l) => l.sure && !l.byRole)) return { why: `“${line.text}” ${NOT_SURE}` }
  return {
    label: 'Subtitle of the heading above',
    changes: [{ key: line.key, edit: { hgroup: above.byte } }],
  }
}

export function closeGap(lines: Line[], parents: (number | null)[], at: number): Wish {
  const line = lines[at]!
  const parent = parents[at] ?? null
  const expected = parent === null ? 1 : lines[parent]!.level + 1
  const gap = line.level - expected
  if (line.kind !== 'heading' || gap < 1) return { why: 'No level is skipped before it.' }
  return moveLevel(lines, at, -gap, false)
}

export function takeOut(line: Line): Wish {
  if (line.kind !== 'heading' || line.text !== '')
    return { why: 'Only an empty heading can be removed here. Press P to make it a paragraph.' }
  if (!line.sure || line.byRole) return { why: `It ${NOT_SURE}` }
  return { label: 'Empty heading removed', changes: [{ key: line.key, edit: { remove: true } }] }
}
