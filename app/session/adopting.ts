/** Taking decisions over that the store holds now: after a write, an undo, or a change in another tab. */
import { styleOf, templatesOf, type Decisions } from '../../core/work/decisions.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { core } from '../workers/client.ts'
import type { DeskQueue } from './desk-queue.ts'
import type { Judging } from './judging.ts'
import type { StateHolder } from './session-state.ts'

/**
 * Puts stored decisions into the state, and has the worker look again at the pages that differ. `onTop` lays over a
 * page's stored decisions what has not arrived there: a slow store takes no key back.
 */
export function adopt(
  state: StateHolder,
  desk: DeskQueue,
  { judge }: Judging,
  stored: ReadonlyMap<PageId, Decisions>,
  onTop: (page: PageId, stored: Decisions) => Decisions,
): void {
  const work = new Map<PageId, Decisions>()
  for (const [page, decisions] of stored) {
    const now = onTop(page, decisions)
    if (JSON.stringify(now) !== JSON.stringify(state.decisionsOf(page))) work.set(page, now)
  }
  if (work.size === 0) return
  state.set({ work: new Map([...state.get().work, ...work]) })
  const onDesk = desk.page()
  const looked = onDesk !== null && work.has(onDesk) ? onDesk : null
  if (looked !== null) desk.look(looked)
  const ofSite = work.get('')
  if (ofSite) adoptForSite(state, desk, judge, ofSite)
  judge([...work.keys()].filter((page) => page !== '' && page !== looked))
}

/** Where the house style or the rules for what recurs differ, every page is judged by them. */
function adoptForSite(state: StateHolder, desk: DeskQueue, judge: Judging['judge'], ofSite: Decisions): void {
  const before = state.get()
  const style = styleOf(ofSite)
  const templates = templatesOf(ofSite)
  const mentions = ofSite.mentions === true
  const had = [before.style, before.templates, before.mentions]
  if (JSON.stringify([style, templates, mentions]) === JSON.stringify(had)) return
  state.set({ style, templates, mentions })
  void core()
    .setSite(ofSite)
    .then((siteMarks) => {
      if (siteMarks) state.set({ siteMarks })
    })
    // A worker that was started again has read the decisions from the store.
    .catch(() => {})
    .then(() => {
      const onDesk = desk.page()
      if (onDesk !== null) desk.look(onDesk)
      judge(state.get().rows.keys())
    })
}
