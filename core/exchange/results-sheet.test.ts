import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { resultsAnswerSchema } from '../results/line-up.ts'
import { recogniseColumns } from './columns.ts'
import { readTable, writeTable } from './csv.ts'
import { readResultsSheet } from './results-sheet.ts'
import { readSheet } from './sheet.ts'

const read = async (csv: string) => {
  const opened = await readSheet(new TextEncoder().encode(csv))
  if (!opened.ok) throw new Error(opened.why)
  const columns = recogniseColumns(opened.sheet, 'results')
  return readResultsSheet(opened.sheet, columns, { market: 'national', date: '2026-11-26' })
}

describe('a sheet of results', () => {
  it('gives each phrase its results in their order, whatever case it is written in', async () => {
    const { answers, unread } = await read(
      'Keyword,Rank,URL,Title,Description\nTides,2,https://b.example/,B,b\ntides,1,https://a.example/,A,a\nMoons,,https://c.example/,C,\n,1,https://d.example/,D,\nSuns,1,no address,E,\nSuns,0,https://e.example/,E,\n',
    )
    expect(answers.map((a) => [a.phrase, a.results.map((r) => [r.position, r.url, r.title])])).toEqual([
      [
        'Tides',
        [
          [1, 'https://a.example/', 'A'],
          [2, 'https://b.example/', 'B'],
        ],
      ],
      ['Moons', [[1, 'https://c.example/', 'C']]],
    ])
    expect(unread.map((u) => [u.row, u.why.slice(0, 22)])).toEqual([
      [5, 'It has no phrase.'],
      [6, 'It has no web address.'],
      [7, 'Its position is below '],
    ])
  })
  it('is, whatever it holds, what a service may answer', async () => {
    const cell = fc.oneof(
      fc.string(),
      fc.constantFrom('https://a.example/', 'tides', '3', '1e9', '__proto__'),
    )
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(cell, { minLength: 5, maxLength: 5 }), { maxLength: 12 }),
        async (rows) => {
          const csv = writeTable(['phrase', 'position', 'address', 'title', 'description'], rows)
          const { answers } = await read(csv)
          for (const answer of answers) expect(resultsAnswerSchema.validate(answer).error).toBeUndefined()
          expect(readTable(csv).ok).toBe(true)
        },
      ),
      { numRuns: 60 },
    )
  })
})
