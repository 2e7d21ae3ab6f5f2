/** How much room there is for sites in this browser, as far as it says. */
import { db, firstOf, type SiteRecord } from './db.ts'

export interface Room {
  /** Bytes. */
  used: number
  left: number
}
/** Null where the browser does not say. */
export async function roomHere(): Promise<Room | null> {
  const { usage, quota } = (await navigator.storage?.estimate?.()) ?? {}
  return usage === undefined || quota === undefined ? null : { used: usage, left: Math.max(0, quota - usage) }
}

const MB = 1024 * 1024
/** `0.4 MB`, `12 MB`, `1.3 GB`. */
export function inMegabytes(bytes: number): string {
  const mb = bytes / MB
  if (mb >= 1024) return `${(mb / 1024).toFixed(1)} GB`
  return `${mb < 10 ? mb.toFixed(1) : Math.round(mb).toLocaleString('en')} MB`
}

/** The newest step of a site's log that a project file holds. */
interface SavedUpTo {
  log: number
}
const keyOf = (site: SiteRecord) => `project-saved/${firstOf(site)}`
const newestStep = async (site: SiteRecord): Promise<number> =>
  ((await db.log.where('site').equals(site.id).last())?.id as number | undefined) ?? 0

/** Notes that a project file holds all that is decided by now. */
export async function noteProjectSaved(site: SiteRecord): Promise<void> {
  const value: SavedUpTo = { log: await newestStep(site) }
  await db.settings.put({ key: keyOf(site), value })
}

/** When the first step of work was done that no project file holds, as an ISO date and time; null where there is none. */
export async function unsavedSince(site: SiteRecord): Promise<string | null> {
  const saved = (await db.settings.get(keyOf(site)))?.value as SavedUpTo | undefined
  const first = await db.log
    .where('site')
    .equals(site.id)
    .filter(({ id, undone }) => !undone && id > (saved?.log ?? 0))
    .first()
  return first?.at ?? null
}
