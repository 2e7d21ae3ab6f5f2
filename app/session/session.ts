/**
 * A site that is open in this tab: its rows, decisions and marks in memory, kept in step with the store and the
 * worker. Typing changes memory at once; the worker's marks and the store's copy follow.
 */
import { draftOf, stateOf, type Decisions, type PageState } from '../../core/work/decisions.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { db } from '../store/db.ts'
import { commit, logState, walkLog, type Decision } from '../store/work-log.ts'
import { openInWorker, WorkerStopped } from '../workers/client.ts'
import { adopt } from './adopting.ts'
import { createDeskQueue } from './desk-queue.ts'
import { openJournal, replayJournals } from './journal.ts'
import { createJudging } from './judging.ts'
import { listenToOtherTabs } from './other-tabs.ts'
import { holdState, type OpenedSite } from './session-state.ts'
import { createStoreRow } from './store-row.ts'
import { today } from './today.ts'
import { createTyping, type Typed } from './typing.ts'

export type { SessionState } from './session-state.ts'

const now = (): string => new Date().toISOString()

/** `stale` are pages whose rows were made from something else than holds now: they are judged at once. */
export function createSession(opened: OpenedSite, stale: PageId[] = []) {
  const site = opened.site.id
  const state = holdState(opened)
  const judging = createJudging(state)
  const desk = createDeskQueue(state, judging)
  const journal = openJournal(site)
  const typing = createTyping(state, desk.look, () => void flush())
  const row = createStoreRow(state, journal, typing.isWaiting, typing.tryAgain)
  const tabs = listenToOtherTabs(site, (pages) => void reload(pages))
  /** The step of the log that the newest stretch of typing is kept in. */
  let step: { id: number; of: string } | null = null

  const take = (stored: ReadonlyMap<PageId, Decisions>) =>
    adopt(state, desk, judging, stored, (page, decisions) =>
      typing.withTyped(page, row.withUnderway(page, decisions)),
    )
  const refreshLog = async () => state.set(await logState(site))

  async function reload(pages: PageId[]): Promise<void> {
    await row.done
    const records = await db.decisions.bulkGet(pages.map((p) => [site, p] as [string, PageId]))
    take(new Map(pages.map((page, i) => [page, records[i]?.decisions ?? {}])))
    await refreshLog()
  }

  /** Writes at once what was typed; ends when all that was decided before is in place. Safe to call at any time. */
  function flush(): Promise<unknown> {
    const typed = typing.take()
    return typed === null ? row.done : writeTyped(typed)
  }
  function writeTyped(typed: Typed): Promise<unknown> {
    const { label, decisions, of } = typed
    const arrived = row.send(decisions)
    const done = row.write(async () => {
      // Asked when its turn comes: what was typed before may only just have arrived.
      const amend = step?.of === of ? step.id : null
      const { logId, work } = await commit(site, label, decisions, now(), amend)
      arrived()
      // Another tab may have decided something else for these pages meanwhile.
      take(work)
      step = logId === null ? null : { id: logId, of }
      tabs.tell([...new Set(decisions.map((d) => d.page))])
      await refreshLog()
    })
    done.catch(() => {
      arrived()
      typing.putBack(typed)
    })
    return done
  }

  /** Ends a stretch of typing: what is typed next is a step of its own. */
  async function blur(): Promise<void> {
    const done = flush()
    typing.endStretch()
    await done
  }

  /** A page that goes away may be gone before a transaction ends; the journal is written before this returns. */
  const leave = () => {
    void flush()
    const underway = row.underway()
    if (underway.length > 0) journal.write(underway)
  }
  const hide = () => {
    if (document.visibilityState === 'hidden') void flush()
  }
  judging.judge(stale)
  addEventListener('pagehide', leave)
  document.addEventListener('visibilitychange', hide)

  return {
    subscribe: state.subscribe,
    get: state.get,
    decisionsOf: state.decisionsOf,
    open: desk.open,
    lookAgain: desk.lookAgain,
    type: typing.type,
    blur,
    flush,

    /**
     * Decides several things as one step: in memory at once, in the store when its turn comes, which the answer waits
     * for. Given as a function, they are worked out from what is decided by then, however fast one follows another.
     */
    async decide(label: string, given: Decision[] | (() => Decision[])): Promise<void> {
      void flush()
      typing.endStretch()
      const decisions = typeof given === 'function' ? given() : given
      const pages = [...new Set(decisions.map((d) => d.page))]
      const arrived = row.send(decisions)
      state.set({ saved: 'saving' })
      adopt(
        state,
        desk,
        judging,
        new Map(pages.map((page) => [page, state.decisionsOf(page)])),
        row.withUnderway,
      )
      try {
        await row.write(async () => {
          const { work } = await commit(site, label, decisions, now())
          arrived()
          take(work)
          tabs.tell([...work.keys()])
          await refreshLog()
        })
      } catch (error) {
        // What the browser refused to keep is not shown as decided.
        arrived()
        await reload(pages)
        throw error
      }
    },

    async walk(direction: 'undo' | 'redo'): Promise<{ label: string; pages: PageId[] } | null> {
      await blur()
      return row.write(async () => {
        const walked = await walkLog(site, direction)
        if (walked) {
          take(walked.work)
          tabs.tell(walked.pages)
        }
        await refreshLog()
        return walked
      })
    },

    stopJudging: judging.stop,
    stateOf: (page: PageId): PageState => stateOf(state.decisionsOf(page)),
    draftOf: (page: PageId) => draftOf(state.decisionsOf(page)),
    refreshLog,
    close(): void {
      removeEventListener('pagehide', leave)
      document.removeEventListener('visibilitychange', hide)
      tabs.close()
      void flush()
    },
  }
}

export type Session = ReturnType<typeof createSession>

let open: { id: string; session: Session } | null = null

/** The session of a site, opened once and kept while the editor goes from view to view; null when it is not on the shelf. */
export async function openSession(id: string): Promise<Session | null> {
  if (open?.id === id) return open.session
  open?.session.close()
  open = null
  await replayJournals(id)
  // Where the worker got stuck at a page, the site is opened without judging any.
  const opened = await openInWorker(id, today()).catch((error: unknown) => {
    if (error instanceof WorkerStopped) return openInWorker(id, today(), true)
    throw error
  })
  if (!opened) return null
  const session = createSession(
    {
      site: opened.site,
      rows: new Map(opened.rows.map((r) => [r.id, r])),
      work: new Map(opened.work.map((w) => [w.page, w.decisions])),
      siteMarks: opened.siteMarks,
      style: opened.style,
      templates: opened.templates,
      mentions: opened.work.find((w) => w.page === '')?.decisions.mentions === true,
      rules: opened.rules,
    },
    opened.stale,
  )
  await session.refreshLog()
  open = { id, session }
  return session
}

/** Ends when all that was decided in the site that is open, if one is, is in the store. */
export const settled = async (): Promise<void> => void (await open?.session.flush())

/** Forgets the open session, as when its site is taken off the shelf; of one site, only where that is the one. */
export function closeSession(of?: string): void {
  if (of !== undefined && open?.id !== of) return
  open?.session.close()
  open = null
}
