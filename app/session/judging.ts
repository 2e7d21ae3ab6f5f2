/** Judging pages that are not on the desk: a few at a time, so that a keystroke's question is never far behind. */
import type { PageId } from '../../core/site/page-identity.ts'
import { core } from '../workers/client.ts'
import type { SessionState, StateHolder } from './session-state.ts'

/** Pages judged in one go, about as long as two keystrokes are apart: of fewer nothing needs to be said. */
export const AT_ONCE = 25

export interface Judging {
  /** Judges these pages anew, when their turn comes. */
  judge(pages: Iterable<PageId>): void
  /** Ends the judging; those that are left wait for the next opening. */
  stop(): void
}

export function createJudging(state: StateHolder): Judging {
  const toJudge = new Set<PageId>()
  /** Of those, pages that are judged one by one. */
  const alone: PageId[] = []
  let judging = false

  const leaveOut = (pages: SessionState['leftOut']) => {
    const { leftOut } = state.get()
    const known = new Set(leftOut.map((p) => p.page))
    const more = pages.filter((p) => !known.has(p.page))
    if (more.length > 0) state.set({ leftOut: [...leftOut, ...more] })
  }

  async function judgeAll(): Promise<void> {
    judging = true
    let judged = 0
    /** Whether the marks on the site are those of the pages as they were judged. */
    let isSiteMarked = true
    state.set({ judging: { done: 0, of: toJudge.size } })
    try {
      // When the last ones were stopped or left out, the marks on the site are asked for alone.
      while (toJudge.size > 0 || !isSiteMarked) {
        const some = alone.length > 0 ? alone.splice(0, 1) : [...toJudge].slice(0, AT_ONCE)
        for (const page of some) toJudge.delete(page)
        let answer
        try {
          answer = await core().evaluateRows(
            some.map((page) => ({ page, decisions: state.decisionsOf(page) })),
            toJudge.size === 0,
          )
        } catch (error) {
          // One of them is at fault: each by itself shows which.
          if (some.length > 1) {
            alone.push(...some)
            for (const page of some) toJudge.add(page)
          } else if (some.length === 1) leaveOut([{ page: some[0]!, why: (error as Error).message }])
          isSiteMarked = some.length === 0
          continue
        }
        if (!answer) break
        leaveOut(answer.leftOut)
        for (const page of answer.moved) toJudge.add(page)
        judged += some.length
        isSiteMarked = answer.siteMarks !== null
        state.set({
          rows: new Map([...state.get().rows, ...answer.rows.map((r) => [r.id, r] as const)]),
          ...(answer.siteMarks ? { siteMarks: answer.siteMarks } : {}),
          judging: { done: judged, of: judged + toJudge.size },
        })
      }
    } finally {
      judging = false
      state.set({ judging: null })
    }
  }

  return {
    judge(pages) {
      for (const page of pages) toJudge.add(page)
      if (!judging && toJudge.size > 0) void judgeAll()
    },
    stop() {
      toJudge.clear()
      alone.length = 0
    },
  }
}
