/** Every edit of a page by itself, with its way back. */
import { draftOf, type Decisions } from '../../core/work/decisions.ts'
import { targetName, wishOf } from '../ui/target-names.ts'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'

export function WaysBack({
  session,
  page,
  decisions,
}: {
  session: Session
  page: string
  decisions: Decisions
}) {
  const edits = Object.entries(draftOf(decisions))
  if (edits.length === 0) return null
  return (
    <details className="mt-5 border-t border-rule pt-3 text-[14px]" data-testid="ways-back">
      <summary className="cursor-pointer font-serif text-[17px]">
        {plural(edits.length, 'edit')}, each with its way back
      </summary>
      <ul className="mt-1">
        {edits.map(([target, edit]) => (
          <li key={target} className="flex items-baseline gap-4 border-t border-rule-2 py-1">
            <span className="w-36 shrink-0 text-ink-2">{targetName(target)}</span>
            <span className="min-w-0 flex-1 truncate">{wishOf(edit)}</span>
            <button
              type="button"
              className="quiet"
              aria-label={`Take back: ${targetName(target)}, ${wishOf(edit).slice(0, 60)}`}
              onClick={() =>
                void session.decide(`${targetName(target)} taken back`, [
                  { page, key: `edit:${target}`, after: undefined },
                ])
              }
            >
              Take it back
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
