import fc from 'fast-check'
import { expect, it } from 'vitest'
import { foldText } from '../../core/measure/width.ts'
import { rawOffset } from './raw-offset.ts'

it('ends where the folded text does, whatever the white space', () => {
  const typed = fc.array(fc.constantFrom('a', 'b', ' ', '  ', '\n', 'ø')).map((a) => a.join(''))
  fc.assert(
    fc.property(typed, fc.nat(20), (raw, n) => {
      const folded = foldText(raw)
      const end = Math.min(n, folded.length)
      expect(foldText(raw.slice(0, rawOffset(raw, end)))).toBe(foldText(folded.slice(0, end)))
    }),
  )
})
