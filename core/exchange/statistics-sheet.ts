/** An editor's own sheet of statistics: date, page, phrase, clicks, impressions, position; read row by row. */
import { MOST_ROWS, type DayOfPage } from '../progress/statistics.ts'
import type { Table } from './csv.ts'

export interface StatisticsRead {
  rows: DayOfPage[]
  /** Rows that were left out, by their line in the sheet. */
  unread: { row: number; why: string }[]
}
type Role = 'date' | 'page' | 'phrase' | 'clicks' | 'impressions' | 'position'

/** Words that name a column, in the languages that sheets come in. */
const names: Record<Role, RegExp> = {
  date: /^(?:date|day|datum|tag|dato|fecha)$/,
  page: /^(?:page|pages|url|address|landing page|seite|side|página)$/,
  phrase: /^(?:phrase|query|queries|keyword|search term|top queries|suchanfrage|forespørgsel)$/,
  clicks: /^(?:clicks|klicks|klik|clics)$/,
  impressions: /^(?:impressions|impressionen|eksponeringer|impresiones)$/,
  position: /^(?:position|average position|avg position|avg\. position|place|posición)$/,
}

/** Why the sheet is none, or its rows. Without a phrase a row is a page's total of its day. */
export function readStatistics(
  table: Extract<Table, { ok: true }>,
): { ok: true; read: StatisticsRead } | { ok: false; why: string } {
  const columns = Object.fromEntries(
    (Object.keys(names) as Role[]).map((role) => [
      role,
      table.columns.find((column) => names[role].test(column.trim().toLowerCase())),
    ]),
  ) as Record<Role, string | undefined>
  const lacking = (['date', 'page', 'clicks', 'impressions'] as const).filter(
    (role) => columns[role] === undefined,
  )
  if (lacking.length > 0)
    return {
      ok: false,
      why: `The sheet has no column for ${lacking.join(', ')}. Its first row names the columns: date, page, phrase, clicks, impressions, position.`,
    }
  const read: StatisticsRead = { rows: [], unread: [] }
  for (const { line, cells } of table.rows) {
    const cell = (role: Role) => (columns[role] === undefined ? '' : (cells[columns[role]] ?? '').trim())
    const why = rowProblem(cell)
    if (why !== null) {
      read.unread.push({ row: line, why })
      continue
    }
    if (read.rows.length === MOST_ROWS) {
      read.unread.push({ row: line, why: `It comes after the first ${MOST_ROWS.toLocaleString('en')} rows.` })
      continue
    }
    read.rows.push({
      date: cell('date'),
      page: cell('page'),
      phrase: cell('phrase') || null,
      clicks: numberIn(cell('clicks'))!,
      impressions: numberIn(cell('impressions'))!,
      position: numberIn(cell('position')) ?? 0,
    })
  }
  return { ok: true, read }
}

function rowProblem(cell: (role: Role) => string): string | null {
  const date = cell('date')
  if (!/^\d{4}-\d{2}-\d{2}$/.test(date) || Number.isNaN(Date.parse(`${date}T00:00:00Z`)))
    return `“${date.slice(0, 40)}” is no date. Write dates as 2026-11-26.`
  if (!/^https?:\/\//i.test(cell('page')) || !URL.canParse(cell('page')))
    return `“${cell('page').slice(0, 80)}” is no web address.`
  for (const role of ['clicks', 'impressions'] as const)
    if (numberIn(cell(role)) === null) return `“${cell(role).slice(0, 40)}” is no number of ${role}.`
  return null
}

/** 1,234 and 1234 and 6.4; null for anything else. */
function numberIn(cell: string): number | null {
  const digits = cell.replace(/(?<=\d),(?=\d{3}(?!\d))/g, '')
  return /^\d{1,12}(?:\.\d{1,9})?$/.test(digits) ? Number(digits) : null
}
