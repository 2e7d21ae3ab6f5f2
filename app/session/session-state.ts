/** What the views know of the open site, and the one place that changes it. */
import type { TemplateRule } from '../../core/headings/template-rules.ts'
import type { HouseStyle } from '../../core/rules/house-style.ts'
import type { SiteMark } from '../../core/rules/rule.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { SiteRecord } from '../store/db.ts'
import type { RuleName } from '../workers/desk.ts'
import type { PageView } from '../workers/page-view.ts'

export interface SessionState {
  site: SiteRecord
  rows: ReadonlyMap<PageId, LedgerRow>
  work: ReadonlyMap<PageId, Decisions>
  siteMarks: SiteMark[]
  /** The house style, what was not decided filled with the defaults. */
  style: HouseStyle
  rules: RuleName[]
  /** Rules for what recurs on pages built alike. */
  templates: TemplateRule[]
  /** Whether mentions without a link are marked on every page. */
  mentions: boolean
  /** How many pages have been judged anew since a change that concerns others than the one on the desk; null when none are left. */
  judging: { done: number; of: number } | null
  /** The page on the desk, as the worker last saw it. */
  view: PageView | null
  /** Why the page on the desk could not be judged; null while it can. */
  problem: { page: PageId; why: string } | null
  /** Pages that could not be judged, in the order in which they were met. */
  leftOut: { page: PageId; why: string }[]
  saved: 'saved' | 'saving' | 'failed'
  undo: string | null
  redo: string | null
}

/** What is known when a site is opened. */
export type OpenedSite = Omit<
  SessionState,
  'view' | 'problem' | 'leftOut' | 'saved' | 'undo' | 'redo' | 'judging'
>

export interface StateHolder {
  get(): SessionState
  set(patch: Partial<SessionState>): void
  subscribe(listener: () => void): () => void
  decisionsOf(page: PageId): Decisions
}

export function holdState(opened: OpenedSite): StateHolder {
  let state: SessionState = {
    ...opened,
    view: null,
    problem: null,
    leftOut: [],
    saved: 'saved',
    undo: null,
    redo: null,
    judging: null,
  }
  const listeners = new Set<() => void>()
  return {
    get: () => state,
    set(patch) {
      state = { ...state, ...patch }
      for (const listener of listeners) listener()
    },
    subscribe(listener) {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    decisionsOf: (page) => state.work.get(page) ?? {},
  }
}
