/** What every sheet of the desk is given: the page, what is decided for it, and how the worker last saw it. */
import type { Decisions } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Session } from '../session/session.ts'
import type { PageView } from '../workers/page-view.ts'

export interface SheetProps {
  session: Session
  row: LedgerRow
  decisions: Decisions
  /** Null until the worker has answered. */
  view: PageView | null
}
