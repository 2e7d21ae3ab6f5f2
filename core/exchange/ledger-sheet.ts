/** The ledger as a sheet: written as it is shown, and read back by whoever changed its cells. */
import { addressKey } from '../addresses/addresses.ts'
import type { PageId } from '../site/page-identity.ts'
import type { CellField, WrittenCell } from '../work/bulk/cells.ts'
import { recogniseColumns } from './columns.ts'
import type { Sheet } from './sheet.ts'

export interface LedgerSheetRead {
  cells: WrittenCell[]
  /** Rows that were left out, by their line in the sheet. */
  unread: { row: number; why: string }[]
}

/** Which page each row is of, by its address or its path; titles, descriptions and primary keywords, as far as the sheet has them. */
export function readLedgerSheet(
  sheet: Sheet,
  pages: Iterable<{ id: PageId; path: string; url: string }>,
): LedgerSheetRead {
  const columns = recogniseColumns(sheet, 'pages')
  const byAddress = new Map<string, PageId>()
  for (const { id, path, url } of pages) {
    byAddress.set(addressKey(url), id)
    byAddress.set(path, id)
  }
  const fields: [CellField, number | undefined][] = [
    ['title', columns.title],
    ['meta:description', columns.description],
    ['keyword:primary', columns.keyword],
  ]
  const read: LedgerSheetRead = { cells: [], unread: [] }
  for (const [i, cells] of sheet.rows.entries()) {
    const given = (columns.address === undefined ? '' : (cells[columns.address] ?? '')).trim()
    const page = URL.canParse(given) ? byAddress.get(addressKey(given)) : byAddress.get(given)
    if (page === undefined) {
      read.unread.push({
        row: sheet.lines[i]!,
        why: given === '' ? 'It has no address.' : `No such page: ${given}`,
      })
      continue
    }
    for (const [field, column] of fields)
      if (column !== undefined) read.cells.push({ page, field, text: cells[column] ?? '' })
  }
  return read
}
