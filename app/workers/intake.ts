/** Taking pages in: read, judged and kept, in the worker, in steps that can be cancelled. */
import { addressOf, isPagePath, normaliseBase } from '../../core/addresses/addresses.ts'
import { readProject } from '../../core/exchange/project.ts'
import type { Outcome } from '../../core/page/read/boundary.ts'
import { noMoves } from '../../core/site/moves.ts'
import { filePage, pathOf, type PageId, type PageIdentity } from '../../core/site/page-identity.ts'
import { noFileSizes, type FileSize, type FileSizes } from '../../core/site/file-sizes.ts'
import { emptyIndex } from '../../core/site/site-index.ts'
import { styleOf, templatesOf, type Decisions } from '../../core/work/decisions.ts'
import { runOverPages } from '../../core/work/run.ts'
import { filesFromRoot, settleMoves, slugsOf, type SiteSetting } from '../../core/work/setting.ts'
import { db, removeSite, type SiteRecord } from '../store/db.ts'
import { opened, type Pending } from './open-input.ts'
import { recordWriter } from './record-writer.ts'

export interface Progress {
  done: number
  of: number
  now: string
}

export type TakenIn =
  | { ok: true; site: SiteRecord }
  /** `about` names the field to ask for once more. */
  | { ok: false; why: string; about?: 'base' }

const cancelled = new Set<number>()

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
    /** The first state of the site, where this is not the first. */
    first?: string
    /** Done when all is written and before the site stands on the shelf. */
    beforeReady?(site: SiteRecord): Promise<void>
  },
  progress: (p: Progress) => void,
): Promise<TakenIn> {
  const input = opened.get(given.ticket)
  if (!input) return { ok: false, why: 'What was dropped is no longer at hand. Drop it again.' }
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
    whole: input.whole,
    root: input.root,
    status: 'taking in',
    takenIn: given.today,
    pages: 0,
    otherFiles: 0,
    unread: [...input.unread],
    demo: given.demo,
    from: input.from ?? { by: 'files' },
    ...(given.first === undefined ? {} : { first: given.first }),
  }
  await db.sites.add(site)
  const identities = input.identities ?? identitiesOf(input, base)
  const ofPages = new Set(identities.map(({ file }) => file))
  const others = input.paths.filter((path) => !ofPages.has(path))
  const total = identities.length + others.length
  const decisionsOf = (page: PageId): Decisions => input.work?.get(page) ?? {}
  const sizes = new Map<string, FileSize>()
  const setting = settingOf(site, given.today, identities, others, decisionsOf, input.addresses, sizes)
  const stopped = () => cancelled.has(given.ticket)
  try {
    const written = recordWriter(site)
    // Files first: a page is judged by what it weighs with them.
    for (const [n, path] of others.entries()) {
      if (stopped()) throw new Cancelled()
      progress({ done: n, of: total, now: path })
      const { files, failed } = await input.read([path])
      for (const one of failed) site.unread.push(one)
      const bytes = files.get(path)
      if (bytes) sizes.set(path, await written.file(path, bytes))
    }
    const done = await runOverPages(
      {
        setting,
        pages: identities,
        decisionsOf,
        async read(page) {
          const why = leftOut.get(pathOf(page))
          return why === undefined ? bytesOfPage(input, page) : { ok: false, why }
        },
      },
      {
        stopped,
        progress: (page, n) => progress({ done: others.length + n, of: total, now: pathOf(page) }),
        async onPage(page, judged) {
          if (judged.ok) await written.page(page, judged.value)
          else {
            site.unread.push({ path: pathOf(page), why: judged.why })
            const bytes = await bytesOfPage(input, page)
            if (page.file !== null && bytes.ok) await written.file(page.file, bytes.value)
          }
        },
      },
    )
    if (!done) throw new Cancelled()
    await written.end()
    if (site.pages === 0) {
      await removeSite(id)
      return {
        ok: false,
        why: `None of the pages could be read. ${site.unread[0] ? `${site.unread[0].path}: ${site.unread[0].why}` : ''}`,
      }
    }
    progress({ done: total, of: total, now: '' })
    if (input.addresses) await db.addresses.put({ site: id, ...input.addresses })
    // What a sheet says beside the addresses.
    if (input.kind === 'sheet' && input.work)
      await db.decisions.bulkPut(
        [...input.work].flatMap(([page, decisions]) =>
          Object.keys(decisions).length > 0 ? [{ site: id, page, decisions }] : [],
        ),
      )
    await given.beforeReady?.(site)
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

/** Pages of a folder or ZIP, each with an id of its own. */
export function identitiesOf({ whole, root, paths }: Pending, base: string): PageIdentity[] {
  const pages = whole ? paths.filter(isPagePath) : paths
  return pages.map((path) => filePage(crypto.randomUUID(), path, addressOf(path.slice(root.length), base)))
}

/** The setting in which pages are judged as they are taken in. */
export function settingOf(
  site: SiteRecord,
  date: string,
  identities: readonly PageIdentity[],
  others: readonly string[],
  decisionsOf: (page: PageId) => Decisions,
  known: Pending['addresses'],
  sizes: FileSizes = noFileSizes,
): SiteSetting {
  const { base, root, name, whole } = site
  const files = filesFromRoot(identities, others, { root, base })
  const setting: SiteSetting = {
    index: emptyIndex(base, whole, files, { pages: identities, ...known, sizes }),
    style: styleOf(decisionsOf('')),
    name,
    base,
    baseKnown: true,
    root,
    moves: noMoves,
    date,
    templates: templatesOf(decisionsOf('')),
  }
  const slugs = slugsOf(identities, decisionsOf, setting)
  if (slugs.size > 0) settleMoves(setting, files, slugs)
  return setting
}

/** A page's bytes as they were dropped or fetched. */
export async function bytesOfPage(
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
    ...(project.addresses ? { addresses: project.addresses } : {}),
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
