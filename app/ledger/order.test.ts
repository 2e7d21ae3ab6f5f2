import { describe, expect, it } from 'vitest'
import { fingerprint } from '../../core/rules/fingerprint.ts'
import type { SiteMark } from '../../core/rules/rule.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { ledgerRow } from '../../tests/fixtures/ledger-row.ts'
import { ledgerOrder, siteMarkCounts } from './order.ts'

const row = ledgerRow
const mark = (pages: string[]): SiteMark => ({
  rule: 'title-duplicate',
  severity: 'flaw',
  message: '',
  pages,
  values: { count: pages.length },
})
const paths = (rows: LedgerRow[]) => rows.map((r) => r.path)

describe('the ledger’s order', () => {
  const rows = [
    row('b', { nit: 9 }),
    row('a', { flaw: 1, titlePx: 10 }),
    row('c', { blocker: 1, title: 'Anchor' }),
  ]
  it('puts what matters most first: one blocker before any flaws, one flaw before any nits', () => {
    expect(paths(ledgerOrder(rows, 'severity', '', new Map()))).toEqual(['c', 'a', 'b'])
    const counts = siteMarkCounts([mark(['b', 'x']), mark(['b', 'y'])], new Map())
    expect(paths(ledgerOrder(rows, 'severity', '', counts))).toEqual(['c', 'b', 'a'])
  })
  it('by address and by width; equals by address', () => {
    expect(paths(ledgerOrder(rows, 'address', '', new Map()))).toEqual(['a', 'b', 'c'])
    expect(paths(ledgerOrder(rows, 'widest', '', new Map()))).toEqual(['a', 'b', 'c'])
  })
  it('finds words in path, title, description and H1, whatever the case', () => {
    expect(paths(ledgerOrder(rows, 'address', ' ANCH', new Map()))).toEqual(['c'])
  })
})

describe('marks on the site', () => {
  it('count for every page that they name, and not where they were let stand with the same figures', () => {
    const marks = [mark(['a', 'b'])]
    const stet = (print: string) =>
      new Map([['a', { 'stet:title-duplicate|site': { fingerprint: print, reason: '', date: '' } }]])
    expect([...siteMarkCounts(marks, new Map()).keys()]).toEqual(['a', 'b'])
    expect([...siteMarkCounts(marks, stet(fingerprint(marks[0]!.values))).keys()]).toEqual(['b'])
    expect([...siteMarkCounts(marks, stet('another')).keys()]).toEqual(['a', 'b'])
  })
})
