/** Taking a site in again: the new state beside the old one, with all that was decided brought over; undone by going back. */
import { onePage, pageFrom } from '../../core/page/read/boundary.ts'
import { descriptionOf, outlineOf, titleOf } from '../../core/page/read/facts.ts'
import { readSource } from '../../core/page/source/source.ts'
import { pathOf, type PageId, type PageIdentity } from '../../core/site/page-identity.ts'
import { matchPages, type PageWords } from '../../core/work/again/match-pages.ts'
import { rebaseDecisions, type Counts } from '../../core/work/again/rebase-decisions.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import { snapshotOf } from './snapshots.ts'
import { db, firstOf, removeSite, type AgainRecord, type SiteRecord } from '../store/db.ts'
import { openSite } from './desk.ts'
import { bytesOfPage, identitiesOf, takeIn, type Progress, type TakenIn } from './intake.ts'
import { opened, type Pending } from './open-input.ts'
import { current, sourceFor, type Open } from './open-site.ts'

export type TakenAgain =
  | {
      ok: true
      site: SiteRecord
      counts: Counts
      pages: { new: number; gone: number; moved: number; changed: number }
    }
  | { ok: false; why: string }

/** Takes what was opened or fetched under a ticket in as the next state of a site. */
export async function takeAgain(
  ticket: number,
  siteId: string,
  today: string,
  progress: (p: Progress) => void,
): Promise<TakenAgain> {
  const input = opened.get(ticket)
  if (!input) return { ok: false, why: 'What was fetched or dropped is no longer at hand. Try again.' }
  if (!(await openSite(siteId, today, true))) return { ok: false, why: 'The site is no longer on the shelf.' }
  const open = current!
  const pages = input.identities ?? identitiesOf(input, open.site.base)
  const work = await decisionsOfSite(siteId)
  const matched = await matchAll(open, input, pages)
  const counts: Counts = { 'still to do': 0, 'in place': 0, 'in conflict': 0, gone: 0 }
  const next = new Map<PageId, Decisions>()
  const ofSite = work.get('')
  if (ofSite) next.set('', ofSite)
  let changed = 0
  for (const [i, page] of matched.pages.entries()) {
    progress({ done: i, of: matched.pages.length, now: pathOf(page) })
    const before = open.pages.get(page.id)
    const source = before && (await sourceFor(open, page.id))
    const bytes = await bytesOfPage({ ...input, served: matched.served }, page)
    if (!before || !source || !bytes.ok) continue
    if (!sameBytes(source.bytes, bytes.value)) changed++
    const decisions = work.get(page.id)
    if (!decisions) continue
    const rebased = onePage(() => {
      const read = readSource(bytes.value, page.served)
      if (!read.ok) return read
      return {
        ok: true,
        value: rebaseDecisions(
          { identity: before, source, decisions, setting: open.setting },
          { identity: page, source: read.source },
          today,
        ),
      }
    })
    if (!rebased.ok) {
      // What cannot be brought over stays with the page that is gone.
      matched.gone.push(page.id)
      continue
    }
    next.set(page.id, rebased.value.decisions)
    for (const [status, count] of Object.entries(rebased.value.counts))
      counts[status as keyof Counts] += count
  }
  const again: Omit<AgainRecord, 'site'> = {
    before: siteId,
    date: today,
    new: matched.new,
    gone: matched.gone.map((id) => ({
      id,
      url: open.rows.get(id)?.url ?? '',
      title: open.rows.get(id)?.title ?? null,
      decisions: work.get(id) ?? {},
    })),
    moved: matched.moved,
    changed,
  }
  opened.set(ticket, { ...input, identities: matched.pages, served: matched.served, work: next })
  const taken: TakenIn = await takeIn(
    {
      ticket,
      name: open.site.name,
      base: open.site.base,
      today,
      demo: open.site.demo,
      first: firstOf(open.site),
      beforeReady: (site) => putInPlace(open, site, again, next, work, today),
    },
    progress,
  )
  if (!taken.ok) return taken
  const { site } = taken
  return {
    ok: true,
    site,
    counts,
    pages: { new: again.new.length, gone: again.gone.length, moved: again.moved.length, changed },
  }
}

const decisionsOfSite = async (site: string): Promise<Map<PageId, Decisions>> =>
  new Map((await db.decisions.where('site').equals(site).toArray()).map((w) => [w.page, w.decisions]))

const sameBytes = (a: Uint8Array, b: Uint8Array): boolean =>
  a.length === b.length && a.every((byte, i) => byte === b[i])

interface Matched {
  /** Those that were taken now, each with the id that it had, then those that only a sheet knows. */
  pages: PageIdentity[]
  served: Map<PageId, Uint8Array>
  new: PageId[]
  gone: PageId[]
  moved: AgainRecord['moved']
}

async function matchAll(open: Open, found: Pending, pages: PageIdentity[]): Promise<Matched> {
  const before = [...open.pages.values()].map(({ id, url, file }) => {
    const row = open.rows.get(id)
    return {
      id,
      url,
      file,
      title: row?.title ?? null,
      h1: row?.h1 ?? null,
      description: row?.description ?? null,
    }
  })
  // What answers with an error is no page that anything was decided for.
  const answering = pages.filter((page) => !fails(page))
  const now = answering.map(({ url, file, served }) => ({
    url,
    file,
    redirects: served?.redirects.map((r) => r.url) ?? [],
  }))
  const matches = await matchPages(before, now, (i) => wordsOf(found, answering[i]!))
  const served = new Map<PageId, Uint8Array>()
  const fresh: PageId[] = []
  const moved: AgainRecord['moved'] = []
  const kept = new Set<PageId>()
  const identities = answering.map((page, i): PageIdentity => {
    const match = matches.get(i)
    const id = match?.id ?? page.id
    const bytes = found.served?.get(page.id)
    if (bytes) served.set(id, bytes)
    if (!match) fresh.push(id)
    else kept.add(id)
    const was = open.pages.get(id)?.url
    if (match && match.by !== 'address' && was !== undefined && was !== page.url)
      moved.push({ id, from: was, to: page.url })
    return { ...page, id }
  })
  for (const page of pages.filter(fails)) {
    identities.push(page)
    const bytes = found.served?.get(page.id)
    if (bytes) served.set(page.id, bytes)
  }
  const gone: PageId[] = []
  for (const page of open.pages.values()) {
    if (kept.has(page.id)) continue
    // What only a sheet told of is not gone because it was not fetched.
    const source = page.partial === null ? null : await sourceFor(open, page.id)
    if (!source) gone.push(page.id)
    else {
      identities.push(page)
      served.set(page.id, source.bytes)
    }
  }
  return { pages: identities, served, new: fresh, gone, moved }
}

const fails = ({ served }: PageIdentity): boolean => served !== null && served.status >= 400

async function wordsOf(found: Pending, page: PageIdentity): Promise<PageWords | null> {
  const bytes = await bytesOfPage(found, page)
  const read = bytes.ok ? pageFrom(bytes.value, { path: pathOf(page), url: page.url }, page.served) : bytes
  if (!read.ok) return null
  const facts = read.value.page
  return {
    title: titleOf(facts)?.text ?? null,
    h1: outlineOf(facts).find((h) => h.level === 1 && h.text)?.text ?? null,
    description: descriptionOf(facts)?.content ?? null,
  }
}

/** Writes what was brought over, a snapshot of the time before, and sets the state before aside. */
async function putInPlace(
  open: Open,
  site: SiteRecord,
  again: Omit<AgainRecord, 'site'>,
  next: ReadonlyMap<PageId, Decisions>,
  work: ReadonlyMap<PageId, Decisions>,
  today: string,
): Promise<void> {
  const first = firstOf(open.site)
  const older = await db.sites
    .filter((s) => firstOf(s) === first && s.id !== open.site.id && s.id !== site.id)
    .toArray()
  await db.transaction('rw', [db.sites, db.decisions, db.again, db.snapshots], async () => {
    await db.decisions.bulkPut([...next].map(([page, decisions]) => ({ site: site.id, page, decisions })))
    await db.again.put({ ...again, site: site.id })
    await db.snapshots.add(snapshotOf(open, (id) => work.get(id) ?? {}, open.site.takenIn || today) as never)
    // Both in one: whatever happens next, one of the two stands on the shelf.
    await db.sites.put({ ...site, status: 'ready' })
    await db.sites.put({ ...open.site, status: 'before' })
  })
  for (const { id } of older) await removeSite(id)
}

/** What came of taking a site in again; null where it was taken in once. */
export const againOf = async (siteId: string): Promise<AgainRecord | null> =>
  (await db.again.get(siteId)) ?? null

/** Goes back to the state before; what was decided since waits in the state that is left. Answers the site to open. */
export async function undoAgain(siteId: string): Promise<string | null> {
  return swap(siteId, async () => (await db.again.get(siteId))?.before, 'undone')
}

/** Goes forward to the state that was left by undoing. */
export async function redoAgain(siteId: string): Promise<string | null> {
  return swap(siteId, async () => (await db.again.filter((a) => a.before === siteId).first())?.site, 'before')
}

async function swap(
  from: string,
  to: () => Promise<string | undefined>,
  left: 'before' | 'undone',
): Promise<string | null> {
  return db.transaction('rw', [db.sites, db.again], async () => {
    const next = await to()
    const site = await db.sites.get(from)
    const other = next === undefined ? undefined : await db.sites.get(next)
    if (!site || !other) return null
    await db.sites.put({ ...site, status: left })
    await db.sites.put({ ...other, status: 'ready' })
    return other.id
  })
}

/** Whether a site was taken in again and that was undone. */
export const canRedoAgain = async (siteId: string): Promise<boolean> => {
  const again = await db.again.filter((a) => a.before === siteId).first()
  return again !== undefined && (await db.sites.get(again.site))?.status === 'undone'
}
