/** A sheet as people send it: CSV in any encoding with any separator, XLSX or ODS; its cells as texts, nothing in it run. */
import Papa from 'papaparse'
import { decodeSheet, unguardCell, writeRows } from './csv.ts'
import { openZip, type ZipLimits } from './zip.ts'

export interface Sheet {
  /** The first row's cells: what the columns are called. */
  heading: string[]
  /** All other rows that say anything, each as long as the heading. */
  rows: string[][]
  /** The line, counted from 1, of each row. */
  lines: number[]
}
export type SheetRead = { ok: true; sheet: Sheet } | { ok: false; why: string }

/** A sheet of more rows or columns than this is no list of pages. */
const MOST_ROWS = 50_000
const MOST_COLUMNS = 200
/** So much of a cell is read, in UTF-16 units. */
const LONGEST_CELL = 20_000
/** An office file holds a few dozen parts; unpacked, no more than this. */
const officeLimits: ZipLimits = { entries: 2_000, total: 150 * 1024 * 1024, ratio: 400 }

const isZip = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b
const isOldOffice = (bytes: Uint8Array) => bytes[0] === 0xd0 && bytes[1] === 0xcf && bytes[2] === 0x11

/** Reads a sheet; of an office file the first sheet that holds anything. */
export async function readSheet(bytes: Uint8Array): Promise<SheetRead> {
  if (bytes.length === 0)
    return { ok: false, why: 'The sheet is empty. Its first row must name the columns.' }
  if (isOldOffice(bytes))
    return { ok: false, why: 'This is an old office file. Save it as XLSX, ODS or CSV and take that in.' }
  const grid = isZip(bytes) ? await officeGrid(bytes) : textGrid(bytes)
  return grid.ok ? sheetOf(grid.grid) : grid
}

type Grid = { ok: true; grid: string[][] } | { ok: false; why: string }

function textGrid(bytes: Uint8Array): Grid {
  const decoded = decodeSheet(bytes)
  if (!decoded.ok) return decoded
  // An empty last line would count as a line of one cell when the separator is guessed.
  const text = decoded.text.replace(/^\ufeff/, '').replace(/[\r\n]+$/, '')
  const { data, errors } = Papa.parse<string[]>(text, {
    delimitersToGuess: [',', ';', '\t', '|'],
    preview: MOST_ROWS + 2,
  })
  const broken = errors.find((e) => e.type === 'Quotes')
  return broken
    ? {
        ok: false,
        why: `Row ${(broken.row ?? 0) + 1}: a double quote is opened and not closed, or stands inside a cell without being doubled. Mend it in the sheet and take it in again.`,
      }
    : { ok: true, grid: data }
}

async function officeGrid(bytes: Uint8Array): Promise<Grid> {
  const damaged = {
    ok: false as const,
    why: 'The sheet cannot be read: it is damaged, or no sheet. Save it again, as XLSX, ODS or CSV.',
  }
  const opened = openZip(bytes, officeLimits)
  if (!opened.ok) return opened
  const { paths, refused, read } = opened.zip
  // Unpacked once by our own reader, which holds every part to what it declares: the package below believes it.
  if (refused.length > 0 || paths.some((path) => read([path]).failed.length > 0)) return damaged
  try {
    const { read: readWorkbook, utils } = await import('@e965/xlsx')
    const book = readWorkbook(bytes, {
      type: 'array',
      dense: true,
      sheetRows: MOST_ROWS + 2,
      cellFormula: false,
      cellHTML: false,
      cellStyles: false,
      bookVBA: false,
    })
    for (const name of book.SheetNames) {
      const sheet = book.Sheets[name]
      const grid = sheet
        ? utils.sheet_to_json<unknown[]>(sheet, { header: 1, raw: false, defval: '', blankrows: true })
        : []
      if (grid.length > 0) return { ok: true, grid: grid.map((row) => row.map((cell) => String(cell ?? ''))) }
    }
    return damaged
  } catch {
    return damaged
  }
}

function sheetOf(grid: string[][]): SheetRead {
  const isEmpty = (row: string[]) => row.every((cell) => cell.trim() === '')
  const first = grid.findIndex((row) => !isEmpty(row))
  if (first < 0) return { ok: false, why: 'The sheet is empty. Its first row must name the columns.' }
  const width = Math.min(
    grid.reduce((most, row) => Math.max(most, row.length), 0),
    MOST_COLUMNS,
  )
  const cells = (row: string[]) =>
    Array.from({ length: width }, (_, i) =>
      unguardCell(row[i] ?? '')
        .slice(0, LONGEST_CELL)
        .trim(),
    )
  const rows: string[][] = []
  const lines: number[] = []
  for (let i = first + 1; i < grid.length; i++) {
    if (isEmpty(grid[i]!)) continue
    if (rows.length === MOST_ROWS)
      return { ok: false, why: `The sheet has more than ${MOST_ROWS.toLocaleString('en')} rows. Divide it.` }
    rows.push(cells(grid[i]!))
    lines.push(i + 1)
  }
  return { ok: true, sheet: { heading: cells(grid[first]!), rows, lines } }
}

/** Rows as a sheet for an office program: every cell is text, so that nothing in it is a formula. */
export async function writeOffice(
  rows: readonly (readonly (string | number | null)[])[],
  form: 'xlsx' | 'ods',
): Promise<Uint8Array> {
  const { write, utils } = await import('@e965/xlsx')
  const cells = rows.map((row) =>
    row.map((value) => (typeof value === 'number' ? { t: 'n', v: value } : { t: 's', v: value ?? '' })),
  )
  const book = utils.book_new()
  utils.book_append_sheet(book, utils.aoa_to_sheet(cells as unknown[][], { dense: true }), 'Pages')
  return new Uint8Array(write(book, { type: 'array', bookType: form }) as ArrayBuffer)
}

export const writeCsv = (rows: (string | number | null)[][]): string => writeRows(rows)
