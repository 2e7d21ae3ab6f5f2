/** Cells from a sheet or from the clipboard, before they become drafts. */
import { useMemo } from 'react'
import { proposalsOfCells, type WrittenCell } from '../../core/work/bulk/cells.ts'
import type { Session } from '../session/session.ts'
import { ProposedChanges } from './change-pages.tsx'

export function CellChanges({
  session,
  label,
  cells,
  onClose,
}: {
  session: Session
  label: string
  cells: readonly WrittenCell[]
  onClose(): void
}) {
  const { rows, style } = session.get()
  const proposals = useMemo(() => {
    const pages = [...new Set(cells.map((cell) => cell.page))]
    return proposalsOfCells(
      cells,
      new Map(
        pages.flatMap((id) => {
          const row = rows.get(id)
          return row ? [[id, { row, decisions: session.decisionsOf(id) }]] : []
        }),
      ),
    )
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is looked at is the pages as they were when the cells came
  }, [cells])
  const pages = new Set(cells.map((cell) => cell.page)).size
  return (
    <ProposedChanges
      session={session}
      title={label}
      label={label}
      proposals={proposals}
      waiting={false}
      same={pages - proposals.length}
      progress={null}
      rows={rows}
      style={style}
      onClose={onClose}
    />
  )
}
