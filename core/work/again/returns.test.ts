/** Pages taken in again: 100 generated returns of the demo's pages, from a fixed seed; 2,000 of real pages are in check-real. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { isPagePath } from '../../addresses/addresses.ts'
import type { RebaseStatus } from './rebase.ts'
import { countReturns } from '../../../tests/fixtures/count-returns.ts'

const site = join(import.meta.dirname, '../../../stand-ins/site')
const pages = readdirSync(site, { recursive: true, encoding: 'utf8' })
  .filter(isPagePath)
  .sort()
  .map((path) => () => new Uint8Array(readFileSync(join(site, path))))

describe('generated returns of pages', () => {
  it('are matched: nothing wrong without a word, hardly anything lost', () => {
    const counts = countReturns(pages, 100, 20261126)
    expect(counts.returns).toBe(100)
    expect(counts.wrongSilently, counts.examples.join('\n')).toBe(0)
    expect(counts.wrong / counts.drafted, counts.examples.join('\n')).toBeLessThan(0.01)
    expect(counts.lost / counts.drafted).toBeLessThan(0.03)
    const told = (of: RebaseStatus) => counts.byClass[of].told / counts.byClass[of].all
    expect(told('still to do')).toBeGreaterThan(0.98)
    expect(told('in place')).toBeGreaterThan(0.98)
    expect(told('in conflict')).toBeGreaterThan(0.9)
  })
})
