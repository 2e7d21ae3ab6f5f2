/** How the site stood on some days: marks of its pages, kept so that it can be told what was mended since. */
import type { PageId } from '../../core/site/page-identity.ts'
import { stateOf, type Decisions } from '../../core/work/decisions.ts'
import { ruleIds } from '../../core/rules/runner.ts'
import { db, firstOf, type SnapshotRecord } from '../store/db.ts'
import { current, type Open } from './open-site.ts'

/** Days after which the next snapshot is kept. */
const APART = 7

/** What a snapshot keeps of the open site; the store gives it its number. */
export const snapshotOf = (
  open: Open,
  decisionsOf: (id: PageId) => Decisions,
  date: string,
): Omit<SnapshotRecord, 'id'> => ({
  site: firstOf(open.site),
  date,
  pages: [...open.rows.values()].map(({ id, url, title, description, rules }) => ({
    id,
    url,
    title,
    description,
    state: stateOf(decisionsOf(id)),
    rules,
  })),
})

export interface Mended {
  /** YYYY-MM-DD of the first snapshot. */
  since: string
  /** Marks that pages had then, one for each page and rule; of those, how many are gone; and how many came. */
  atStart: number
  mended: number
  come: number
}

/** What was mended since the site's first snapshot, which is kept now where there is none; null while no site is open. */
export async function mendedSinceStart(): Promise<Mended | null> {
  const open = current
  if (!open) return null
  const today = open.setting.date
  const kept = await db.snapshots.where('site').equals(firstOf(open.site)).sortBy('date')
  const newest = kept.at(-1)
  if (!newest || Date.parse(today) - Date.parse(newest.date) >= APART * 86_400_000) {
    const work = await db.decisions.where('site').equals(open.site.id).toArray()
    const decided = new Map(work.map(({ page, decisions }) => [page, decisions]))
    const now = snapshotOf(open, (id) => decided.get(id) ?? {}, today)
    await db.snapshots.add(now as never)
    if (!newest) return compared(now, open)
  }
  return compared(kept[0]!, open)
}

/** Rules that marked some pages in the first snapshot and do so no more, those of the most pages first. */
export async function mendedOn(pages: readonly PageId[]): Promise<{ rule: string; pages: number }[]> {
  const open = current
  if (!open) return []
  const [first] = await db.snapshots.where('site').equals(firstOf(open.site)).sortBy('date')
  const then = new Map((first?.pages ?? []).map((page) => [page.id, page.rules]))
  const counts = new Map<string, number>()
  for (const id of pages) {
    const now = new Set(open.rows.get(id)?.rules ?? [])
    for (const rule of then.get(id) ?? [])
      if (!now.has(rule) && ruleIds.has(rule)) counts.set(rule, (counts.get(rule) ?? 0) + 1)
  }
  return [...counts].map(([rule, n]) => ({ rule, pages: n })).sort((a, b) => b.pages - a.pages)
}

function compared({ date, pages }: Omit<SnapshotRecord, 'id'>, open: Open): Mended {
  const mended: Mended = { since: date, atStart: 0, mended: 0, come: 0 }
  const then = new Map(pages.map((page) => [page.id, new Set(page.rules)]))
  for (const [id, rules] of then) {
    const now = new Set(open.rows.get(id)?.rules ?? [])
    mended.atStart += rules.size
    for (const rule of rules) if (!now.has(rule)) mended.mended++
  }
  for (const { id, rules } of open.rows.values())
    for (const rule of rules) if (!then.get(id)?.has(rule)) mended.come++
  return mended
}
