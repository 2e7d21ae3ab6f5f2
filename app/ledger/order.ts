/** What the ledger shows, and in which order. */
import { stetKey, type Decisions, type Stet } from '../../core/work/decisions.ts'
import type { SiteMark } from '../../core/rules/rule.ts'
import { fingerprint } from '../../core/rules/fingerprint.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'

export type Order = 'severity' | 'address' | 'widest'

export interface SiteMarkCount {
  blocker: number
  flaw: number
  nit: number
  toMend: number
  rules: string[]
}

const counted = new WeakMap<SiteMark[], { stets: string; counts: Map<string, SiteMarkCount> }>()

/** Marks on the site, counted for every page that they name, those let stand aside. Counted anew only when one of both changed. */
export function siteMarkCounts(
  marks: SiteMark[],
  work: ReadonlyMap<string, Decisions>,
): Map<string, SiteMarkCount> {
  const stood = new Map<string, string>()
  for (const [page, decisions] of work)
    for (const key in decisions)
      if (key.startsWith('stet:') && key.endsWith('|site'))
        stood.set(`${key}\n${page}`, (decisions[key] as Stet).fingerprint)
  const stets = JSON.stringify([...stood])
  const known = counted.get(marks)
  if (known?.stets === stets) return known.counts
  const counts = new Map<string, SiteMarkCount>()
  for (const mark of marks) {
    const now = stood.size > 0 ? fingerprint(mark.values) : ''
    for (const page of mark.pages) {
      if (stood.size > 0 && stood.get(`${stetKey(mark.rule, 'site')}\n${page}`) === now) continue
      const count = counts.get(page) ?? { blocker: 0, flaw: 0, nit: 0, toMend: 0, rules: [] }
      count[mark.severity]++
      if (mark.severity !== 'nit') count.toMend++
      count.rules.push(mark.rule)
      counts.set(page, count)
    }
  }
  counted.set(marks, { stets, counts })
  return counts
}

const sortKeys = new Map<string, string>()
/** What a path is sorted by; kept, because sorting asks for it many thousand times. */
function sortKey(path: string): string {
  let key = sortKeys.get(path)
  if (key === undefined) sortKeys.set(path, (key = path.replace(/(^|\/)index\.\w+$/, '$1')))
  return key
}

/** Rows that hold the words, in the order asked for. */
export function ledgerOrder(
  rows: LedgerRow[],
  order: Order,
  find: string,
  counts: ReadonlyMap<string, SiteMarkCount>,
): LedgerRow[] {
  const wanted = find.trim().toLowerCase()
  const shown =
    wanted === ''
      ? rows
      : rows.filter((r) =>
          `${r.path}\n${r.title ?? ''}\n${r.description ?? ''}\n${r.h1 ?? ''}`.toLowerCase().includes(wanted),
        )
  const weight = (r: LedgerRow) => {
    const site = counts.get(r.id)
    return (
      (r.blocker + (site?.blocker ?? 0)) * 1e6 + (r.flaw + (site?.flaw ?? 0)) * 1e3 + r.nit + (site?.nit ?? 0)
    )
  }
  // By the address as taken in: a page must not jump while its slug is typed; a folder's page before what is in it.
  const key = (r: LedgerRow) => sortKey(r.path)
  const byAddress = (a: LedgerRow, b: LedgerRow) => (key(a) < key(b) ? -1 : key(a) > key(b) ? 1 : 0)
  const orders: Record<Order, (a: LedgerRow, b: LedgerRow) => number> = {
    severity: (a, b) => weight(b) - weight(a),
    address: byAddress,
    widest: (a, b) => b.titlePx - a.titlePx,
  }
  return [...shown].sort((a, b) => orders[order](a, b) || byAddress(a, b))
}
