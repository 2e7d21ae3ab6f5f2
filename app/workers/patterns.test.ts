import { describe, expect, it } from 'vitest'
import { defaultStyle, type HouseStyle } from '../../core/rules/house-style.ts'
import { emptyIndex } from '../../core/site/site-index.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { ledgerRow } from '../../tests/fixtures/ledger-row.ts'
import { previewPattern } from './patterns.ts'

const row = (path: string, more: Partial<LedgerRow>) => ledgerRow(path, { title: null, ...more })
const style = (more: Partial<HouseStyle>): HouseStyle => ({ ...defaultStyle, siteName: 'Light', ...more })
const site = emptyIndex('https://s.example/', true, [])
const run = (
  rows: LedgerRow[],
  pattern: string,
  match: string | null = null,
  typed: [string, string][] = [],
  before = style({}),
) =>
  previewPattern(
    rows,
    new Map(typed),
    { pattern, match, before, after: style({ titlePattern: pattern }), date: '2026-11-24' },
    site,
  )

describe('a pattern’s preview', () => {
  it('writes the page’s words out and keeps the other tokens', () => {
    const { changes } = run([row('a.html', { title: 'Knots' })], '{page} {year} | {site}')
    expect(changes).toEqual([
      {
        id: 'a.html',
        path: 'a.html',
        before: 'Knots',
        after: 'Knots 2026 | Light',
        value: 'Knots {year} | {site}',
        fitBefore: 'fits',
        fitAfter: 'fits',
      },
    ])
  })
  it('takes the old pattern off before it puts the new one on', () => {
    const old = style({ titlePattern: '{page} | {site}' })
    expect(
      run(
        [row('a.html', { title: 'Knots | Light' })],
        '{page} – {site}',
        null,
        [['a.html', 'Knots | {site}']],
        old,
      ).changes[0]!.after,
    ).toBe('Knots – Light')
  })
  it('starts from the H1 where there is no title, and leaves alone what it has no words for', () => {
    const preview = run(
      [row('a.html', { h1: 'Tides' }), row('b.html', {}), row('c.html', { title: 'Knots | Light' })],
      '{page} | {site}',
    )
    expect(preview.changes.map((c) => c.after)).toEqual(['Tides | Light'])
    expect(preview.skipped).toEqual([{ path: 'b.html', why: 'neither a title nor an H1' }])
    expect(run([row('a.html', { title: 'Lamp' })], '{page} by {author}').skipped).toEqual([
      { path: 'a.html', why: 'nothing for {author}' },
    ])
  })
  it('is for the addresses named alone, and says which titles would be cut', () => {
    const rows = [
      row('shop/lamp.html', { title: 'Brass storm lantern with a spare wick and a glass that keeps it dry' }),
      row('a.html', { title: 'Knots' }),
    ]
    const preview = run(rows, '{page} | {site}', '/shop/*')
    expect(preview.pages).toBe(1)
    expect(preview.changes.map((c) => c.fitAfter)).toEqual(['cut'])
  })
})
