import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { stateOf, type PageState } from '../../core/work/decisions.ts'
import { OverTheLedger } from '../ledger/over-the-ledger.tsx'
import { LedgerTable } from '../ledger/ledger-table.tsx'
import type { PageId } from '../../core/site/page-identity.ts'
import { ledgerOrder, pagesByRule, siteMarkCounts, type Order } from '../ledger/order.ts'
import { useSession, useSessionState } from '../session/use-session.ts'
import { Choice } from '../ui/choice.tsx'
import { plural } from '../ui/plural.ts'

export const meta = () => [{ title: 'Ledger · Keen Quill' }]

const orders: { value: Order; name: string }[] = [
  { value: 'severity', name: 'what matters most' },
  { value: 'address', name: 'address' },
  { value: 'title', name: 'title' },
  { value: 'width', name: 'widest title' },
]
const severities = ['blocker', 'flaw', 'nit'] as const
const severityNames = { blocker: 'Blockers', flaw: 'Flaws', nit: 'Nits' } as const
const states: ('any' | PageState)[] = ['any', 'untouched', 'drafted', 'approved', 'handed off', 'in place']

export default function Ledger() {
  const session = useSession()
  const state = useSessionState(session)
  const [search, setSearch] = useSearchParams()
  const order = orders.find((o) => o.value === search.get('order'))?.value ?? 'severity'
  const rule = search.get('mark') ?? 'any'
  const pageState = states.find((s) => s === search.get('state')) ?? 'any'
  const [find, setFind] = useState('')
  // The order is taken when it is asked for: a row must not jump away while somebody types in it.
  const [frozen, setFrozen] = useState<{ key: string; pages: PageId[] } | null>(null)

  const counts = siteMarkCounts(state.siteMarks, state.work)
  const all = [...state.rows.values()]
  const has = (page: PageId, id: string) =>
    state.rows.get(page)!.rules.includes(id) || counts.get(page)?.rules.includes(id) === true
  const matching = all.filter(
    (r) =>
      (rule === 'any' || has(r.id, rule)) &&
      (pageState === 'any' || stateOf(session.decisionsOf(r.id)) === pageState),
  )
  const key = `${order}|${rule}|${pageState}|${find}|${all.length}`
  if (frozen?.key !== key) {
    const pages = ledgerOrder(matching, order, find, counts).map((r) => r.id)
    setFrozen({ key, pages })
  }
  const rows = (frozen?.pages ?? []).flatMap((p) => state.rows.get(p) ?? [])
  const toMend = all.filter((r) => r.blocker + r.flaw + (counts.get(r.id)?.toMend ?? 0) > 0).length
  const pagesOf = pagesByRule(all, counts)
  const present = state.rules
    .filter((r) => pagesOf.has(r.id))
    .sort(
      (a, b) =>
        severities.indexOf(a.severity) - severities.indexOf(b.severity) ||
        pagesOf.get(b.id)! - pagesOf.get(a.id)!,
    )

  const choose = (name: string, value: string, plain: string) => {
    const next = new URLSearchParams(search)
    if (value === plain) next.delete(name)
    else next.set(name, value)
    setSearch(next, { replace: true, preventScrollReset: true })
  }

  return (
    <main className="px-6 pt-3 pb-6">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 pb-3">
        <h1 className="font-serif text-[26px]">Ledger</h1>
        <p className="font-serif text-[15px] text-ink-2 italic">
          {plural(all.length, 'page')}, {toMend.toLocaleString('en')} with a blocker or a flaw
        </p>
        <div className="ml-auto flex flex-wrap items-baseline gap-x-5 gap-y-2">
          <Link className="quiet" to={`/intake?again=${state.site.id}`}>
            Take in again …
          </Link>
          <Link className="quiet" to={`/sites/${state.site.id}/suggestions`}>
            Suggestions …
          </Link>
          <input
            type="search"
            aria-label="Find in the ledger"
            placeholder="Find"
            className="w-32 border-b border-ink-3 bg-transparent px-1 py-0.5"
            value={find}
            onChange={(e) => setFind(e.target.value)}
          />
          <Choice
            label="Mark"
            value={rule}
            options={[
              { value: 'any', name: 'any' },
              ...present.map((r) => ({
                value: r.id,
                name: `${r.name}, ${plural(pagesOf.get(r.id)!, 'page')}`,
                group: severityNames[r.severity],
              })),
            ]}
            onChange={(v) => choose('mark', v, 'any')}
          />
          <Choice
            label="State"
            value={pageState}
            options={states.map((s) => ({ value: s, name: s }))}
            onChange={(v) => choose('state', v, 'any')}
          />
          <Choice
            label="Order"
            value={order}
            options={orders}
            onChange={(v) => choose('order', v, 'severity')}
          />
        </div>
      </div>
      <OverTheLedger session={session} />
      {rows.length === 0 ? (
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
        <LedgerTable rows={rows} session={session} work={state.work} counts={counts} />
      )}
    </main>
  )
}
