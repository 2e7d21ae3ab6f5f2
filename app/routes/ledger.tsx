import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { toast } from 'sonner'
import type { WrittenCell } from '../../core/work/bulk/cells.ts'
import { CellChanges } from '../bulk/cell-changes.tsx'
import { ChangePages } from '../bulk/change-pages.tsx'
import { facets, filterPages, type Facet, type LedgerFilter } from '../../core/work/ledger-filter.ts'
import type { LedgerColumnChoice, LedgerView } from '../../core/work/decisions.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { ColumnPicker } from '../ledger/column-picker.tsx'
import { columnById, columnsShown, usualColumns } from '../ledger/columns.tsx'
import { FilterBar, NamedViews } from '../ledger/filter-bar.tsx'
import type { Sorting } from '../ledger/header-cell.tsx'
import { LedgerTable } from '../ledger/ledger-table.tsx'
import { lineOrder, linesOf } from '../ledger/lines.ts'
import { siteMarkCounts, type Order } from '../ledger/order.ts'
import { OverTheLedger } from '../ledger/over-the-ledger.tsx'
import { usePicks } from '../ledger/picks.ts'
import { rulesOn } from '../ledger/rules-on.ts'
import { SheetOfLedger } from '../ledger/sheet-of-ledger.tsx'
import { WhatIsLeft } from '../ledger/what-is-left.tsx'
import { useSession, useSessionParts } from '../session/use-session.ts'
import { Choice } from '../ui/choice.tsx'
import { plural } from '../ui/plural.ts'
import { ViewsNav } from '../ui/views-nav.tsx'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'

export const meta = () => [{ title: 'Ledger · Keen Quill' }]

const orders: { value: Order; name: string }[] = [
  { value: 'severity', name: 'what matters most' },
  { value: 'address', name: 'address' },
  { value: 'widest', name: 'widest title' },
]

const faces = { left: 'What is left', all: 'All pages' } as const

/** What the ledger shows of the session: not whether it is saved, nor what undo would take back. */
const followed = ['rows', 'work', 'siteMarks', 'style', 'rules', 'site', 'judging'] as const

export default function Ledger() {
  const session = useSession()
  const { rows, work, siteMarks, style, rules, site, judging } = useSessionParts(session, followed)
  const [search, setSearch] = useSearchParams()
  const navigate = useNavigate()
  const picks = usePicks()
  const [changing, setChanging] = useState<readonly PageId[] | null>(null)
  const [pasted, setPasted] = useState<WrittenCell[] | null>(null)
  const [find, setFind] = useState('')
  const isLeft = search.get('view') === 'left'
  const filter = filterFrom(search)
  const filterKey = JSON.stringify(filter)
  const order = search.get('order') ?? 'severity'
  const isDown = search.get('down') === '1'
  const ofSite = work.get('') ?? {}
  const chosenColumns = (ofSite.columns as LedgerColumnChoice[] | undefined) ?? usualColumns
  const shownColumns = useMemo(() => columnsShown(chosenColumns), [chosenColumns])
  const views = (ofSite.views as LedgerView[] | undefined) ?? []

  const counts = siteMarkCounts(siteMarks, work)
  const asksLinks = shownColumns.some(({ id }) => id === 'links-in') || order === 'links-in'
  const asksFigures = shownColumns.some(({ id }) => id === 'clicks' || id === 'position')
  const figures = useAnswer(asksFigures ? () => core().figuresOfPages() : null, [asksFigures])
  const openDesk = (path: string) => navigate(`/sites/${site.id}/desk?page=${encodeURIComponent(path)}`)
  const all = useMemo(
    () => linesOf(rows, work, counts, style, asksLinks, figures, openDesk),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- opening the desk is always the same
    [rows, work, counts, style, asksLinks, figures, site.id],
  )
  // Counting thousands of pages must not hold up a key that is typed in a cell: the counts follow.
  const settled = useDeferredValue(all)
  const filtered = useMemo(
    () => filterPages(settled, filter, style),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the filter is a value, and its key says when it is another
    [settled, filterKey, style],
  )
  // The order is taken when it is asked for: a row must not jump away while somebody types in it.
  // Taken while pages are being judged, it is taken once more when they are.
  const [frozen, setFrozen] = useState<{ key: string; pages: PageId[]; isSettled: boolean } | null>(null)
  const isSettled = judging === null && settled === all
  const key = `${order}|${isDown}|${filterKey}|${find}|${all.length}|${figures !== null}`
  if (frozen?.key !== key || (isSettled && !frozen.isSettled)) {
    const pages = lineOrder(filtered.shown, order, isDown, find).map((line) => line.row.id)
    setFrozen({ key, pages, isSettled })
  }
  const byId = useMemo(() => new Map(all.map((line) => [line.row.id, line])), [all])
  const lines = useMemo(() => (frozen?.pages ?? []).flatMap((id) => byId.get(id) ?? []), [frozen, byId])
  const toMend = all.filter(({ row, siteMarks: of }) => row.blocker + row.flaw + (of?.toMend ?? 0) > 0).length
  const picked = lines.filter((line) => picks.picked.has(line.row.id))

  // What was asked for last, which the address may not say yet: one click may follow fast on another.
  const asked = useRef(search)
  useEffect(() => void (asked.current = search), [search])
  const change = (changes: Record<string, string | null>) => {
    const next = new URLSearchParams(asked.current)
    for (const [name, value] of Object.entries(changes))
      if (value === null) next.delete(name)
      else next.set(name, value)
    asked.current = next
    setSearch(next, { replace: true, preventScrollReset: true })
  }
  const decideForSite = (label: string, name: 'columns' | 'views', after: unknown) =>
    void session.decide(label, [{ page: '', key: name, after }])
  const sorting: Sorting | null = columnById(order) ? { column: order, isDown } : null
  const now = new URLSearchParams(search)
  now.delete('view')

  if (changing || pasted)
    return (
      <main className="px-6 pt-3 pb-6">
        <h1 className="font-serif text-[26px]">Ledger</h1>
        <h2 className="sr-only">A change of many pages</h2>
        {changing && (
          <ChangePages
            session={session}
            pages={changing}
            {...rulesOn(
              changing.flatMap((id) => byId.get(id) ?? []),
              rules,
            )}
            onClose={() => setChanging(null)}
          />
        )}
        {pasted && (
          <CellChanges
            session={session}
            label="Pasted cells"
            cells={pasted}
            onClose={() => setPasted(null)}
          />
        )}
      </main>
    )
  return (
    <main className="px-6 pt-3 pb-6">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 pb-2">
        <h1 className="font-serif text-[26px]">Ledger</h1>
        <ViewsNav
          label="Views of the ledger"
          views={faces}
          now={isLeft ? 'left' : 'all'}
          onChoose={(face) => change({ view: face === 'left' ? 'left' : null })}
        />
        <p className="font-serif text-[15px] text-ink-2 italic">
          {plural(all.length, 'page')}, {toMend.toLocaleString('en')} with a blocker or a flaw
        </p>
        <div className="ml-auto flex flex-wrap items-baseline gap-x-5 gap-y-2">
          <Link className="quiet" to={`/intake?again=${site.id}`}>
            Take in again …
          </Link>
          <Link className="quiet" to={`/sites/${site.id}/suggestions`}>
            Suggestions …
          </Link>
          {!isLeft && (
            <input
              type="search"
              aria-label="Find in the ledger"
              placeholder="Find"
              className="w-32 border-b border-ink-3 bg-transparent px-1 py-0.5"
              value={find}
              onChange={(e) => setFind(e.target.value)}
            />
          )}
        </div>
      </div>
      {isLeft ? (
        <>
          <OverTheLedger session={session} />
          <WhatIsLeft session={session} pages={all} />
        </>
      ) : (
        <>
          <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1.5 pb-2 text-[13px]">
            <FilterBar
              filter={filter}
              counts={filtered.counts}
              rules={rules}
              onFilter={(facet, value) => change({ [facet]: value })}
            />
            <span className="ml-auto flex flex-wrap items-baseline gap-x-5 gap-y-1.5">
              <Choice
                label="Order"
                value={sorting ? 'column' : order}
                options={[
                  ...orders,
                  ...(sorting
                    ? [{ value: 'column', name: `by ${columnById(sorting.column)!.name.toLowerCase()}` }]
                    : []),
                ]}
                onChange={(value) =>
                  value !== 'column' && change({ order: value === 'severity' ? null : value, down: null })
                }
              />
              <NamedViews
                views={views}
                now={now.toString()}
                onOpen={(kept) => setSearch(new URLSearchParams(kept))}
                onKeep={(name) =>
                  decideForSite(`View kept: ${name}`, 'views', [
                    ...views.filter((view) => view.name !== name),
                    { name, search: now.toString() },
                  ])
                }
                onRemove={(name) => {
                  const left = views.filter((view) => view.name !== name)
                  decideForSite(`View removed: ${name}`, 'views', left.length > 0 ? left : undefined)
                }}
              />
              <ColumnPicker
                chosen={chosenColumns}
                onChoose={(chosen) => decideForSite('Columns', 'columns', chosen ?? undefined)}
              />
              <SheetOfLedger session={session} lines={lines} shown={shownColumns} />
            </span>
          </div>
          <OverTheLedger session={session} />
          {picked.length > 0 && (
            <p
              className="mb-2 flex flex-wrap items-baseline gap-x-5 border-l-2 border-quill bg-paper px-4 py-1.5 text-[14px]"
              role="status"
              data-testid="picked"
            >
              {plural(picked.length, 'page')} picked.
              <button
                type="button"
                className="action"
                onClick={() => setChanging(picked.map((line) => line.row.id))}
              >
                Change {picked.length === 1 ? 'it' : 'them'} …
              </button>
              <button
                type="button"
                className="quiet"
                onClick={() =>
                  picks.pickAll(
                    lines.map((l) => l.row),
                    false,
                  )
                }
              >
                Pick none
              </button>
            </p>
          )}
          {lines.length === 0 ? (
            <p className="sheet p-8 font-serif text-[17px]">
              No page matches this search and these filters.{' '}
              <button
                type="button"
                className="action font-sans text-[14px]"
                onClick={() => {
                  setFind('')
                  setSearch({}, { replace: true })
                }}
              >
                Show all pages
              </button>
            </p>
          ) : (
            <LedgerTable
              lines={lines}
              shown={shownColumns}
              session={session}
              picks={picks}
              sorting={sorting}
              onSort={(column) => {
                const isUp = asked.current.get('order') === column && asked.current.get('down') !== '1'
                change({ order: column, down: isUp ? '1' : null })
              }}
              onPaste={(cells) =>
                cells.length > 0
                  ? setPasted(cells)
                  : toast.error('Nothing can be pasted there. Begin in a title, a description or a keyword.')
              }
              onWidth={(column, width) =>
                decideForSite(
                  'Width of a column',
                  'columns',
                  chosenColumns.map((one) => (one.id === column ? { ...one, width } : one)),
                )
              }
            />
          )}
        </>
      )}
    </main>
  )
}

function filterFrom(search: URLSearchParams): LedgerFilter {
  const filter: Partial<Record<Facet, string>> = {}
  for (const facet of facets) {
    const value = search.get(facet)
    if (value !== null) filter[facet] = value
  }
  return filter
}
