import type { Decisions } from '../../core/work/decisions.ts'
import type { Session } from '../session/session.ts'
import { core } from '../workers/client.ts'
import type { PageView } from '../workers/page-view.ts'
import { useAnswer } from '../workers/use-answer.ts'

/** Where the page has its primary phrase and where it has not, in one line. */
export function Placed({
  session,
  page,
  decisions,
  view,
}: {
  session: Session
  page: string
  decisions: Decisions
  view: PageView | null
}) {
  const primary = decisions['keyword:primary'] as string | undefined
  const line = useAnswer(
    view && primary ? () => core().placementLine(page, session.decisionsOf(page)) : null,
    [view, page, session, primary],
  )
  if (!line) return null
  return (
    <p className="mt-2 text-[13px] text-ink-2" data-testid="placement">
      “{primary}” in {line}.
    </p>
  )
}
