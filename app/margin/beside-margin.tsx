import type { Session } from '../session/session.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { MarkView, PageView } from '../workers/page-view.ts'
import { Margin } from './margin.tsx'
import { Refused } from './refused.tsx'

/** A sheet with its marks in the margin, each level with what it is about; below it, edits that no longer apply. */
export function BesideMargin({
  session,
  page,
  view,
  marks,
  anchors,
  clean,
  onGoTo,
  below,
  children,
}: {
  session: Session
  page: PageId
  view: PageView | null
  marks: MarkView[]
  /** How far from the sheet's top what each mark is about stands, in px, by the mark's id. */
  anchors: ReadonlyMap<string, number>
  /** What is said where there is nothing to mend. */
  clean: string
  onGoTo?(mark: MarkView): void
  /** What stands below the margin's marks. */
  below?: React.ReactNode
  children: React.ReactNode
}) {
  return (
    <div className="grid grid-cols-[658px_minmax(0,1fr)] gap-7 max-[1100px]:grid-cols-[minmax(0,1fr)]">
      <div className="min-w-0">
        {children}
        <Refused edits={view?.refused ?? []} />
      </div>
      <div className="flex min-w-0 flex-col">
        <Margin
          page={page}
          marks={marks}
          anchors={anchors}
          session={session}
          onGoTo={onGoTo}
          clean={view ? clean : 'Reading …'}
        />
        {below}
      </div>
    </div>
  )
}
