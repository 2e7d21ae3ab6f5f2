/** A site that is open: its index in memory, pages evaluated as their decisions change. One for each worker. */
import { changeSheet, fieldChanges, type FieldChange } from '../../core/exchange/change-sheet.ts'
import { readTable } from '../../core/exchange/csv.ts'
import { writeProject } from '../../core/exchange/project.ts'
import { draftOf, stateOf, type Decisions, type PageState } from '../../core/exchange/work.ts'
import { writeZip } from '../../core/exchange/zip.ts'
import { applyDraft } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read-page.ts'
import { sourceOf, type Source } from '../../core/page/source.ts'
import { defaultStyle } from '../../core/rules/house-style.ts'
import type { SiteMark } from '../../core/rules/rule.ts'
import { catalogue } from '../../core/rules/catalogue.ts'
import { auditSite } from '../../core/rules/runner.ts'
import { emptyIndex, updateIndex, type SiteIndex } from '../../core/site/site-index.ts'
import { db, type LedgerRow, type SiteRecord } from '../store/db.ts'
import { basisOf, evaluate, viewOf, type AuditSetting, type PageView } from './evaluate.ts'
import type { Progress } from './intake.ts'

interface Open {
  site: SiteRecord
  setting: AuditSetting
  /** Sources of the pages last looked at. */
  sources: Map<string, Source>
  siteMarks: SiteMark[]
  siteMarksJson: string
}
let current: Open | null = null

const KEPT_SOURCES = 12

export interface Opened {
  site: SiteRecord
  rows: LedgerRow[]
  work: { path: string; decisions: Decisions }[]
  siteMarks: SiteMark[]
  /** Every rule's id and name, for what a person chooses from. */
  rules: { id: string; name: string }[]
}

const entryOfRow = (row: LedgerRow) => ({
  id: row.path,
  path: row.path,
  url: row.url,
  title: row.title,
  description: row.description,
  indexable: row.indexable,
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
  const paths = [...rows.map((r) => r.path), ...filePaths.map(([, path]) => path)]
  const index = emptyIndex(
    site.base,
    site.whole,
    paths.map((p) => p.slice(site.root.length)),
  )
  for (const row of rows) updateIndex(index, row.path, entryOfRow(row))
  current = {
    site,
    setting: { index, style: defaultStyle, date: today },
    sources: new Map(),
    siteMarks: [],
    siteMarksJson: '',
  }
  const decided = new Map(work.map((w) => [w.path, w.decisions]))
  for (const [i, row] of rows.entries()) {
    const decisions = decided.get(row.path) ?? {}
    if (row.basis === basisOf(decisions, current.setting.style)) continue
    const source = await sourceFor(current, row.path)
    if (source) rows[i] = reevaluate(current, row.path, row.url, source, decisions).row
  }
  refreshSiteMarks(current)
  return {
    site,
    rows,
    work: work.map(({ path, decisions }) => ({ path, decisions })),
    siteMarks: current.siteMarks,
    rules: catalogue.map(({ id, name }) => ({ id, name })),
  }
}

async function sourceFor(open: Open, path: string): Promise<Source | null> {
  const kept = open.sources.get(path)
  if (kept) {
    open.sources.delete(path)
    open.sources.set(path, kept)
    return kept
  }
  const record = await db.sources.get([open.site.id, path])
  if (!record) return null
  const source = sourceOf(record.bytes, record.encoding, record.encodingBy, record.bom)
  open.sources.set(path, source)
  if (open.sources.size > KEPT_SOURCES) open.sources.delete(open.sources.keys().next().value!)
  return source
}

function reevaluate(open: Open, path: string, url: string, source: Source, decisions: Decisions) {
  const evaluated = evaluate({ site: open.site.id, path, url }, source, decisions, open.setting)
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
}

/** A page with the decisions it has now: proof, facts, marks; the index and the marks of the site follow. */
export async function evaluatePage(path: string, decisions: Decisions): Promise<Answer | null> {
  const open = current
  const url = open?.setting.index.entries.get(path)?.url
  if (!open || !url) return null
  const source = await sourceFor(open, path)
  if (!source) return null
  const evaluated = reevaluate(open, path, url, source, decisions)
  const changed = refreshSiteMarks(open)
  return { view: viewOf(evaluated, decisions, open.siteMarks), siteMarks: changed ? open.siteMarks : null }
}

/** Rows of several pages after a bulk change. */
export async function evaluateRows(
  pages: { path: string; decisions: Decisions }[],
): Promise<{ rows: LedgerRow[]; siteMarks: SiteMark[] } | null> {
  const open = current
  if (!open) return null
  const rows: LedgerRow[] = []
  for (const { path, decisions } of pages) {
    const url = open.setting.index.entries.get(path)?.url
    const source = url && (await sourceFor(open, path))
    if (source) rows.push(reevaluate(open, path, url, source, decisions).row)
  }
  refreshSiteMarks(open)
  return { rows, siteMarks: open.siteMarks }
}

/** The proof's text, for the Source sheet. */
export async function proofText(path: string, decisions: Decisions): Promise<string | null> {
  const source = current && (await sourceFor(current, path))
  return source ? applyDraft(source, draftOf(decisions)).source.text : null
}

export interface ChangedPage {
  path: string
  url: string
  state: PageState
  changes: FieldChange[]
  refused: string[]
}

/** Every page whose proof differs from its source, before and after, field by field. */
export async function changedPages(): Promise<ChangedPage[]> {
  if (!current) return []
  const { site, setting } = current
  const changed: ChangedPage[] = []
  for (const { path, decisions } of await db.work.where('site').equals(site.id).toArray()) {
    const url = setting.index.entries.get(path)?.url
    if (path === '' || !url) continue
    const draft = draftOf(decisions)
    if (Object.keys(draft).length === 0) continue
    const source = await sourceFor(current, path)
    if (!source) continue
    const proof = applyDraft(source, draft)
    if (proof.changes.length === 0 && proof.refused.length === 0) continue
    const where = { path, url }
    changed.push({
      path,
      url,
      state: stateOf(decisions),
      changes: fieldChanges(readPage(source, where), readPage(proof.source, where)),
      refused: proof.refused.map((r) => r.why),
    })
  }
  return changed
}

/** The files that leave: all of the site with the changes, or the changed pages alone. */
export async function handOff(
  which: 'whole' | 'changed',
  progress: (p: Progress) => void,
): Promise<Uint8Array | null> {
  if (!current) return null
  const { site } = current
  const work = new Map(
    (await db.work.where('site').equals(site.id).toArray()).map((w) => [w.path, draftOf(w.decisions)]),
  )
  const out: [string, Uint8Array][] = []
  const paths = (await db.sources.where('site').equals(site.id).primaryKeys()).map(([, path]) => path)
  for (const [i, path] of paths.entries()) {
    const draft = work.get(path) ?? {}
    if (i % 20 === 0) progress({ done: i, of: paths.length, now: path })
    if (which === 'changed' && Object.keys(draft).length === 0) continue
    const record = (await db.sources.get([site.id, path]))!
    const source = sourceOf(record.bytes, record.encoding, record.encodingBy, record.bom)
    const proof = applyDraft(source, draft)
    if (which === 'whole' || proof.changes.length > 0) out.push([path, proof.source.bytes])
  }
  if (which === 'whole')
    await db.files
      .where('site')
      .equals(site.id)
      .each((f) => void out.push([f.path, f.bytes]))
  progress({ done: paths.length, of: paths.length, now: 'packing' })
  return writeZip(out.sort(([a], [b]) => (a < b ? -1 : 1)))
}

/** One page as it would be handed off, for a single download. */
export async function pageBytes(path: string, decisions: Decisions): Promise<Uint8Array | null> {
  const source = current && (await sourceFor(current, path))
  return source ? applyDraft(source, draftOf(decisions)).source.bytes : null
}

export const changesCsv = async (): Promise<string> => changeSheet(await changedPages())

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
