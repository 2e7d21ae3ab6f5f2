/** Taking pages in: from files of a folder, a ZIP, one HTML file or pasted source, in the worker, in steps that can be cancelled. */
import { isProject, readProject } from '../../core/exchange/project.ts'
import { isSystemFile, openZip, safePath, zipLimits } from '../../core/exchange/zip.ts'
import { canonicalOf } from '../../core/page/read/facts.ts'
import { onePage, pageFrom } from '../../core/page/read/boundary.ts'
import { readSource } from '../../core/page/source/source.ts'
import { defaultStyle } from '../../core/rules/house-style.ts'
import { addressOf, isPagePath, normaliseBase } from '../../core/addresses/addresses.ts'
import { noMoves } from '../../core/site/moves.ts'
import { addressOnly, emptyIndex, entryOf, updateIndex } from '../../core/site/site-index.ts'
import {
  db,
  removeSite,
  type FileRecord,
  type LedgerRow,
  type SiteRecord,
  type SourceRecord,
} from '../store/db.ts'
import { evaluate } from './evaluate.ts'

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
}
const opened = new Map<number, Pending>()
let tickets = 0
const cancelled = new Set<number>()

const MOST_PAGES = 5_000
const BATCH = 100

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
    const { site, files } = project.project
    const pages = [...files.keys()].filter(isPagePath).length
    return {
      ok: true,
      prepared: {
        ticket,
        kind: 'project',
        name: site.name,
        base: site.base,
        baseFrom: 'a page’s canonical',
        pages,
        others: files.size - pages,
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
  const pages = new Set(found.whole ? found.paths.filter(isPagePath) : found.paths)
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
  const index = emptyIndex(
    base,
    found.whole,
    found.paths.map((p) => [p, p.slice(found.root.length)] as const),
  )
  const setting = {
    index,
    style: defaultStyle,
    name: site.name,
    date: given.today,
    base,
    root: found.root,
    moves: noMoves,
    templates: [],
  }
  // Every page's address is known to the first rule that runs; and what the home page links to.
  for (const path of pages)
    updateIndex(index, path, addressOnly(path, addressOf(path.slice(found.root.length), base)))
  const home = index.addresses.get(base)
  const inOrder = [...found.paths].sort((a, b) => Number(b === home) - Number(a === home))
  try {
    let done = 0
    for (let i = 0; i < inOrder.length; i += BATCH) {
      const batch = inOrder.slice(i, i + BATCH)
      const { files, failed } = await found.read(batch)
      for (const one of failed) site.unread.push(one)
      const rows: LedgerRow[] = []
      const sources: SourceRecord[] = []
      const others: FileRecord[] = []
      for (const path of batch) {
        if (cancelled.has(given.ticket)) throw new Cancelled()
        const bytes = files.get(path)
        // Said before it is looked at: should the worker get stuck, this is the page that it got stuck at.
        progress({ done, of: found.paths.length, now: path })
        done++
        if (!bytes) continue
        const why = leftOut.get(path)
        const judged = !pages.has(path)
          ? null
          : why !== undefined
            ? { ok: false as const, why }
            : onePage(() => {
                const read = readSource(bytes)
                if (!read.ok) return read
                const evaluated = evaluate(id, path, read.source, {}, setting)
                const { beyond } = evaluated.page
                return beyond === null ? { ok: true, value: evaluated } : { ok: false, why: beyond }
              })
        if (judged?.ok) {
          const { row, page, source } = judged.value
          const { encoding, encodingBy, bom } = source
          sources.push({ site: id, path, bytes, encoding, encodingBy, bom })
          rows.push(row)
          if (path === home) updateIndex(index, path, entryOf(path, page, index))
        } else {
          if (judged) site.unread.push({ path, why: judged.why })
          others.push({ site: id, path, bytes })
        }
        // Lets a cancellation in between two pages.
        if (done % 10 === 0) await new Promise((resolve) => setTimeout(resolve, 0))
      }
      await db.transaction('rw', [db.rows, db.sources, db.files], async () => {
        await db.rows.bulkAdd(rows)
        await db.sources.bulkAdd(sources)
        await db.files.bulkAdd(others)
      })
      site.pages += rows.length
      site.otherFiles += others.length
    }
    if (cancelled.has(given.ticket)) throw new Cancelled()
    if (site.pages === 0) {
      await removeSite(id)
      return {
        ok: false,
        why: `None of the pages could be read. ${site.unread[0] ? `${site.unread[0].path}: ${site.unread[0].why}` : ''}`,
      }
    }
    progress({ done: found.paths.length, of: found.paths.length, now: '' })
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
  const paths = [...project.files.keys()].sort()
  opened.set(ticket, {
    kind: 'files',
    whole: project.site.whole,
    root: project.site.root,
    paths,
    unread: [],
    read: async (batch) => ({ files: new Map(batch.map((p) => [p, project.files.get(p)!])), failed: [] }),
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
  await db.transaction('rw', [db.work, db.log], async () => {
    await db.work.bulkPut(
      Object.entries(project.work).map(([path, decisions]) => ({ site: id, path, decisions })),
    )
    for (const entry of project.log) await db.log.add({ ...entry, site: id } as never)
  })
  return taken
}
