/** Redirects as a sheet: `from`, `to`, `status`. */
import type { Redirect } from '../site/moves.ts'
import { readTable, writeTable } from './csv.ts'

/** The sheet's name, at the site's root. */
export const REDIRECTS = 'redirects.csv'

/** The redirects that a site brought along, from an earlier hand-off; none where the sheet is of another kind. */
export function readRedirects(csv: string): Redirect[] {
  const table = readTable(csv)
  if (!table.ok || !table.columns.includes('from') || !table.columns.includes('to')) return []
  return table.rows
    .map(({ cells }) => ({
      from: cells.from!.trim(),
      to: cells.to!.trim(),
      status: cells.status?.trim() || '301',
    }))
    .filter((r) => r.from !== '' && r.to !== '')
}

export const writeRedirects = (redirects: readonly Redirect[]): string =>
  writeTable(
    ['from', 'to', 'status'],
    redirects.map((r) => [r.from, r.to, r.status]),
  )
