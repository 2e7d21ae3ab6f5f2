/** A colleague's project file beside the site that is open: what its work would bring, and what both decided differently. */
import { readProject } from '../../core/exchange/project.ts'
import { pathOf, type PageId } from '../../core/site/page-identity.ts'
import type { Decisions, HandOffRecord } from '../../core/work/decisions.ts'
import { mergeWork, type Merged } from '../../core/work/merge-work.ts'
import { db } from '../store/db.ts'
import { opened } from './open-input.ts'
import { current } from './open-site.ts'

export interface MergePlan extends Merged {
  /** Pages on which something was decided there and that this site does not have. */
  notHere: string[]
  /** Pages whose source is another here: edits that stand at a place in it are left out. */
  otherSource: string[]
}

/** An edit that names its place by a number of characters is true of one source alone. */
const isByPlace = (key: string) => /^(?:edit|stet|conflict|aside):.*@\d/.test(key)

export async function planMerge(
  ticket: number,
): Promise<{ ok: true; plan: MergePlan } | { ok: false; why: string }> {
  const open = current
  const bytes = opened.get(ticket)?.projectBytes
  if (!open || !bytes) return { ok: false, why: 'The project file is no longer at hand. Drop it again.' }
  const read = readProject(bytes)
  if (!read.ok) return read
  const { project } = read
  const ids = await hereOf(project.pages.map((page) => [page.id, pathOf(page)]))
  const notHere: string[] = []
  const otherSource: string[] = []
  const theirs = new Map<PageId, Decisions>()
  const decided = new Map([...project.work].filter(([, of]) => Object.keys(of).length > 0))
  for (const page of project.pages) {
    const work = decided.get(page.id)
    if (!work) continue
    const here = ids.get(page.id)
    if (here === undefined) {
      notHere.push(pathOf(page))
      continue
    }
    const source = page.file === null ? project.fetched.get(page.id) : project.files.get(page.file)
    const placed = Object.keys(work).filter(isByPlace)
    const isSame = placed.length === 0 || (source && sameBytes(source, (await bytesHere(here)) ?? none))
    if (!isSame) otherSource.push(pathOf(page))
    theirs.set(
      here,
      isSame ? work : Object.fromEntries(Object.entries(work).filter(([key]) => !isByPlace(key))),
    )
  }
  const ofSite = decided.get('')
  if (ofSite) theirs.set('', withIdsOf(ofSite, ids))
  const ours = new Map(
    (await db.decisions.where('site').equals(open.site.id).toArray()).map((w) => [w.page, w.decisions]),
  )
  return { ok: true, plan: { ...mergeWork(ours, theirs), notHere, otherSource } }
}

const none = new Uint8Array()
const sameBytes = (a: Uint8Array, b: Uint8Array): boolean =>
  a.length === b.length && a.every((byte, i) => byte === b[i])
const bytesHere = async (id: PageId) => (await db.pages.get([current!.site.id, id]))?.bytes

/** Which page here each page of the project is: by its id where both come from one intake, else by its path. */
async function hereOf(pages: [PageId, string][]): Promise<Map<PageId, PageId>> {
  const here = current!.pages
  const byPath = new Map([...here.values()].map((page) => [pathOf(page), page.id]))
  return new Map(
    pages.flatMap(([id, path]): [PageId, PageId][] => {
      const match = here.has(id) ? id : byPath.get(path)
      return match === undefined ? [] : [[id, match]]
    }),
  )
}

/** What is decided for the site as a whole, with pages by their ids here. */
function withIdsOf(ofSite: Decisions, ids: ReadonlyMap<PageId, PageId>): Decisions {
  const handOffs = ofSite['hand-offs'] as HandOffRecord[] | undefined
  if (!handOffs) return ofSite
  return {
    ...ofSite,
    'hand-offs': handOffs.map((record) => ({
      ...record,
      pages: record.pages.flatMap((id) => ids.get(id) ?? []),
    })),
  }
}
