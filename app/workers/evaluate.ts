/** One page's way through the core: source + decisions → proof → facts → marks, as the ledger and the desk show them. */
import { draftOf, keywordsOf, stetKey, type Decisions, type Stet } from '../../core/exchange/work.ts'
import { findKeyword, compileKeyword } from '../../core/keywords/match.ts'
import { measure } from '../../core/measure/snippet.ts'
import {
  descriptionOf,
  isIndexable,
  outlineOf,
  titleOf,
  type HeadingFact,
  type PageFacts,
} from '../../core/page/facts.ts'
import type { TargetKey } from '../../core/page/draft.ts'
import { lineAndColumn, lineStarts } from '../../core/page/places.ts'
import { applyDraft, type Proof } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read-page.ts'
import type { Source } from '../../core/page/source.ts'
import type { HouseStyle, Severity } from '../../core/rules/house-style.ts'
import { resolveRepair, sourceBytes } from '../../core/rules/resolve.ts'
import type { Family, Mark, ResolvedRepair, Sign, SiteMark } from '../../core/rules/rule.ts'
import { fingerprint } from '../../core/rules/fingerprint.ts'
import { auditPage, ruleOf } from '../../core/rules/runner.ts'
import type { SiteIndex } from '../../core/site/site-index.ts'
import type { LedgerRow } from '../store/db.ts'

/** Changes of the audit itself: rows made by an older one are made anew. */
const AUDIT = 1

export interface AuditSetting {
  index: SiteIndex
  style: HouseStyle
  /** YYYY-MM-DD */
  date: string
}

export interface Evaluated {
  /** The page as it was taken in. */
  before: PageFacts
  proof: Proof
  page: PageFacts
  marks: Mark[]
  row: LedgerRow
}

/** FNV-1a over UTF-16 units, 32 bits twice with different starts: tells two states apart, guards nothing. */
function hash(text: string): string {
  let a = 0x811c9dc5
  let b = 0x01234567
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193)
    b = Math.imul(b ^ text.charCodeAt(i), 0x01000193) ^ (b >>> 13)
  }
  return `${(a >>> 0).toString(36)}${(b >>> 0).toString(36)}`
}

export const basisOf = (decisions: Decisions, style: HouseStyle): string =>
  hash(JSON.stringify([AUDIT, style, decisions]))

const facts = new WeakMap<Source, PageFacts>()
/** A source's own facts, read once: it never changes. */
function factsOf(source: Source, where: { path: string; url: string }): PageFacts {
  const known = facts.get(source) ?? readPage(source, where)
  facts.set(source, known)
  return known
}

const rank: Record<Severity, number> = { blocker: 0, flaw: 1, nit: 2 }

export function evaluate(
  where: { site: string; path: string; url: string },
  source: Source,
  decisions: Decisions,
  { index, style, date }: AuditSetting,
): Evaluated {
  const proof = applyDraft(source, draftOf(decisions))
  const page = readPage(proof.source, where)
  const before = proof.source === source ? page : factsOf(source, where)
  const marks = auditPage(page, index, style, { date, keywords: keywordsOf(decisions) })
  const counts = { blocker: 0, flaw: 0, nit: 0 }
  // Places of marks are looked up only where something was let stand: a page can have hundreds.
  const anyStet = Object.keys(decisions).some((k) => k.startsWith('stet:'))
  const targets = anyStet ? targetsOf(marks, proof) : []
  const left = anyStet ? marks.filter((m, i) => !stetOf(m, targets[i]!, decisions).stands) : marks
  for (const mark of left) counts[mark.severity]++
  const title = titleOf(page)
  const description = descriptionOf(page)
  const titleMeasured = measure(title?.text ?? '', 'title', style.slots)
  const first = outlineOf(page).filter((h) => h.level === 1)
  return {
    before,
    proof,
    page,
    marks,
    row: {
      site: where.site,
      path: where.path,
      url: where.url,
      title: title?.text ?? null,
      titlePx: titleMeasured.px,
      titleFit: titleMeasured.wide.state,
      description: description?.content ?? null,
      descriptionFit: measure(description?.content ?? '', 'description', style.slots).wide.state,
      h1: first.find((h) => h.text)?.text ?? null,
      h1Count: first.length,
      words: page.main.words,
      lang: page.lang,
      indexable: isIndexable(page),
      rules: [...new Set([...left].sort((a, b) => rank[a.severity] - rank[b.severity]).map((m) => m.rule))],
      ...counts,
      basis: basisOf(decisions, style),
    },
  }
}

/** What each mark is about, as a stet remembers it: a field by its name, anything else by its byte in the source. */
function targetsOf(marks: Mark[], proof: Proof): string[] {
  const bytes = sourceBytes(
    proof,
    marks.map((m) => m.start ?? 0),
  )
  return marks.map((mark, i) => {
    const { family } = ruleOf(mark.rule)
    if (family === 'title' || family === 'description' || family === 'address') return family
    return mark.start === null ? 'page' : String(bytes[i])
  })
}

function stetOf(
  mark: Pick<Mark, 'rule' | 'values'>,
  target: string,
  decisions: Decisions,
): { key: string; stet: Stet | null; stands: boolean } {
  const key = stetKey(mark.rule, target)
  const stet = (decisions[key] as Stet | undefined) ?? null
  return { key, stet, stands: stet !== null && stet.fingerprint === fingerprint(mark.values) }
}

/** A mark as the margin shows it. */
export interface MarkView {
  id: string
  rule: string
  family: Family
  name: string
  severity: Severity
  sign: Sign
  message: string
  why: string
  mend: string
  basis: string
  /** Place in the proof's text, null for the page as a whole; line counts from 1. */
  start: number | null
  end: number | null
  line: number | null
  repair: ResolvedRepair | null
  stetKey: string
  fingerprint: string
  /** Let stand now. */
  stet: Stet | null
  /** Was let stand before, but what it was about has changed. */
  stoodBefore: Stet | null
  /** Other pages that a mark on the site names. */
  otherPages: string[]
}

export interface HeadingView extends HeadingFact {
  /** The draft's key for this heading. */
  key: TargetKey
  line: number
  hasKeyword: boolean
}

/** What the desk shows of a page. */
export interface PageView {
  path: string
  url: string
  lang: string | null
  title: string | null
  description: string | null
  /** What the source says, before the draft. */
  sourceTitle: string | null
  sourceDescription: string | null
  words: number
  images: number
  /** What would be shown in place of a missing title or description. */
  fallBackTitle: string
  fallBackDescription: string
  headings: HeadingView[]
  marks: MarkView[]
  refused: { key: TargetKey; why: string }[]
  row: LedgerRow
}

export function viewOf(evaluated: Evaluated, decisions: Decisions, siteMarks: SiteMark[]): PageView {
  const { before, proof, page, marks, row } = evaluated
  const starts = lineStarts(proof.source.text)
  const keywords = keywordsOf(decisions)
  const keyword = keywords?.primary ? compileKeyword(keywords.primary, page.lang) : null
  const bytes = sourceBytes(
    proof,
    Array.from(page.headings, (h) => h.start),
  )
  const h1 = outlineOf(page).find((h) => h.level === 1 && h.text)?.text
  const targets = targetsOf(marks, proof)
  return {
    path: page.path,
    url: page.url,
    lang: page.lang,
    title: row.title,
    description: row.description,
    sourceTitle: titleOf(before)?.text ?? null,
    sourceDescription: descriptionOf(before)?.content ?? null,
    words: page.main.words,
    images: page.images.length,
    fallBackTitle: h1 ?? page.path.slice(page.path.lastIndexOf('/') + 1),
    fallBackDescription: fallBackDescription(page, keyword),
    headings: Array.from(page.headings, (h, i) => ({
      ...h,
      key: `heading@${bytes[i]}`,
      line: lineAndColumn(starts, h.start).line,
      hasKeyword: keyword !== null && findKeyword(h.text, keyword).length > 0,
    })),
    marks: [
      ...marks.map((m, i) => {
        const { key, stet, stands } = stetOf(m, targets[i]!, decisions)
        return markView(m, `${m.rule}-${i}`, {
          line: m.start === null ? null : lineAndColumn(starts, m.start).line,
          repair: m.repair ? resolveRepair(proof, m.repair) : null,
          stetKey: key,
          stet: stands ? stet : null,
          stoodBefore: stands ? null : stet,
          otherPages: [],
        })
      }),
      ...siteMarks
        .filter((m) => m.pages.includes(page.path))
        .map((m, i) => {
          const { key, stet, stands } = stetOf(m, 'site', decisions)
          return markView({ ...m, start: null, end: null }, `${m.rule}-site-${i}`, {
            line: null,
            repair: null,
            stetKey: key,
            stet: stands ? stet : null,
            stoodBefore: stands ? null : stet,
            otherPages: m.pages.filter((p) => p !== page.path),
          })
        }),
    ],
    refused: proof.refused,
    row,
  }
}

function markView(
  mark: Pick<Mark, 'rule' | 'severity' | 'message' | 'start' | 'end' | 'values'>,
  id: string,
  rest: Pick<MarkView, 'line' | 'repair' | 'stetKey' | 'stet' | 'stoodBefore' | 'otherPages'>,
): MarkView {
  const { name, family, sign, why, mend, basis } = ruleOf(mark.rule)
  const { rule, severity, message, start, end, values } = mark
  return {
    id,
    rule,
    family,
    name,
    severity,
    sign,
    message,
    why,
    mend,
    basis,
    start,
    end,
    fingerprint: fingerprint(values),
    ...rest,
  }
}

/** The sentence around the keyword in the page's text, else its first paragraph, as results would find it. */
function fallBackDescription(page: PageFacts, keyword: ReturnType<typeof compileKeyword> | null): string {
  const lines = page.main.text.split('\n').filter((line) => line.length > 40)
  if (keyword)
    for (const line of lines) {
      const match = findKeyword(line, keyword)[0]
      if (!match) continue
      const before = line.slice(0, match.start)
      const from = Math.max(before.lastIndexOf('. '), before.lastIndexOf('! '), before.lastIndexOf('? '))
      return line.slice(from < 0 ? 0 : from + 2, (from < 0 ? 0 : from + 2) + 400)
    }
  return (lines[0] ?? '').slice(0, 400)
}
