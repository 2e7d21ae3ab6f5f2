/**
 * What leaves: every file at its new place with the decisions carried out, redirects where addresses changed, and the
 * sheet of changes. The application's ZIP and the folder of `quill hand-off` are made of the same files.
 */
import { decodedPath, isPagePath, queryKey } from '../addresses/addresses.ts'
import { hash } from '../hash.ts'
import { movesOf, redirectsOf, type Redirect } from '../site/moves.ts'
import { pathOf, type PageId, type PageIdentity } from '../site/page-identity.ts'
import { templateDraft, type OutlineItem } from '../headings/template-rules.ts'
import { onePage, type Outcome } from '../page/read/boundary.ts'
import type { Proof } from '../page/proof.ts'
import { readPage } from '../page/read/read-page.ts'
import type { Source } from '../page/source/source.ts'
import { draftOf, followOf, stateOf, type Decisions, type PageState } from '../work/decisions.ts'
import { pageProof, sourceFacts } from '../work/page-proof.ts'
import { addressesFor, fromRoot, slugPath, slugsOf, type SiteSetting } from '../work/setting.ts'
import { changeSheet, fieldChanges, type FieldChange } from './change-sheet.ts'
import { decodeSheet } from './csv.ts'
import { movedFileBytes, replacedInFile } from './moved-files.ts'
import { datesInSitemap } from './sitemap.ts'
import { readRedirects, REDIRECTS, writeRedirects } from './redirects.ts'
import { safePath } from './zip.ts'

/** The sheet of changes, at the site's root. */
export const CHANGES = 'changes.csv'

/** A site with its decisions, its files read when they are asked for. */
export interface SiteAtHand {
  setting: SiteSetting
  pages: ReadonlyMap<PageId, PageIdentity>
  /** Paths of the files that are no pages. */
  otherFiles: readonly string[]
  decisionsOf(id: PageId): Decisions
  sourceOf(page: PageIdentity): Promise<Outcome<Source>>
  /** A file's bytes, pages or not; null where it is not at hand. */
  bytesOf(path: string): Promise<Uint8Array | null>
  /** What rules for many pages look at in a page. */
  itemsOf(page: PageIdentity): Promise<OutlineItem[]>
}

/** A file that leaves. */
export interface HandedOff {
  path: string
  bytes: Uint8Array
  /** Where it was; null for one that is made. */
  from: string | null
  /** Whether its bytes or its place are others than before; a page may be told of for its refused edits alone. */
  changed: boolean
  /** Edits that could not be carried out; the others stand. */
  refused: { key: string; why: string }[]
  /** Why it leaves as it was taken in, though something was decided for it; null where nothing kept it from changing. */
  asTakenIn: string | null
}

/** Where a file stands when the site is handed off. */
export function placeOf(path: string, setting: SiteSetting): string {
  const sitePath = fromRoot(path, setting)
  const moved = setting.moves.paths.get(sitePath)
  return moved === undefined ? path : path.slice(0, path.length - sitePath.length) + moved
}

const byPath = (a: { path: string }, b: { path: string }) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0)
/** Pages in the order of their paths. */
const inOrder = (pages: SiteAtHand['pages']): PageIdentity[] =>
  [...pages.values()]
    .map((page) => ({ page, path: pathOf(page) }))
    .sort(byPath)
    .map(({ page }) => page)

/**
 * The files that leave, one after another: all of the site with its changes, or the changed ones alone. `progress` is told
 * of every page before it is looked at.
 */
export async function* handOffFiles(
  site: SiteAtHand,
  {
    which,
    lists,
    progress = () => {},
  }: {
    which: 'whole' | 'changed'
    /** Whether the sheet of changes goes with them. */
    lists: boolean
    progress?(path: string, done: number, of: number): void
  },
): AsyncGenerator<HandedOff> {
  const { setting } = site
  const moved = movedPages(site)
  const changed: ChangedPage[] = []
  const taken = new Set<string>()
  for (const [done, page] of inOrder(site.pages).entries()) {
    progress(pathOf(page), done, site.pages.size)
    const listed = lists && (await mayChange(site, page, moved))
    const drafted = await draftedPage(site, page, listed)
    if (drafted?.changed) changed.push(drafted.changed)
    const handed =
      page.file === null
        ? await handedFetched(site, page, drafted, which)
        : await handedPage(site, page.file, drafted, which)
    // Two addresses may come to one name.
    if (handed && page.file === null && taken.has(handed.path))
      handed.path = `${hash(page.url)}-${handed.path.split('/').at(-1)!}`
    if (handed) taken.add(handed.path)
    if (handed) yield handed
  }
  const made = await madeFiles(site, changed)
  // What changed is crawled sooner where the site's own sitemap says when.
  const dated = new Set(lists ? changed.filter((c) => c.changes.length > 0).map((c) => queryKey(c.url)) : [])
  for (const path of site.otherFiles) {
    const handed = made.has(placeOf(path, setting)) ? null : await handedFile(site, path, which, dated)
    if (handed) yield handed
  }
  for (const [path, text] of made)
    yield {
      path,
      bytes: new TextEncoder().encode(text),
      from: null,
      changed: true,
      refused: [],
      asTakenIn: null,
    }
}

/** The lists that go with the files: redirects where something moved, the sheet of changes where something changed. */
async function madeFiles(site: SiteAtHand, changed: readonly ChangedPage[]): Promise<Map<string, string>> {
  const { root, moves } = site.setting
  const made = new Map<string, string>()
  if (moves.paths.size > 0) made.set(root + REDIRECTS, writeRedirects(await redirectsNow(site)))
  if (changed.length > 0) made.set(root + CHANGES, changeSheet(changed))
  return made
}

interface DraftedPage {
  proof: Proof | null
  changed: ChangedPage | null
  /** Why nothing could be made of it. */
  why: string | null
}

/**
 * A page with its decisions carried out; null where nothing was decided that may change it. `listed`: with what changed,
 * field by field, for which both its states are read.
 */
async function draftedPage(
  site: SiteAtHand,
  page: PageIdentity,
  listed: boolean,
): Promise<DraftedPage | null> {
  const { setting } = site
  const decisions = site.decisionsOf(page.id)
  const moving = setting.moves.paths.size > 0 || setting.moves.refused.length > 0
  if (Object.keys(decisions).length === 0 && !moving && setting.templates.length === 0) return null
  const source = await site.sourceOf(page)
  // What nobody decided anything for, and cannot be read, leaves as it came.
  if (!source.ok && Object.keys(decisions).length === 0) return null
  const outcome = onePage(() => {
    if (!source.ok) return source
    const proof = pageProof(page, source.value, decisions, setting)
    return {
      ok: true,
      value: { proof, changed: listed ? changedPage(site, page, source.value, proof) : null },
    }
  })
  return outcome.ok
    ? { ...outcome.value, why: null }
    : {
        proof: null,
        changed: listed ? { ...named(site, page), changes: [], refused: [outcome.why] } : null,
        why: outcome.why,
      }
}

/** A page's file as it leaves; null where it does not. */
async function handedPage(
  { setting, bytesOf }: SiteAtHand,
  file: string,
  drafted: DraftedPage | null,
  which: 'whole' | 'changed',
): Promise<HandedOff | null> {
  const path = placeOf(file, setting)
  const { proof = null, why = null } = drafted ?? {}
  const same = !proof || (proof.changes.length === 0 && proof.refused.length === 0)
  if (which === 'changed' && same && why === null && path === file) return null
  const bytes = proof ? proof.source.bytes : await bytesOf(file)
  const changed = path !== file || why !== null || (proof?.changes.length ?? 0) > 0
  return bytes && { path, bytes, from: file, changed, refused: proof?.refused ?? [], asTakenIn: why }
}

/** A page that was fetched, as a file at the path that its address says; null for one that only a sheet knows. */
async function handedFetched(
  { setting, sourceOf }: SiteAtHand,
  page: PageIdentity,
  drafted: DraftedPage | null,
  which: 'whole' | 'changed',
): Promise<HandedOff | null> {
  if (page.partial !== null) return null
  const { proof = null, why = null } = drafted ?? {}
  const changed = why !== null || (proof?.changes.length ?? 0) > 0
  if (which === 'changed' && !changed && (proof?.refused.length ?? 0) === 0) return null
  const source = proof ? { ok: true as const, value: proof.source } : await sourceOf(page)
  return source.ok
    ? {
        path: fileOfAddress(addressesFor(page, setting).url, setting),
        bytes: source.value.bytes,
        from: null,
        changed,
        refused: proof?.refused ?? [],
        asTakenIn: why,
      }
    : null
}

/** The file that a page at an address would be: `/about/` is `about/index.html`, `/about` is `about.html`. */
function fileOfAddress(url: string, { base }: SiteSetting): string {
  const { host, search } = new URL(url)
  const path = decodedPath(url).replace(/^\//, '')
  const under = url.startsWith(base) ? path.slice(decodedPath(base).length - 1) : `${host}/${path}`
  const name =
    under === '' || under.endsWith('/') ? `${under}index.html` : isPagePath(under) ? under : `${under}.html`
  const asked =
    search === ''
      ? ''
      : `-${search
          .slice(1)
          .replace(/[^A-Za-z0-9._-]+/g, '-')
          .slice(0, 80)}`
  return safePath(name.replace(/(\.[a-z]+)$/i, `${asked}$1`)) ?? `${hash(url)}.html`
}

/** A file that is no page, as it leaves; null where it does not. */
async function handedFile(
  { setting, bytesOf }: SiteAtHand,
  path: string,
  which: 'whole' | 'changed',
  /** Addresses of pages that changed, as they are compared. */
  dated: ReadonlySet<string>,
): Promise<HandedOff | null> {
  const { moves, base, root, date } = setting
  const isSitemap = dated.size > 0 && path === `${root}sitemap.xml`
  if (which === 'changed' && moves.paths.size === 0 && !isSitemap) return null
  const bytes = await bytesOf(path)
  if (!bytes) return null
  const outcome = onePage(() => {
    const moved = movedFileBytes(fromRoot(path, setting), bytes, moves, base)
    return {
      ok: true,
      value: isSitemap ? replacedInFile(moved, (text) => datesInSitemap(text, dated, date)) : moved,
    }
  })
  const now = outcome.ok ? outcome.value : bytes
  const place = placeOf(path, setting)
  const changed = now !== bytes || place !== path
  if (which === 'changed' && !changed) return null
  return {
    path: place,
    bytes: now,
    from: path,
    changed,
    refused: [],
    asTakenIn: outcome.ok ? null : outcome.why,
  }
}

/** Redirects for everything that moved, on top of those that the site brought along; none where nothing moves. */
export async function redirectsNow(site: SiteAtHand): Promise<Redirect[]> {
  const { moves, root, base } = site.setting
  if (moves.paths.size === 0) return []
  const bytes = await site.bytesOf(root + REDIRECTS)
  const sheet = bytes && decodeSheet(bytes)
  const before = sheet?.ok ? readRedirects(sheet.text) : []
  return redirectsOf(moves, pathsFromRoot(site), base, before)
}

/** Every path from the root, in order: files, and what pages without a file would be. */
const pathsFromRoot = ({ pages, otherFiles, setting }: SiteAtHand): string[] =>
  [
    ...[...pages.values()].flatMap((page) => slugPath(page, setting) ?? []),
    ...otherFiles.map((path) => fromRoot(path, setting)),
  ].sort()

export interface ChangedPage {
  id: PageId
  path: string
  url: string
  state: PageState
  changes: FieldChange[]
  refused: string[]
}
export interface Changed {
  pages: ChangedPage[]
  /** Pages that nobody edited and in which addresses follow pages that moved. */
  followers: { id: PageId; path: string; url: string }[]
}

/** The site as it would be if only some pages' decisions were carried out: their slugs move pages, no others do. */
export function withOnly(site: SiteAtHand, isWanted: (id: PageId) => boolean): SiteAtHand {
  const decisionsOf = (id: PageId) => (isWanted(id) ? site.decisionsOf(id) : {})
  const setting = { ...site.setting }
  setting.moves = movesOf(
    pathsFromRoot(site),
    slugsOf(site.pages.values(), decisionsOf, setting),
    setting.base,
  )
  return { ...site, setting, decisionsOf }
}

/** Every page whose proof differs from its source, before and after, field by field; and those that follow. */
export async function changesOf(site: SiteAtHand): Promise<Changed> {
  const { setting } = site
  const moved = movedPages(site)
  const pages: ChangedPage[] = []
  for (const page of inOrder(site.pages)) {
    const changed = (await mayChange(site, page, moved)) && (await draftedPage(site, page, true))?.changed
    if (changed) pages.push(changed)
  }
  const listed = new Set(pages.map((p) => p.id))
  const followers = [...setting.index.entries.values()]
    .filter((entry) => !listed.has(entry.id) && entry.targets.some((target) => moved.has(target)))
    .map(({ id, path, url }) => ({ id, path, url }))
  return { pages, followers: followers.sort(byPath) }
}

/** Pages and files that move, by their id. */
export function movedPages({
  pages,
  otherFiles,
  setting,
}: Pick<SiteAtHand, 'pages' | 'otherFiles' | 'setting'>): Set<PageId> {
  const { paths } = setting.moves
  const moved = new Set<PageId>()
  if (paths.size === 0) return moved
  for (const page of pages.values()) {
    const path = slugPath(page, setting)
    if (path !== null && paths.has(path)) moved.add(page.id)
  }
  for (const path of otherFiles) if (paths.has(fromRoot(path, setting))) moved.add(path)
  return moved
}

/** Whether anything was decided that may change a page by more than what follows: for itself, by a rule, by its address. */
async function mayChange(site: SiteAtHand, page: PageIdentity, moved: ReadonlySet<PageId>): Promise<boolean> {
  const { setting } = site
  const decisions = site.decisionsOf(page.id)
  if (Object.keys(draftOf(decisions)).length > 0 || followOf(decisions).length > 0) return true
  if (moved.has(page.id)) return true
  // No file follows for a page that was fetched: whoever changes its links must be told which.
  if (page.file === null && setting.index.entries.get(page.id)?.targets.some((t) => moved.has(t))) return true
  if (setting.templates.length === 0) return false
  return Object.keys(templateDraft(await site.itemsOf(page), setting.templates, page.id)).length > 0
}

const named = ({ setting, decisionsOf }: SiteAtHand, page: PageIdentity) => ({
  id: page.id,
  path: pathOf(page),
  url: addressesFor(page, setting).url,
  state: stateOf(decisionsOf(page.id)),
})

/** What changed on a page, or was refused; null where nothing was. */
function changedPage(site: SiteAtHand, page: PageIdentity, source: Source, proof: Proof): ChangedPage | null {
  const { setting } = site
  const { url, oldUrl } = addressesFor(page, setting)
  const refused = proof.refused.map((r) => r.why)
  const path = slugPath(page, setting)
  const slug = setting.moves.refused.find((r) => r.path === path)
  if (slug) refused.push(slug.why)
  if (proof.changes.length === 0 && refused.length === 0 && url === oldUrl) return null
  const after = readPage(proof.source, { path: pathOf(page), url, main: setting.style.main })
  return { ...named(site, page), changes: fieldChanges(sourceFacts(page, source, setting), after), refused }
}
