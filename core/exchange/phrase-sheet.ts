/** An editor's own sheet of phrases: the phrase, its demand a month, and where the sheet has them the months one by one. */
import { fold } from '../strings.ts'
import { LONGEST_PHRASE, MOST_PHRASES, type Phrase } from '../keywords/phrases.ts'
import type { Columns } from './columns.ts'
import type { Sheet } from './sheet.ts'

export interface PhrasesRead {
  phrases: Phrase[]
  /** Rows that were left out, by their line in the sheet. */
  unread: { row: number; why: string }[]
}

export function readPhraseSheet(
  sheet: Sheet,
  columns: Columns,
  { source, date }: { source: string; date: string },
): PhrasesRead {
  const read: PhrasesRead = { phrases: [], unread: [] }
  const byMonth = monthColumns(sheet.heading)
  for (const [i, cells] of sheet.rows.entries()) {
    const row = sheet.lines[i]!
    const phrase = fold(columns.keyword === undefined ? '' : (cells[columns.keyword] ?? ''))
    if (phrase === '') {
      read.unread.push({ row, why: 'It has no phrase.' })
      continue
    }
    if (phrase.length > LONGEST_PHRASE) {
      read.unread.push({ row, why: `Its phrase is longer than ${LONGEST_PHRASE} characters.` })
      continue
    }
    if (read.phrases.length === MOST_PHRASES) {
      read.unread.push({ row, why: `It comes after the first ${MOST_PHRASES.toLocaleString('en')} phrases.` })
      continue
    }
    const months = byMonth && byMonth.map((column) => numberIn(cells[column] ?? ''))
    const known = months?.every((n) => n !== null) ? (months as number[]) : null
    const stated = columns.monthly === undefined ? null : numberIn(cells[columns.monthly] ?? '')
    const mean = known && Math.round(known.reduce((sum, n) => sum + n, 0) / known.length)
    read.phrases.push({
      phrase,
      monthly: stated ?? mean,
      months: known,
      source,
      date,
      market: null,
      place: null,
    })
  }
  return read
}

/** A count as sheets write it: 5400, 5,400, 5.400, 5 400; null for anything else. */
export function numberIn(cell: string): number | null {
  const digits = cell.trim().replace(/(?<=\d)[,.\u00a0\u202f' ](?=\d{3}(?!\d))/g, '')
  if (!/^\d{1,12}(?:[.,]\d{1,6})?$/.test(digits)) return null
  return Math.round(Number(digits.replace(',', '.')))
}

const SHORT = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const OTHER: Record<string, string> = { mär: 'mar', mai: 'may', maj: 'may', okt: 'oct', dez: 'dec' }

/** The columns of twelve months in a row, oldest first; null where the sheet has not just twelve. */
export function monthColumns(heading: readonly string[]): number[] | null {
  const months = heading.flatMap((name, column) => {
    const month = monthOf(name)
    return month === null ? [] : [{ column, ...month }]
  })
  if (months.length !== 12 || new Set(months.map((m) => m.month)).size !== 12) return null
  // Where the years are named they give the order; else the sheet's own order does.
  const dated = months.every((m) => m.year !== null)
  return (dated ? months.sort((a, b) => a.year! - b.year! || a.month - b.month) : months).map((m) => m.column)
}

/** "2026-03", "Mar 2026", "März", "03/2026". */
function monthOf(name: string): { month: number; year: number | null } | null {
  const said = name.trim().toLowerCase()
  const iso = /^(\d{4})[-/.](\d{1,2})(?:[-/.]\d{1,2})?$/.exec(said)
  const turned = /^(\d{1,2})[-/.](\d{4})$/.exec(said)
  const numbers = iso ? [iso[1], iso[2]] : turned ? [turned[2], turned[1]] : null
  if (numbers) {
    const month = Number(numbers[1])
    return month >= 1 && month <= 12 ? { month, year: Number(numbers[0]) } : null
  }
  const named = /^(\p{L}{3})\p{L}*\.?(?:[ '-]*(\d{4}|\d{2}))?$/u.exec(said)
  if (!named) return null
  const month = SHORT.indexOf(OTHER[named[1]!] ?? named[1]!) + 1
  const year = named[2] === undefined ? null : Number(named[2]) + (named[2].length === 2 ? 2000 : 0)
  return month === 0 ? null : { month, year }
}
