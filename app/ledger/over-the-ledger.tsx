/** What stands above the ledger when there is any: pages taken in again, a step that was undone. */
import { Link, useNavigate, useParams } from 'react-router'
import { closeSession } from '../session/session.ts'
import type { Session } from '../session/session.ts'
import { outcomesOf } from '../again/outcomes.ts'
import { openFields, suggestionOf } from '../../core/work/suggestions.ts'
import { plural } from '../ui/plural.ts'
import { useSessionState } from '../session/use-session.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'

export function OverTheLedger({ session }: { session: Session }) {
  const { siteId } = useParams()
  const { work } = useSessionState(session)
  const navigate = useNavigate()
  const state = useAnswer(
    async () => ({ again: await core().againOf(siteId!), redo: await core().canRedoAgain(siteId!) }),
    [siteId],
  )
  const suggestions = [...work.values()].filter((d) => {
    const suggestion = suggestionOf(d)
    return suggestion !== null && openFields(suggestion).length > 0
  }).length
  if (suggestions === 0 && (!state || (!state.again && !state.redo))) return null
  const open = state?.again ? outcomesOf(work, state.again.date) : null
  return (
    <div className="mb-3 flex flex-wrap gap-x-8 gap-y-1 border-l-2 border-quill bg-paper px-4 py-2 text-[14px]">
      {suggestions > 0 && (
        <p>
          <Link className="action" to={`/sites/${siteId}/suggestions`}>
            {plural(suggestions, 'suggestion')}
          </Link>{' '}
          to answer.
        </p>
      )}
      {state?.again && open && (
        <p>
          <Link className="action" to={`/sites/${siteId}/taken-again`}>
            Taken in again on {state.again.date}
          </Link>
          : {open.live.length} in place, {open.toDo.length} still to do, {open.conflicts.length} in conflict.
        </p>
      )}
      {state?.redo && (
        <p>
          Taking in again was undone.{' '}
          <button
            type="button"
            className="action"
            onClick={() =>
              tell('The step could not be done again', async () => {
                const to = await core().redoAgain(siteId!)
                if (to === null) return
                closeSession()
                await navigate(`/sites/${to}/taken-again`)
              })
            }
          >
            Do it again
          </button>
        </p>
      )}
    </div>
  )
}
