import { describe, expect, it } from 'vitest'
import { ledgerRow } from '../../tests/fixtures/ledger-row.ts'
import { nextPage, stepAfter, stepBefore } from './pass.ts'
import { stepIds, steps } from './steps.ts'

const BASE = 'https://s.example/'
const home = ledgerRow('index.html', { url: BASE, indexable: true })
const row = (path: string, targets: string[] = [], indexable = true) =>
  ledgerRow(path, { targets, linked: targets.length, indexable })

describe('the page that is taken next', () => {
  const rows = [
    row('a.html', ['b.html', 'b.html']),
    row('b.html', ['b.html', 'a.html']),
    row('c.html', ['b.html']),
    home,
  ]
  it('is the home page first, then the one that most pages lead to, each page once', () => {
    expect(nextPage(rows, BASE, [])?.id).toBe('index.html')
    expect(nextPage(rows, BASE, ['index.html'])?.id).toBe('b.html')
    expect(nextPage(rows, BASE, ['index.html', 'b.html'])?.id).toBe('a.html')
  })
  it('is never one that was taken, nor one that may not stand in results', () => {
    expect(
      nextPage(
        rows,
        BASE,
        rows.map((r) => r.id),
      ),
    ).toBeNull()
    expect(nextPage([row('hidden.html', [], false)], BASE, [])).toBeNull()
  })
})

describe('the steps', () => {
  it('follow one another from the readers to the review', () => {
    expect(stepBefore('readers')).toBeNull()
    expect(stepAfter('review')).toBe('end')
    expect(stepBefore('end')).toBe('review')
    for (const id of stepIds.slice(1)) expect(stepAfter(stepBefore(id)!)).toBe(id)
  })
  it('say in one sentence what each is for and in one what good looks like', () => {
    for (const { purpose, good } of Object.values(steps))
      for (const sentence of [purpose, good]) expect(sentence).toMatch(/^[A-Z][^.!?]*\.$/)
  })
})
