/** Sheets as CSV (RFC 4180), both ways; cells that a spreadsheet would run as a formula are guarded (OWASP, CSV injection). */
import Papa from 'papaparse'

export type Row = Record<string, string>
export type Table =
  { ok: true; columns: string[]; rows: { line: number; cells: Row }[] } | { ok: false; why: string }

const guarded = /^'+(?=[=+\-@\t\r])/
const dangerous = /^'*[=+\-@\t\r]/

/** A cell as it is written: what would begin a formula gets a leading apostrophe, and reading takes one away. */
export const guardCell = (cell: string): string => (dangerous.test(cell) ? `'${cell}` : cell)
export const unguardCell = (cell: string): string => (guarded.test(cell) ? cell.slice(1) : cell)

const separators: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs' }

/**
 * Reads a sheet with a heading row; commas, semicolons or tabs. Column names are folded to lower case. A sheet that
 * breaks the form is refused with the line, and nothing of it is used.
 */
export function readTable(text: string): Table {
  const result = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t'],
  })
  const broken = result.errors.find((e) => e.type === 'Quotes')
  if (broken)
    return {
      ok: false,
      why: `Row ${(broken.row ?? 0) + 1}: a double quote is opened and not closed, or stands inside a cell without being doubled. Mend it in the sheet and take it in again.`,
    }
  const [heading, ...body] = result.data
  if (!heading || heading.length === 0)
    return { ok: false, why: 'The sheet is empty. Its first row must name the columns.' }
  const columns = heading.map((c) => unguardCell(c).trim().toLowerCase())
  const twice = columns.find((c, i) => c !== '' && columns.indexOf(c) !== i)
  if (twice)
    return { ok: false, why: `The column “${twice}” stands twice in the first row. Keep one of them.` }
  const wide = body.findIndex(
    (cells) => cells.length > columns.length && cells.slice(columns.length).some((c) => c.trim() !== ''),
  )
  if (wide >= 0)
    return {
      ok: false,
      why: `Row ${wide + 2} has more cells than the first row has columns (${separators[result.meta.delimiter] ?? 'separators'} within a cell need double quotes around it).`,
    }
  return {
    ok: true,
    columns,
    rows: body.map((cells, i) => ({
      line: i + 2,
      cells: Object.fromEntries(columns.map((c, k) => [c, unguardCell(cells[k] ?? '')])),
    })),
  }
}

/** Writes a sheet, CRLF line ends as RFC 4180 has them. */
export function writeTable(columns: string[], rows: (string | number | null)[][]): string {
  const cells = rows.map((row) => row.map((c) => guardCell(c === null ? '' : String(c))))
  return Papa.unparse([columns.map(guardCell), ...cells], { newline: '\r\n' }) + '\r\n'
}
