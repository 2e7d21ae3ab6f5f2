/** One page's way through the core: source + decisions → proof → facts → marks, as the ledger and the desk show them. */
import { pageMovesFor } from '../../core/exchange/hand-off.ts'
import { hash } from '../../core/hash.ts'
import {
  draftOf,
  followOf,
  keywordsOf,
  stetKey,
  type Decisions,
  type Stet,
} from '../../core/work/decisions.ts'
import { compileKeyword } from '../../core/words/match.ts'
import { measure } from '../../core/measure/snippet.ts'
import { descriptionOf, isIndexable, outlineOf, titleOf, type PageFacts } from '../../core/page/read/facts.ts'
import type { Draft } from '../../core/page/edits/draft.ts'
import {
  outlineItems,
  overTemplates,
  templateDraft,
  type OutlineItem,
  type TemplateRule,
} from '../../core/headings/template-rules.ts'
import { applyDraft, type Proof } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import type { Source } from '../../core/page/source/source.ts'
import { styleFor, type HouseStyle, type Severity } from '../../core/rules/house-style.ts'
import { sourceBytes } from '../../core/rules/resolve.ts'
import type { Mark } from '../../core/rules/rule.ts'
import { fingerprint } from '../../core/rules/fingerprint.ts'
import { auditPage, ruleOf } from '../../core/rules/runner.ts'
import { addressOf } from '../../core/addresses/addresses.ts'
import type { Moves } from '../../core/site/moves.ts'
import { keywordKey, targetsOf, type SiteIndex } from '../../core/site/site-index.ts'
import { followPage, hasBuilt, withoutBuilt } from '../../core/structured-data/follow.ts'
import { siteSideOf } from '../../core/site/site-side.ts'
import { siteThings } from '../../core/structured-data/site-things.ts'
import { shownPrice } from '../../core/structured-data/shown-price.ts'
import { furnitureOf } from '../../core/structured-data/things.ts'
import { draftHasTokens, fillDraft, followDraft, tokenValues } from '../../core/site/page-tokens.ts'
import type { TokenValues } from '../../core/wording/tokens.ts'
import type { LedgerRow } from '../store/db.ts'

/** Changes of the audit itself: rows made by an older one are made anew. */
const AUDIT = 6

export interface AuditSetting {
  index: SiteIndex
  style: HouseStyle
  /** The site's name on the shelf. */
  name: string
  base: string
  /** The folder of the archive that is the site's root, `site/`; "" where it is the top. */
  root: string
  /** Addresses that changed, by paths from the root. */
  moves: Moves
  /** YYYY-MM-DD */
  date: string
  /** Rules for what recurs on pages built alike. */
  templates: readonly TemplateRule[]
}

/** The name that the site goes by in its pages' data: the house's own, or the shelf's where that is no mere address. */
export const siteNameOf = ({ style, name }: Pick<AuditSetting, 'style' | 'name'>): string | null =>
  style.siteName ?? (/^[^\s]+\.[a-z]{2,}$/i.test(name) ? null : name)

/** A file's address as it is handed off, and as it was taken in. */
export function addressesFor(
  path: string,
  { root, base, moves }: AuditSetting,
): { url: string; oldUrl: string } {
  const own = path.slice(root.length)
  return { url: addressOf(moves.paths.get(own) ?? own, base), oldUrl: addressOf(own, base) }
}

/** A page's draft with what the site's rules for many pages make of it below. */
export function wholeDraft(path: string, source: Source, decisions: Decisions, setting: AuditSetting): Draft {
  const own = draftOf(decisions)
  if (setting.templates.length === 0) return own
  return overTemplates(own, templateDraft(itemsOf(path, source, setting), setting.templates, path))
}

const outlines = new WeakMap<Source, OutlineItem[]>()
/** What rules for many pages look at in a source, found once: it never changes. */
export function itemsOf(path: string, source: Source, setting: AuditSetting): OutlineItem[] {
  let items = outlines.get(source)
  if (!items) {
    const { oldUrl: url } = addressesFor(path, setting)
    items = outlineItems(source, factsOf(source, { path, url, main: setting.style.main }))
    outlines.set(source, items)
  }
  return items
}

/** A page as it is handed off: its draft with tokens filled and metas that follow, and its addresses following the moves. */
export function proofFor(path: string, source: Source, decisions: Decisions, setting: AuditSetting): Proof {
  const { url, oldUrl } = addressesFor(path, setting)
  const typed = wholeDraft(path, source, decisions, setting)
  const follow = followOf(decisions)
  let draft = typed
  if (draftHasTokens(typed) || follow.length > 0) {
    const before = factsOf(source, { path, url: oldUrl, main: setting.style.main })
    draft = fillDraft(typed, valuesFor(before, source, typed, { path, url }, setting))
    draft = followDraft(draft, follow, {
      title: titleOf(before)?.text ?? null,
      description: descriptionOf(before)?.content ?? null,
    })
  }
  const own = path.slice(setting.root.length)
  const pageMoves = pageMovesFor(own, setting.moves, setting.base)
  if (hasBuilt(draft)) {
    const rest = applyDraft(source, withoutBuilt(draft), pageMoves)
    const where = { path, url, main: setting.style.main }
    const page =
      rest.source === source && url === oldUrl ? factsOf(source, where) : readPage(rest.source, where)
    draft = followPage(
      draft,
      page,
      rest.source.text,
      (start) => sourceBytes(rest, [start])[0]!,
      siteSideOf(page, setting.index, siteNameOf(setting)),
      setting.style.language ?? 'en',
    )
  }
  return applyDraft(source, draft, pageMoves)
}

/** Token values of a page; headings as the draft leaves them, where it changes any. */
function valuesFor(
  before: PageFacts,
  source: Source,
  draft: Draft,
  where: { path: string; url: string },
  { index, style, date }: AuditSetting,
): TokenValues {
  const headings = Object.fromEntries(Object.entries(draft).filter(([key]) => key.startsWith('heading@')))
  const page =
    Object.keys(headings).length > 0
      ? readPage(applyDraft(source, headings).source, where)
      : { ...before, url: where.url }
  return tokenValues(page, { site: index, style: styleFor(style, where.url), date })
}

export interface Evaluated {
  source: Source
  /** The page as it was taken in. */
  before: PageFacts
  proof: Proof
  page: PageFacts
  marks: Mark[]
  row: LedgerRow
}

export const basisOf = (
  decisions: Decisions,
  { style, templates }: Pick<AuditSetting, 'style' | 'templates'>,
  url: string,
): string => hash(JSON.stringify([AUDIT, style, templates, decisions, url]))

const facts = new WeakMap<Source, { main: string | null; page: PageFacts }>()
/** A source's own facts, read once: it never changes. */
function factsOf(source: Source, where: { path: string; url: string; main: string | null }): PageFacts {
  const known = facts.get(source)
  if (known?.main === where.main) return known.page
  const page = readPage(source, where)
  facts.set(source, { main: where.main, page })
  return page
}

const rank: Record<Severity, number> = { blocker: 0, flaw: 1, nit: 2 }

export function evaluate(
  site: string,
  path: string,
  source: Source,
  decisions: Decisions,
  setting: AuditSetting,
): Evaluated {
  const { index, date } = setting
  const { url, oldUrl } = addressesFor(path, setting)
  const style = styleFor(setting.style, url)
  const proof = proofFor(path, source, decisions, setting)
  const page = readPage(proof.source, { path, url, main: setting.style.main })
  const before =
    proof.source === source && url === oldUrl
      ? page
      : factsOf(source, { path, url: oldUrl, main: setting.style.main })
  const keywords = keywordsOf(decisions)
  const marks = auditPage(page, index, setting.style, { date, keywords })
  const primary = keywords?.primary
  const counts = { blocker: 0, flaw: 0, nit: 0 }
  // Places of marks are looked up only where something was let stand: a page can have hundreds.
  const anyStet = Object.keys(decisions).some((k) => k.startsWith('stet:'))
  const targets = anyStet ? placesOf(marks, proof) : []
  const left = anyStet ? marks.filter((m, i) => !stetOf(m, targets[i]!, decisions).stands) : marks
  for (const mark of left) counts[mark.severity]++
  const title = titleOf(page)
  const description = descriptionOf(page)
  const titleMeasured = measure(title?.text ?? '', 'title', style.slots)
  const first = outlineOf(page).filter((h) => h.level === 1)
  const { author, price } = furnitureOf(page)
  return {
    source,
    before,
    proof,
    page,
    marks,
    row: {
      site,
      path,
      url,
      title: title?.text ?? null,
      titlePx: titleMeasured.px,
      titleFit: titleMeasured.wide.state,
      titleFitNarrow: titleMeasured.narrow.state,
      description: description?.content ?? null,
      descriptionFit: measure(description?.content ?? '', 'description', style.slots).wide.state,
      h1: first.find((h) => h.text)?.text ?? null,
      h1Count: first.length,
      words: page.main.words,
      lang: page.lang,
      indexable: isIndexable(page),
      author,
      price: price ? shownPrice(price, page.lang) : null,
      ...targetsOf(page, index),
      phrase: primary ?? null,
      keyword: keywordKey(primary ? compileKeyword(primary, page.lang ?? style.language) : null),
      things: siteThings(page),
      rules: [...new Set([...left].sort((a, b) => rank[a.severity] - rank[b.severity]).map((m) => m.rule))],
      ...counts,
      basis: basisOf(decisions, setting, url),
    },
  }
}

/** What each mark is about, as a stet remembers it: a field by its name, anything else by its byte in the source. */
export function placesOf(marks: Mark[], proof: Proof): string[] {
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

/** How a mark is let stand on a page: under which key, by whom decided, and whether what was decided holds for it still. */
export function stetOf(
  mark: Pick<Mark, 'rule' | 'values'>,
  target: string,
  decisions: Decisions,
): { key: string; stet: Stet | null; stands: boolean } {
  const key = stetKey(mark.rule, target)
  const stet = (decisions[key] as Stet | undefined) ?? null
  return { key, stet, stands: stet !== null && stet.fingerprint === fingerprint(mark.values) }
}
