/** Writes to the store, one behind the other, and what is still on its way there. */
import { applyChanges, changesFor, type Decisions } from '../../core/work/decisions.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { Decision } from '../store/work-log.ts'
import type { Journal } from './journal.ts'
import type { StateHolder } from './session-state.ts'

export interface StoreRow {
  /** Does a job when all before it are done. What fails is told, and its error is the promise's. */
  write<T>(job: () => Promise<T>): Promise<T>
  /** Ends when all that was asked for before is done; never rejects. */
  readonly done: Promise<unknown>
  /** Notes a batch that is on its way; call the answer when it has arrived, or was refused. */
  send(batch: Decision[]): () => void
  /** The decisions that are on their way, oldest first. */
  underway(): Decision[]
  /** What the store holds of a page, and on top of it what is on its way there. */
  withUnderway(page: PageId, stored: Decisions): Decisions
}

/** `isWaiting` says whether something is typed that was not sent yet, `onDone` hears of each write that succeeded. */
export function createStoreRow(
  state: StateHolder,
  journal: Journal,
  isWaiting: () => boolean,
  onDone: () => void,
): StoreRow {
  /** Each batch with its decisions by page: one may hold thousands. */
  const batches: { all: Decision[]; byPage: Map<PageId, Decision[]> }[] = []
  let last: Promise<unknown> = Promise.resolve()
  return {
    write(job) {
      state.set({ saved: 'saving' })
      const done = last.then(job)
      const row = done.catch(() => {})
      last = row
      done.then(
        () => {
          state.set({ saved: isWaiting() || last !== row ? 'saving' : 'saved' })
          onDone()
        },
        () => state.set({ saved: 'failed' }),
      )
      return done
    },
    get done() {
      return last
    },
    send(all) {
      const batch = { all, byPage: new Map<PageId, Decision[]>() }
      for (const decision of all) {
        const ofPage = batch.byPage.get(decision.page)
        if (ofPage) ofPage.push(decision)
        else batch.byPage.set(decision.page, [decision])
      }
      batches.push(batch)
      return () => {
        const at = batches.indexOf(batch)
        if (at >= 0) batches.splice(at, 1)
        if (batches.length === 0) journal.clear()
      }
    },
    underway: () => batches.flatMap(({ all }) => all),
    withUnderway(page, stored) {
      let decisions = stored
      for (const { byPage } of batches)
        for (const { key, after } of byPage.get(page) ?? [])
          decisions = applyChanges(decisions, changesFor(page, decisions, key, after))
      return decisions
    },
  }
}
