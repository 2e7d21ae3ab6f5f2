/** A site that is open: its index in memory, pages evaluated as their decisions change. One for each worker. */
import { decodeSheet, readTable } from '../../core/exchange/csv.ts'
import { writeApproval, type ApprovalFile, type ApprovalPage } from '../../core/exchange/approval.ts'
import { draftOf, styleOf, takesOf, templatesOf, type Decisions } from '../../core/work/decisions.ts'
import type { TemplateRule } from '../../core/headings/template-rules.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import type { Source } from '../../core/page/source/source.ts'
import { descriptionOf, titleOf, type PageFacts } from '../../core/page/read/facts.ts'
import type { DraftedTake } from '../../core/wording/takes.ts'
import { commonSuffix } from '../../core/wording/patterns.ts'
import { styleFor, type HouseStyle } from '../../core/rules/house-style.ts'
import type { Rule, SiteMark } from '../../core/rules/rule.ts'
import { catalogue } from '../../core/rules/catalogue.ts'
import type { Role } from '../../core/measure/snippet.ts'
import { auditSite, ruleOf } from '../../core/rules/runner.ts'
import { addressBook, addressKey } from '../../core/addresses/addresses.ts'
import { movesOf, noMoves, type SlugEdit } from '../../core/site/moves.ts'
import { emptyIndex, updateIndex, type SiteIndex } from '../../core/site/site-index.ts'
import { db, type LedgerRow, type SiteRecord } from '../store/db.ts'
import { addressesFor, basisOf, evaluate, proofFor } from './evaluate.ts'
import { draftedTakes, viewOf, type PageView } from './page-view.ts'
import { current, setCurrent, sourceFor, type Open } from './open-site.ts'
import { previewPattern, type PatternPreview } from './patterns.ts'

export interface Opened {
  site: SiteRecord
  rows: LedgerRow[]
  work: { path: string; decisions: Decisions }[]
  siteMarks: SiteMark[]
  style: HouseStyle
  templates: TemplateRule[]
  /** Every rule, for what a person chooses from. */
  rules: RuleName[]
  /** Pages whose rows an older audit made, and that wait to be judged anew. */
  stale: string[]
}
export type RuleName = Pick<Rule, 'id' | 'name' | 'family' | 'severity' | 'basis'>

const entryOfRow = (row: LedgerRow) => ({
  id: row.path,
  path: row.path,
  url: row.url,
  title: row.title,
  description: row.description,
  indexable: row.indexable,
  h1: row.h1,
  targets: row.targets ?? [],
  inText: row.inText ?? 0,
  linked: row.linked ?? 0,
  keyword: row.keyword ?? null,
  phrase: row.phrase ?? null,
  things: row.things ?? null,
})

/**
 * Opens a site: reads its rows, makes anew those whose decisions or audit have changed since, builds the index. With
 * `later`, all of them wait to be asked for: a page at which another worker got stuck may be among them.
 */
export async function openSite(id: string, today: string, later = false): Promise<Opened | null> {
  const site = await db.sites.get(id)
  if (!site || site.status !== 'ready') return null
  const [rows, work, filePaths] = await Promise.all([
    db.rows.where('site').equals(id).toArray(),
    db.work.where('site').equals(id).toArray(),
    db.files.where('site').equals(id).primaryKeys(),
  ])
  const files = [...rows.map((r) => r.path), ...filePaths.map(([, path]) => path)].map(
    (path) => [path, path.slice(site.root.length)] as const,
  )
  const decided = new Map(work.map((w) => [w.path, w.decisions]))
  const slugs = new Map<string, SlugEdit>()
  for (const [path, decisions] of decided) {
    const slug = slugOf(decisions)
    if (slug) slugs.set(path.slice(site.root.length), slug)
  }
  const index = emptyIndex(site.base, site.whole, files)
  setCurrent({
    site,
    setting: {
      index,
      style: styleOf(decided.get('') ?? {}),
      date: today,
      name: site.name,
      base: site.base,
      root: site.root,
      moves: noMoves,
      templates: templatesOf(decided.get('') ?? {}),
    },
    files,
    slugs,
    rows: new Map(),
    sources: new Map(),
    siteMarks: [],
    siteMarksJson: '',
  })
  const open = current!
  refreshMoves(open)
  for (const row of rows) {
    row.url = addressesFor(row.path, open.setting).url
    open.rows.set(row.path, row)
    updateIndex(index, row.path, entryOfRow(row))
  }
  const { setting } = open
  const { style } = setting
  const stale = rows
    .filter((r) => r.basis !== basisOf(decided.get(r.path) ?? {}, setting, r.url))
    .map((r) => r.path)
  // A few are made anew at once; for many, the editor need not wait.
  const waiting: string[] = []
  for (const path of stale.length <= FEW && !later ? stale.splice(0) : []) {
    const source = await sourceFor(open, path)
    const judged = onePage(() => {
      if (source) reevaluate(open, path, source, decided.get(path) ?? {})
      return { ok: true, value: null }
    })
    if (!judged.ok) waiting.push(path)
  }
  refreshSiteMarks(open)
  return {
    site,
    rows: [...open.rows.values()],
    work: work.map(({ path, decisions }) => ({ path, decisions })),
    siteMarks: open.siteMarks,
    style,
    templates: [...setting.templates],
    rules: catalogue.map(({ id, name, family, severity, basis }) => ({ id, name, family, severity, basis })),
    stale: [...waiting, ...stale],
  }
}
const FEW = 60

const slugOf = (decisions: Decisions): SlugEdit | null => {
  const edit = draftOf(decisions).slug
  return edit?.value === undefined ? null : { value: edit.value, ...(edit.alone ? { alone: true } : {}) }
}
/** Works out what moves, and under which addresses everything answers then. */
function refreshMoves(open: Open): void {
  const { site, files, slugs, setting } = open
  setting.moves = movesOf(
    files.map(([, path]) => path),
    slugs,
    site.base,
  )
  setting.index.addresses = addressBook(
    site.base,
    files.map(([id, path]) => [id, setting.moves.paths.get(path) ?? path] as const),
  )
}

/**
 * Takes up what was decided for a page as far as other pages depend on it: its slug. Returns the other pages whose
 * address is another now.
 */
function takeUp(open: Open, path: string, decisions: Decisions): string[] {
  const own = path.slice(open.site.root.length)
  const slug = slugOf(decisions)
  if (JSON.stringify(slug) === JSON.stringify(open.slugs.get(own) ?? null)) return []
  if (slug) open.slugs.set(own, slug)
  else open.slugs.delete(own)
  refreshMoves(open)
  const moved: string[] = []
  for (const [id, entry] of open.setting.index.entries) {
    const { url } = addressesFor(id, open.setting)
    if (url === entry.url) continue
    updateIndex(open.setting.index, id, { ...entry, url })
    const row = open.rows.get(id)
    if (row) open.rows.set(id, { ...row, url })
    if (id !== path) moved.push(id)
  }
  return moved
}

function reevaluate(open: Open, path: string, source: Source, decisions: Decisions) {
  const evaluated = evaluate(open.site.id, path, source, decisions, open.setting)
  open.rows.set(path, evaluated.row)
  updateIndex(open.setting.index, path, entryOfRow(evaluated.row))
  rowsToSave.set(path, evaluated.row)
  saveRowsSoon(open.site.id)
  return evaluated
}

const rowsToSave = new Map<string, LedgerRow>()
let saving: ReturnType<typeof setTimeout> | null = null
/** Rows are derived, so they may be written late: a row that was not is made anew when the site is opened. */
function saveRowsSoon(site: string): void {
  saving ??= setTimeout(() => {
    saving = null
    const rows = [...rowsToSave.values()].filter((r) => r.site === site)
    rowsToSave.clear()
    void db.rows.bulkPut(rows)
  }, 400)
}

/** Site marks anew; true when they differ from those before. */
function refreshSiteMarks(open: Open): boolean {
  open.siteMarks = auditSite(open.setting.index, open.setting.style, open.setting.date)
  const json = JSON.stringify(open.siteMarks)
  const changed = json !== open.siteMarksJson
  open.siteMarksJson = json
  return changed
}

export interface Answer {
  view: PageView
  /** Only when they changed. */
  siteMarks: SiteMark[] | null
  /** Other pages that this decision moved, to be judged anew. */
  moved: string[]
}

/** A page with the decisions it has now: proof, facts, marks; the index and the marks of the site follow. */
export async function evaluatePage(path: string, decisions: Decisions): Promise<Answer | null> {
  const open = current
  if (!open?.setting.index.entries.has(path)) return null
  const source = await sourceFor(open, path)
  if (!source) return null
  const moved = takeUp(open, path, decisions)
  const evaluated = reevaluate(open, path, source, decisions)
  const changed = refreshSiteMarks(open)
  return {
    view: viewOf(evaluated, decisions, open.siteMarks, open.setting),
    siteMarks: changed ? open.siteMarks : null,
    moved,
  }
}

export interface JudgedTakes {
  drafted: Record<Role, DraftedTake[]>
  /** The names of the marks that each wording would have in its place, by role and wording. */
  marks: Record<string, string[]>
}

/** Wordings drafted from the page, and the marks that these and those kept would have; nothing is changed by asking. */
export async function judgeTakes(path: string, decisions: Decisions): Promise<JudgedTakes | null> {
  const open = current
  const source = open && (await sourceFor(open, path))
  if (!source) return null
  const drafted = draftedTakes(
    evaluate(open.site.id, path, source, decisions, open.setting),
    decisions,
    open.setting,
  )
  const marks: Record<string, string[]> = {}
  for (const role of ['title', 'description'] as const)
    for (const { text } of [...takesOf(decisions, role), ...drafted[role]]) {
      const key = role === 'title' ? 'edit:title' : 'edit:meta:description'
      const as = { ...decisions, [key]: { value: text } }
      const own = evaluate(open.site.id, path, source, as, open.setting).marks.filter(
        (m) => ruleOf(m.rule).family === role,
      )
      marks[`${role}\n${text}`] = [...new Set(own.map((m) => ruleOf(m.rule).name))]
      // Lets a keystroke's question in between two wordings.
      await new Promise((resolve) => setTimeout(resolve, 0))
    }
  return { drafted, marks }
}

export interface Judged {
  rows: LedgerRow[]
  siteMarks: SiteMark[]
  /** Further pages that moved with these. */
  moved: string[]
  /** Pages that could not be judged; their rows stay what they were. */
  leftOut: { path: string; why: string }[]
}

/** Rows of several pages after a bulk change. */
export async function evaluateRows(pages: { path: string; decisions: Decisions }[]): Promise<Judged | null> {
  const open = current
  if (!open) return null
  const moved = new Set<string>()
  for (const { path, decisions } of pages) for (const other of takeUp(open, path, decisions)) moved.add(other)
  const rows: LedgerRow[] = []
  const leftOut: Judged['leftOut'] = []
  for (const { path, decisions } of pages) {
    moved.delete(path)
    if (!open.setting.index.entries.has(path)) continue
    const source = await sourceFor(open, path)
    if (!source) continue
    const judged = onePage(() => ({ ok: true, value: reevaluate(open, path, source, decisions).row }))
    if (judged.ok) rows.push(judged.value)
    else leftOut.push({ path, why: judged.why })
  }
  refreshSiteMarks(open)
  return { rows, siteMarks: open.siteMarks, moved: [...moved], leftOut }
}

/** Takes up what was decided for the site as a whole; its pages are then to be judged anew. */
export function setSite(decisions: Decisions): SiteMark[] | null {
  if (!current) return null
  current.setting.style = styleOf(decisions)
  current.setting.templates = templatesOf(decisions)
  refreshSiteMarks(current)
  return current.siteMarks
}

/** The proof's text, for the Source sheet. */
export async function proofText(path: string, decisions: Decisions): Promise<string | null> {
  const source = current && (await sourceFor(current, path))
  return source ? proofFor(path, source, decisions, current!.setting).source.text : null
}

export interface KeywordsRead {
  matched: { path: string; primary: string; secondary: string[] }[]
  unmatched: string[]
}

/** Keywords for all pages from a sheet: `path` or `url`, `primary`, `secondary` separated by `;`. */
export async function readKeywordSheet(
  bytes: Uint8Array,
): Promise<{ ok: true; read: KeywordsRead } | { ok: false; why: string }> {
  const sheet = decodeSheet(bytes)
  const table = sheet.ok ? readTable(sheet.text) : sheet
  if (!table.ok) return table
  const { columns, rows } = table
  const by = columns.includes('path') ? 'path' : columns.includes('url') ? 'url' : null
  if (!by || !columns.includes('primary'))
    return {
      ok: false,
      why: 'The first row must name the columns path (or url), primary and, where there are any, secondary.',
    }
  const index: SiteIndex | undefined = current?.setting.index
  const byUrl = new Map([...(index?.entries.values() ?? [])].map((e) => [addressKey(e.url), e.path]))
  const read: KeywordsRead = { matched: [], unmatched: [] }
  for (const { cells } of rows) {
    const key = cells[by]!.trim()
    const path = by === 'path' ? (index?.entries.has(key) ? key : undefined) : byUrl.get(addressKey(key))
    if (path === undefined) read.unmatched.push(key)
    else
      read.matched.push({
        path,
        primary: cells.primary!.trim().slice(0, 200),
        secondary: (cells.secondary ?? '')
          .split(';')
          .map((s) => s.trim().slice(0, 200))
          .filter(Boolean),
      })
  }
  return { ok: true, read }
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
  await db.work
    .where('site')
    .equals(open.site.id)
    .each(({ path, decisions }) => {
      const value = draftOf(decisions).title?.value
      if (value !== undefined) typed.set(path, value)
    })
  const { index, style, date } = open.setting
  return previewPattern(open.rows.values(), typed, { pattern, match, before: style, after, date }, index)
}

/** Titles of the site, from which its name and separator can be guessed. */
export const titleGuess = (): ReturnType<typeof commonSuffix> =>
  current ? commonSuffix([...current.rows.values()].map((r) => r.title ?? '').filter(Boolean)) : null

/** Pages before and after, for somebody to approve. */
export async function approvalPages(
  paths: string[],
  work: Record<string, Decisions>,
): Promise<ApprovalPage[]> {
  const open = current
  const pages: ApprovalPage[] = []
  for (const path of open ? paths : []) {
    const source = await sourceFor(open!, path)
    if (!source) continue
    const decisions = work[path] ?? {}
    const evaluated = onePage(() => ({
      ok: true,
      value: evaluate(open!.site.id, path, source, decisions, open!.setting),
    }))
    if (!evaluated.ok) throw new Error(`${path}: ${evaluated.why} Leave it out and try again.`)
    const { before, page } = evaluated.value
    const wording = (p: PageFacts) => ({
      title: titleOf(p)?.text ?? '',
      description: descriptionOf(p)?.content ?? '',
      url: p.url,
    })
    const after = wording(page)
    const others = (role: Role) =>
      takesOf(decisions, role)
        .map((t) => t.text)
        .filter((t) => t !== after[role])
    pages.push({
      path,
      lang: page.lang,
      before: wording(before),
      after,
      takes: { title: others('title'), description: others('description') },
      slots: styleFor(open!.setting.style, page.url).slots,
    })
  }
  return pages
}

export async function approvalFile(
  paths: string[],
  work: Record<string, Decisions>,
  fonts: ApprovalFile['fonts'],
): Promise<string | null> {
  if (!current) return null
  const { site, setting } = current
  return writeApproval({
    site: site.name,
    date: setting.date,
    pages: await approvalPages(paths, work),
    fonts,
  })
}
