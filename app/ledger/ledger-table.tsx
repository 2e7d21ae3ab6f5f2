import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { stateOf, takesOf, type Answer, type Decisions } from '../../core/work/decisions.ts'
import { measure, type Fit } from '../../core/measure/snippet.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { valuesFrom } from '../../core/site/page-tokens.ts'
import { fillTokens, hasTokens } from '../../core/wording/tokens.ts'
import { Ruler } from '../result/ruler.tsx'
import { fieldValue } from '../session/field-value.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { today, type Session } from '../session/session.ts'
import { shownPath } from '../ui/shown-path.ts'
import type { SiteMarkCount } from './order.ts'

const columns = ['Page', 'Title', 'Description', 'Width', 'Keyword', 'H1', 'Takes', 'Marks', 'State'] as const
const grid = 'grid grid-cols-[160px_330px_minmax(150px,1fr)_74px_104px_92px_40px_58px_92px] gap-x-4 px-3'
type Cell = { row: number; column: number }
const EDITABLE: Record<number, 'title' | 'meta:description' | 'keyword:primary'> = {
  1: 'title',
  2: 'meta:description',
  4: 'keyword:primary',
}
const fieldNames = {
  title: 'Title',
  'meta:description': 'Meta description',
  'keyword:primary': 'Primary keyword',
}

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

  const openDesk = (path: string) => navigate(`/sites/${siteId}/desk?page=${encodeURIComponent(path)}`)
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
      ArrowRight: { ...at, column: Math.min(columns.length - 1, at.column + 1) },
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
      if (EDITABLE[at.column]) setEditing(true)
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
      >
        {columns.map((c) => (
          <span key={c} role="columnheader">
            {c}
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
            const decisions = work.get(row.id) ?? {}
            const cellProps = (column: number) => ({
              role: 'gridcell',
              'data-cell': `${item.index}-${column}`,
              tabIndex: at.row === item.index && at.column === column ? 0 : -1,
              onFocus: () => setCell({ row: item.index, column }),
            })
            const editCell = (column: number) => (
              <EditCell
                row={row}
                field={EDITABLE[column]!}
                decisions={decisions}
                session={session}
                onDone={(next) => {
                  focusWanted.current = true
                  setEditing(false)
                  if (next) go({ row: Math.min(rows.length - 1, item.index + 1), column })
                }}
              />
            )
            const isEditing = (column: number) => editing && at.row === item.index && at.column === column
            const edit = (column: number) => () => {
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
                style={{ top: item.start }}
              >
                <div {...cellProps(0)}>
                  <button
                    type="button"
                    tabIndex={-1}
                    className="w-full truncate text-left text-[13px] text-quill hover:underline"
                    title={row.url}
                    onClick={() => openDesk(row.path)}
                  >
                    {shownPath(row)}
                  </button>
                </div>
                <div {...cellProps(1)} onDoubleClick={edit(1)} className="min-w-0">
                  {isEditing(1) ? (
                    editCell(1)
                  ) : (
                    <TitleCell
                      row={row}
                      decisions={decisions}
                      column={styleFor(session.get().style, row.url).slots.title.wide.column}
                    />
                  )}
                </div>
                <div {...cellProps(2)} onDoubleClick={edit(2)} className="min-w-0 text-[13px] text-ink-2">
                  {isEditing(2) ? editCell(2) : <DescriptionCell row={row} decisions={decisions} />}
                </div>
                <div {...cellProps(3)} className="text-[13px]">
                  <WidthState row={row} />
                </div>
                <div {...cellProps(4)} onDoubleClick={edit(4)} className="min-w-0 text-[13px]">
                  {isEditing(4)
                    ? editCell(4)
                    : (decisions['keyword:primary'] as string) || (
                        <span className="text-ink-3">none yet</span>
                      )}
                </div>
                <div {...cellProps(5)} className="line-clamp-2 self-start text-[13px] text-ink-2">
                  {row.h1Count === 0 ? (
                    <span className="text-carmine">none</span>
                  ) : row.h1Count > 1 ? (
                    <span className="text-carmine">{row.h1Count} found</span>
                  ) : (
                    (row.h1 ?? 'empty')
                  )}
                </div>
                <div {...cellProps(6)} className="text-[13px] text-ink-2">
                  {takesOf(decisions, 'title').length + takesOf(decisions, 'description').length || (
                    <span className="sr-only">none</span>
                  )}
                </div>
                <div {...cellProps(7)}>
                  <Counts row={row} site={counts.get(row.id)} />
                </div>
                <div {...cellProps(8)} className="min-w-0 text-[13px] text-ink-2">
                  {stateOf(decisions)}
                  <AnswerLine answer={decisions.answer as Answer | undefined} />
                </div>
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

const SCALE = 330 / 720

/** The thin measure under a title: its width, and the cut as a tick. */
function Measure({ px, cut, column }: { px: number; cut: boolean; column: number }) {
  const limit = column * SCALE
  const width = Math.min(px * SCALE, 330)
  return (
    <svg
      width="330"
      height="9"
      className="mt-1 block"
      role="img"
      aria-label={`${Math.round(px)} px${cut ? ', cut' : ''}`}
    >
      <line x1="0" x2="330" y1="4.5" y2="4.5" stroke="var(--rule)" />
      <rect x="0" y="3" width={Math.min(width, limit)} height="3" fill="var(--ink-2)" />
      {width > limit && <rect x={limit} y="3" width={width - limit} height="3" fill="var(--carmine)" />}
      <line x1={limit} x2={limit} y1="0" y2="9" stroke="var(--ink-2)" />
    </svg>
  )
}

function TitleCell({ row, decisions, column }: { row: LedgerRow; decisions: Decisions; column: number }) {
  const typed = fieldValue(decisions, 'title', row)
  const title = hasTokens(typed) ? (row.title ?? typed) : typed
  if (title.trim() === '')
    return (
      <p className="font-serif text-[15px] text-carmine italic">
        ‸ no title{row.h1 ? `: “${row.h1}” would be shown` : ''}
      </p>
    )
  return (
    <>
      <p className="line-clamp-2 font-serif text-[15px] leading-5">{title}</p>
      <Measure px={row.titlePx} cut={row.titleFit === 'cut'} column={column} />
    </>
  )
}

function DescriptionCell({ row, decisions }: { row: LedgerRow; decisions: Decisions }) {
  const description = fieldValue(decisions, 'meta:description', row)
  if (description.trim() === '') return <p className="font-serif text-[15px] text-carmine italic">‸ none</p>
  return (
    <p className="line-clamp-3 leading-[19px]">
      {description}
      {row.descriptionFit === 'cut' && <span className="text-carmine"> · cut</span>}
    </p>
  )
}

/** How title and description stand in results; what fits says so only once. */
function WidthState({ row }: { row: LedgerRow }) {
  const worst = (a: Fit, b: Fit): Fit => (a === 'cut' || b === 'cut' ? 'cut' : a === 'at-risk' ? a : b)
  const wide = worst(row.titleFit, row.descriptionFit)
  const narrow = row.titleFitNarrow
  const names: Record<Fit, string> = { fits: 'fits', 'at-risk': 'at risk', cut: 'cut' }
  return (
    <>
      <span className={wide === 'cut' ? 'text-carmine' : wide === 'fits' ? 'text-ink-3' : 'text-ink-2'}>
        {names[wide]}
      </span>
      {narrow === 'cut' && wide !== 'cut' && (
        <span className="block text-[12px] text-ink-2">narrow: cut</span>
      )}
    </>
  )
}

function AnswerLine({ answer }: { answer: Answer | undefined }) {
  if (!answer) return null
  return (
    <span className="block truncate text-[12px] text-ink-3" title={answer.note}>
      {answer.answer === 'note' ? 'a note' : answer.answer}
      {answer.by && ` from ${answer.by}`}
    </span>
  )
}

function Counts({ row, site }: { row: LedgerRow; site: SiteMarkCount | undefined }) {
  const blocker = row.blocker + (site?.blocker ?? 0)
  const flaw = row.flaw + (site?.flaw ?? 0)
  const nit = row.nit + (site?.nit ?? 0)
  if (blocker + flaw + nit === 0) return <span className="text-[12px] text-ink-3">clean</span>
  return (
    <span
      className="flex gap-2 font-serif text-[15px]"
      title={`${blocker} blockers, ${flaw} flaws, ${nit} nits`}
    >
      <span className="sr-only">{`${blocker} blockers, ${flaw} flaws, ${nit} nits`}</span>
      <span aria-hidden className="flex gap-2">
        {blocker > 0 && <b className="font-semibold text-carmine">{blocker}</b>}
        {flaw > 0 && <b className="font-semibold">{flaw}</b>}
        {nit > 0 && <span className="text-ink-3">{nit}</span>}
      </span>
    </span>
  )
}

/** A cell while it is typed in: Enter goes on to the same cell of the next page, Escape puts back what was there. */
function EditCell({
  row,
  field,
  decisions,
  session,
  onDone,
}: {
  row: LedgerRow
  field: 'title' | 'meta:description' | 'keyword:primary'
  decisions: Decisions
  session: Session
  onDone(next: boolean): void
}) {
  const input = useRef<HTMLTextAreaElement>(null)
  const isKeyword = field === 'keyword:primary'
  const key = isKeyword ? field : `edit:${field}`
  const [before] = useState(() => decisions[key])
  const value = isKeyword ? ((decisions[field] as string) ?? '') : fieldValue(decisions, field, row)
  const left = useRef(false)
  useEffect(() => {
    input.current?.focus()
    input.current?.select()
  }, [])
  const leave = (next: boolean) => {
    if (left.current) return
    left.current = true
    void session.blur()
    onDone(next)
  }
  const write = (after: unknown) => session.type(row.id, key, after, fieldNames[field])
  const style = styleFor(session.get().style, row.url)
  const filled = fillTokens(value, valuesFrom(row, { site: null, style, date: today() })).text
  const role = field === 'title' ? 'title' : 'description'
  const measured = isKeyword ? null : measure(filled, role, style.slots)
  const { column, allowance, riskPx } = style.slots[role].wide
  return (
    <div>
      <textarea
        ref={input}
        aria-label={`${fieldNames[field]} of ${row.path}`}
        data-testid={`cell-${field}`}
        className={`field block resize-none !px-1.5 !py-1 ${field === 'title' ? 'font-serif text-[15px] leading-5' : 'text-[13px] leading-[19px]'}`}
        rows={isKeyword ? 1 : field === 'title' ? 2 : 4}
        spellCheck
        lang={row.lang ?? undefined}
        value={value}
        onChange={(e) => {
          const text = e.target.value.replace(/[\r\n]+/g, ' ')
          write(isKeyword ? text || undefined : { value: text })
        }}
        onBlur={() => leave(false)}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Enter') {
            e.preventDefault()
            leave(true)
          } else if (e.key === 'Escape') {
            write(before)
            leave(false)
          }
        }}
      />
      {measured && (
        <>
          <div className="mt-1.5" />
          <Ruler
            column={allowance ?? column}
            riskFrom={riskPx}
            px={measured.px}
            fit={measured.wide.state}
            scale={(field === 'title' ? 322 : 150) / (allowance ?? column)}
          />
          <p className="mt-0.5 text-[12px] text-ink-2">
            {Math.round(measured.px)} px,{' '}
            {measured.wide.state === 'at-risk' ? 'at risk' : measured.wide.state} · {measured.graphemes}{' '}
            characters
          </p>
        </>
      )}
    </div>
  )
}
