/** What taking a site in again came to, read from the decisions that it left. */
import type { Aside, Conflict, Decisions, LiveEdit } from '../../core/work/decisions.ts'
import type { Edit } from '../../core/page/edits/draft.ts'
import type { PageId } from '../../core/site/page-identity.ts'

export interface Outcome {
  page: PageId
  target: string
}
export interface Outcomes {
  conflicts: (Outcome & { key: string; conflict: Conflict })[]
  live: (Outcome & { live: LiveEdit })[]
  toDo: (Outcome & { edit: Edit })[]
  aside: (Outcome & { key: string; aside: Aside })[]
}

const byName = new Intl.Collator('en', { numeric: true })

/** In the order of the pages' paths. `date`: of the intake; edits that were seen live at another time are left out. */
export function outcomesOf(
  work: ReadonlyMap<PageId, Decisions>,
  date: string,
  rows: ReadonlyMap<PageId, { path: string }> = new Map(),
): Outcomes {
  const outcomes: Outcomes = { conflicts: [], live: [], toDo: [], aside: [] }
  const pathOf = (page: PageId) => rows.get(page)?.path ?? page
  const inOrder = [...work].sort(([a], [b]) => byName.compare(pathOf(a), pathOf(b)))
  for (const [page, decisions] of inOrder)
    for (const [key, value] of Object.entries(decisions)) {
      if (key.startsWith('conflict:'))
        outcomes.conflicts.push({ page, key, target: key.slice(9), conflict: value as Conflict })
      else if (key.startsWith('aside:'))
        outcomes.aside.push({ page, key, target: key.slice(6).replace(/^edit:/, ''), aside: value as Aside })
      else if (key.startsWith('edit:'))
        outcomes.toDo.push({ page, target: key.slice(5), edit: value as Edit })
      else if (key === 'live')
        for (const live of value as LiveEdit[])
          if (live.date === date) outcomes.live.push({ page, target: live.target, live })
    }
  return outcomes
}
