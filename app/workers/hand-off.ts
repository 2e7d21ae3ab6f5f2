/** What leaves the application: which pages changed, what follows from a changed address, the files and lists themselves. */
import { changeSheet, fieldChanges, type FieldChange } from '../../core/exchange/change-sheet.ts'
import { decodeSheet } from '../../core/exchange/csv.ts'
import { writeProject } from '../../core/exchange/project.ts'
import { fileBytes, readRedirects, REDIRECTS, writeRedirects } from '../../core/exchange/hand-off.ts'
import { draftOf, followOf, stateOf, type Decisions, type PageState } from '../../core/work/decisions.ts'
import { writeZip } from '../../core/exchange/zip.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import { FOLLOWED } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import { sourceOf } from '../../core/page/source/source.ts'
import { addressOf, isPagePath } from '../../core/addresses/addresses.ts'
import { movesOf, noMoves, redirectsOf, type Redirect } from '../../core/site/moves.ts'
import { db } from '../store/db.ts'
import { addressesFor, proofFor } from './evaluate.ts'
import { current, sourceFor, type Open } from './open-site.ts'
import type { Progress } from './intake.ts'
import { pagesWithRules } from './templates.ts'

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
  const sheet = record && decodeSheet(record.bytes)
  return sheet?.ok ? readRedirects(sheet.text) : []
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
    const compared = onePage(() => {
      const proof = proofFor(path, source, decisions, setting)
      const refused = proof.refused.map((r) => r.why)
      const slug = setting.moves.refused.find((r) => site.root + r.path === path)
      if (slug) refused.push(slug.why)
      if (proof.changes.length === 0 && refused.length === 0 && url === oldUrl)
        return { ok: true, value: null }
      const changes = fieldChanges(
        readPage(source, { path, url: oldUrl }),
        readPage(proof.source, { path, url }),
      )
      return { ok: true, value: { changes, refused } }
    })
    const found = compared.ok ? compared.value : { changes: [], refused: [compared.why] }
    if (found) pages.push({ path, url, state: stateOf(decisions), ...found })
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
    const counted = onePage(() => {
      const { changes } = proofFor(entry.path, source, decisionsOf[entry.path] ?? {}, alone)
      return { ok: true, value: changes.filter((c) => c.key === FOLLOWED).length }
    })
    if (counted.ok && counted.value > 0) followers.push({ path: entry.path, count: counted.value })
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

/**
 * The files that leave: all of the site with the changes, or the changed pages alone; redirects where addresses changed.
 * `asTakenIn`: files whose changes could not be applied, and that leave as they came.
 */
export async function handOff(
  which: 'whole' | 'changed',
  progress: (p: Progress) => void,
): Promise<{ zip: Uint8Array; asTakenIn: { path: string; why: string }[] } | null> {
  if (!current) return null
  const open = current
  const { site, setting } = open
  const work = new Map(
    (await db.work.where('site').equals(site.id).toArray()).map((w) => [w.path, w.decisions]),
  )
  const out = new Map<string, Uint8Array>()
  const asTakenIn: { path: string; why: string }[] = []
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
    const written = onePage(() => ({ ok: true, value: proofFor(path, source, decisions, setting) }))
    if (!written.ok) asTakenIn.push({ path, why: written.why })
    const changed = written.ok ? written.value.changes.length > 0 : true
    if (which === 'whole' || changed || place(path) !== path)
      out.set(place(path), written.ok ? written.value.source.bytes : record.bytes)
  }
  await db.files
    .where('site')
    .equals(site.id)
    .each(({ path, bytes }) => {
      const written = onePage(() => ({
        ok: true,
        value: fileBytes(path.slice(site.root.length), bytes, setting.moves, site.base),
      }))
      if (!written.ok) asTakenIn.push({ path, why: written.why })
      const now = written.ok ? written.value : bytes
      if (which === 'whole' || now !== bytes || place(path) !== path) out.set(place(path), now)
    })
  const redirects = await redirectsNow(open)
  if (redirects.length > 0 || setting.moves.paths.size > 0)
    out.set(site.root + REDIRECTS, new TextEncoder().encode(writeRedirects(redirects)))
  progress({ done: paths.length, of: paths.length, now: 'packing' })
  return { zip: writeZip([...out].sort(([a], [b]) => (a < b ? -1 : 1))), asTakenIn }
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
