import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readTable, writeTable } from './csv.ts'

describe('CSV', () => {
  it('comes out and in again with the same cells (RFC 4180), formulas guarded', () => {
    const cell = fc.oneof(
      fc.string(),
      fc.constantFrom('=1+1', '+x', '-x', '@x', "'=x", "''+", 'a,b', 'a"b', 'a\r\nb', ' '),
    )
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1 }), (rows) => {
        // A row of nothing but white space is a blank line of the sheet, not a row.
        const inked = rows.filter((r) => r.some((c) => c.trim() !== ''))
        const table = readTable(writeTable(['a', 'b'], inked))
        expect(table.ok && table.rows.map((r) => [r.cells.a, r.cells.b])).toEqual(inked)
      }),
    )
  })
  it('writes nothing that a spreadsheet takes for a formula (OWASP, CSV injection)', () => {
    expect(writeTable(['a'], [['=cmd()'], ['+1'], ['-1'], ['@x'], ['plain']])).toBe(
      "a\r\n'=cmd()\r\n'+1\r\n'-1\r\n'@x\r\nplain\r\n",
    )
  })
  it('names the row of a broken quote', () => {
    const table = readTable('path,title\r\na.html,"never closed\r\nb.html,x\r\n')
    expect(table).toEqual({
      ok: false,
      why: expect.stringMatching(/Row \d+: a double quote is opened and not closed/),
    })
  })
  it('reads semicolons and tabs, a BOM, and column names in any case', () => {
    expect(readTable('\ufeffPath;Title\na.html;Tides, high\n')).toMatchObject({
      ok: true,
      columns: ['path', 'title'],
      rows: [{ line: 2, cells: { path: 'a.html', title: 'Tides, high' } }],
    })
    expect(readTable('path\ttitle\na.html\tx\n')).toMatchObject({
      ok: true,
      rows: [{ cells: { title: 'x' } }],
    })
  })
  it('refuses an empty sheet, a column twice and a row too wide', () => {
    for (const [text, why] of [
      ['', /empty/],
      ['a,a\n1,2', /twice/],
      ['a,b\n1,2,3', /more cells/],
    ] as const)
      expect(readTable(text)).toEqual({ ok: false, why: expect.stringMatching(why) })
  })
})
