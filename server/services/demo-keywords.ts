/** Which of the demo's pages is for which phrase, for the stand-ins that must know the demo. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { readTable } from '../../core/exchange/csv.ts'
import { cellOf } from '../../core/exchange/keyword-sheet.ts'

let known: { path: string; phrases: string[] }[] | null = null
export function keywordsOfDemo(): { path: string; phrases: string[] }[] {
  if (known) return known
  const table = readTable(readFileSync(join(process.cwd(), 'stand-ins/keywords.csv'), 'utf8'))
  known = (table.ok ? table.rows : []).map(({ cells }) => ({
    path: cellOf(cells, 'path'),
    phrases: [cellOf(cells, 'primary'), ...cellOf(cells, 'secondary').split(';')]
      .map((p) => p.trim())
      .filter(Boolean),
  }))
  return known
}
