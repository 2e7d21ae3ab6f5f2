/** Keywords for many pages from a sheet: `path` or `url`, `primary`, `secondary` separated by `;`. */
import { addressKey } from '../addresses/addresses.ts'
import type { PageId } from '../site/page-identity.ts'
import type { Keywords } from '../words/match.ts'
import { LONGEST_PHRASE } from '../keywords/phrases.ts'
import type { Row, Table } from './csv.ts'

export interface KeywordsRead {
  matched: ({ id: PageId } & Keywords)[]
  /** Cells of `path` or `url` that name no page of the site, as they are written. */
  unmatched: string[]
}

/** A cell's text without the white space around it; "" where the sheet has no such column. */
export const cellOf = (cells: Row, column: string): string => (cells[column] ?? '').trim()

/** What a table of keywords says of the pages given; of two rows for one page the last holds. */
export function readKeywords(
  table: Extract<Table, { ok: true }>,
  pages: Iterable<{ id: PageId; path: string; url: string }>,
): { ok: true; read: KeywordsRead } | { ok: false; why: string } {
  const { columns, rows } = table
  const by = columns.includes('path') ? 'path' : columns.includes('url') ? 'url' : null
  if (!by || !columns.includes('primary'))
    return {
      ok: false,
      why: 'The first row must name the columns path (or url), primary and, where there are any, secondary.',
    }
  const byPath = new Map<string, PageId>()
  const byUrl = new Map<string, PageId>()
  for (const { id, path, url } of pages) {
    byPath.set(path, id)
    byUrl.set(addressKey(url), id)
  }
  const unmatched: string[] = []
  const matched = new Map<PageId, KeywordsRead['matched'][number]>()
  const phrase = (cell: string) => cell.trim().slice(0, LONGEST_PHRASE)
  for (const { cells } of rows) {
    const name = cellOf(cells, by)
    const id = (by === 'path' ? byPath.get(name) : undefined) ?? byUrl.get(addressKey(name))
    if (id === undefined) unmatched.push(name)
    else
      matched.set(id, {
        id,
        primary: phrase(cellOf(cells, 'primary')),
        secondary: cellOf(cells, 'secondary').split(';').map(phrase).filter(Boolean),
      })
  }
  return { ok: true, read: { matched: [...matched.values()], unmatched } }
}
