/**
 * A site that is open in this tab: its rows, decisions and marks in memory, kept in step with the store and the
 * worker. Typing changes memory at once; the worker's marks and the store's copy follow.
 */
import Joi from 'joi'
import {
  applyChanges,
  changesFor,
  draftOf,
  stateOf,
  styleOf,
  templatesOf,
  type Decisions,
  type PageState,
} from '../../core/work/decisions.ts'
import type { TemplateRule } from '../../core/headings/template-rules.ts'
import type { SiteMark } from '../../core/rules/rule.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { SiteRecord } from '../store/db.ts'
import type { HouseStyle } from '../../core/rules/house-style.ts'
import type { RuleName } from '../workers/desk.ts'
import type { PageView } from '../workers/page-view.ts'
import { core, openInWorker, WorkerStopped } from '../workers/client.ts'
import { db } from '../store/db.ts'
import { commit, logState, walkLog, type Decision } from '../store/work-log.ts'

export interface SessionState {
  site: SiteRecord
  rows: ReadonlyMap<string, LedgerRow>
  work: ReadonlyMap<string, Decisions>
  siteMarks: SiteMark[]
  /** The house style, what was not decided filled with the defaults. */
  style: HouseStyle
  rules: RuleName[]
  /** Rules for what recurs on pages built alike. */
  templates: TemplateRule[]
  /** Pages that are being judged anew, after a change that concerns many; null when none are. */
  judging: { done: number; of: number } | null
  /** The page on the desk, as the worker last saw it. */
  view: PageView | null
  /** Why the page on the desk could not be judged; null while it can. */
  problem: { page: string; why: string } | null
  /** Pages that could not be judged, in the order in which they were met. */
  leftOut: { page: string; why: string }[]
  saved: 'saved' | 'saving' | 'failed'
  undo: string | null
  redo: string | null
}

/** Typing is in the store this long after a key at the latest. */
const SAVE_WITHIN = 200
/** Pages judged in one go, about as long as two keystrokes are apart. */
const AT_ONCE = 25
const REST = 400

const JOURNAL = 'keen-quill-unsaved/'
const journalSchema = Joi.object({
  label: Joi.string().required(),
  decisions: Joi.array()
    .items(
      Joi.object({ page: Joi.string().allow('').required(), key: Joi.string().required(), after: Joi.any() }),
    )
    .required(),
}).required()

export const today = (): string => new Date().toISOString().slice(0, 10)

export function createSession(
  initial: Omit<SessionState, 'view' | 'problem' | 'leftOut' | 'saved' | 'undo' | 'redo' | 'judging'>,
  stale: string[] = [],
) {
  let state: SessionState = {
    ...initial,
    view: null,
    problem: null,
    leftOut: [],
    saved: 'saved',
    undo: null,
    redo: null,
    judging: null,
  }
  const site = state.site.id
  const listeners = new Set<() => void>()
  const set = (patch: Partial<SessionState>) => {
    state = { ...state, ...patch }
    for (const listener of listeners) listener()
  }
  const decisionsOf = (page: string): Decisions => state.work.get(page) ?? {}

  // Other tabs on the same site.
  const channel = new BroadcastChannel(`keen-quill-${site}`)
  channel.onmessage = ({ data }: MessageEvent<string[]>) => void reload(data)
  async function reload(pages: string[]): Promise<void> {
    await queue
    const records = await db.decisions.bulkGet(pages.map((p) => [site, p] as [string, string]))
    adopt(new Map(pages.map((p, i) => [p, records[i]?.decisions ?? {}])))
    await refreshLog()
  }

  /** What the store holds of a page, and on top of it what is still on its way there: a slow store takes no key back. */
  function withUnsaved(page: string, stored: Decisions): Decisions {
    let now = stored
    const lay = (key: string, after: unknown) => (now = applyChanges(now, changesFor(page, now, key, after)))
    for (const batch of unsaved) for (const d of batch) if (d.page === page) lay(d.key, d.after)
    for (const [key, { after }] of typing.get(page) ?? []) lay(key, after)
    return now
  }

  /** Takes decisions that the store holds now, and has the worker look again at the pages that differ. */
  function adopt(stored: Map<string, Decisions>): void {
    const work = new Map<string, Decisions>()
    for (const [page, decisions] of stored) {
      const now = withUnsaved(page, decisions)
      if (JSON.stringify(now) !== JSON.stringify(decisionsOf(page))) work.set(page, now)
    }
    if (work.size === 0) return
    set({ work: new Map([...state.work, ...work]) })
    const onDesk = deskPage !== null && work.has(deskPage) ? deskPage : null
    if (onDesk) look(onDesk)
    const whole = work.get('')
    const style = whole ? styleOf(whole) : state.style
    const templates = whole ? templatesOf(whole) : state.templates
    const same = JSON.stringify([style, templates]) === JSON.stringify([state.style, state.templates])
    if (whole && !same) {
      set({ style, templates })
      void core()
        .setSite(whole)
        .then((siteMarks) => {
          if (siteMarks) set({ siteMarks })
        })
        // A worker that was started again has read the decisions from the store.
        .catch(() => {})
        .then(() => {
          if (deskPage !== null) look(deskPage)
          judge(state.rows.keys())
        })
    }
    judge([...work.keys()].filter((page) => page !== '' && page !== onDesk))
  }

  // Judging pages that are not on the desk: a few at a time, so that a keystroke's question is never far behind.
  const toJudge = new Set<string>()
  /** Of those, pages that are judged one by one. */
  const alone: string[] = []
  let judged = 0
  let judging = false
  const leaveOut = (pages: SessionState['leftOut']) => {
    const known = new Set(state.leftOut.map((p) => p.page))
    const more = pages.filter((p) => !known.has(p.page))
    if (more.length > 0) set({ leftOut: [...state.leftOut, ...more] })
  }
  function judge(pages: Iterable<string>): void {
    for (const page of pages) toJudge.add(page)
    if (!judging && toJudge.size > 0) void judgeAll()
  }
  async function judgeAll(): Promise<void> {
    judging = true
    judged = 0
    try {
      while (toJudge.size > 0) {
        const some = alone.length > 0 ? alone.splice(0, 1) : [...toJudge].slice(0, AT_ONCE)
        for (const page of some) toJudge.delete(page)
        let answer
        try {
          answer = await core().evaluateRows(some.map((page) => ({ page, decisions: decisionsOf(page) })))
        } catch (error) {
          // One of them is at fault: each by itself shows which.
          if (some.length > 1) {
            alone.push(...some)
            for (const page of some) toJudge.add(page)
          } else leaveOut([{ page: some[0]!, why: (error as Error).message }])
          continue
        }
        if (!answer) break
        leaveOut(answer.leftOut)
        for (const page of answer.moved) toJudge.add(page)
        judged += some.length
        const of = judged + toJudge.size
        set({
          rows: new Map([...state.rows, ...answer.rows.map((r) => [r.id, r] as const)]),
          siteMarks: answer.siteMarks,
          judging: of > AT_ONCE && toJudge.size > 0 ? { done: judged, of } : null,
        })
      }
    } finally {
      judging = false
      set({ judging: null })
    }
  }
  const refreshLog = async () => set(await logState(site))

  // The worker: one question at a time, and only the newest waits.
  let asking = false
  let waiting: string | null = null
  let deskPage: string | null = null
  const movedMeanwhile = new Set<string>()
  let resting: ReturnType<typeof setTimeout> | null = null
  function look(page: string): void {
    waiting = page
    if (!asking) void ask()
  }
  async function ask(): Promise<void> {
    asking = true
    try {
      while (waiting !== null) {
        const page = waiting
        waiting = null
        let answer
        try {
          answer = await core().evaluatePage(page, decisionsOf(page))
        } catch (error) {
          if (page === deskPage) set({ problem: { page, why: (error as Error).message } })
          continue
        }
        if (!answer) {
          if (page === deskPage)
            set({
              problem: { page, why: 'Its source is no longer kept in this browser. Take the site in again.' },
            })
          continue
        }
        if (state.problem?.page === page) set({ problem: null })
        // An older answer's view gives way to the newer question; what it says of other pages is said once.
        const newest = waiting !== page
        if (answer.siteMarks) set({ siteMarks: answer.siteMarks })
        if (newest)
          set({
            rows: new Map(state.rows).set(page, answer.view.row),
            ...(page === deskPage ? { view: answer.view } : {}),
          })
        // While a slug is typed, what moves with it is judged once the typing rests.
        for (const other of answer.moved) movedMeanwhile.add(other)
        if (movedMeanwhile.size > 0) {
          if (resting) clearTimeout(resting)
          resting = setTimeout(() => {
            judge(movedMeanwhile)
            movedMeanwhile.clear()
          }, REST)
        }
      }
    } finally {
      asking = false
    }
  }

  // Typing: what is not in the store yet, by page; and what has been sent there but has not arrived, oldest first.
  const unsaved: Decision[][] = []
  const typing = new Map<string, Map<string, { label: string; after: unknown }>>()
  let timer: ReturnType<typeof setTimeout> | null = null
  // The stretch of typing that is going on, counted; and the step of the log that the newest one in the store is kept in.
  let stretch = 0
  let step: { id: number; of: string } | null = null
  let queue: Promise<unknown> = Promise.resolve()

  /** Puts store writes in a row, and tells when one fails: nothing is dropped without a word. */
  function write<T>(job: () => Promise<T>): Promise<T> {
    set({ saved: 'saving' })
    const done = queue.then(job)
    const row = done.catch(() => {})
    queue = row
    done.then(
      () => {
        set({ saved: typing.size > 0 || queue !== row ? 'saving' : 'saved' })
        // What was refused earlier may be taken now.
        if (typing.size > 0) timer ??= setTimeout(() => void flush(), SAVE_WITHIN)
      },
      () => set({ saved: 'failed' }),
    )
    return done
  }

  // A last note of what is on its way to the store, in case this tab is gone before it arrives.
  const journal = `${JOURNAL}${site}/${crypto.randomUUID()}`

  /** A batch is in the store, or was refused: it is on its way no longer. */
  function arrived(batch: Decision[]): void {
    if (unsaved.includes(batch)) unsaved.splice(unsaved.indexOf(batch), 1)
    if (unsaved.length === 0) localStorage.removeItem(journal)
  }

  /** Writes at once what was typed; ends when all that was decided before is in place. Safe to call at any time. */
  function flush(): Promise<unknown> {
    if (timer) clearTimeout(timer)
    timer = null
    if (typing.size === 0) return queue
    const decisions: Decision[] = []
    let label = ''
    for (const [page, keys] of typing)
      for (const [key, { label: own, after }] of keys) {
        decisions.push({ page, key, after })
        label = own
      }
    const pages = [...typing.keys()]
    typing.clear()
    const of = [stretch, ...decisions.map((d) => `${d.page}\n${d.key}`)].join('\n')
    unsaved.push(decisions)
    const done = write(async () => {
      // Asked when its turn comes: what was typed before may only just have arrived.
      const amend = step?.of === of ? step.id : null
      const { logId, work } = await commit(site, label, decisions, new Date().toISOString(), amend)
      arrived(decisions)
      // Another tab may have decided something else for these pages meanwhile.
      adopt(work)
      step = logId === null ? null : { id: logId, of }
      channel.postMessage(pages)
      await refreshLog()
    })
    // What the browser refused is kept for the next try, unless it was typed over since.
    done.catch(() => {
      arrived(decisions)
      for (const { page, key, after } of decisions) {
        const keys = typing.get(page) ?? new Map<string, { label: string; after: unknown }>()
        if (!keys.has(key)) typing.set(page, keys.set(key, { label, after }))
      }
    })
    return done
  }

  /** A page that goes away may be gone before a transaction ends; localStorage is written before this returns. */
  const leave = () => {
    void flush()
    if (unsaved.length > 0)
      localStorage.setItem(
        journal,
        JSON.stringify({ label: 'Kept when the tab was closed', decisions: unsaved.flat() }),
      )
  }
  const hide = () => {
    if (document.visibilityState === 'hidden') void flush()
  }
  judge(stale)
  addEventListener('pagehide', leave)
  document.addEventListener('visibilitychange', hide)

  return {
    subscribe(listener: () => void): () => void {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    get: (): SessionState => state,
    decisionsOf,

    /** Puts a page on the desk; its view follows from the worker. */
    open(page: string): void {
      if (deskPage === page && state.view?.id === page) return
      deskPage = page
      if (state.view?.id !== page) set({ view: null, problem: null })
      look(page)
    },
    /** Asks once more about the page on the desk. */
    lookAgain(): void {
      set({ problem: null })
      if (deskPage !== null) look(deskPage)
    },

    /** One keystroke's worth: in memory now, in the store within 200 ms, one step of the log for one stretch of typing. */
    type(page: string, key: string, after: unknown, label: string): void {
      const before = decisionsOf(page)
      const changes = changesFor(page, before, key, after)
      if (changes.length === 0) return
      set({ work: new Map(state.work).set(page, applyChanges(before, changes)), saved: 'saving' })
      const keys = typing.get(page) ?? new Map<string, { label: string; after: unknown }>()
      keys.set(key, { label, after })
      typing.set(page, keys)
      look(page)
      timer ??= setTimeout(() => void flush(), SAVE_WITHIN)
    },
    /** Ends a stretch of typing: what is typed next is a step of its own. */
    async blur(): Promise<void> {
      const done = flush()
      stretch++
      await done
    },
    flush,

    /**
     * Decides several things as one step. Given as a function, they are worked out when all that was decided before is
     * in place: what adds to a list or changes one figure of many must not start from an older one.
     */
    async decide(label: string, given: Decision[] | (() => Decision[])): Promise<void> {
      void flush()
      stretch++
      // In the row at once: whoever waits for what was decided waits for this as well.
      await write(async () => {
        const decisions = typeof given === 'function' ? given() : given
        unsaved.push(decisions)
        try {
          const { work } = await commit(site, label, decisions, new Date().toISOString())
          arrived(decisions)
          adopt(work)
          channel.postMessage([...work.keys()])
        } finally {
          arrived(decisions)
        }
        await refreshLog()
      })
    },

    async walk(direction: 'undo' | 'redo'): Promise<{ label: string; pages: string[] } | null> {
      const done = flush()
      stretch++
      await done
      return write(async () => {
        const walked = await walkLog(site, direction)
        if (walked) {
          adopt(walked.work)
          channel.postMessage(walked.pages)
        }
        await refreshLog()
        return walked
      })
    },

    /** Ends the judging of many pages; those that are left wait for the next opening. */
    stopJudging: () => {
      toJudge.clear()
      alone.length = 0
    },
    stateOf: (page: string): PageState => stateOf(decisionsOf(page)),
    draftOf: (page: string) => draftOf(decisionsOf(page)),
    refreshLog,
    close(): void {
      removeEventListener('pagehide', leave)
      document.removeEventListener('visibilitychange', hide)
      channel.close()
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
      rules: opened.rules,
    },
    opened.stale,
  )
  await session.refreshLog()
  open = { id, session }
  return session
}

/** Brings into the store what a tab noted when it was closed in the middle of a write. */
async function replayJournals(id: string): Promise<void> {
  for (const key of Object.keys(localStorage).filter((k) => k.startsWith(JOURNAL + id))) {
    const { value, error } = journalSchema.validate(parsed(localStorage.getItem(key)))
    if (!error) await commit(id, value.label, value.decisions, new Date().toISOString())
    localStorage.removeItem(key)
  }
}

function parsed(json: string | null): unknown {
  try {
    return JSON.parse(json ?? 'null')
  } catch {
    return null
  }
}

/** Ends when all that was decided in the site that is open, if one is, is in the store. */
export const settled = async (): Promise<void> => void (await open?.session.flush())

/** Forgets the open session, as when its site is taken off the shelf. */
export function closeSession(): void {
  open?.session.close()
  open = null
}
