import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { durationOf, hoursAndMinutes } from './data-words.ts'

describe('durations', () => {
  it('come back from hours and minutes as they went', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99 }), fc.integer({ min: 0, max: 59 }), (hours, minutes) => {
        fc.pre(hours + minutes > 0)
        expect(hoursAndMinutes(durationOf(hours, minutes))).toEqual({ hours, minutes })
      }),
    )
    for (const more of ['P1D', 'PT1H30M5S', 'an hour', '', 'PT']) expect(hoursAndMinutes(more)).toBeNull()
  })
})
