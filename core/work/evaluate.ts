/** A page with its decisions, read and judged: what the ledger keeps of it, and all that the desk shows of it. */
import { hash } from '../hash.ts'
import { placementOf, type Placement } from '../keywords/placement.ts'
import { measure, type Fit } from '../measure/snippet.ts'
import type { Proof } from '../page/proof.ts'
import {
  canonicalOf,
  descriptionOf,
  outlineOf,
  robotsOf,
  titleOf,
  type Need,
  type PageFacts,
} from '../page/read/facts.ts'
import { readPage } from '../page/read/read-page.ts'
import type { Served } from '../page/source/served.ts'
import type { Source } from '../page/source/source.ts'
import { fingerprint } from '../rules/fingerprint.ts'
import { styleFor, type Severity } from '../rules/house-style.ts'
import { sourceBytes } from '../rules/resolve.ts'
import type { Mark } from '../rules/rule.ts'
import { auditPage, ruleOf } from '../rules/runner.ts'
import { pathOf, type PageIdentity } from '../site/page-identity.ts'
import { entryOf, type IndexEntry } from '../site/site-index.ts'
import { shownPrice } from '../structured-data/shown-price.ts'
import { furnitureOf, typesDescribed } from '../structured-data/things.ts'
import { compileKeyword } from '../words/match.ts'
import { keywordsOf, stetKey, type Decisions, type Stet } from './decisions.ts'
import { pageProof, sourceFacts } from './page-proof.ts'
import { addressesFor, type SiteSetting } from './setting.ts'

/** Changes of the audit itself: rows made by an older one are made anew. */
const AUDIT = 11

/** What the ledger shows of a page: its entry in the site's index, and figures of its own. */
export interface LedgerRow extends IndexEntry {
  /** Its path in the folder or ZIP; null for a page without a file. */
  file: string | null
  /** What the server said with it, and what little is known of it: as its identity has both. */
  served: Served | null
  partial: PageIdentity['partial']
  /** Title and description as the page has them without its draft. */
  sourceTitle: string | null
  sourceDescription: string | null
  titlePx: number
  titleFit: Fit
  titleFitNarrow: Fit
  descriptionFit: Fit
  h1Count: number
  words: number
  lang: string | null
  /** Its canonical as it is written; null for none. Robots directives as they are written, headers aside. */
  canonical: string | null
  robots: string
  images: number
  /** Images that show something and have no alternative text at all. */
  imagesWithoutAlt: number
  /** Types of the things that its JSON-LD describes. */
  types: string[]
  /** Where it has its primary keyword and where it has not; null where none is assigned. */
  placement: Placement | null
  /** What its own data gives for tokens. */
  author: string | null
  price: string | null
  /** Rule ids of the marks left, most serious first, stetted ones aside; and how many of each severity. */
  rules: string[]
  blocker: number
  flaw: number
  nit: number
  /** What the row was made from: another audit or other decisions ask for a new row. */
  basis: string
}

/** A page read once for one set of decisions; every view of it is a projection of this. */
export interface Reading {
  identity: PageIdentity
  source: Source
  decisions: Decisions
  setting: SiteSetting
  /** The page as it was taken in. */
  before: PageFacts
  proof: Proof
  page: PageFacts
}

export function readDraft(
  identity: PageIdentity,
  source: Source,
  decisions: Decisions,
  setting: SiteSetting,
): Reading {
  const { url, oldUrl } = addressesFor(identity, setting)
  const proof = pageProof(identity, source, decisions, setting)
  const unchanged = proof.source === source && url === oldUrl
  const page = readPage(proof.source, { path: pathOf(identity), url, main: setting.style.main })
  const before = unchanged ? page : sourceFacts(identity, source, setting)
  return { identity, source, decisions, setting, before, proof, page }
}

export interface Evaluated extends Reading {
  marks: Mark[]
  /** Those that nobody let stand. */
  openMarks: Mark[]
  row: LedgerRow
}

export function evaluate(reading: Reading): Evaluated {
  const { page, decisions, setting } = reading
  const keywords = keywordsOf(decisions)
  const marks = auditPage(page, setting.index, setting.style, {
    date: setting.date,
    keywords,
    known: knownOf(reading.identity, reading.before),
    baseKnown: setting.baseKnown,
  })
  const openMarks = marksLeft(marks, reading)
  return { ...reading, marks, openMarks, row: rowOf(reading, openMarks) }
}

/** What is known of a page of which little is: of a sheet's row, what the sheet has columns for; undefined where all is. */
function knownOf({ partial }: PageIdentity, before: PageFacts): ReadonlySet<Need> | undefined {
  if (partial === null) return undefined
  const known = new Set<Need>(['address'])
  if (partial === 'head' || titleOf(before)) known.add('title')
  if (partial === 'head' || descriptionOf(before)) known.add('description')
  if (partial === 'head') known.add('head')
  return known
}

const rank: Record<Severity, number> = { blocker: 0, flaw: 1, nit: 2 }

/** The marks without those that were let stand. Places are looked up only where one was: a page can have hundreds of marks. */
function marksLeft(marks: Mark[], { proof, decisions }: Reading): Mark[] {
  if (!Object.keys(decisions).some((key) => key.startsWith('stet:'))) return marks
  const targets = markTargets(marks, proof)
  return marks.filter((mark, i) => !stetOf(mark, targets[i]!, decisions).stands)
}

function rowOf(reading: Reading, openMarks: Mark[]): LedgerRow {
  const { identity, page, decisions, setting } = reading
  const style = styleFor(setting.style, page.url)
  const counts = { blocker: 0, flaw: 0, nit: 0 }
  for (const mark of openMarks) counts[mark.severity]++
  const title = titleOf(page)?.text ?? ''
  const description = descriptionOf(page)?.content ?? ''
  const titleMeasured = measure(title, 'title', style.slots)
  const { author, price } = furnitureOf(page)
  const primary = keywordsOf(decisions)?.primary
  const keyword = primary ? compileKeyword(primary, page.lang ?? style.language) : null
  const { leadWords } = style.limits
  return {
    ...entryOf(identity.id, page, setting.index, keyword),
    phrase: primary ?? null,
    file: identity.file,
    sourceTitle: titleOf(reading.before)?.text ?? null,
    sourceDescription: descriptionOf(reading.before)?.content ?? null,
    titlePx: titleMeasured.px,
    titleFit: titleMeasured.wide.state,
    titleFitNarrow: titleMeasured.narrow.state,
    descriptionFit: measure(description, 'description', style.slots).wide.state,
    h1Count: outlineOf(page).filter((h) => h.level === 1).length,
    words: identity.words ?? page.main.words,
    served: identity.served,
    partial: identity.partial,
    lang: page.lang,
    canonical: canonicalOf(page)?.href ?? null,
    robots: robotsOf(page).join(', '),
    images: page.images.length,
    imagesWithoutAlt: page.images.filter((i) => i.alt === null && !i.named && !i.presentational && !i.hidden)
      .length,
    types: typesDescribed(page),
    placement: keyword && placementOf(page, keyword, { base: setting.base, leadWords }).placement,
    author,
    price: price ? shownPrice(price, page.lang) : null,
    rules: [
      ...new Set([...openMarks].sort((a, b) => rank[a.severity] - rank[b.severity]).map((m) => m.rule)),
    ],
    ...counts,
    basis: basisOf(decisions, setting, page.url),
  }
}

/** What a row is made from, as far as the page, its decisions and the site's go: another one asks for a new row. */
export const basisOf = (
  decisions: Decisions,
  { style, templates, index }: Pick<SiteSetting, 'style' | 'templates' | 'index'>,
  url: string,
): string => hash(JSON.stringify([AUDIT, style, templates, decisions, url, index.marksMentions]))

/** What each mark is about, as a stet remembers it: a field by its name, anything else by its byte in the source. */
export function markTargets(marks: Mark[], proof: Proof): string[] {
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
