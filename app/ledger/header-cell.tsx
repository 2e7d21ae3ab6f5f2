/** A column's head: its name, which sorts by it, and its edge, which makes it wider or narrower. */
import { useRef } from 'react'
import type { LedgerColumn } from './columns.tsx'

export interface Sorting {
  column: string
  isDown: boolean
}

const NARROWEST = 32
const WIDEST = 1200
const STEP = 10

export function HeaderCell({
  column,
  sorting,
  onSort,
  onDraw,
  onWidth,
}: {
  column: LedgerColumn
  sorting: Sorting | null
  onSort(): void
  /** While the edge is drawn, in px. */
  onDraw(width: number): void
  /** When it is let go. */
  onWidth(width: number): void
}) {
  const head = useRef<HTMLSpanElement>(null)
  const from = useRef<{ x: number; width: number } | null>(null)
  const isSorted = sorting?.column === column.id
  const within = (width: number) => Math.round(Math.min(WIDEST, Math.max(NARROWEST, width)))
  const width = () => head.current?.getBoundingClientRect().width ?? column.width
  return (
    <span
      ref={head}
      role="columnheader"
      aria-sort={isSorted ? (sorting.isDown ? 'descending' : 'ascending') : undefined}
      className="relative min-w-0"
    >
      <button
        type="button"
        className="max-w-full truncate text-left font-semibold hover:underline"
        title={`Sort by ${column.name}`}
        onClick={onSort}
      >
        {column.name}
        {isSorted && <span aria-hidden> {sorting.isDown ? '↓' : '↑'}</span>}
      </button>
      <span
        role="separator"
        aria-orientation="vertical"
        aria-label={`Width of ${column.name}`}
        aria-valuenow={column.width}
        aria-valuemin={NARROWEST}
        aria-valuemax={WIDEST}
        tabIndex={0}
        className="absolute -top-1 -right-[11px] h-6 w-2 cursor-col-resize border-r border-transparent hover:border-ink-3 focus-visible:border-ink"
        onKeyDown={(event) => {
          const by = event.key === 'ArrowRight' ? STEP : event.key === 'ArrowLeft' ? -STEP : 0
          if (by === 0) return
          event.preventDefault()
          event.stopPropagation()
          onWidth(within(width() + by))
        }}
        onPointerDown={(event) => {
          event.preventDefault()
          event.currentTarget.setPointerCapture(event.pointerId)
          from.current = { x: event.clientX, width: width() }
        }}
        onPointerMove={(event) => {
          if (from.current) onDraw(within(from.current.width + event.clientX - from.current.x))
        }}
        onPointerUp={(event) => {
          if (!from.current) return
          const drawn = within(from.current.width + event.clientX - from.current.x)
          const moved = event.clientX !== from.current.x
          from.current = null
          if (moved) onWidth(drawn)
        }}
      />
    </span>
  )
}
