/** What a change of many pages would come to, page by page, with progress; cancelled between two pages. */
import { onePage } from '../../core/page/read/boundary.ts'
import { isByRow, proposalFor, type PageAtHand } from '../../core/work/bulk/propose.ts'
import type { BulkStep, PageProposal } from '../../core/work/bulk/step.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import { evaluate, readDraft } from '../../core/work/evaluate.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { current, sourceFor } from './open-site.ts'

export interface BulkPreview {
  /** Those that would change, and those that should and cannot. */
  pages: PageProposal[]
  /** Pages that the step leaves as they are. */
  same: number
}
/** Pages looked at between two words to the window, and two looks whether it was cancelled. */
const AT_ONCE = 20

/** The newest question: one that is asked later ends those before it. */
let newest = 0

/** Null where it was cancelled, or another was asked for meanwhile. */
export async function bulkPreview(
  step: BulkStep,
  pages: readonly { id: PageId; decisions: Decisions }[],
  progress: (done: number) => void,
): Promise<BulkPreview | null> {
  const open = current
  const question = ++newest
  if (!open) return null
  const { index, style, date } = open.setting
  const setting = { index, style, date, siteMarks: open.siteMarks }
  const isQuick = isByRow(step)
  const preview: BulkPreview = { pages: [], same: 0 }
  for (const [done, { id, decisions }] of pages.entries()) {
    if (!isQuick && done % AT_ONCE === 0) {
      progress(done)
      // A message that cancels is heard only between two turns.
      await new Promise((resolve) => setTimeout(resolve))
      if (question !== newest) return null
    }
    const row = open.rows.get(id)
    const identity = open.pages.get(id)
    if (!row || !identity) continue
    const source = isQuick ? null : await sourceFor(open, id)
    const judged = onePage(() => ({
      ok: true,
      value: proposalFor(
        step,
        {
          row,
          decisions,
          evaluated: () => evaluate(readDraft(identity, source!, decisions, open.setting)),
        } satisfies PageAtHand,
        setting,
      ),
    }))
    if (!judged.ok) preview.pages.push({ id, path: row.path, changes: [], decisions: [], why: judged.why })
    else if (judged.value === null) preview.same++
    else preview.pages.push(judged.value)
  }
  return preview
}

export function cancelBulk(): void {
  newest++
}
