/** A site that is open: its index in memory, pages evaluated as their decisions change. One for each worker. */
import { dequal } from 'dequal'
import { decodeSheet, readTable } from '../../core/exchange/csv.ts'
import { readKeywords } from '../../core/exchange/keyword-sheet.ts'
import type { TemplateRule } from '../../core/headings/template-rules.ts'
import type { Role } from '../../core/measure/snippet.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import { catalogue } from '../../core/rules/catalogue.ts'
import type { HouseStyle } from '../../core/rules/house-style.ts'
import type { Rule, SiteMark } from '../../core/rules/rule.ts'
import { auditSite, ruleOf } from '../../core/rules/runner.ts'
import { noMoves } from '../../core/site/moves.ts'
import { filePage, type PageId, type PageIdentity } from '../../core/site/page-identity.ts'
import type { FileSizes } from '../../core/site/file-sizes.ts'
import { emptyIndex, updateIndex } from '../../core/site/site-index.ts'
import { commonSuffix } from '../../core/wording/patterns.ts'
import type { DraftedTake } from '../../core/wording/takes.ts'
import { draftOf, styleOf, takesOf, templatesOf, type Decisions } from '../../core/work/decisions.ts'
import {
  basisOf,
  evaluate,
  readDraft,
  type Evaluated,
  type LedgerRow,
  type Reading,
} from '../../core/work/evaluate.ts'
import { addressOf } from '../../core/addresses/addresses.ts'
import {
  addressesFor,
  filesFromRoot,
  fromRoot,
  settleMoves,
  slugOf,
  slugPath,
  slugsOf,
} from '../../core/work/setting.ts'
import { db, type AddressesRecord, type RowRecord, type SiteRecord } from '../store/db.ts'
import { current, readingFor, setCurrent, sourceFor, type Open } from './open-site.ts'
import { learn, pagesSpeakingOf } from './site-pages.ts'
import { draftedTakes, viewOf, type PageView } from './page-view.ts'
import { previewPattern, type PatternPreview } from './patterns.ts'

export interface Opened {
  site: SiteRecord
  rows: LedgerRow[]
  work: { page: PageId; decisions: Decisions }[]
  siteMarks: SiteMark[]
  style: HouseStyle
  templates: TemplateRule[]
  /** Every rule, for what a person chooses from. */
  rules: RuleName[]
  /** Pages whose rows an older audit made, and that wait to be judged anew. */
  stale: PageId[]
}
export type RuleName = Pick<Rule, 'id' | 'name' | 'family' | 'severity' | 'basis'>

const sinceAudit10 = ({ title, description }: RowRecord): Partial<RowRecord> => ({
  canonical: null,
  robots: '',
  images: 0,
  imagesWithoutAlt: 0,
  types: [],
  sourceTitle: title,
  sourceDescription: description,
})

/**
 * Opens a site: reads its rows, makes anew those whose decisions or audit have changed since, builds the index. With
 * `later`, all of them wait to be asked for: a page at which another worker got stuck may be among them.
 */
export async function openSite(siteId: string, today: string, later = false): Promise<Opened | null> {
  const site = await db.sites.get(siteId)
  if (!site || site.status !== 'ready') return null
  const [rows, work, filePaths, known, sizes] = await Promise.all([
    db.ledger.where('site').equals(siteId).toArray(),
    db.decisions.where('site').equals(siteId).toArray(),
    db.files.where('site').equals(siteId).primaryKeys(),
    db.addresses.get(siteId),
    db.fileSizes.where('site').equals(siteId).toArray(),
  ])
  const pages = await identitiesOf(site, rows)
  const decided = new Map(work.map((w) => [w.page, w.decisions]))
  const open = openOf(
    site,
    today,
    decided.get('') ?? {},
    pages,
    filePaths.map(([, path]) => path),
    known,
    new Map(sizes.map(({ path, bytes, image }) => [path, { bytes, image }])),
  )
  setCurrent(open)
  const { setting } = open
  setting.index.marksMentions = (decided.get('') ?? {}).mentions === true
  open.slugs = slugsOf(pages.values(), (id) => decided.get(id) ?? {}, setting)
  settleMoves(setting, open.files, open.slugs)
  for (const kept of rows.sort((a, b) => (a.path < b.path ? -1 : 1))) {
    // A row that an older audit made lacks what came since, until it is made anew.
    const row: RowRecord = { ...sinceAudit10(kept), ...kept }
    const page = pages.get(row.id)
    if (!page) continue
    row.url = addressesFor(page, setting).url
    open.rows.set(row.id, row)
    updateIndex(setting.index, row.id, row)
  }
  const stale = [...open.rows.values()]
    .filter((row) => row.basis !== basisOf(decided.get(row.id) ?? {}, setting, row.url))
    .map((row) => row.id)
  // A few are made anew at once; for many, the editor need not wait.
  const waiting: PageId[] = []
  for (const id of stale.length <= FEW && !later ? stale.splice(0) : []) {
    const source = await sourceFor(open, id)
    const judged = onePage(() => {
      if (source) judgeAnew(open, id, readDraft(pages.get(id)!, source, decided.get(id) ?? {}, setting))
      return { ok: true, value: null }
    })
    if (!judged.ok) waiting.push(id)
  }
  refreshSiteMarks(open)
  return {
    site,
    rows: [...open.rows.values()],
    work: work.map(({ page, decisions }) => ({ page, decisions })),
    siteMarks: open.siteMarks,
    style: setting.style,
    templates: [...setting.templates],
    rules: catalogue.map(({ id, name, family, severity, basis }) => ({ id, name, family, severity, basis })),
    stale: [...waiting, ...stale],
  }
}
const FEW = 60

/** What the site's pages are known by. Files say it by their rows alone: to open a site must not mean to read all of it. */
async function identitiesOf(site: SiteRecord, rows: RowRecord[]): Promise<Map<PageId, PageIdentity>> {
  const pages = new Map<PageId, PageIdentity>()
  const fetched: [string, PageId][] = []
  for (const { id, file } of rows)
    if (file === null) fetched.push([site.id, id])
    else pages.set(id, filePage(id, file, addressOf(fromRoot(file, site), site.base)))
  for (const record of await db.pages.bulkGet(fetched))
    if (record) {
      const { id, url, file, served, partial, words } = record
      pages.set(id, { id, url, file, served, partial, ...(words === undefined ? {} : { words }) })
    }
  return pages
}

function openOf(
  site: SiteRecord,
  date: string,
  decisions: Decisions,
  pages: Map<PageId, PageIdentity>,
  otherFiles: string[],
  known: AddressesRecord | undefined,
  sizes: FileSizes,
): Open {
  const { base, root, name, whole } = site
  const files = filesFromRoot(pages.values(), otherFiles, { root, base })
  return {
    site,
    setting: {
      index: emptyIndex(base, whole, files, { pages: pages.values(), ...known, sizes }),
      style: styleOf(decisions),
      date,
      name,
      base,
      baseKnown: true,
      root,
      moves: noMoves,
      templates: templatesOf(decisions),
    },
    pages,
    otherFiles,
    files,
    slugs: new Map(),
    rows: new Map(),
    sources: new Map(),
    siteMarks: [],
    edition: 0,
  }
}

/**
 * Takes up what was decided for a page as far as other pages depend on it: its slug. Returns the other pages whose
 * address is another now.
 */
function takeUp(open: Open, id: PageId, decisions: Decisions): PageId[] {
  const { setting, slugs, pages, files, rows } = open
  const page = pages.get(id)
  const path = page ? slugPath(page, setting) : null
  if (path === null) return []
  const slug = slugOf(decisions)
  if (JSON.stringify(slug) === JSON.stringify(slugs.get(path) ?? null)) return []
  if (slug) slugs.set(path, slug)
  else slugs.delete(path)
  settleMoves(setting, files, slugs)
  open.edition++
  const moved: PageId[] = []
  for (const [other, entry] of setting.index.entries) {
    const page = pages.get(other)
    const url = page && addressesFor(page, setting).url
    if (url === undefined || url === entry.url) continue
    updateIndex(setting.index, other, { ...entry, url })
    const row = rows.get(other)
    if (row) rows.set(other, { ...row, url })
    if (other !== id) moved.push(other)
  }
  return moved
}

/** Pages whose marks are others once the site's first keyword is assigned, or its last one taken back: all but those judged. */
function askedOfAll({ setting: { index } }: Open, hadKeywords: boolean, judged: readonly PageId[]): PageId[] {
  if (index.byKeyword.size > 0 === hadKeywords) return []
  return [...index.entries.keys()].filter((id) => !judged.includes(id))
}

/** Judges a page that was read; its row and the index follow. */
function judgeAnew(open: Open, id: PageId, reading: Reading): Evaluated {
  const evaluated = evaluate(reading)
  open.rows.set(id, evaluated.row)
  if (open.setting.index.marksMentions) learn(open, reading)
  updateIndex(open.setting.index, id, evaluated.row)
  rowsToSave.set(id, { ...evaluated.row, site: open.site.id })
  saveRowsSoon(open.site.id)
  return evaluated
}

const rowsToSave = new Map<PageId, RowRecord>()
let saving: ReturnType<typeof setTimeout> | null = null
/** Rows are derived, so they may be written late: a row that was not is made anew when the site is opened. */
function saveRowsSoon(site: string): void {
  saving ??= setTimeout(() => {
    saving = null
    const rows = [...rowsToSave.values()].filter((r) => r.site === site)
    rowsToSave.clear()
    void db.ledger.bulkPut(rows)
  }, 400)
}

/** Site marks anew; true when they differ from those before. */
function refreshSiteMarks(open: Open): boolean {
  const siteMarks = auditSite(open.setting.index, open.setting.style, open.setting.date)
  if (dequal(siteMarks, open.siteMarks)) return false
  open.siteMarks = siteMarks
  return true
}

export interface Answer {
  view: PageView
  /** Only when they changed. */
  siteMarks: SiteMark[] | null
  /** Other pages to be judged anew: those that this decision moved, or whose marks hang on it. */
  moved: PageId[]
}

/** A page with the decisions it has now: proof, facts, marks; the index and the marks of the site follow. */
export async function evaluatePage(id: PageId, decisions: Decisions): Promise<Answer | null> {
  const open = current
  if (!open?.setting.index.entries.has(id)) return null
  const moved = new Set(takeUp(open, id, decisions))
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const hadKeywords = open.setting.index.byKeyword.size > 0
  const phraseBefore = open.rows.get(id)?.phrase
  const evaluated = judgeAnew(open, id, reading)
  for (const other of askedOfAll(open, hadKeywords, [id])) moved.add(other)
  if (evaluated.row.phrase !== phraseBefore)
    for (const other of pagesSpeakingOf(open, [phraseBefore, evaluated.row.phrase])) moved.add(other)
  moved.delete(id)
  const changed = refreshSiteMarks(open)
  return {
    view: viewOf(evaluated, open.siteMarks),
    siteMarks: changed ? open.siteMarks : null,
    moved: [...moved],
  }
}

export interface JudgedTakes {
  drafted: Record<Role, DraftedTake[]>
  /** The names of the marks that each wording would have in its place, by role and wording. */
  marks: Record<string, string[]>
}

/** Wordings drafted from the page, and the marks that these and those kept would have; nothing is changed by asking. */
export async function judgeTakes(id: PageId, decisions: Decisions): Promise<JudgedTakes | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const { identity, source, setting } = reading
  const drafted = draftedTakes(evaluate(reading))
  const marks: Record<string, string[]> = {}
  for (const role of ['title', 'description'] as const)
    for (const { text } of [...takesOf(decisions, role), ...drafted[role]]) {
      const key = role === 'title' ? 'edit:title' : 'edit:meta:description'
      const withTake = { ...decisions, [key]: { value: text } }
      const ofRole = evaluate(readDraft(identity, source, withTake, setting)).marks.filter(
        (m) => ruleOf(m.rule).family === role,
      )
      marks[`${role}\n${text}`] = [...new Set(ofRole.map((m) => ruleOf(m.rule).name))]
      // Lets a keystroke's question in between two wordings.
      await new Promise((resolve) => setTimeout(resolve, 0))
    }
  return { drafted, marks }
}

export interface Judged {
  rows: LedgerRow[]
  /** Where they were asked for. */
  siteMarks: SiteMark[] | null
  /** Further pages to be judged anew: those that moved with these, or whose marks hang on them. */
  moved: PageId[]
  /** Pages that could not be judged; their rows stay what they were. */
  leftOut: { page: PageId; why: string }[]
}

/**
 * Rows of several pages after a bulk change, and with `isLast` the marks on the site: those look at every page, and over
 * thousands of pages they are worked out once, not with every few.
 */
export async function evaluateRows(
  pages: { page: PageId; decisions: Decisions }[],
  isLast: boolean,
): Promise<Judged | null> {
  const open = current
  if (!open) return null
  const moved = new Set<PageId>()
  for (const { page, decisions } of pages) for (const other of takeUp(open, page, decisions)) moved.add(other)
  const hadKeywords = open.setting.index.byKeyword.size > 0
  const rows: LedgerRow[] = []
  const changed: (string | null | undefined)[] = []
  const leftOut: Judged['leftOut'] = []
  for (const { page, decisions } of pages) {
    moved.delete(page)
    const identity = open.setting.index.entries.has(page) ? open.pages.get(page) : undefined
    const source = identity && (await sourceFor(open, page))
    if (!source) continue
    const phraseBefore = open.rows.get(page)?.phrase
    const judged = onePage(() => {
      const reading = readDraft(identity, source, decisions, open.setting)
      return { ok: true, value: judgeAnew(open, page, reading).row }
    })
    if (judged.ok && judged.value.phrase !== phraseBefore) changed.push(phraseBefore, judged.value.phrase)
    if (judged.ok) rows.push(judged.value)
    else leftOut.push({ page, why: judged.why })
  }
  open.edition++
  const judged = pages.map(({ page }) => page)
  for (const other of askedOfAll(open, hadKeywords, judged)) moved.add(other)
  const ownKeywords = new Set(judged)
  for (const other of pagesSpeakingOf(open, changed)) if (!ownKeywords.has(other)) moved.add(other)
  if (isLast) refreshSiteMarks(open)
  return { rows, siteMarks: isLast ? open.siteMarks : null, moved: [...moved], leftOut }
}

/** Takes up what was decided for the site as a whole; its pages are then to be judged anew. */
export function setSite(decisions: Decisions): SiteMark[] | null {
  if (!current) return null
  current.setting.style = styleOf(decisions)
  current.setting.templates = templatesOf(decisions)
  current.setting.index.marksMentions = decisions.mentions === true
  current.edition++
  refreshSiteMarks(current)
  return current.siteMarks
}

/** The proof's text, for the Source sheet. */
export async function proofText(id: PageId, decisions: Decisions): Promise<string | null> {
  return (await readingFor(id, decisions))?.proof.source.text ?? null
}

/** Keywords for all pages from a sheet. */
export async function readKeywordSheet(
  bytes: Uint8Array,
  siteId?: string,
): Promise<ReturnType<typeof readKeywords>> {
  const sheet = decodeSheet(bytes)
  const table = sheet.ok ? readTable(sheet.text) : sheet
  if (!table.ok) return table
  const pages =
    siteId === undefined
      ? (current?.setting.index.entries.values() ?? [])
      : await db.ledger.where('site').equals(siteId).toArray()
  return readKeywords(table, pages)
}

/** Titles as a pattern would make them, for a style that is not the site's yet. */
export async function patternPreview(
  pattern: string,
  match: string | null,
  after: HouseStyle,
): Promise<PatternPreview | null> {
  const open = current
  if (!open) return null
  const typed = new Map<string, string>()
  await db.decisions
    .where('site')
    .equals(open.site.id)
    .each(({ page, decisions }) => {
      const value = draftOf(decisions).title?.value
      if (value !== undefined) typed.set(page, value)
    })
  const { index, style, date } = open.setting
  return previewPattern(open.rows.values(), typed, { pattern, match, before: style, after, date }, index)
}

/** Titles of the site, from which its name and separator can be guessed. */
export const titleGuess = (): ReturnType<typeof commonSuffix> =>
  current ? commonSuffix([...current.rows.values()].map((r) => r.title ?? '').filter(Boolean)) : null
