/** What the desk shows of a page, from what was worked out of it. */
import { followOf, keywordsOf, type Stet } from '../../core/work/decisions.ts'
import { compileKeyword, type Keyword } from '../../core/words/match.ts'
import type { Role } from '../../core/measure/snippet.ts'
import { descriptionOf, titleOf, type MainBy, type PageFacts } from '../../core/page/read/facts.ts'
import type { TargetKey } from '../../core/page/edits/draft.ts'
import { lineAndColumn, lineStarts } from '../../core/page/source/places.ts'
import { styleFor, type HouseStyle, type Severity } from '../../core/rules/house-style.ts'
import { resolveRepair, sourceBytes } from '../../core/rules/resolve.ts'
import type { Family, Mark, ResolvedRepair, ShownOn, Sign, SiteMark } from '../../core/rules/rule.ts'
import { fingerprint } from '../../core/rules/fingerprint.ts'
import { ruleOf } from '../../core/rules/runner.ts'
import { pathParts } from '../../core/site/moves.ts'
import { inResult, type InResult } from '../../core/structured-data/in-result.ts'
import { furnitureOf, type Furniture } from '../../core/structured-data/things.ts'
import { namesIn } from '../../core/wording/casing.ts'
import { insteadOfTitle, passageFor, type Passage } from '../../core/wording/shown-instead.ts'
import { carriers, tokenValues } from '../../core/site/page-tokens.ts'
import { aroundPage, pageWords } from '../../core/wording/patterns.ts'
import { makeSlug } from '../../core/wording/slug.ts'
import { draftDescriptions, draftTitles, type DraftedTake } from '../../core/wording/takes.ts'
import { fillTokens, type TokenValues } from '../../core/wording/tokens.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { markTargets, stetOf, type Evaluated, type LedgerRow } from '../../core/work/evaluate.ts'
import { addressesFor, slugPath } from '../../core/work/setting.ts'
import { outlineViews, type HeadingView, type OtherLine } from './outline-view.ts'

/** A mark as the margin shows it. */
export interface MarkView {
  id: string
  rule: string
  family: Family
  /** Where it is shown: by sheet, the part of it that it stands beside. */
  shownOn: ShownOn
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
  id: PageId
  /** What it is called: its file, or its address where it has none. */
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

export function viewOf(evaluated: Evaluated, siteMarks: readonly SiteMark[]): PageView {
  const { identity, before, proof, page, marks, row, decisions, setting } = evaluated
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
  const targets = markTargets(marks, proof)
  return {
    id: identity.id,
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
      evaluated,
      style,
      pageWords(row.title ?? '', style.titlePattern, tokens) || insteadOfTitle(page).text,
    ),
    style,
    ...outlineViews(evaluated, bytes, starts, keyword),
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
        .filter((m) => m.pages.includes(identity.id))
        .map((m, i) => {
          const { key, stet, stands } = stetOf(m, 'site', decisions)
          return markView({ ...m, start: null, end: null }, `${m.rule}-site-${i}`, {
            line: null,
            repair: null,
            stetKey: key,
            stet: stands ? stet : null,
            stoodBefore: stands ? null : stet,
            otherPages: m.pages
              .filter((id) => id !== identity.id)
              .map((id) => setting.index.entries.get(id)?.path ?? id),
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
  const { name, family, shownOn, sign, why, mend, basis } = ruleOf(mark.rule)
  const { rule, severity, message, start, end, values } = mark
  return {
    id,
    rule,
    family,
    shownOn,
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
  if (lastPassage?.text !== page.main.text || lastPassage.key !== key)
    lastPassage = {
      text: page.main.text,
      key,
      passage: passageFor(page, keyword),
      names: [...namesIn(page.main.text)],
    }
  return lastPassage
}
let lastPassage: { text: string; key: string; passage: Passage | null; names: string[] } | null = null

/** Titles and descriptions drafted from the page itself. */
export function draftedTakes({
  page,
  before,
  row,
  decisions,
  setting,
}: Evaluated): Record<Role, DraftedTake[]> {
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
  { identity, page, decisions, setting }: Evaluated,
  style: HouseStyle,
  title: string,
): AddressView {
  const { moves, index } = setting
  const lang = page.lang ?? style.language
  const keyword = keywordsOf(decisions)?.primary ?? ''
  const make = (text: string) =>
    makeSlug(text, {
      lang,
      words: style.limits.slugWords,
      characters: style.limits.slugLongest,
      keep: keyword,
    })
  const path = slugPath(identity, setting)
  const parts = pathParts(path ?? '')
  const folder =
    identity.file !== null && parts.segments.length > 0 && parts.folder
      ? identity.file.slice(0, identity.file.lastIndexOf('/') + 1)
      : null
  let under = 0
  if (folder !== null)
    for (const entry of index.entries.values())
      if (entry.id !== identity.id && entry.path.startsWith(folder)) under++
  return {
    oldUrl: addressesFor(identity, setting).oldUrl,
    ...pathParts(path === null ? '' : (moves.paths.get(path) ?? path)),
    under,
    refused: moves.refused.find((r) => r.path === path)?.why ?? null,
    fromTitle: make(title),
    fromKeyword: keyword ? make(keyword) : '',
  }
}
