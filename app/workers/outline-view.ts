/** The outline as the desk shows it: headings of the proof, lines that were headings, lines that look like one. */
import { draftOf } from '../../core/work/decisions.ts'
import { templateDraft } from '../../core/headings/template-rules.ts'
import { findKeyword, type Keyword } from '../../core/words/match.ts'
import type { TargetKey } from '../../core/page/edits/draft.ts'
import type { HeadingFact, Landmark, PageFacts } from '../../core/page/read/facts.ts'
import { lineAndColumn, toBytePlaces } from '../../core/page/source/places.ts'
import { toProofByte, type Proof } from '../../core/page/proof.ts'
import { sourceOf, type Source } from '../../core/page/source/source.ts'
import { placeName, sourceBytes } from '../../core/rules/resolve.ts'
import type { Reading } from '../../core/work/evaluate.ts'
import { itemsOf } from '../../core/work/page-proof.ts'

export interface HeadingView extends HeadingFact {
  /**
   * The draft's key for this heading: `heading@`, or `block@` for a paragraph that became one; `after@812+a1` for one that
   * the draft puts in, which is changed where it was put in.
   */
  key: TargetKey
  /** Its start tag's byte in the source. */
  byte: number
  line: number
  hasKeyword: boolean
  /** What it is without the page's own edits; level null: no heading. */
  base: { level: number | null; text: string }
}
/** A line of the outline that is no heading: one that was a heading in the source, or one that looks like one. */
export interface OtherLine {
  kind: 'was' | 'like'
  key: TargetKey
  byte: number
  line: number
  text: string
  /** Its text without the draft. */
  base: string
  /** The level that it had, or that it would best have. */
  level: number
  /** What it was decided by: the page's own draft, or a rule for many pages. */
  byRule: boolean
  landmark: Landmark | null
}

const sourceHeadings = new WeakMap<PageFacts, Map<number, HeadingFact>>()
/** The headings of a page as it was taken in, by their byte. */
function headingsByByte(source: Source, before: PageFacts): Map<number, HeadingFact> {
  let known = sourceHeadings.get(before)
  if (!known) {
    const bytes = toBytePlaces(
      source,
      Array.from(before.headings, (h) => h.start),
    )
    known = new Map(Array.from(before.headings, (h, i) => [bytes[i]!, h] as const))
    sourceHeadings.set(before, known)
  }
  return known
}

/** The lines of the outline: headings of the proof, lines that were headings, lines that look like one. */
export function outlineViews(
  { identity, source, before, proof, page, decisions, setting }: Reading,
  bytes: number[],
  starts: number[],
  keyword: Keyword | null,
): { headings: HeadingView[]; others: OtherLine[] } {
  const had = headingsByByte(source, before)
  const rules =
    setting.templates.length > 0
      ? templateDraft(itemsOf(identity, source, setting), setting.templates, identity.id)
      : {}
  const putIn = proof.changes.some((c) => c.part !== undefined)
  const headings = Array.from(page.headings, (h, i): HeadingView => {
    const byte = bytes[i]!
    const name = putIn ? placeName(proof, h.start) : ''
    const isNew = name.includes('+')
    const was = isNew ? undefined : had.get(byte)
    const key = isNew ? `after@${name}` : `${was ? 'heading' : 'block'}@${byte}`
    const rule = rules[key]
    return {
      ...h,
      key,
      byte,
      line: lineAndColumn(starts, h.start).line,
      hasKeyword: keyword !== null && findKeyword(h.text, keyword).length > 0,
      base: {
        level: isNew ? h.level : rule?.tag === 'p' ? null : (rule?.level ?? was?.level ?? null),
        text: was?.text ?? h.text,
      },
    }
  })
  const own = draftOf(decisions)
  const others: OtherLine[] = []
  for (const [byte, was] of had) {
    const key = `heading@${byte}`
    const edit = own[key] ?? rules[key]
    const isLine = edit?.tag === 'p' || edit?.hgroup !== undefined
    if (isLine)
      others.push({
        kind: 'was',
        key,
        byte,
        line: lineAndColumn(starts, toProofPlace(proof, byte)).line,
        text: edit.value ?? was.text,
        base: was.text,
        level: was.level,
        byRule: own[key] === undefined,
        landmark: was.landmark,
      })
  }
  const seen = new Set(others.map((o) => o.byte))
  const likes = sourceBytes(
    proof,
    page.lookAlikes.map((l) => l.start),
  )
  page.lookAlikes.forEach((like, i) => {
    const byte = likes[i]!
    if (seen.has(byte)) return
    const above = page.headings.findLast((h) => h.start < like.start && isContent(h))
    others.push({
      kind: 'like',
      key: `block@${byte}`,
      byte,
      line: lineAndColumn(starts, like.start).line,
      text: like.text,
      base: like.text,
      level: above ? Math.max(2, above.level) : 2,
      byRule: false,
      landmark: 'main',
    })
  })
  return { headings, others: others.sort((a, b) => a.byte - b.byte) }
}
const isContent = (h: HeadingFact) => h.landmark === null || h.landmark === 'main'

/** A source's byte as a place in the proof's text, near enough for a line: bytes count as units. */
function toProofPlace(proof: Proof, byte: number): number {
  const at = toProofByte(proof.changes, byte)
  return proof.source.encoding.startsWith('utf-16')
    ? at / 2
    : sourceOf(
        proof.source.bytes.subarray(0, at),
        proof.source.encoding,
        proof.source.encodingBy,
        proof.source.bom,
      ).text.length
}
