/**
 * How far the first pass of a site is, kept in this browser beside the site's own work: what is done in it are ordinary
 * drafts, and undo takes those back, never a step of the pass.
 */
import { useEffect, useState } from 'react'
import type { PageId } from '../../core/site/page-identity.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { db } from '../store/db.ts'
import { stepIds, type StepId } from './steps.ts'

export interface Pass {
  page: PageId
  /** `end` once every step was gone through. */
  at: StepId | 'end'
  done: StepId[]
  /** Whether its slip lies on the desk; put away, it waits where it was left. */
  isOpen: boolean
  /** Pages that were taken through to the end. */
  passed: PageId[]
}

/** `site` is the id that all states of a site share. */
const keyOf = (site: string) => `first-pass/${site}`
/** Null where none was begun; what is missing here was not read yet. */
const known = new Map<string, Pass | null>()
const listeners = new Set<() => void>()
const tell = () => {
  for (const listener of listeners) listener()
}

export async function keepPass(site: string, pass: Pass): Promise<void> {
  known.set(site, pass)
  tell()
  await db.settings.put({ key: keyOf(site), value: pass })
}

/** The pass of a site; undefined until it is read, null where none was begun. */
export function usePass(site: string): Pass | null | undefined {
  const [, again] = useState(0)
  useEffect(() => {
    const listener = () => again((n) => n + 1)
    listeners.add(listener)
    if (!known.has(site))
      void db.settings.get(keyOf(site)).then((record) => {
        if (!known.has(site)) known.set(site, passFrom(record?.value))
        tell()
      })
    return () => void listeners.delete(listener)
  }, [site])
  return known.get(site)
}

function passFrom(value: unknown): Pass | null {
  const pass = value as Pass | undefined
  const isStep = (step: unknown): step is StepId => stepIds.includes(step as StepId)
  return typeof pass?.page === 'string' && (pass.at === 'end' || isStep(pass.at))
    ? { ...pass, done: pass.done.filter(isStep) }
    : null
}

/** The step before and behind another; null where there is none. */
export const stepBefore = (step: StepId | 'end'): StepId | null =>
  (step === 'end' ? stepIds.at(-1) : stepIds[stepIds.indexOf(step) - 1]) ?? null
export const stepAfter = (step: StepId): StepId | 'end' => stepIds[stepIds.indexOf(step) + 1] ?? 'end'

/**
 * The page that is best taken next: the home page first, then those to which most pages lead, of what may stand in results
 * and was not taken before. Null where none is left.
 */
export function nextPage(
  rows: Iterable<LedgerRow>,
  base: string,
  passed: readonly PageId[],
): LedgerRow | null {
  const all = [...rows]
  const inbound = new Map<PageId, number>()
  for (const { id, targets, linked } of all)
    for (const target of new Set(targets.slice(0, linked)))
      if (target !== id) inbound.set(target, (inbound.get(target) ?? 0) + 1)
  const worth = (row: LedgerRow) => (row.url === base ? Infinity : (inbound.get(row.id) ?? 0))
  const left = all.filter((row) => row.indexable && !passed.includes(row.id))
  return left.reduce<LedgerRow | null>((best, row) => {
    if (best === null) return row
    const [a, b] = [worth(row), worth(best)]
    return a > b || (a === b && row.url < best.url) ? row : best
  }, null)
}
