/** What each part of the head sheet works with. */
import type { Edit } from '../../../core/page/edits/draft.ts'
import type { Decisions } from '../../../core/work/decisions.ts'
import type { Session } from '../../session/session.ts'
import type { PageView } from '../../workers/page-view.ts'
import type { HeadView } from '../../workers/structure.ts'

export interface HeadAround {
  head: HeadView
  session: Session
  decisions: Decisions
  view: PageView | null
  editOf(key: string): Edit | undefined
  /** A keystroke's worth of an edit. */
  type(key: string, value: string, label: string): void
  /** An edit as a step of its own; undefined takes it back. */
  decide(key: string, edit: Edit | undefined, label: string): void
  /** Shows the source at a place of the proof. */
  show(start: number | null): void
}
