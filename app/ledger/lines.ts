/** The lines of the ledger, and their order. */
import type { Figures } from '../../core/progress/statistics.ts'
import type { HouseStyle } from '../../core/rules/house-style.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { columnById, type LedgerLine } from './columns.tsx'
import { ledgerOrder, type Order, type SiteMarkCount } from './order.ts'

/** Of pages about which nothing was decided: one and the same, so that they are seen to be as they were. */
const undecided: Decisions = {}

/** The lines of the ledger; how many pages link to each only where that is asked for. */
export function linesOf(
  rows: ReadonlyMap<string, LedgerRow>,
  work: ReadonlyMap<string, Decisions>,
  counts: ReadonlyMap<string, SiteMarkCount>,
  style: HouseStyle,
  asksLinks: boolean,
  figures: ReadonlyMap<string, Figures> | null,
  onOpen: (path: string) => void,
): LedgerLine[] {
  const inbound = new Map<string, number>()
  if (asksLinks)
    for (const row of rows.values())
      for (const target of new Set(row.targets.slice(0, row.linked)))
        if (target !== row.id) inbound.set(target, (inbound.get(target) ?? 0) + 1)
  return [...rows.values()].map((row) => ({
    row,
    decisions: work.get(row.id) ?? undecided,
    siteMarks: counts.get(row.id),
    linksIn: asksLinks ? (inbound.get(row.id) ?? 0) : null,
    figures: figures?.get(row.id) ?? null,
    style,
    onOpen,
  }))
}

/** Lines in the order of a name or of a column, those aside in which the words are not found. */
export function lineOrder(
  lines: readonly LedgerLine[],
  order: string,
  isDown: boolean,
  find: string,
): LedgerLine[] {
  const byId = new Map(lines.map((line) => [line.row.id, line]))
  const counts = new Map(lines.flatMap(({ row, siteMarks }) => (siteMarks ? [[row.id, siteMarks]] : [])))
  const column = columnById(order)
  const named = order in ORDERS ? (order as Order) : column ? 'address' : 'severity'
  const inOrder = ledgerOrder(
    lines.map((line) => line.row),
    named,
    find,
    counts,
  ).map((row) => byId.get(row.id)!)
  if (!column) return inOrder
  const keyed = inOrder.map((line) => ({ line, value: column.value(line) }))
  const sign = isDown ? -1 : 1
  keyed.sort(({ value: a }, { value: b }) =>
    typeof a === 'number' && typeof b === 'number'
      ? sign * (a - b)
      : sign * collator.compare(String(a), String(b)),
  )
  return keyed.map(({ line }) => line)
}
const collator = new Intl.Collator('en', { numeric: true })
const ORDERS: Record<Order, true> = { severity: true, address: true, widest: true }
