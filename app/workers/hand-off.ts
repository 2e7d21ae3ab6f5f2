/** What leaves the application: which pages changed, what follows from a changed address, the files and lists themselves. */
import { addressOf } from '../../core/addresses/addresses.ts'
import { writeCoveringNote } from '../../core/exchange/covering-note.ts'
import { writeHtaccess, writeNginxMap } from '../../core/exchange/server-redirects.ts'
import { sitemapFiles } from '../../core/exchange/site-sitemap.ts'
import { changeSheet } from '../../core/exchange/change-sheet.ts'
import {
  changesOf,
  handOffFiles,
  movedPages,
  redirectsNow,
  withOnly,
  type Changed as ChangedPages,
} from '../../core/exchange/hand-off.ts'
import { hasAddresses, movedFileBytes } from '../../core/exchange/moved-files.ts'
import { writeWorksheet } from '../../core/exchange/worksheet.ts'
import { writeProject } from '../../core/exchange/project.ts'
import { writeRedirects } from '../../core/exchange/redirects.ts'
import { writeZip } from '../../core/exchange/zip.ts'
import { FOLLOWED } from '../../core/page/proof.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import { movesOf, noMoves, redirectsOf, type Redirect } from '../../core/site/moves.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { ruleOf } from '../../core/rules/runner.ts'
import { stateOf, type Decisions } from '../../core/work/decisions.ts'
import { mendedOn } from './snapshots.ts'
import { pageProof } from '../../core/work/page-proof.ts'
import { fromRoot, slugPath } from '../../core/work/setting.ts'
import { db } from '../store/db.ts'
import type { Progress } from './intake.ts'
import { current, readingFor, siteAtHand, sourceFor } from './open-site.ts'
import { outlinesOf } from './templates.ts'

export interface Changed extends ChangedPages {
  redirects: Redirect[]
}

/** Every page whose proof differs from its source, before and after, field by field; and what follows from changed addresses. */
export async function changedPages(): Promise<Changed> {
  if (!current) return { pages: [], followers: [], redirects: [] }
  if (current.setting.templates.length > 0) await outlinesOf(current)
  const site = await siteAtHand(current)
  return { ...(await changesOf(site)), redirects: await redirectsNow(site) }
}

/** What a page's slug changes elsewhere, counted in the proofs themselves. */
export interface SlugEffect {
  moved: { from: string; to: string }[]
  /** Pages and other files whose addresses follow, and how many in each. */
  followers: { path: string; url: string; isPage: boolean; count: number }[]
  redirects: number
}
export async function slugEffect(
  id: PageId,
  decisionsOf: Record<PageId, Decisions>,
): Promise<SlugEffect | null> {
  const open = current
  const page = open?.pages.get(id)
  const slugged = open && page ? slugPath(page, open.setting) : null
  if (!open || slugged === null) return null
  const { site, setting } = open
  const slug = open.slugs.get(slugged)
  const question = ++slugQuestions
  // What this slug does by itself; what others do beside it is theirs.
  const all = open.files.map(([, path]) => path)
  const moves = slug ? movesOf(all, new Map([[slugged, slug]]), site.base) : noMoves
  const alone = { ...setting, moves }
  const moved = movedPages({ pages: open.pages, otherFiles: open.otherFiles, setting: alone })
  const movedPageFiles = [...moved].flatMap((movedId) => {
    const movedPage = open.pages.get(movedId)
    const path = movedPage ? slugPath(movedPage, setting) : null
    return path === null ? [] : [path]
  })
  // Style sheets and scripts are referred to in ways that the index does not keep: then every page is looked at.
  const everywhere = movedPageFiles.length < moved.size
  const followers: SlugEffect['followers'] = []
  for (const entry of moved.size > 0 ? setting.index.entries.values() : []) {
    if (!everywhere && !entry.targets.some((t) => moved.has(t)) && !moved.has(entry.id)) continue
    const identity = open.pages.get(entry.id)
    const source = identity && (await sourceFor(open, entry.id))
    if (question !== slugQuestions) return null
    if (!source) continue
    const counted = onePage(() => {
      const { changes } = pageProof(identity, source, decisionsOf[entry.id] ?? {}, alone)
      return { ok: true, value: changes.filter((c) => c.key === FOLLOWED).length }
    })
    if (counted.ok && counted.value > 0)
      followers.push({ path: entry.path, url: entry.url, isPage: true, count: counted.value })
  }
  for (const path of open.otherFiles) {
    if (moved.size === 0 || !hasAddresses(path)) continue
    const record = await db.files.get([site.id, path])
    if (record && movedFileBytes(fromRoot(path, setting), record.bytes, moves, site.base) !== record.bytes)
      followers.push({ path, url: addressOf(fromRoot(path, setting), site.base), isPage: false, count: 1 })
  }
  return {
    moved: movedPageFiles.map((from) => ({
      from: addressOf(from, site.base),
      to: addressOf(moves.paths.get(from)!, site.base),
    })),
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
  which: 'whole' | 'changed' | 'approved',
  progress: (p: Progress) => void,
): Promise<{ zip: Uint8Array; asTakenIn: { path: string; why: string }[] } | null> {
  if (!current) return null
  const all = await siteAtHand(current)
  const isApproved = (id: PageId) =>
    ['approved', 'handed off', 'in place'].includes(stateOf(all.decisionsOf(id)))
  const site = which === 'approved' ? withOnly(all, isApproved) : all
  const form = which === 'whole' ? 'whole' : 'changed'
  const files: [string, Uint8Array][] = []
  const asTakenIn: { path: string; why: string }[] = []
  const told = (path: string, done: number, of: number) => {
    if (done % 20 === 0) progress({ done, of, now: path })
  }
  for await (const file of handOffFiles(site, { which: form, lists: true, progress: told })) {
    if (form === 'whole' || file.changed) files.push([file.path, file.bytes])
    if (file.asTakenIn !== null) asTakenIn.push({ path: file.from ?? file.path, why: file.asTakenIn })
  }
  progress({ done: site.pages.size, of: site.pages.size, now: 'packing' })
  return { zip: writeZip(files.sort(([a], [b]) => (a < b ? -1 : 1))), asTakenIn }
}

/** The site's sitemap with its changes; several files beyond what one may hold. */
export const sitemapNow = async (): Promise<{ path: string; text: string }[]> =>
  current ? sitemapFiles(await siteAtHand(current)) : []

/** The redirects as two web servers take them. */
export async function serverRedirects(): Promise<{ htaccess: string; map: string }> {
  const redirects = current ? await redirectsNow(await siteAtHand(current)) : []
  return { htaccess: writeHtaccess(redirects), map: writeNginxMap(redirects) }
}

/** Addresses to submit for crawling, one a line: pages that changed or moved and are shown in results. */
export async function crawlList(): Promise<string> {
  const open = current
  if (!open) return ''
  const { pages, followers } = await changedPages()
  const entries = open.setting.index.entries
  return [...pages, ...followers]
    .filter(({ id }) => entries.get(id)?.indexable)
    .map(({ url }) => `${url}\n`)
    .join('')
}

/** What changed, how much and why, in words. */
export async function coveringNote(): Promise<string | null> {
  const open = current
  if (!open) return null
  const { pages, followers, redirects } = await changedPages()
  const gone = await mendedOn(pages.map(({ id }) => id))
  return writeCoveringNote({
    site: open.site.name,
    date: open.setting.date,
    pages,
    followers: followers.length,
    redirects,
    mended: gone.map(({ rule, pages: n }) => ({ name: ruleOf(rule).name, pages: n })),
  })
}

export const redirectsCsv = async (): Promise<string> =>
  writeRedirects(current ? await redirectsNow(await siteAtHand(current)) : [])

/** One page as it would be handed off, for a single download. */
export async function pageBytes(id: PageId, decisions: Decisions): Promise<Uint8Array | null> {
  return (await readingFor(id, decisions))?.proof.source.bytes ?? null
}

export const changesCsv = async (): Promise<string> => changeSheet((await changedPages()).pages)

/** The worksheet for whoever types the changes into a CMS. */
export async function worksheet(): Promise<string | null> {
  if (!current) return null
  const { pages } = await changedPages()
  const redirects = await redirectsNow(await siteAtHand(current))
  return writeWorksheet({ site: current.site.name, date: current.setting.date, pages, redirects })
}

/** The site with all its work as one project file. */
export async function exportProject(id: string): Promise<Uint8Array | null> {
  const site = await db.sites.get(id)
  if (!site) return null
  const [records, files, work, log, addresses] = await Promise.all([
    db.pages.where('site').equals(id).toArray(),
    db.files.where('site').equals(id).toArray(),
    db.decisions.where('site').equals(id).toArray(),
    db.log.where('site').equals(id).sortBy('id'),
    db.addresses.get(id),
  ])
  const withFile = records.flatMap(({ file, bytes }) => (file === null ? [] : [[file, bytes] as const]))
  return writeProject({
    site: { name: site.name, base: site.base, whole: site.whole, root: site.root, takenIn: site.takenIn },
    pages: records.map(({ id: page, url, file, served, partial, words }) => ({
      id: page,
      url,
      file,
      served,
      partial,
      ...(words === undefined ? {} : { words }),
    })),
    addresses: addresses ? { sitemap: addresses.sitemap, files: addresses.files } : null,
    work: new Map(work.map(({ page, decisions }) => [page, decisions])),
    log: log.map(({ at, label, changes, undone }) => ({ at, label, changes, undone })),
    files: new Map([...withFile, ...files.map(({ path, bytes }) => [path, bytes] as const)]),
    fetched: new Map(records.flatMap((r) => (r.file === null ? [[r.id, r.bytes] as const] : []))),
  })
}
