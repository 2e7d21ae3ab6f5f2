import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { foldLines } from './strings.ts'

describe('lines folded', () => {
  it('are what two expressions make of them, whatever the text', () => {
    const text = fc
      .array(fc.constantFrom('a', 'é', ' ', '  ', '\n', '\n\n', '\u00a0', '\t'))
      .map((p) => p.join(''))
    fc.assert(
      fc.property(text, (t) => {
        expect(foldLines(t)).toBe(t.replace(/[ \n]{2,}/g, (run) => (run.includes('\n') ? '\n' : ' ')).trim())
      }),
    )
  })
})
