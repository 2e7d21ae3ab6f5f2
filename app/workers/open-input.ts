/** What was dropped or pasted, opened without reading it all, with a guess at the site's name and address. */
import { addressOf, isPagePath, normaliseBase } from '../../core/addresses/addresses.ts'
import { isProject, readProject } from '../../core/exchange/project.ts'
import { isSystemFile, openZip, safePath, zipLimits } from '../../core/exchange/zip.ts'
import { pageFrom } from '../../core/page/read/boundary.ts'
import { canonicalOf } from '../../core/page/read/facts.ts'
import type { PageId, PageIdentity } from '../../core/site/page-identity.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import type { SiteSource } from '../store/db.ts'

export type IntakeInput =
  | { kind: 'files'; name: string; files: { path: string; file: File }[] }
  | { kind: 'zip'; file: File }
  | { kind: 'page'; file: File }
  | { kind: 'paste'; html: string }

export interface Prepared {
  /** Names what was opened, for taking it in. */
  ticket: number
  kind: IntakeInput['kind'] | 'project' | 'address' | 'sheet'
  /** Good guesses that the editor confirms. */
  name: string
  base: string
  baseFrom: 'a page’s canonical' | 'the folder’s name' | 'nothing on the pages'
  pages: number
  others: number
  unread: { path: string; why: string }[]
  /** Bytes, unpacked. */
  size: number
}
/** What was opened and waits for the base address. */
export interface Pending {
  kind: Prepared['kind']
  whole: boolean
  /** A folder that all paths share, `site/`, and that is no part of their addresses. */
  root: string
  paths: string[]
  /** Bytes of all of them, unpacked; left out where they are not known beforehand. */
  size?: number
  read(paths: string[]): Promise<{ files: Map<string, Uint8Array>; failed: { path: string; why: string }[] }>
  unread: { path: string; why: string }[]
  projectBytes?: Uint8Array
  /** Pages that have their ids already: those of a project; and what was served of those without a file. */
  identities?: PageIdentity[]
  served?: ReadonlyMap<PageId, Uint8Array>
  /** What is known of the site's addresses beside its pages'. */
  addresses?: { sitemap: string[] | null; files: string[] }
  /** Where its pages come from. */
  from?: SiteSource
  /** What was decided for them, by page; "" is the site as a whole. */
  work?: ReadonlyMap<PageId, Decisions>
}
export const opened = new Map<number, Pending>()
let tickets = 0
export const newTicket = (): number => ++tickets

const MOST_PAGES = 5_000

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
        size: zip.size,
        unread: [],
        read: async (p) => zip.read(p),
        projectBytes: bytes,
      }
    return {
      kind: 'zip',
      whole: true,
      root: topFolder(zip.paths),
      paths: [...zip.paths].sort(),
      size: zip.size,
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
    size: total,
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
  const openedInput = await open(input)
  if ('why' in openedInput) return { ok: false, why: openedInput.why }
  const ticket = newTicket()
  opened.set(ticket, openedInput)
  if (openedInput.kind === 'project') {
    const project = readProject(openedInput.projectBytes!)
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
        size: openedInput.size ?? 0,
      },
    }
  }
  const pages = openedInput.whole ? openedInput.paths.filter(isPagePath) : openedInput.paths
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
  const guess = await guessBase(openedInput, pages, folderName)
  return {
    ok: true,
    prepared: {
      ticket,
      kind: openedInput.kind,
      name: guess.name,
      base: guess.base,
      baseFrom: guess.from,
      pages: pages.length,
      others: openedInput.paths.length - pages.length,
      unread: openedInput.unread,
      size: openedInput.size ?? 0,
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
