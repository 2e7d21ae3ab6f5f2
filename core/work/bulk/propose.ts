/** What a step would make of one page; nothing is kept before an editor has looked at it. */
import { withPhrase } from '../../keywords/keyword-map.ts'
import { overEdit, type Edit } from '../../page/edits/draft.ts'
import { isEmptyHeading, outlineOf, robotsOf, type PageFacts } from '../../page/read/facts.ts'
import { protectedBy, styleFor, type HouseStyle } from '../../rules/house-style.ts'
import { fingerprint } from '../../rules/fingerprint.ts'
import { resolveRepair, sourceBytes } from '../../rules/resolve.ts'
import { isCertain, type SiteMark } from '../../rules/rule.ts'
import { ruleOf } from '../../rules/runner.ts'
import type { SiteIndex } from '../../site/site-index.ts'
import { valuesFrom } from '../../site/page-tokens.ts'
import { namesIn, toCasing } from '../../wording/casing.ts'
import { replaceIn, type Replacing } from '../../wording/replace.ts'
import { firstSentences } from '../../wording/takes.ts'
import { fillTokens, type TokenValues } from '../../wording/tokens.ts'
import { keywordsOf, stateOf, stetKey, type Decisions } from '../decisions.ts'
import { evaluate, markTargets, readDraft, stetOf, type Evaluated, type LedgerRow } from '../evaluate.ts'
import { fieldValue } from '../typed-field.ts'
import { nothingFor, titleInPattern } from './title-pattern.ts'
import type { BulkStep, PageProposal, ProposedChange } from './step.ts'

export interface PageAtHand {
  row: LedgerRow
  decisions: Decisions
  /** The page judged as it stands; asked for only by steps that a row does not suffice for. */
  evaluated(): Evaluated
}

/** Whether a step needs no more of a page than its row. */
export const isByRow = (step: BulkStep): boolean =>
  step.kind === 'pattern' ||
  step.kind === 'keyword' ||
  step.kind === 'state' ||
  (step.kind === 'replace' && step.in.every((what) => what === 'title' || what === 'description')) ||
  (step.kind === 'fill' && step.from !== 'sentences')

interface Setting {
  /** For the names of sections. */
  index: SiteIndex
  style: HouseStyle
  /** YYYY-MM-DD */
  date: string
  siteMarks: readonly SiteMark[]
}
type Change = ProposedChange & { key: string; value: unknown }

const fields = {
  title: { name: 'Title', target: 'title' },
  description: { name: 'Description', target: 'meta:description' },
} as const

/** Null where the step leaves the page as it is. */
export function proposalFor(step: BulkStep, page: PageAtHand, setting: Setting): PageProposal | null {
  const { id, path } = page.row
  const changes = changesOf(step, page, setting)
  if (typeof changes === 'string') return { id, path, changes: [], decisions: [], why: changes }
  if (changes.length === 0) return null
  return {
    id,
    path,
    changes: changes.map(({ name, role, before, after }) => ({ name, role, before, after })),
    decisions: changes.map(({ key, value }) => ({ key, after: value })),
    why: null,
  }
}

/** The changes, or why something that should be changed cannot be. */
function changesOf(step: BulkStep, page: PageAtHand, setting: Setting): Change[] | string {
  const { row, decisions } = page
  const style = styleFor(setting.style, row.url)
  const values = valuesFrom(row, { site: setting.index, style, date: setting.date })
  switch (step.kind) {
    case 'replace':
      return [
        ...(['title', 'description'] as const)
          .filter((field) => step.in.includes(field))
          .flatMap((field) => replacedField(field, step, page, values)),
        ...(step.in.includes('heading') || step.in.includes('alternative')
          ? replacedInPage(step, page.evaluated())
          : []),
      ]
    case 'casing': {
      const typed = fieldValue(decisions, 'title', row)
      const { text } = page.evaluated().page
      const cased = toCasing(typed, step.casing, { protectedWords: protectedBy(style), names: namesIn(text) })
      return written('title', typed, cased, values)
    }
    case 'pattern':
      return inTitlePattern(step.pattern, page, style, values)
    case 'fill':
      return filledField(step, page, style, values)
    case 'robots':
      return robotsChange(page.evaluated().page, step.index)
    case 'repair':
      return repaired(step.rules, page.evaluated())
    case 'keyword':
      return keywordChange(step, row, decisions, setting.style.language)
    case 'state': {
      const before = stateOf(decisions)
      if (before === step.state) return []
      return [{ name: 'State', role: null, before, after: step.state, key: 'state', value: step.state }]
    }
    case 'stet':
      return stets(step, page, setting)
  }
}

/** A title or description written anew, tokens and all; nothing where it stays. */
function written(
  field: 'title' | 'description',
  typed: string,
  value: string,
  values: TokenValues,
): Change[] {
  if (value === typed) return []
  const { name, target } = fields[field]
  return [
    {
      name,
      role: field,
      before: fillTokens(typed, values).text,
      after: fillTokens(value, values).text,
      key: `edit:${target}`,
      value: { value },
    },
  ]
}

function replacedField(
  field: 'title' | 'description',
  replacing: Replacing,
  { row, decisions }: PageAtHand,
  values: TokenValues,
): Change[] {
  const typed = fieldValue(decisions, fields[field].target, row)
  // An empty one is filled by its own step: to replace is to find first.
  return typed === '' ? [] : written(field, typed, replaceIn(typed, replacing), values)
}

function replacedInPage(step: Extract<BulkStep, { kind: 'replace' }>, evaluated: Evaluated): Change[] {
  const { page, proof, decisions } = evaluated
  const things = [
    ...(step.in.includes('heading')
      ? outlineOf(page)
          .filter((h) => !isEmptyHeading(h) && h.images.length === 0)
          .map((h) => ({ kind: 'heading', name: `H${h.level}`, start: h.start, text: h.text }))
      : []),
    ...(step.in.includes('alternative')
      ? page.images
          .filter((i) => i.alt)
          .map((i) => ({ kind: 'alt', name: 'Alternative text', start: i.start, text: i.alt! }))
      : []),
  ].filter(({ text }) => replaceIn(text, step) !== text)
  const bytes = sourceBytes(
    proof,
    things.map((thing) => thing.start),
  )
  return things.map(({ kind, name, text }, i) => {
    const key = `edit:${kind}@${bytes[i]}`
    const after = replaceIn(text, step)
    const value = overEdit(decisions[key] as Edit | undefined, { value: after })
    return { name, role: null, before: text, after, key, value }
  })
}

function inTitlePattern(
  pattern: string,
  { row, decisions }: PageAtHand,
  style: HouseStyle,
  values: TokenValues,
): Change[] | string {
  const typed = fieldValue(decisions, 'title', row)
  const title = titleInPattern(pattern, { typed, h1: row.h1 }, values, style)
  return title.ok ? written('title', typed, title.value, values) : `It has ${title.why}.`
}

function filledField(
  { field, from, pattern }: Extract<BulkStep, { kind: 'fill' }>,
  page: PageAtHand,
  style: HouseStyle,
  values: TokenValues,
): Change[] | string {
  const typed = fieldValue(page.decisions, fields[field].target, page.row)
  if (typed.trim() !== '') return []
  if (from === 'h1') {
    const { h1 } = page.row
    return h1 ? written(field, typed, h1, values) : 'It has no H1 to fill it from.'
  }
  if (from === 'pattern') {
    const { unfilled } = fillTokens(pattern, values)
    if (unfilled.length > 0) return `It has ${nothingFor(unfilled)}.`
    return written(field, typed, pattern, values)
  }
  const sentences = firstSentences(page.evaluated().page, style.slots)
  return sentences === null
    ? 'Its text begins with no sentence that fits.'
    : written(field, typed, sentences, values)
}

function robotsChange(page: PageFacts, index: boolean): Change[] {
  const before = robotsOf(page)
  const rest = before.filter((d) => d !== 'index' && d !== 'noindex' && d !== 'none' && d !== 'all')
  // "none" is noindex and nofollow in one word.
  if (before.includes('none')) rest.push('nofollow')
  const isIndexed = !before.includes('noindex') && !before.includes('none')
  if (isIndexed === index) return []
  const after = index ? rest : ['noindex', ...rest]
  return [
    {
      name: 'Robots',
      role: null,
      before: before.join(', ') || 'no restrictions',
      after: after.join(', ') || 'no restrictions',
      key: 'edit:meta:robots',
      value: after.length > 0 ? { value: after.join(', ') } : { remove: true },
    },
  ]
}

/** Repairs tried on one page. */
const MOST_REPAIRS = 200

/** Certain repairs, one at a time: each is kept when its mark is gone from the page read again and no blocker has come. */
function repaired(rules: readonly string[], start: Evaluated): Change[] | string {
  const wanted = new Set(rules)
  const changes = new Map<string, Change>()
  const refused = new Set<string>()
  let now = start
  for (let tries = 0; tries < MOST_REPAIRS; tries++) {
    const mark = now.openMarks.find(
      (m) => wanted.has(m.rule) && isCertain(m.repair) && !refused.has(`${m.rule} ${m.start} ${m.message}`),
    )
    if (!mark) break
    const repair = resolveRepair(now.proof, mark.repair!)
    const edits = Object.entries(repair?.edits ?? {})
    // An address moves other pages along: that is done on the page itself, where all that follows is seen.
    const decisions: Record<string, unknown> = { ...now.decisions }
    for (const [key, edit] of edits)
      decisions[`edit:${key}`] = overEdit(now.decisions[`edit:${key}`] as Edit | undefined, edit)
    const isPossible = edits.length > 0 && !edits.some(([key]) => key === 'slug')
    const then = isPossible ? evaluate(readDraft(now.identity, now.source, decisions, now.setting)) : null
    if (!then || !isBetter(now, then, mark.rule, new Set(edits.map(([key]) => key)))) {
      refused.add(`${mark.rule} ${mark.start} ${mark.message}`)
      continue
    }
    for (const [key] of edits) {
      const name = ruleOf(mark.rule).name
      const value = decisions[`edit:${key}`]
      changes.set(key, {
        name,
        role: null,
        before: mark.message,
        after: mark.repair!.label,
        key: `edit:${key}`,
        value,
      })
    }
    now = then
  }
  if (changes.size === 0 && refused.size > 0) return 'Its repairs cannot be made on their own.'
  return [...changes.values()]
}

function isBetter(now: Evaluated, then: Evaluated, rule: string, keys: ReadonlySet<string>): boolean {
  const count = ({ marks }: Evaluated) => marks.filter((m) => m.rule === rule).length
  const blockers = ({ marks }: Evaluated) => marks.filter((m) => m.severity === 'blocker').length
  return (
    count(then) < count(now) &&
    blockers(then) <= blockers(now) &&
    !then.proof.refused.some((r) => keys.has(r.key))
  )
}

function keywordChange(
  { phrase, role }: Extract<BulkStep, { kind: 'keyword' }>,
  row: LedgerRow,
  decisions: Decisions,
  language: string | null,
): Change[] {
  const now = keywordsOf(decisions) ?? { primary: '', secondary: [] }
  const then = withPhrase(now, phrase, role, row.lang ?? language)
  const changes: Change[] = []
  if (then.primary !== now.primary)
    changes.push({
      name: 'Primary keyword',
      role: null,
      before: now.primary,
      after: then.primary,
      key: 'keyword:primary',
      value: then.primary || undefined,
    })
  if (then.secondary.join('\n') !== now.secondary.join('\n'))
    changes.push({
      name: 'Secondary keywords',
      role: null,
      before: now.secondary.join(', '),
      after: then.secondary.join(', '),
      key: 'keyword:secondary',
      value: then.secondary.length > 0 ? then.secondary : undefined,
    })
  return changes
}

function stets(
  { rule, reason }: Extract<BulkStep, { kind: 'stet' }>,
  page: PageAtHand,
  { date, siteMarks }: Setting,
): Change[] {
  const change = (key: string, before: string, print: string): Change => ({
    name: ruleOf(rule).name,
    role: null,
    before,
    after: `stet: ${reason}`,
    key,
    value: { fingerprint: print, reason, date },
  })
  const ofSite = siteMarks
    .filter((mark) => mark.rule === rule && mark.pages.includes(page.row.id))
    .map((mark) => change(stetKey(rule, 'site'), mark.message, fingerprint(mark.values)))
  if (!page.row.rules.includes(rule)) return ofSite
  const { openMarks, proof, decisions } = page.evaluated()
  const marks = openMarks.filter((mark) => mark.rule === rule)
  const targets = markTargets(marks, proof)
  return [
    ...marks.map((mark, i) =>
      change(stetOf(mark, targets[i]!, decisions).key, mark.message, fingerprint(mark.values)),
    ),
    ...ofSite,
  ]
}
