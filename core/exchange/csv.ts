/** Sheets as CSV (RFC 4180), both ways; cells that a spreadsheet would run as a formula are guarded (OWASP, CSV injection). */
import Papa from 'papaparse'
import { bomOf, byteView, decode, isUtf8 } from '../page/source/encoding.ts'

export type Row = Record<string, string>
export type Table =
  { ok: true; columns: string[]; rows: { line: number; cells: Row }[] } | { ok: false; why: string }

const guarded = /^'+(?=[=+\-@\t\r])/
const dangerous = /^'*[=+\-@\t\r]/

/** A cell as it is written: what would begin a formula gets a leading apostrophe, and reading takes one away. */
export const guardCell = (cell: string): string => (dangerous.test(cell) ? `'${cell}` : cell)
export const unguardCell = (cell: string): string => (guarded.test(cell) ? cell.slice(1) : cell)

const separators = new Map([
  [',', 'commas'],
  [';', 'semicolons'],
  ['\t', 'tabs'],
])

/** Bytes that windows-1252 gives no character. Source: WHATWG Encoding Standard, index-windows-1252. */
const undefinedIn1252 = /[\x81\x8d\x8f\x90\x9d]/

/**
 * A sheet's bytes as text: by its BOM, as UTF-16 where every other byte is empty, as UTF-8 where the bytes are valid,
 * else as windows-1252, which spreadsheets write; or the line that is in neither.
 */
export function decodeSheet(bytes: Uint8Array): { ok: true; text: string } | { ok: false; why: string } {
  const bom = bomOf(bytes)
  if (bom) return { ok: true, text: decode(bytes.subarray(bom.length), bom.encoding) }
  const head = bytes.subarray(0, 200)
  const empty = (odd: 0 | 1) => head.length >= 4 && head.every((b, i) => i % 2 !== odd || b === 0)
  if (empty(1)) return { ok: true, text: decode(bytes, 'utf-16le') }
  if (empty(0)) return { ok: true, text: decode(bytes, 'utf-16be') }
  if (isUtf8(bytes)) return { ok: true, text: decode(bytes, 'utf-8') }
  const lines = byteView(bytes).split(/\r\n|\r|\n/)
  const wrong = lines.findIndex((line) => undefinedIn1252.test(line))
  return wrong < 0
    ? { ok: true, text: decode(bytes, 'windows-1252') }
    : {
        ok: false,
        why: `Line ${wrong + 1} holds bytes that are neither UTF-8 nor windows-1252. Save the sheet as UTF-8 and take it in again.`,
      }
}

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
      why: `Row ${wide + 2} has more cells than the first row has columns (${separators.get(result.meta.delimiter) ?? 'separators'} within a cell need double quotes around it).`,
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

/** Rows of a sheet, CRLF line ends as RFC 4180 has them; "" for none. */
export function writeRows(rows: (string | number | null)[][]): string {
  if (rows.length === 0) return ''
  const cells = rows.map((row) => row.map((c) => guardCell(c === null ? '' : String(c))))
  return Papa.unparse(cells, { newline: '\r\n' }) + '\r\n'
}

/** Writes a sheet with its heading row. */
export const writeTable = (columns: string[], rows: (string | number | null)[][]): string =>
  writeRows([columns, ...rows])
