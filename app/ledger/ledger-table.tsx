import { useTable } from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { WrittenCell } from '../../core/work/bulk/cells.ts'
import type { Session } from '../session/session.ts'
import { features, tableColumns, tracksOf, type LedgerColumn, type LedgerLine } from './columns.tsx'
import { EditCell } from './edit-cell.tsx'
import { HeaderCell, type Sorting } from './header-cell.tsx'
import type { Picks } from './picks.ts'

type Cell = { row: number; column: number }
const grid = 'grid gap-x-3.5 px-3'

/** Every page in one table, read like print and edited in its cells. */
export function LedgerTable({
  lines,
  shown,
  session,
  picks,
  sorting,
  onSort,
  onWidth,
  onPaste,
}: {
  lines: LedgerLine[]
  /** The columns that are shown. */
  shown: readonly LedgerColumn[]
  session: Session
  picks: Picks
  sorting: Sorting | null
  onSort(column: string): void
  onWidth(column: string, width: number): void
  /** Cells from a spreadsheet, from the cell that has the focus on. */
  onPaste(cells: WrittenCell[]): void
}) {
  const rows = useMemo(() => lines.map((line) => line.row), [lines])
  // A width while it is drawn; kept when the pointer lets go.
  const [drawing, setDrawing] = useState<{ id: string; width: number } | null>(null)
  const drawn = useMemo(
    () =>
      drawing
        ? shown.map((column) =>
            column.id === drawing.id ? { ...column, width: drawing.width, takesRest: undefined } : column,
          )
        : shown,
    [shown, drawing],
  ) as readonly LedgerColumn[]
  const { tracks, least } = tracksOf(drawn)
  const columns = useMemo(() => tableColumns(shown), [shown])
  const body = useRef<HTMLDivElement>(null)
  const [cell, setCell] = useState<Cell>({ row: 0, column: 1 })
  const [editing, setEditing] = useState(false)
  const focusWanted = useRef(false)
  const navigate = useNavigate()
  const { siteId } = useParams()
  const openDesk = (path: string) => navigate(`/sites/${siteId}/desk?page=${encodeURIComponent(path)}`)
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
  const at: Cell = {
    row: Math.min(cell.row, rows.length - 1),
    column: Math.min(cell.column, shown.length - 1),
  }

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
    if (editing || event.altKey) return
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a') {
      event.preventDefault()
      return picks.pickAll(rows, true)
    }
    if (event.ctrlKey || event.metaKey) return
    if (event.key === ' ') {
      event.preventDefault()
      return picks.pick(rows, at.row, event.shiftKey)
    }
    const last = rows.length - 1
    const moves: Record<string, Cell> = {
      ArrowDown: { ...at, row: Math.min(last, at.row + 1) },
      ArrowUp: { ...at, row: Math.max(0, at.row - 1) },
      ArrowRight: { ...at, column: Math.min(shown.length - 1, at.column + 1) },
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
      if (shown[at.column]?.field) setEditing(true)
      else openDesk(rows[at.row]!.path)
    }
  }

  /** The pages that are picked, else the cell that has the focus, as a spreadsheet takes them. */
  function copied(): string {
    const cellText = (line: LedgerLine, column: LedgerColumn) =>
      String(column.value(line)).replace(/[\t\r\n]+/g, ' ')
    const picked = lines.filter((line) => picks.picked.has(line.row.id))
    if (picked.length === 0) return cellText(lines[at.row]!, shown[at.column]!)
    return picked.map((line) => shown.map((column) => cellText(line, column)).join('\t')).join('\n')
  }
  function pasted(text: string): WrittenCell[] {
    return text
      .replace(/\r?\n$/, '')
      .split(/\r?\n/)
      .flatMap((cells, down) =>
        cells.split('\t').flatMap((written, right): WrittenCell[] => {
          const page = rows[at.row + down]
          const field = shown[at.column + right]?.field
          return page && field ? [{ page: page.id, field, text: written }] : []
        }),
      )
  }

  return (
    <div
      role="grid"
      aria-label="Ledger: all pages"
      aria-rowcount={rows.length + 1}
      className="sheet"
      data-testid="ledger"
    >
      <div className="overflow-x-auto">
        <div style={{ minWidth: least }}>
          <div
            role="row"
            aria-rowindex={1}
            className={`${grid} border-b border-ink py-2 text-[12.5px] font-semibold`}
            style={{ gridTemplateColumns: tracks }}
          >
            <span role="columnheader">
              <input
                type="checkbox"
                aria-label={`Pick all ${rows.length.toLocaleString('en')} shown`}
                title={`Pick all ${rows.length.toLocaleString('en')} shown`}
                checked={picks.picked.size > 0 && rows.every((row) => picks.picked.has(row.id))}
                onChange={(e) => picks.pickAll(rows, e.target.checked)}
              />
            </span>
            {shown.map((column) => (
              <HeaderCell
                key={column.id}
                column={column}
                sorting={sorting}
                onSort={() => onSort(column.id)}
                onDraw={(width) => setDrawing({ id: column.id, width })}
                onWidth={(width) => {
                  setDrawing(null)
                  onWidth(column.id, width)
                }}
              />
            ))}
          </div>
          <div
            ref={body}
            role="rowgroup"
            onKeyDown={onKeyDown}
            onCopy={(event) => {
              if (editing || !document.getSelection()?.isCollapsed) return
              event.preventDefault()
              event.clipboardData.setData('text/plain', copied())
            }}
            onPaste={(event) => {
              if (editing) return
              event.preventDefault()
              onPaste(pasted(event.clipboardData.getData('text/plain')))
            }}
            className="h-[calc(100vh-232px)] min-h-60 overflow-auto"
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
                    aria-selected={picks.picked.has(row.id)}
                    className={`${grid} absolute right-0 left-0 border-b border-rule-2 py-2.5 ${picks.picked.has(row.id) ? 'bg-quill-soft' : at.row === item.index ? 'bg-paper-2' : ''}`}
                    style={{ gridTemplateColumns: tracks, top: item.start }}
                  >
                    <div role="gridcell">
                      <input
                        type="checkbox"
                        tabIndex={-1}
                        aria-label={`Pick ${row.path}`}
                        checked={picks.picked.has(row.id)}
                        onChange={() => {}}
                        onClick={(e) => picks.pick(rows, item.index, e.shiftKey)}
                      />
                    </div>
                    {tableRows[item.index]!.getAllCells().map((cell, column) => {
                      const { className, field } = shown[column]!
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
                              decisions={lines[item.index]!.decisions}
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
        </div>
      </div>
      <p className="border-t border-rule px-3 py-1.5 text-[12px] text-ink-3">
        <kbd>Space</kbd> picks a page, <kbd>Shift Space</kbd> all up to it, <kbd>Ctrl A</kbd> all that are
        shown · <kbd>Enter</kbd> edits the cell, or opens the page from its address · the thin rule under a
        title shows where a wide result cuts it
      </p>
    </div>
  )
}
