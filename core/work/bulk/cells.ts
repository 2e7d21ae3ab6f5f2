/** Cells that were pasted or came back in a sheet, as changes of the pages that they are of. */
import { fold } from '../../strings.ts'
import type { PageId } from '../../site/page-identity.ts'
import type { Decisions } from '../decisions.ts'
import type { LedgerRow } from '../evaluate.ts'
import type { PageProposal, ProposedChange } from './step.ts'

/** What of a page can be written in a cell. */
export const cellFields = ['title', 'meta:description', 'keyword:primary'] as const
export type CellField = (typeof cellFields)[number]
const names: Record<CellField, string> = {
  title: 'Title',
  'meta:description': 'Description',
  'keyword:primary': 'Primary keyword',
}
/** A keyword's longest, in characters; a field may hold any text that a page may. */
const LONGEST = { title: 200_000, 'meta:description': 200_000, 'keyword:primary': 200 }

export interface WrittenCell {
  page: PageId
  field: CellField
  text: string
}

/** Cells that say something else than the page; white space is folded, and a page is changed once in each field, by its last cell. */
export function proposalsOfCells(
  cells: readonly WrittenCell[],
  pages: ReadonlyMap<PageId, { row: LedgerRow; decisions: Decisions }>,
): PageProposal[] {
  const last = new Map<string, WrittenCell>()
  for (const cell of cells) last.set(`${cell.page} ${cell.field}`, cell)
  const proposals = new Map<PageId, PageProposal>()
  for (const { page, field, text } of last.values()) {
    const at = pages.get(page)
    if (!at) continue
    const present = presentOf(at, field)
    const after = fold(text)
    if (after === fold(present)) continue
    let proposal = proposals.get(page)
    if (!proposal)
      proposals.set(page, (proposal = { id: page, path: at.row.path, changes: [], decisions: [], why: null }))
    if (after.length > LONGEST[field]) {
      proposal.why = `${names[field]}: it is too long, ${LONGEST[field]} characters are the most.`
      continue
    }
    const role: ProposedChange['role'] =
      field === 'title' ? 'title' : field === 'meta:description' ? 'description' : null
    proposal.changes.push({ name: names[field], role, before: present, after })
    proposal.decisions.push(
      field === 'keyword:primary'
        ? { key: field, after: after || undefined }
        : { key: `edit:${field}`, after: { value: after } },
    )
  }
  return [...proposals.values()].map((proposal) =>
    proposal.why === null ? proposal : { ...proposal, changes: [], decisions: [] },
  )
}

function presentOf({ row, decisions }: { row: LedgerRow; decisions: Decisions }, field: CellField): string {
  if (field === 'title') return row.title ?? ''
  if (field === 'meta:description') return row.description ?? ''
  return (decisions['keyword:primary'] as string | undefined) ?? ''
}
