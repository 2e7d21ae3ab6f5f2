/** A site that is open: its index in memory, pages evaluated as their decisions change. One for each worker. */
import { changeSheet, fieldChanges, type FieldChange } from '../../core/exchange/change-sheet.ts'
import { readTable } from '../../core/exchange/csv.ts'
import { writeProject } from '../../core/exchange/project.ts'
import { fileBytes, readRedirects, REDIRECTS, writeRedirects } from '../../core/exchange/hand-off.ts'
import { writeApproval, type ApprovalFile, type ApprovalPage } from '../../core/exchange/approval.ts'
import {
  draftOf,
  followOf,
  stateOf,
  styleOf,
  takesOf,
  templatesOf,
  type Decisions,
  type PageState,
} from '../../core/exchange/work.ts'
import type { TemplateRule } from '../../core/headings/template-rules.ts'
import { writeZip } from '../../core/exchange/zip.ts'
import { CARRIED } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read-page.ts'
import { sourceOf, type Source } from '../../core/page/source.ts'
import { descriptionOf, titleOf, type PageFacts } from '../../core/page/facts.ts'
import type { DraftedTake } from '../../core/wording/takes.ts'
import { commonSuffix } from '../../core/wording/patterns.ts'
import { styleFor, type HouseStyle } from '../../core/rules/house-style.ts'
import type { Rule, SiteMark } from '../../core/rules/rule.ts'
import { catalogue } from '../../core/rules/catalogue.ts'
import type { Role } from '../../core/measure/snippet.ts'
import { auditSite, ruleOf } from '../../core/rules/runner.ts'
import { addressBook, addressOf, isPagePath } from '../../core/site/addresses.ts'
import { movesOf, noMoves, redirectsOf, type Redirect, type SlugEdit } from '../../core/site/moves.ts'
import { emptyIndex, updateIndex, type SiteIndex } from '../../core/site/site-index.ts'
import { db, type LedgerRow, type SiteRecord } from '../store/db.ts'
import { addressesFor, basisOf, draftedTakes, evaluate, proofFor, viewOf, type PageView } from './evaluate.ts'
import { current, setCurrent, sourceFor, type Open } from './open-site.ts'
import type { Progress } from './intake.ts'
import { previewPattern, type PatternPreview } from './patterns.ts'
import { pagesWithRules } from './templates.ts'

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
  linked: row.linked ?? 0,
  keyword: row.keyword ?? null,
  things: row.things ?? null,
})

/** Opens a site: reads its rows, makes anew those whose decisions or audit have changed since, builds the index. */
export async function openSite(id: string, today: string): Promise<Opened | null> {
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
  if (stale.length <= FEW)
    for (const path of stale.splice(0)) {
      const source = await sourceFor(open, path)
      if (source) reevaluate(open, path, source, decided.get(path) ?? {})
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
    stale,
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

/** Rows of several pages after a bulk change; `moved` are further pages that moved with them. */
export async function evaluateRows(
  pages: { path: string; decisions: Decisions }[],
): Promise<{ rows: LedgerRow[]; siteMarks: SiteMark[]; moved: string[] } | null> {
  const open = current
  if (!open) return null
  const moved = new Set<string>()
  for (const { path, decisions } of pages) for (const other of takeUp(open, path, decisions)) moved.add(other)
  const rows: LedgerRow[] = []
  for (const { path, decisions } of pages) {
    moved.delete(path)
    if (!open.setting.index.entries.has(path)) continue
    const source = await sourceFor(open, path)
    if (source) rows.push(reevaluate(open, path, source, decisions).row)
  }
  refreshSiteMarks(open)
  return { rows, siteMarks: open.siteMarks, moved: [...moved] }
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

export interface ChangedPage {
  path: string
  url: string
  state: PageState
  changes: FieldChange[]
  refused: string[]
}
export interface Changed {
  pages: ChangedPage[]
  /** Pages that nobody edited and in which addresses follow pages that moved. */
  followers: { path: string; url: string }[]
  redirects: Redirect[]
}

const filesBefore = async (open: Open): Promise<Redirect[]> => {
  const record = await db.files.get([open.site.id, open.site.root + REDIRECTS])
  return record ? readRedirects(new TextDecoder().decode(record.bytes)) : []
}
const redirectsNow = async (open: Open): Promise<Redirect[]> =>
  open.setting.moves.paths.size === 0
    ? []
    : redirectsOf(
        open.setting.moves,
        open.files.map(([, path]) => path),
        open.site.base,
        await filesBefore(open),
      )

/** Every page whose proof differs from its source, before and after, field by field; and what follows from changed addresses. */
export async function changedPages(): Promise<Changed> {
  if (!current) return { pages: [], followers: [], redirects: [] }
  const open = current
  const { site, setting } = open
  const decided = new Map(
    (await db.work.where('site').equals(site.id).toArray()).map((w) => [w.path, w.decisions]),
  )
  const movedIds = [...setting.index.entries.keys()].filter((id) =>
    setting.moves.paths.has(id.slice(site.root.length)),
  )
  const ruled = await pagesWithRules(open)
  const pages: ChangedPage[] = []
  for (const path of new Set([...decided.keys(), ...movedIds, ...ruled])) {
    const decisions = decided.get(path) ?? {}
    if (path === '' || !setting.index.entries.has(path)) continue
    const edited = Object.keys(draftOf(decisions)).length > 0 || followOf(decisions).length > 0
    if (!edited && !movedIds.includes(path) && !ruled.has(path)) continue
    const source = await sourceFor(open, path)
    if (!source) continue
    const { url, oldUrl } = addressesFor(path, setting)
    const proof = proofFor(path, source, decisions, setting)
    const refused = proof.refused.map((r) => r.why)
    const slug = setting.moves.refused.find((r) => site.root + r.path === path)
    if (slug) refused.push(slug.why)
    if (proof.changes.length === 0 && refused.length === 0 && url === oldUrl) continue
    pages.push({
      path,
      url,
      state: stateOf(decisions),
      changes: fieldChanges(readPage(source, { path, url: oldUrl }), readPage(proof.source, { path, url })),
      refused,
    })
  }
  const listed = new Set(pages.map((p) => p.path))
  const followers = [...setting.index.entries.values()]
    .filter(
      (e) => !listed.has(e.path) && e.targets.some((t) => setting.moves.paths.has(t.slice(site.root.length))),
    )
    .map(({ path, url }) => ({ path, url }))
  return { pages, followers, redirects: await redirectsNow(open) }
}

/** What a page's slug changes elsewhere, counted in the proofs themselves. */
export interface SlugEffect {
  moved: { from: string; to: string }[]
  /** Pages and other files whose addresses follow, and how many in each. */
  followers: { path: string; count: number }[]
  redirects: number
}
export async function slugEffect(
  path: string,
  decisionsOf: Record<string, Decisions>,
): Promise<SlugEffect | null> {
  const open = current
  if (!open) return null
  const { site, setting } = open
  const own = path.slice(site.root.length)
  const slug = open.slugs.get(own)
  const question = ++slugQuestions
  // What this slug does by itself; what others do beside it is theirs.
  const all = open.files.map(([, p]) => p)
  const moves = slug ? movesOf(all, new Map([[own, slug]]), site.base) : noMoves
  const alone = { ...setting, moves }
  const movedIds = new Set([...moves.paths.keys()].map((p) => site.root + p))
  const pages = [...moves.paths].filter(([from]) => isPagePath(from))
  // Style sheets and scripts are referred to in ways that the index does not keep: then every page is looked at.
  const everywhere = pages.length < moves.paths.size
  const followers: SlugEffect['followers'] = []
  for (const entry of moves.paths.size > 0 ? setting.index.entries.values() : []) {
    if (!everywhere && !entry.targets.some((t) => movedIds.has(t)) && !movedIds.has(entry.path)) continue
    const source = await sourceFor(open, entry.path)
    if (question !== slugQuestions) return null
    if (!source) continue
    const { changes } = proofFor(entry.path, source, decisionsOf[entry.path] ?? {}, alone)
    const count = changes.filter((c) => c.key === CARRIED).length
    if (count > 0) followers.push({ path: entry.path, count })
  }
  for (const [id, file] of open.files) {
    if (!/\.(?:css|xml|rss|atom)$/i.test(file) || moves.paths.size === 0) continue
    const record = await db.files.get([site.id, id])
    if (record && fileBytes(file, record.bytes, moves, site.base) !== record.bytes)
      followers.push({ path: id, count: 1 })
  }
  return {
    moved: pages.map(([from, to]) => ({ from: addressOf(from, site.base), to: addressOf(to, site.base) })),
    followers: followers.sort((a, b) => (a.path < b.path ? -1 : 1)),
    redirects: redirectsOf(moves, all, site.base).length,
  }
}
/** Counts questions about a slug: one that is asked while it is typed makes the one before it idle. */
let slugQuestions = 0

/** The files that leave: all of the site with the changes, or the changed pages alone; redirects where addresses changed. */
export async function handOff(
  which: 'whole' | 'changed',
  progress: (p: Progress) => void,
): Promise<Uint8Array | null> {
  if (!current) return null
  const open = current
  const { site, setting } = open
  const work = new Map(
    (await db.work.where('site').equals(site.id).toArray()).map((w) => [w.path, w.decisions]),
  )
  const out = new Map<string, Uint8Array>()
  const place = (path: string) => {
    const own = path.slice(site.root.length)
    return site.root + (setting.moves.paths.get(own) ?? own)
  }
  const paths = (await db.sources.where('site').equals(site.id).primaryKeys()).map(([, path]) => path)
  for (const [i, path] of paths.entries()) {
    const decisions = work.get(path) ?? {}
    if (i % 20 === 0) progress({ done: i, of: paths.length, now: path })
    const untouched =
      Object.keys(decisions).length === 0 && setting.moves.paths.size === 0 && setting.templates.length === 0
    if (which === 'changed' && untouched) continue
    const record = (await db.sources.get([site.id, path]))!
    const source = sourceOf(record.bytes, record.encoding, record.encodingBy, record.bom)
    const proof = proofFor(path, source, decisions, setting)
    if (which === 'whole' || proof.changes.length > 0 || place(path) !== path)
      out.set(place(path), proof.source.bytes)
  }
  await db.files
    .where('site')
    .equals(site.id)
    .each(({ path, bytes }) => {
      const now = fileBytes(path.slice(site.root.length), bytes, setting.moves, site.base)
      if (which === 'whole' || now !== bytes || place(path) !== path) out.set(place(path), now)
    })
  const redirects = await redirectsNow(open)
  if (redirects.length > 0 || setting.moves.paths.size > 0)
    out.set(site.root + REDIRECTS, new TextEncoder().encode(writeRedirects(redirects)))
  progress({ done: paths.length, of: paths.length, now: 'packing' })
  return writeZip([...out].sort(([a], [b]) => (a < b ? -1 : 1)))
}

export const redirectsCsv = async (): Promise<string> =>
  writeRedirects(current ? await redirectsNow(current) : [])

/** One page as it would be handed off, for a single download. */
export async function pageBytes(path: string, decisions: Decisions): Promise<Uint8Array | null> {
  const source = current && (await sourceFor(current, path))
  return source ? proofFor(path, source, decisions, current!.setting).source.bytes : null
}

export const changesCsv = async (): Promise<string> => changeSheet((await changedPages()).pages)

/** The site with all its work as one project file. */
export async function exportProject(id: string): Promise<Uint8Array | null> {
  const site = await db.sites.get(id)
  if (!site) return null
  const [sources, files, work, log] = await Promise.all([
    db.sources.where('site').equals(id).toArray(),
    db.files.where('site').equals(id).toArray(),
    db.work.where('site').equals(id).toArray(),
    db.log.where('site').equals(id).sortBy('id'),
  ])
  return writeProject({
    site: { name: site.name, base: site.base, whole: site.whole, root: site.root, takenIn: site.takenIn },
    work: Object.fromEntries(work.map((w) => [w.path, w.decisions])),
    log: log.map(({ at, label, changes, undone }) => ({ at, label, changes, undone })),
    files: new Map([...sources, ...files].map((f) => [f.path, f.bytes])),
  })
}

export interface KeywordsRead {
  matched: { path: string; primary: string; secondary: string[] }[]
  unmatched: string[]
}

/** Keywords for all pages from a sheet: `path` or `url`, `primary`, `secondary` separated by `;`. */
export async function readKeywordSheet(
  csv: string,
): Promise<{ ok: true; read: KeywordsRead } | { ok: false; why: string }> {
  const table = readTable(csv)
  if (!table.ok) return table
  const { columns, rows } = table
  const by = columns.includes('path') ? 'path' : columns.includes('url') ? 'url' : null
  if (!by || !columns.includes('primary'))
    return {
      ok: false,
      why: 'The first row must name the columns path (or url), primary and, where there are any, secondary.',
    }
  const index: SiteIndex | undefined = current?.setting.index
  const byUrl = new Map([...(index?.entries.values() ?? [])].map((e) => [e.url, e.path]))
  const read: KeywordsRead = { matched: [], unmatched: [] }
  for (const { cells } of rows) {
    const key = cells[by]!.trim()
    const path = by === 'path' ? (index?.entries.has(key) ? key : undefined) : byUrl.get(key)
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
    const { before, page } = evaluate(open!.site.id, path, source, decisions, open!.setting)
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
