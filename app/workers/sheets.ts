/** Sheets that are dropped: pages that only a sheet knows, and what a consultant suggests. */
import { recogniseColumns, type Columns, type SheetPurpose } from '../../core/exchange/columns.ts'
import { readLedgerSheet, type LedgerSheetRead } from '../../core/exchange/ledger-sheet.ts'
import { readPhraseSheet, type PhrasesRead } from '../../core/exchange/phrase-sheet.ts'
import { pagesOfSheet } from '../../core/exchange/pages-sheet.ts'
import { readResultsSheet, type ResultsRead } from '../../core/exchange/results-sheet.ts'
import { readSheet, writeOffice, type Sheet } from '../../core/exchange/sheet.ts'
import { readSuggestions, type SuggestionsRead } from '../../core/exchange/suggestions.ts'
import { normaliseBase } from '../../core/addresses/addresses.ts'
import { newTicket, opened } from './open-input.ts'
import { current } from './open-site.ts'

const sheets = new Map<number, Sheet>()

export interface SheetView {
  ticket: number
  heading: string[]
  /** The first rows, for showing what is in each column. */
  sample: string[][]
  rows: number
  columns: Columns
}
const SAMPLE = 3

/** Opens a sheet and says what its columns seem to be. */
export async function openSheet(
  bytes: Uint8Array,
  purpose: SheetPurpose,
): Promise<{ ok: true; view: SheetView } | { ok: false; why: string }> {
  const read = await readSheet(bytes)
  if (!read.ok) return read
  const { sheet } = read
  if (sheet.rows.length === 0) return { ok: false, why: 'The sheet has a heading row and no rows below it.' }
  const ticket = newTicket()
  sheets.set(ticket, sheet)
  return {
    ok: true,
    view: {
      ticket,
      heading: sheet.heading,
      sample: sheet.rows.slice(0, SAMPLE),
      rows: sheet.rows.length,
      columns: recogniseColumns(sheet, purpose),
    },
  }
}

/** Makes pages of a sheet's rows, for `takeIn` under the same ticket. */
export function pagesFromSheet(
  ticket: number,
  columns: Columns,
  today: string,
  site: string,
):
  | { ok: true; pages: number; base: string; unread: { path: string; why: string }[] }
  | { ok: false; why: string } {
  const sheet = sheets.get(ticket)
  if (!sheet) return { ok: false, why: 'The sheet is no longer at hand. Drop it again.' }
  const given = site === '' ? null : normaliseBase(site)
  const read = pagesOfSheet(sheet, columns, { site: given, date: today, newId: () => crypto.randomUUID() })
  if (read.pages.length === 0)
    return {
      ok: false,
      why: `No row has an address that can be used. ${read.unread[0] ? `${read.unread[0].path}: ${read.unread[0].why}` : ''} Say which column holds the addresses.`,
    }
  opened.set(ticket, {
    kind: 'sheet',
    whole: false,
    root: '',
    paths: [],
    unread: read.unread,
    read: async () => ({ files: new Map(), failed: [] }),
    identities: read.pages.map((p) => p.identity),
    served: new Map(read.pages.map((p) => [p.identity.id, p.bytes])),
    work: new Map(read.pages.map((p) => [p.identity.id, p.decisions])),
    from: { by: 'sheet' },
  })
  return { ok: true, pages: read.pages.length, base: given ?? read.base!, unread: read.unread }
}

/** Which row of a sheet suggests what for which page of the open site. */
export function matchSuggestions(ticket: number, columns: Columns): SuggestionsRead | null {
  const sheet = sheets.get(ticket)
  if (!sheet || !current) return null
  return readSuggestions(sheet, columns, current.rows.values())
}

/** The phrases of a sheet; null where it is no longer at hand. */
export function phrasesFromSheet(
  ticket: number,
  columns: Columns,
  source: string,
  date: string,
): PhrasesRead | null {
  const sheet = sheets.get(ticket)
  return sheet ? readPhraseSheet(sheet, columns, { source, date }) : null
}

/** The results of a sheet, phrase by phrase; null where it is no longer at hand. */
export function resultsFromSheet(
  ticket: number,
  columns: Columns,
  market: string,
  date: string,
): ResultsRead | null {
  const sheet = sheets.get(ticket)
  return sheet ? readResultsSheet(sheet, columns, { market, date }) : null
}

/** A sheet of the ledger that comes back, its rows told by their addresses. */
export async function ledgerSheet(
  bytes: Uint8Array,
): Promise<{ ok: true; read: LedgerSheetRead } | { ok: false; why: string }> {
  const sheet = await readSheet(bytes)
  if (!sheet.ok) return sheet
  return { ok: true, read: readLedgerSheet(sheet.sheet, current?.rows.values() ?? []) }
}

/** Rows as a sheet for an office program. */
export const officeSheet = (rows: (string | number | null)[][], form: 'xlsx' | 'ods'): Promise<Uint8Array> =>
  writeOffice(rows, form)
