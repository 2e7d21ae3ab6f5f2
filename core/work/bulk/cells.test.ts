import { describe, expect, it } from 'vitest'
import { ledgerRow } from '../../../tests/fixtures/ledger-row.ts'
import { readLedgerSheet } from '../../exchange/ledger-sheet.ts'
import { readSheet } from '../../exchange/sheet.ts'
import { proposalsOfCells } from './cells.ts'

const pages = new Map(
  ['a.html', 'b.html'].map((path) => [
    path,
    {
      row: ledgerRow(path, { title: `Title of ${path}`, description: 'D' }),
      decisions: { 'keyword:primary': 'k' },
    },
  ]),
)

describe('cells that come back', () => {
  it('change only what they say otherwise; an empty cell empties', () => {
    const proposals = proposalsOfCells(
      [
        { page: 'a.html', field: 'title', text: ' Title of\na.html ' },
        { page: 'a.html', field: 'meta:description', text: 'New' },
        { page: 'a.html', field: 'meta:description', text: 'Newer' },
        { page: 'b.html', field: 'keyword:primary', text: '' },
        { page: 'gone', field: 'title', text: 'x' },
      ],
      pages,
    )
    expect(proposals.map((p) => [p.id, p.decisions])).toEqual([
      ['a.html', [{ key: 'edit:meta:description', after: { value: 'Newer' } }]],
      ['b.html', [{ key: 'keyword:primary', after: undefined }]],
    ])
  })
  it('that are too long are named and change nothing', () => {
    const [proposal] = proposalsOfCells(
      [
        { page: 'a.html', field: 'title', text: 'T' },
        { page: 'a.html', field: 'keyword:primary', text: 'x'.repeat(201) },
      ],
      pages,
    )
    expect(proposal).toMatchObject({ decisions: [], why: expect.stringMatching(/too long/) })
  })
})

it('a sheet’s rows are told by their addresses, wherever the columns stand', async () => {
  const csv = 'Title;Address;Words;Keyword\nT;https://s.example/a.html;3;k\nU;b.html;4;\nV;c.html;1;\nW;;1;\n'
  const opened = await readSheet(new TextEncoder().encode(csv))
  if (!opened.ok) throw new Error(opened.why)
  const { cells, unread } = readLedgerSheet(
    opened.sheet,
    [...pages.values()].map((p) => p.row),
  )
  expect(cells.filter((c) => c.field === 'title').map((c) => [c.page, c.text])).toEqual([
    ['a.html', 'T'],
    ['b.html', 'U'],
  ])
  expect(unread.map((u) => [u.row, u.why])).toEqual([
    [4, 'No such page: c.html'],
    [5, 'It has no address.'],
  ])
})
