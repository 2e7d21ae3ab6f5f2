/** Typing: in memory at once, in the store soon after, one step of the log for one stretch of it. */
import { applyChanges, changesFor, type Decisions } from '../../core/work/decisions.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { Decision } from '../store/work-log.ts'
import type { StateHolder } from './session-state.ts'

/** Typing is in the store this long after a key at the latest, in ms. */
const SAVE_WITHIN = 200

/** What was typed, on its way to the store. `of` is the same for the stretch of typing that one step of the log is for. */
export interface Typed {
  label: string
  decisions: Decision[]
  of: string
}

export interface Typing {
  type(page: PageId, key: string, after: unknown, label: string): void
  /** Takes what was typed since the last time; null where nothing was. */
  take(): Typed | null
  /** Takes back what the store refused, for the next try, unless it was typed over since. */
  putBack(typed: Typed): void
  /** Ends a stretch: what is typed next is a step of its own. */
  endStretch(): void
  isWaiting(): boolean
  /** Has what was refused tried again before long. */
  tryAgain(): void
  /** Decisions, and on top of them what is typed and was not taken yet. */
  withTyped(page: PageId, decisions: Decisions): Decisions
}

/** `onDue` is called when what was typed must be sent. */
export function createTyping(state: StateHolder, onTyped: (page: PageId) => void, onDue: () => void): Typing {
  const typed = new Map<PageId, Map<string, { label: string; after: unknown }>>()
  let timer: ReturnType<typeof setTimeout> | null = null
  let stretch = 0
  const startTimer = () => (timer ??= setTimeout(onDue, SAVE_WITHIN))
  return {
    type(page, key, after, label) {
      const before = state.decisionsOf(page)
      const changes = changesFor(page, before, key, after)
      if (changes.length === 0) return
      const work = new Map(state.get().work).set(page, applyChanges(before, changes))
      state.set({ work, saved: 'saving' })
      const keys = typed.get(page) ?? new Map<string, { label: string; after: unknown }>()
      typed.set(page, keys.set(key, { label, after }))
      onTyped(page)
      startTimer()
    },
    take() {
      if (timer) clearTimeout(timer)
      timer = null
      if (typed.size === 0) return null
      const entries = [...typed].flatMap(([page, keys]) =>
        [...keys].map(([key, { label, after }]) => ({ label, decision: { page, key, after } })),
      )
      typed.clear()
      const decisions = entries.map((e) => e.decision)
      return {
        label: entries.at(-1)!.label,
        decisions,
        of: [stretch, ...decisions.map((d) => `${d.page}\n${d.key}`)].join('\n'),
      }
    },
    putBack({ label, decisions }) {
      for (const { page, key, after } of decisions) {
        const keys = typed.get(page) ?? new Map<string, { label: string; after: unknown }>()
        if (!keys.has(key)) typed.set(page, keys.set(key, { label, after }))
      }
    },
    endStretch: () => void stretch++,
    isWaiting: () => typed.size > 0,
    tryAgain: () => {
      if (typed.size > 0) startTimer()
    },
    withTyped(page, decisions) {
      let now = decisions
      for (const [key, { after }] of typed.get(page) ?? [])
        now = applyChanges(now, changesFor(page, now, key, after))
      return now
    },
  }
}
