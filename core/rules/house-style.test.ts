import { describe, expect, it } from 'vitest'
import { defaultStyle, readHouseStyle } from './house-style.ts'

describe('house style', () => {
  it('fills what a file leaves out, and keeps what it says', () => {
    const read = readHouseStyle({
      limits: { titleLongest: 50 },
      slots: { title: { wide: { column: 580 } } },
      rules: { 'title-short': 'off' },
    })
    expect(read).toMatchObject({
      ok: true,
      style: {
        language: null,
        limits: { titleLongest: 50, titleShortest: 30 },
        slots: { title: { wide: { column: 580, size: 20, riskPx: 560 }, narrow: { column: 358 } } },
        rules: { 'title-short': 'off' },
      },
    })
    expect(readHouseStyle({})).toEqual({ ok: true, style: defaultStyle })
  })
  it('is refused with the place and the reason', () => {
    for (const [input, why] of [
      [{ limits: { titleLongest: 0 } }, /titleLongest/],
      [{ rules: { x: 'fatal' } }, /rules\.x/],
      [{ language: 'english!' }, /language/],
      [{ colour: 'red' }, /colour/],
      ['nonsense', /object/],
    ] as const)
      expect(readHouseStyle(input)).toMatchObject({ ok: false, why: expect.stringMatching(why) })
  })
})
