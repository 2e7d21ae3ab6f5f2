/** The worker's questions about the page on the desk: one at a time, and only the newest waits. */
import type { PageId } from '../../core/site/page-identity.ts'
import { core } from '../workers/client.ts'
import type { Judging } from './judging.ts'
import type { StateHolder } from './session-state.ts'

/** While a slug is typed, what moves with it is judged once the typing has rested so long, in ms. */
const REST = 400

export interface DeskQueue {
  /** The page on the desk; null while none is. */
  page(): PageId | null
  /** Puts a page on the desk; its view follows from the worker. */
  open(page: PageId): void
  /** Asks about a page, with what is decided for it now. */
  look(page: PageId): void
  /** Asks once more about the page on the desk. */
  lookAgain(): void
}

export function createDeskQueue(state: StateHolder, { judge }: Judging): DeskQueue {
  let asking = false
  let waiting: PageId | null = null
  let onDesk: PageId | null = null
  const moved = new Set<PageId>()
  let resting: ReturnType<typeof setTimeout> | null = null

  const report = (page: PageId, why: string) => {
    if (page === onDesk) state.set({ problem: { page, why } })
  }

  async function ask(): Promise<void> {
    asking = true
    try {
      while (waiting !== null) {
        const page = waiting
        waiting = null
        let answer
        try {
          answer = await core().evaluatePage(page, state.decisionsOf(page))
        } catch (error) {
          report(page, (error as Error).message)
          continue
        }
        if (!answer) {
          report(page, 'Its source is no longer kept in this browser. Take the site in again.')
          continue
        }
        if (state.get().problem?.page === page) state.set({ problem: null })
        // An older answer's view gives way to the newer question; what it says of other pages is said once.
        const isNewest = waiting !== page
        if (answer.siteMarks) state.set({ siteMarks: answer.siteMarks })
        if (isNewest)
          state.set({
            rows: new Map(state.get().rows).set(page, answer.view.row),
            ...(page === onDesk ? { view: answer.view } : {}),
          })
        judgeMoved(answer.moved)
      }
    } finally {
      asking = false
    }
  }
  function judgeMoved(pages: PageId[]): void {
    for (const page of pages) moved.add(page)
    if (moved.size === 0) return
    if (resting) clearTimeout(resting)
    resting = setTimeout(() => {
      judge(moved)
      moved.clear()
    }, REST)
  }

  function look(page: PageId): void {
    waiting = page
    if (!asking) void ask()
  }
  return {
    page: () => onDesk,
    look,
    open(page) {
      const { view } = state.get()
      if (onDesk === page && view?.id === page) return
      onDesk = page
      if (view?.id !== page) state.set({ view: null, problem: null })
      look(page)
    },
    lookAgain() {
      state.set({ problem: null })
      if (onDesk !== null) look(onDesk)
    },
  }
}
