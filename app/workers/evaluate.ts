/** One page's way through the core: source + decisions → proof → facts → marks, as the ledger and the desk show them. */
import { carryFor } from '../../core/exchange/hand-off.ts'
import { hash } from '../../core/exchange/hash.ts'
import {
  draftOf,
  followOf,
  keywordsOf,
  stetKey,
  type Decisions,
  type Stet,
} from '../../core/exchange/work.ts'
import { compileKeyword, type Keyword } from '../../core/keywords/match.ts'
import { measure, type Role } from '../../core/measure/snippet.ts'
import {
  descriptionOf,
  isIndexable,
  outlineOf,
  titleOf,
  type MainBy,
  type PageFacts,
} from '../../core/page/facts.ts'
import type { Draft, TargetKey } from '../../core/page/draft.ts'
import { lineAndColumn, lineStarts } from '../../core/page/places.ts'
import {
  outlineItems,
  overTemplates,
  templateDraft,
  type OutlineItem,
  type TemplateRule,
} from '../../core/headings/template-rules.ts'
import { applyDraft, type Proof } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read-page.ts'
import type { Source } from '../../core/page/source.ts'
import { styleFor, type HouseStyle, type Severity } from '../../core/rules/house-style.ts'
import { resolveRepair, sourceBytes } from '../../core/rules/resolve.ts'
import type { Family, Mark, ResolvedRepair, Sign, SiteMark } from '../../core/rules/rule.ts'
import { fingerprint } from '../../core/rules/fingerprint.ts'
import { auditPage, ruleOf } from '../../core/rules/runner.ts'
import { addressOf } from '../../core/site/addresses.ts'
import { pathParts, type Moves } from '../../core/site/moves.ts'
import { keywordKey, targetsOf, type SiteIndex } from '../../core/site/site-index.ts'
import { followPage, hasBuilt, withoutBuilt } from '../../core/structured-data/follow.ts'
import { siteSideOf } from '../../core/structured-data/site-side.ts'
import { inResult, type InResult } from '../../core/structured-data/in-result.ts'
import { siteThings } from '../../core/structured-data/site-things.ts'
import { shownPrice } from '../../core/structured-data/shown-price.ts'
import { furnitureOf, type Furniture } from '../../core/structured-data/things.ts'
import { namesIn } from '../../core/wording/casing.ts'
import { insteadOfTitle, passageFor, type Passage } from '../../core/wording/instead.ts'
import {
  carriers,
  draftHasTokens,
  fillDraft,
  followDraft,
  tokenValues,
} from '../../core/wording/page-tokens.ts'
import { aroundPage, pageWords } from '../../core/wording/patterns.ts'
import { makeSlug } from '../../core/wording/slug.ts'
import { draftDescriptions, draftTitles, type DraftedTake } from '../../core/wording/takes.ts'
import { fillTokens, type TokenValues } from '../../core/wording/tokens.ts'
import type { LedgerRow } from '../store/db.ts'
import { outlineViews, type HeadingView, type OtherLine } from './outline-view.ts'

/** Changes of the audit itself: rows made by an older one are made anew. */
const AUDIT = 4

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
  const carry = carryFor(own, setting.moves, setting.base)
  if (hasBuilt(draft)) {
    const rest = applyDraft(source, withoutBuilt(draft), carry)
    const page = readPage(rest.source, { path, url, main: setting.style.main })
    draft = followPage(
      draft,
      page,
      rest.source.text,
      (start) => sourceBytes(rest, [start])[0]!,
      siteSideOf(page, setting.index, siteNameOf(setting)),
      setting.style.language ?? 'en',
    )
  }
  return applyDraft(source, draft, carry)
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
      keyword: keywordKey(primary ? compileKeyword(primary, page.lang ?? style.language) : null),
      things: siteThings(page),
      rules: [...new Set([...left].sort((a, b) => rank[a.severity] - rank[b.severity]).map((m) => m.rule))],
      ...counts,
      basis: basisOf(decisions, setting, url),
    },
  }
}

/** What each mark is about, as a stet remembers it: a field by its name, anything else by its byte in the source. */
function placesOf(marks: Mark[], proof: Proof): string[] {
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

export interface AddressView {
  /** As taken in; `url` of the view is where the page will be. */
  oldUrl: string
  segments: string[]
  extension: string
  folder: boolean
  /** Pages under a folder's page. */
  under: number
  refused: string | null
  /** Slugs made from the title and from the keyword; "" where none can be made. */
  fromTitle: string
  fromKeyword: string
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
  /** What would be shown in place of a missing title or description, or in place of one that results choose not to use. */
  fallBackTitle: string
  passage: Passage | null
  /** The page's values for tokens in its title. */
  tokens: TokenValues
  /** Metas that carry the title's or the description's wording, and whether they follow it. */
  carriers: { name: string; content: string; follows: boolean }[]
  furniture: Furniture
  /** What of it results can use, by the features' requirements. */
  inResult: InResult
  /** Names of the page's own text, for casing. */
  names: string[]
  address: AddressView
  style: HouseStyle
  headings: HeadingView[]
  others: OtherLine[]
  mainBy: MainBy
  marks: MarkView[]
  refused: { key: TargetKey; why: string }[]
  row: LedgerRow
}

export function viewOf(
  evaluated: Evaluated,
  decisions: Decisions,
  siteMarks: SiteMark[],
  setting: AuditSetting,
): PageView {
  const { before, proof, page, marks, row } = evaluated
  const style = styleFor(setting.style, page.url)
  const starts = lineStarts(proof.source.text)
  const keywords = keywordsOf(decisions)
  const lang = page.lang ?? style.language
  const keyword = keywords?.primary ? compileKeyword(keywords.primary, lang) : null
  const tokens = tokenValues(
    { ...page, titles: before.titles },
    { site: setting.index, style, date: setting.date },
  )
  const bytes = sourceBytes(
    proof,
    Array.from(page.headings, (h) => h.start),
  )
  const targets = placesOf(marks, proof)
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
    fallBackTitle: insteadOfTitle(page).text,
    passage: textFacts(page, keyword).passage,
    tokens,
    carriers: carriers.flatMap((name) => {
      const meta = page.metas.find((m) => m.name === name && m.inHead)
      return meta ? [{ name, content: meta.content, follows: followOf(decisions).includes(name) }] : []
    }),
    furniture: furnitureOf(page),
    inResult: inResult(page),
    names: textFacts(page, keyword).names,
    address: addressView(
      page,
      decisions,
      setting,
      style,
      pageWords(row.title ?? '', style.titlePattern, tokens) || insteadOfTitle(page).text,
    ),
    style,
    ...outlineViews(evaluated, decisions, setting, bytes, starts, keyword),
    mainBy: page.main.by,
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

/** What is found in the running text, kept while neither it nor the keyword changes: typing in the head changes neither. */
function textFacts(page: PageFacts, keyword: Keyword | null): { passage: Passage | null; names: string[] } {
  const key = `${keyword?.lang}|${keyword?.text}`
  if (found?.text !== page.main.text || found.key !== key)
    found = {
      text: page.main.text,
      key,
      passage: passageFor(page, keyword),
      names: [...namesIn(page.main.text)],
    }
  return found
}
let found: { text: string; key: string; passage: Passage | null; names: string[] } | null = null

/** Titles and descriptions drafted from the page itself. */
export function draftedTakes(
  { page, before, row }: Evaluated,
  decisions: Decisions,
  setting: AuditSetting,
): Record<Role, DraftedTake[]> {
  const style = styleFor(setting.style, page.url)
  const lang = page.lang ?? style.language
  const primary = keywordsOf(decisions)?.primary
  const keyword = primary ? compileKeyword(primary, lang) : null
  const tokens = tokenValues(
    { ...page, titles: before.titles },
    { site: setting.index, style, date: setting.date },
  )
  const suffix = style.titlePattern
    ? aroundPage(style.titlePattern)?.tail
    : style.siteName
      ? style.separator + style.siteName
      : ''
  const takes = {
    page,
    keyword,
    slots: style.slots,
    suffix: fillTokens(suffix ?? '', tokens).text,
    own: pageWords(row.title ?? '', style.titlePattern, tokens),
    lang,
  }
  return { title: draftTitles(takes), description: draftDescriptions(takes) }
}

function addressView(
  page: PageFacts,
  decisions: Decisions,
  setting: AuditSetting,
  style: HouseStyle,
  title: string,
): AddressView {
  const { root, moves, index } = setting
  const own = page.path.slice(root.length)
  const parts = pathParts(own)
  const lang = page.lang ?? style.language
  const keyword = keywordsOf(decisions)?.primary ?? ''
  const make = (text: string) =>
    makeSlug(text, {
      lang,
      words: style.limits.slugWords,
      characters: style.limits.slugLongest,
      keep: keyword,
    })
  const folder = parts.segments.length > 0 && parts.folder ? `${root}${parts.segments.join('/')}/` : null
  let under = 0
  if (folder !== null)
    for (const path of index.entries.keys()) if (path !== page.path && path.startsWith(folder)) under++
  return {
    oldUrl: addressesFor(page.path, setting).oldUrl,
    ...pathParts(moves.paths.get(own) ?? own),
    under,
    refused: moves.refused.find((r) => r.path === own)?.why ?? null,
    fromTitle: make(title),
    fromKeyword: keyword ? make(keyword) : '',
  }
}
