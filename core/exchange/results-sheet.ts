/** An editor's own sheet of results: phrase, position, address, title, description; each phrase's rows become one answer. */
import { fold } from '../strings.ts'
import { LONGEST_PHRASE } from '../keywords/phrases.ts'
import type { Result, ResultsAnswer } from '../results/line-up.ts'
import type { Columns } from './columns.ts'
import { numberIn } from './phrase-sheet.ts'
import type { Sheet } from './sheet.ts'

export interface ResultsRead {
  answers: ResultsAnswer[]
  /** Rows that were left out, by their line in the sheet. */
  unread: { row: number; why: string }[]
}

/** Positions are counted from 1; where the sheet has none, a phrase's rows stand in their order. `date` is YYYY-MM-DD. */
export function readResultsSheet(
  sheet: Sheet,
  columns: Columns,
  { market, date }: { market: string; date: string },
): ResultsRead {
  const unread: ResultsRead['unread'] = []
  const byPhrase = new Map<string, ResultsAnswer>()
  for (const [i, cells] of sheet.rows.entries()) {
    const row = sheet.lines[i]!
    const cell = (role: keyof Columns) =>
      fold(columns[role] === undefined ? '' : (cells[columns[role]] ?? ''))
    const phrase = cell('keyword')
    const url = cell('address')
    if (phrase === '' || phrase.length > LONGEST_PHRASE) {
      unread.push({ row, why: phrase === '' ? 'It has no phrase.' : 'Its phrase is too long.' })
      continue
    }
    if (!/^https?:\/\//i.test(url) || !URL.canParse(url)) {
      unread.push({ row, why: 'It has no web address. Write it like https://www.a-site.example/page.' })
      continue
    }
    const key = phrase.toLowerCase()
    let answer = byPhrase.get(key)
    if (!answer) {
      answer = { phrase, market, asOf: date, results: [], questions: [] }
      byPhrase.set(key, answer)
    }
    const stated = columns.position === undefined ? null : numberIn(cell('position'))
    const result: Result = {
      position: stated ?? answer.results.length + 1,
      url,
      title: cell('title'),
      description: cell('description'),
      trail: [],
      date: null,
      rating: null,
      price: null,
    }
    if (result.position < 1) {
      unread.push({ row, why: 'Its position is below 1.' })
      continue
    }
    if (answer.results.length === MOST_RESULTS) {
      unread.push({ row, why: `It comes after the first ${MOST_RESULTS} results of its phrase.` })
      continue
    }
    answer.results.push(result)
  }
  for (const { results } of byPhrase.values()) results.sort((a, b) => a.position - b.position)
  return { answers: [...byPhrase.values()].filter((a) => a.results.length > 0), unread }
}
/** As many as a service may answer. */
const MOST_RESULTS = 100
