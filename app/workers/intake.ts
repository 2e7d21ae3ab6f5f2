/** Taking pages in: from files of a folder, a ZIP, one HTML file or pasted source, in the worker, in steps that can be cancelled. */
import { addressOf, isPagePath, normaliseBase } from '../../core/addresses/addresses.ts'
import { isProject, readProject } from '../../core/exchange/project.ts'
import { isSystemFile, openZip, safePath, zipLimits } from '../../core/exchange/zip.ts'
import { pageFrom, type Outcome } from '../../core/page/read/boundary.ts'
import { canonicalOf } from '../../core/page/read/facts.ts'
import { noMoves, type SlugEdit } from '../../core/site/moves.ts'
import { filePage, pathOf, type PageId, type PageIdentity } from '../../core/site/page-identity.ts'
import { emptyIndex } from '../../core/site/site-index.ts'
import { styleOf, templatesOf, type Decisions } from '../../core/work/decisions.ts'
import type { Evaluated } from '../../core/work/evaluate.ts'
import { runOverPages } from '../../core/work/run.ts'
import { fromRoot, settleMoves, slugOf, type SiteSetting } from '../../core/work/setting.ts'
import {
  db,
  removeSite,
  type FileRecord,
  type PageRecord,
  type RowRecord,
  type SiteRecord,
} from '../store/db.ts'

export type IntakeInput =
  | { kind: 'files'; name: string; files: { path: string; file: File }[] }
  | { kind: 'zip'; file: File }
  | { kind: 'page'; file: File }
  | { kind: 'paste'; html: string }

export interface Prepared {
  /** Names what was opened, for taking it in. */
  ticket: number
  kind: IntakeInput['kind'] | 'project'
  /** Good guesses that the editor confirms. */
  name: string
  base: string
  baseFrom: 'a page’s canonical' | 'the folder’s name' | 'nothing on the pages'
  pages: number
  others: number
  unread: { path: string; why: string }[]
}
export interface Progress {
  done: number
  of: number
  now: string
}

export type TakenIn =
  | { ok: true; site: SiteRecord }
  /** `about` names the field to ask for once more. */
  | { ok: false; why: string; about?: 'base' }

/** What was opened and waits for the base address. */
interface Pending {
  kind: Prepared['kind']
  whole: boolean
  /** A folder that all paths share, `site/`, and that is no part of their addresses. */
  root: string
  paths: string[]
  read(paths: string[]): Promise<{ files: Map<string, Uint8Array>; failed: { path: string; why: string }[] }>
  unread: { path: string; why: string }[]
  projectBytes?: Uint8Array
  /** Pages that have their ids already: those of a project; and what was served of those without a file. */
  identities?: PageIdentity[]
  served?: ReadonlyMap<PageId, Uint8Array>
  /** What was decided for them, by page; "" is the site as a whole. */
  work?: ReadonlyMap<PageId, Decisions>
}
const opened = new Map<number, Pending>()
let tickets = 0
const cancelled = new Set<number>()

const MOST_PAGES = 5_000
const BATCH = 50

async function open(input: IntakeInput): Promise<Pending | { why: string }> {
  if (input.kind === 'paste' || input.kind === 'page') {
    const path = input.kind === 'paste' ? 'page.html' : input.file.name
    const bytes =
      input.kind === 'paste'
        ? new TextEncoder().encode(input.html)
        : new Uint8Array(await input.file.arrayBuffer())
    return {
      kind: input.kind,
      whole: false,
      root: '',
      paths: [path],
      unread: [],
      read: async () => ({ files: new Map([[path, bytes]]), failed: [] }),
    }
  }
  if (input.kind === 'zip') {
    if (input.file.size > zipLimits.total)
      return {
        why: `The archive is larger than ${zipLimits.total / 1024 / 1024} MB. Leave out pictures and videos.`,
      }
    const bytes = new Uint8Array(await input.file.arrayBuffer())
    const opened = openZip(bytes)
    if (!opened.ok) return opened
    const { zip } = opened
    if (isProject(zip.paths))
      return {
        kind: 'project',
        whole: true,
        root: '',
        paths: zip.paths,
        unread: [],
        read: async (p) => zip.read(p),
        projectBytes: bytes,
      }
    return {
      kind: 'zip',
      whole: true,
      root: topFolder(zip.paths),
      paths: [...zip.paths].sort(),
      unread: zip.refused,
      read: async (p) => zip.read(p),
    }
  }
  const unread: Pending['unread'] = []
  const byPath = new Map<string, File>()
  let total = 0
  for (const { path: raw, file } of input.files) {
    if (isSystemFile(raw)) continue
    const path = safePath(raw)
    if (path === null) unread.push({ path: raw, why: 'Its path leads out of the folder. It was left out.' })
    else {
      byPath.set(path, file)
      total += file.size
    }
  }
  if (total > zipLimits.total)
    return {
      why: `The folder holds more than ${zipLimits.total / 1024 / 1024} MB. Leave out pictures and videos.`,
    }
  return {
    kind: 'files',
    whole: true,
    root: '',
    paths: [...byPath.keys()].sort(),
    unread,
    async read(paths) {
      const files = new Map<string, Uint8Array>()
      const failed: Pending['unread'] = []
      for (const path of paths)
        try {
          files.set(path, new Uint8Array(await byPath.get(path)!.arrayBuffer()))
        } catch {
          failed.push({
            path,
            why: 'It could not be read from the disk: it was moved, or is locked. Take it in again.',
          })
        }
      return { files, failed }
    },
  }
}

/** Opens what was dropped, without reading it all, and guesses the site's name and address. */
export async function prepare(
  input: IntakeInput,
): Promise<{ ok: true; prepared: Prepared } | { ok: false; why: string }> {
  const found = await open(input)
  if ('why' in found) return { ok: false, why: found.why }
  const ticket = ++tickets
  opened.set(ticket, found)
  if (found.kind === 'project') {
    const project = readProject(found.projectBytes!)
    if (!project.ok) return project
    const { site, files, pages: identities } = project.project
    const pages = identities.length
    const inFiles = identities.filter(({ file }) => file !== null).length
    return {
      ok: true,
      prepared: {
        ticket,
        kind: 'project',
        name: site.name,
        base: site.base,
        baseFrom: 'a page’s canonical',
        pages,
        others: files.size - inFiles,
        unread: [],
      },
    }
  }
  const pages = found.whole ? found.paths.filter(isPagePath) : found.paths
  if (pages.length === 0)
    return {
      ok: false,
      why: 'No pages were found in it: files ending in .html, .htm or .xhtml are expected.',
    }
  if (pages.length > MOST_PAGES)
    return {
      ok: false,
      why: `It holds ${pages.length} pages; at most ${MOST_PAGES} are taken in. Take in a part of the site.`,
    }
  const folderName =
    input.kind === 'files' ? input.name : input.kind === 'zip' ? input.file.name.replace(/\.zip$/i, '') : ''
  const guess = await guessBase(found, pages, folderName)
  return {
    ok: true,
    prepared: {
      ticket,
      kind: found.kind,
      name: guess.name,
      base: guess.base,
      baseFrom: guess.from,
      pages: pages.length,
      others: found.paths.length - pages.length,
      unread: found.unread,
    },
  }
}

/** Which pages to look into for the site's address: the first ones, home pages before others. */
function openingPaths(pages: string[]): string[] {
  const depth = (path: string) => path.split('/').length
  return [...pages].sort((a, b) => depth(a) - depth(b) || (a < b ? -1 : 1)).slice(0, 12)
}

/** The one folder in which everything stands, with its slash; "" where there is none. */
function topFolder(paths: string[]): string {
  const top = paths[0]?.match(/^[^/]+\//)?.[0] ?? ''
  return top !== '' &&
    paths.every((p) => p.startsWith(top)) &&
    paths.some((p) => /^[^/]+\/index\.(?:html?|xhtml)$/i.test(p))
    ? top
    : ''
}

async function guessBase(
  opened: Pending,
  pages: string[],
  folder: string,
): Promise<{ base: string; name: string; from: Prepared['baseFrom'] }> {
  const { files } = await opened.read(openingPaths(pages))
  for (const [path, bytes] of files) {
    const read = pageFrom(bytes, { path, url: 'https://site.example/' + path })
    if (!read.ok) continue
    const canonical = canonicalOf(read.value.page)
    if (!canonical || !/^https?:/i.test(canonical.href) || !canonical.url) continue
    const tail = addressOf(path.slice(opened.root.length), '')
    // The folder's own page may name itself with its file: `…/index.html`.
    const named = tail === '' && /\.[a-z\d]+$/i.test(new URL(canonical.url).pathname)
    const base = opened.whole
      ? canonical.url.endsWith(tail) && !named
        ? canonical.url.slice(0, canonical.url.length - tail.length)
        : new URL(named ? '.' : '/', canonical.url).href
      : new URL('.', canonical.url).href
    const normal = normaliseBase(base)
    if (normal)
      return { base: normal, name: new URL(normal).host.replace(/^www\./, ''), from: 'a page’s canonical' }
  }
  if (/^[a-z0-9-]+(\.[a-z0-9-]+)+$/i.test(folder)) {
    const base = normaliseBase(folder)
    if (base) return { base, name: folder, from: 'the folder’s name' }
  }
  return { base: 'https://site.example/', name: folder || 'One page', from: 'nothing on the pages' }
}

export function cancelIntake(ticket: number): void {
  cancelled.add(ticket)
}

/** Reads, judges and keeps everything that was opened. Nothing stands on the shelf until all of it is done. */
export async function takeIn(
  given: {
    ticket: number
    name: string
    base: string
    today: string
    demo: boolean
    /** Pages at which an intake before this one got stuck. */
    leaveOut?: { path: string; why: string }[]
  },
  progress: (p: Progress) => void,
): Promise<TakenIn> {
  const found = opened.get(given.ticket)
  if (!found) return { ok: false, why: 'What was dropped is no longer at hand. Drop it again.' }
  const base = normaliseBase(given.base)
  if (!base)
    return {
      ok: false,
      about: 'base',
      why: 'This is not a web address. Write it like https://www.your-site.example/',
    }
  const id = crypto.randomUUID()
  const leftOut = new Map((given.leaveOut ?? []).map(({ path, why }) => [path, why]))
  const site: SiteRecord = {
    id,
    name: given.name.trim() || new URL(base).host,
    base,
    whole: found.whole,
    root: found.root,
    status: 'taking in',
    takenIn: given.today,
    pages: 0,
    otherFiles: 0,
    unread: [...found.unread],
    demo: given.demo,
  }
  await db.sites.add(site)
  const identities = found.identities ?? identitiesOf(found, base)
  const ofPages = new Set(identities.map(({ file }) => file))
  const others = found.paths.filter((path) => !ofPages.has(path))
  const total = identities.length + others.length
  const decisionsOf = (page: PageId): Decisions => found.work?.get(page) ?? {}
  const setting = settingOf(site, given.today, identities, others, decisionsOf)
  const stopped = () => cancelled.has(given.ticket)
  try {
    const written = recordWriter(site)
    const done = await runOverPages(
      {
        setting,
        pages: identities,
        decisionsOf,
        async read(page) {
          const why = leftOut.get(pathOf(page))
          return why === undefined ? bytesOfPage(found, page) : { ok: false, why }
        },
      },
      {
        stopped,
        progress: (page, n) => progress({ done: n, of: total, now: pathOf(page) }),
        async onPage(page, judged) {
          if (judged.ok) await written.page(page, judged.value)
          else {
            site.unread.push({ path: pathOf(page), why: judged.why })
            const bytes = await bytesOfPage(found, page)
            if (page.file !== null && bytes.ok) await written.file(page.file, bytes.value)
          }
        },
      },
    )
    if (!done) throw new Cancelled()
    for (const [n, path] of others.entries()) {
      if (stopped()) throw new Cancelled()
      progress({ done: identities.length + n, of: total, now: path })
      const { files, failed } = await found.read([path])
      for (const one of failed) site.unread.push(one)
      const bytes = files.get(path)
      if (bytes) await written.file(path, bytes)
    }
    await written.end()
    if (site.pages === 0) {
      await removeSite(id)
      return {
        ok: false,
        why: `None of the pages could be read. ${site.unread[0] ? `${site.unread[0].path}: ${site.unread[0].why}` : ''}`,
      }
    }
    progress({ done: total, of: total, now: '' })
    site.status = 'ready'
    await db.sites.put(site)
    opened.delete(given.ticket)
    return { ok: true, site }
  } catch (error) {
    await removeSite(id)
    if (error instanceof Cancelled) return { ok: false, why: 'Cancelled. Nothing was kept.' }
    if ((error as Error).name === 'QuotaExceededError')
      return {
        ok: false,
        why: 'The browser has no more room for this site. Remove a site from the shelf, or free disk space.',
      }
    throw error
  }
}

/** Pages of a site that is taken in for the first time: each is given its id. */
function identitiesOf({ whole, root, paths }: Pending, base: string): PageIdentity[] {
  const pages = whole ? paths.filter(isPagePath) : paths
  return pages.map((path) => filePage(crypto.randomUUID(), path, addressOf(path.slice(root.length), base)))
}

function settingOf(
  site: SiteRecord,
  date: string,
  identities: readonly PageIdentity[],
  others: readonly string[],
  decisionsOf: (page: PageId) => Decisions,
): SiteSetting {
  const { base, root, name, whole } = site
  const files = [
    ...identities.flatMap(({ id, file }) => (file === null ? [] : [[id, fromRoot(file, { root })] as const])),
    ...others.map((path) => [path, fromRoot(path, { root })] as const),
  ]
  const setting: SiteSetting = {
    index: emptyIndex(base, whole, files),
    style: styleOf(decisionsOf('')),
    name,
    base,
    baseKnown: true,
    root,
    moves: noMoves,
    date,
    templates: templatesOf(decisionsOf('')),
  }
  const slugs = new Map<string, SlugEdit>()
  for (const { id, file } of identities) {
    const slug = slugOf(decisionsOf(id))
    if (slug && file !== null) slugs.set(fromRoot(file, { root }), slug)
  }
  if (slugs.size > 0) settleMoves(setting, files, slugs)
  return setting
}

async function bytesOfPage(
  { read, served }: Pending,
  { id, file }: PageIdentity,
): Promise<Outcome<Uint8Array>> {
  const none = { ok: false as const, why: 'It could not be read.' }
  if (file === null) {
    const bytes = served?.get(id)
    return bytes ? { ok: true, value: bytes } : none
  }
  const { files, failed } = await read([file])
  const bytes = files.get(file)
  return bytes ? { ok: true, value: bytes } : { ok: false, why: failed[0]?.why ?? none.why }
}

/** Writes what is taken in into the store, a batch at a time, and counts it. */
function recordWriter(site: SiteRecord) {
  const rows: RowRecord[] = []
  const pages: PageRecord[] = []
  const files: FileRecord[] = []
  async function flush(): Promise<void> {
    const [someRows, somePages, someFiles] = [rows.splice(0), pages.splice(0), files.splice(0)]
    await db.transaction('rw', [db.ledger, db.pages, db.files], async () => {
      await db.ledger.bulkAdd(someRows)
      await db.pages.bulkAdd(somePages)
      await db.files.bulkAdd(someFiles)
    })
    // Lets a cancellation in between two batches.
    await new Promise((resolve) => setTimeout(resolve, 0))
  }
  const flushFull = async () => {
    if (pages.length + files.length >= BATCH) await flush()
  }
  return {
    async page(identity: PageIdentity, { row, source }: Evaluated): Promise<void> {
      const { bytes, encoding, encodingBy, bom } = source
      rows.push({ ...row, site: site.id })
      pages.push({ ...identity, site: site.id, bytes, encoding, encodingBy, bom })
      site.pages++
      await flushFull()
    },
    async file(path: string, bytes: Uint8Array): Promise<void> {
      files.push({ site: site.id, path, bytes })
      site.otherFiles++
      await flushFull()
    },
    end: flush,
  }
}
class Cancelled extends Error {}

/** Brings a project file back: the site as it was taken in, with all decisions and the log. */
export async function takeInProject(
  ticket: number,
  today: string,
  leaveOut: { path: string; why: string }[],
  progress: (p: Progress) => void,
): Promise<TakenIn> {
  const bytes = opened.get(ticket)?.projectBytes
  if (!bytes) return { ok: false, why: 'The project file is no longer at hand. Drop it again.' }
  const result = readProject(bytes)
  if (!result.ok) return result
  const { project } = result
  opened.set(ticket, {
    kind: 'files',
    whole: project.site.whole,
    root: project.site.root,
    paths: [...project.files.keys()].sort(),
    unread: [],
    read: async (batch) => ({ files: new Map(batch.map((p) => [p, project.files.get(p)!])), failed: [] }),
    identities: project.pages,
    served: project.fetched,
    work: project.work,
  })
  const taken = await takeIn(
    {
      ticket,
      name: project.site.name,
      base: project.site.base,
      today: project.site.takenIn || today,
      demo: false,
      leaveOut,
    },
    progress,
  )
  if (!taken.ok) return taken
  const { id } = taken.site
  await db.transaction('rw', [db.decisions, db.log], async () => {
    await db.decisions.bulkPut([...project.work].map(([page, decisions]) => ({ site: id, page, decisions })))
    for (const entry of project.log) await db.log.add({ ...entry, site: id } as never)
  })
  return taken
}
