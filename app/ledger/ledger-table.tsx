import { useTable } from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { Decisions } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Session } from '../session/session.ts'
import { columns, features, layout, type LedgerLine } from './columns.tsx'
import { EditCell } from './edit-cell.tsx'
import type { SiteMarkCount } from './order.ts'

type Cell = { row: number; column: number }
const tracks = {
  gridTemplateColumns: Object.values(layout)
    .map((c) => c.width)
    .join(' '),
}
const grid = 'grid gap-x-4 px-3'
const fields = Object.values(layout).map((c) => c.field)

/** Every page in one table, read like print and edited in its cells. */
export function LedgerTable({
  rows,
  session,
  work,
  counts,
}: {
  rows: LedgerRow[]
  session: Session
  work: ReadonlyMap<string, Decisions>
  counts: ReadonlyMap<string, SiteMarkCount>
}) {
  const body = useRef<HTMLDivElement>(null)
  const [cell, setCell] = useState<Cell>({ row: 0, column: 1 })
  const [editing, setEditing] = useState(false)
  const focusWanted = useRef(false)
  const navigate = useNavigate()
  const { siteId } = useParams()
  const openDesk = (path: string) => navigate(`/sites/${siteId}/desk?page=${encodeURIComponent(path)}`)
  const { style } = session.get()
  const lines = useMemo(
    () =>
      rows.map((row): LedgerLine => ({
        row,
        decisions: work.get(row.id) ?? {},
        siteMarks: counts.get(row.id),
        style,
        onOpen: openDesk,
      })),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- opening the desk is always the same
    [rows, work, counts, style, siteId],
  )
  const table = useTable({ features, columns, data: lines, getRowId: (line) => line.row.id })
  const tableRows = table.getRowModel().rows
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => body.current,
    estimateSize: () => 64,
    getItemKey: (i) => rows[i]!.id,
    overscan: 6,
    initialRect: { width: 1232, height: 640 },
  })
  const { scrollToIndex } = virtual
  const at: Cell = { row: Math.min(cell.row, rows.length - 1), column: cell.column }

  useLayoutEffect(() => {
    if (!focusWanted.current || editing) return
    const target = body.current?.querySelector<HTMLElement>(`[data-cell="${at.row}-${at.column}"]`)
    if (target) {
      focusWanted.current = false
      target.focus()
    }
  })

  const go = (next: Cell) => {
    focusWanted.current = true
    setEditing(false)
    setCell(next)
    scrollToIndex(next.row)
  }
  function onKeyDown(event: React.KeyboardEvent) {
    if (editing || event.altKey || event.ctrlKey || event.metaKey) return
    const last = rows.length - 1
    const moves: Record<string, Cell> = {
      ArrowDown: { ...at, row: Math.min(last, at.row + 1) },
      ArrowUp: { ...at, row: Math.max(0, at.row - 1) },
      ArrowRight: { ...at, column: Math.min(fields.length - 1, at.column + 1) },
      ArrowLeft: { ...at, column: Math.max(0, at.column - 1) },
      PageDown: { ...at, row: Math.min(last, at.row + 10) },
      PageUp: { ...at, row: Math.max(0, at.row - 10) },
      Home: { ...at, row: 0 },
      End: { ...at, row: last },
    }
    const move = moves[event.key]
    if (move) {
      event.preventDefault()
      go(move)
    } else if (event.key === 'Enter' || event.key === 'F2') {
      event.preventDefault()
      if (fields[at.column]) setEditing(true)
      else openDesk(rows[at.row]!.path)
    }
  }

  return (
    <div
      role="grid"
      aria-label="Ledger: all pages"
      aria-rowcount={rows.length + 1}
      className="sheet"
      data-testid="ledger"
    >
      <div
        role="row"
        aria-rowindex={1}
        className={`${grid} border-b border-ink py-2 text-[12.5px] font-semibold`}
        style={tracks}
      >
        {table.getLeafHeaders().map((header) => (
          <span key={header.id} role="columnheader">
            <table.FlexRender header={header} />
          </span>
        ))}
      </div>
      <div
        ref={body}
        role="rowgroup"
        onKeyDown={onKeyDown}
        className="h-[calc(100vh-196px)] min-h-60 overflow-auto"
        tabIndex={-1}
      >
        <div role="presentation" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index]!
            const edit = (column: number) => {
              setCell({ row: item.index, column })
              setEditing(true)
            }
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                data-path={row.path}
                role="row"
                aria-rowindex={item.index + 2}
                className={`${grid} absolute right-0 left-0 border-b border-rule-2 py-2.5 ${at.row === item.index ? 'bg-paper-2' : ''}`}
                style={{ ...tracks, top: item.start }}
              >
                {tableRows[item.index]!.getAllCells().map((cell, column) => {
                  const { className, field } = layout[cell.column.id]!
                  const isHere = at.row === item.index && at.column === column
                  return (
                    <div
                      key={cell.id}
                      role="gridcell"
                      data-cell={`${item.index}-${column}`}
                      tabIndex={isHere ? 0 : -1}
                      className={className}
                      onFocus={() => setCell({ row: item.index, column })}
                      onDoubleClick={field && (() => edit(column))}
                    >
                      {field && editing && isHere ? (
                        <EditCell
                          row={row}
                          field={field}
                          decisions={work.get(row.id) ?? {}}
                          session={session}
                          onDone={(next) => {
                            focusWanted.current = true
                            setEditing(false)
                            if (next) go({ row: Math.min(rows.length - 1, item.index + 1), column })
                          }}
                        />
                      ) : (
                        <table.FlexRender cell={cell} />
                      )}
                    </div>
                  )
                })}
              </div>
            )
          })}
        </div>
      </div>
      <p className="border-t border-rule px-3 py-1.5 text-[12px] text-ink-3">
        <kbd>Enter</kbd> edits the cell, or opens the page from its address · the thin rule under a title
        shows where a wide result cuts it
      </p>
    </div>
  )
}
