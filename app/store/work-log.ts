/** Decisions and the command log in the store. Every write is one transaction, so that two tabs never lose each other's. */
import { applyChanges, changesFor, type Decisions, type LogEntry } from '../../core/work/decisions.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { db, type LogRecord, type Store } from './db.ts'

export interface Decision {
  /** A page's id; "" for the site as a whole. */
  page: PageId
  key: string
  /** undefined takes the decision back. */
  after: unknown
}
export interface Committed {
  logId: number | null
  /** Decisions as they stand now, of every page that changed. */
  work: Map<string, Decisions>
}

async function allDecisions(store: Store, site: string, pages: string[]): Promise<Map<string, Decisions>> {
  const records = await store.decisions.bulkGet(pages.map((page) => [site, page] as [string, string]))
  return new Map(pages.map((page, i) => [page, records[i]?.decisions ?? {}]))
}

/** The log's end, newest first: all steps that were undone, and the last one that was not. */
const tail = (store: Store, site: string): Promise<LogRecord[]> =>
  store.log
    .where('site')
    .equals(site)
    .reverse()
    .until((e) => !e.undone, true)
    .toArray()

async function putAll(store: Store, site: string, work: Map<string, Decisions>): Promise<void> {
  await store.decisions.bulkPut([...work].map(([page, decisions]) => ({ site, page, decisions })))
}

/**
 * Writes decisions as one step of the log; what was undone before can no longer be redone. `amend` names the step of
 * the same typing that is carried on, which keeps its first `before`; it is a new step if another came between.
 */
export function commit(
  site: string,
  label: string,
  decisions: Decision[],
  at: string,
  amend: number | null = null,
  store: Store = db,
): Promise<Committed> {
  return store.transaction('rw', [store.decisions, store.log], async () => {
    const work = new Map<string, Decisions>()
    const stored = await allDecisions(store, site, [...new Set(decisions.map((d) => d.page))])
    const changes: LogEntry['changes'] = []
    for (const { page, key, after } of decisions) {
      const now = work.get(page) ?? stored.get(page)!
      const made = changesFor(page, now, key, after)
      if (made.length === 0) continue
      for (const change of made) changes.push(change)
      work.set(page, applyChanges(now, made))
    }
    if (changes.length === 0) return { logId: amend, work }
    await putAll(store, site, work)
    const entries = await tail(store, site)
    const undone = entries.filter((e) => e.undone).map((e) => e.id)
    if (undone.length > 0) await store.log.bulkDelete(undone)
    const last = entries.find((e) => !e.undone)
    if (amend !== null && last?.id === amend) {
      await store.log.update(amend, { at, changes: carriedOn(last.changes, changes) })
      return { logId: amend, work }
    }
    const logId = await store.log.add({ site, at, label, changes, undone: false } as LogRecord)
    return { logId: logId as number, work }
  })
}

/** A step and what carries it on as one: the first `before`, the last `after`, of each decision. */
function carriedOn(first: LogEntry['changes'], next: LogEntry['changes']): LogEntry['changes'] {
  const merged = new Map(first.map((c) => [`${c.page}\n${c.key}`, c]))
  for (const change of next) {
    const key = `${change.page}\n${change.key}`
    const before = merged.get(key)
    merged.set(key, before ? { ...before, after: change.after } : change)
  }
  return [...merged.values()]
}

export interface Step extends Committed {
  label: string
  pages: string[]
}

/** Takes the last step back, or does the next one again; null when there is none. */
export function walkLog(site: string, direction: 'undo' | 'redo', store: Store = db): Promise<Step | null> {
  return store.transaction('rw', [store.decisions, store.log], async () => {
    const entries = await tail(store, site)
    const entry = direction === 'undo' ? entries.find((e) => !e.undone) : entries.findLast((e) => e.undone)
    if (!entry) return null
    const work = new Map<string, Decisions>()
    const byPage = new Map<string, LogEntry['changes']>()
    for (const change of entry.changes) {
      const ofPage = byPage.get(change.page)
      if (ofPage) ofPage.push(change)
      else byPage.set(change.page, [change])
    }
    const pages = [...byPage.keys()]
    const stored = await allDecisions(store, site, pages)
    for (const [page, own] of byPage)
      work.set(page, applyChanges(stored.get(page)!, own, direction === 'undo'))
    await putAll(store, site, work)
    await store.log.update(entry.id, { undone: direction === 'undo' })
    return { logId: entry.id, work, label: entry.label, pages }
  })
}

/** What undo and redo would do, in words; null where there is nothing. */
export async function logState(
  site: string,
  store: Store = db,
): Promise<{ undo: string | null; redo: string | null }> {
  const entries = await tail(store, site)
  return {
    undo: entries.find((e) => !e.undone)?.label ?? null,
    redo: entries.findLast((e) => e.undone)?.label ?? null,
  }
}
