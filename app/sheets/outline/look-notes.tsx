import type { Decisions } from '../../../core/work/decisions.ts'
import { core } from '../../workers/client.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import type { PageView } from '../../workers/page-view.ts'

/** Selectors that address a tag which the draft changes: where the look may depend on it. */
export function LookNotes({
  page,
  decisions,
  view,
}: {
  page: string
  decisions: Decisions
  view: PageView | null
}) {
  // A new view is a new draft.
  const notes = useAnswer(view && (() => core().lookNotes(page, decisions)), [view]) ?? []
  const touched = Object.keys(decisions).some((k) => /^edit:(?:heading|block)@/.test(k))
  if (notes.length === 0 || !touched) return null
  return (
    <details
      className="mt-2 border-l-2 border-rule pl-3 text-[13px]"
      data-testid="look-notes"
      open={notes.length < 6}
    >
      <summary>
        The look may depend on the tag:{' '}
        {notes.length === 1 ? 'one selector targets' : `${notes.length} selectors target`} what was changed.
        Classes stay as they are.
      </summary>
      <ul className="mt-1">
        {notes.slice(0, 40).map((n, i) => (
          <li key={i}>
            <code className="font-mono text-[12px]">{n.selector}</code>{' '}
            <span className="text-ink-3">
              {n.where === '' ? 'in the page’s own style' : `in ${n.where}`}, line {n.line}
            </span>
          </li>
        ))}
      </ul>
    </details>
  )
}
