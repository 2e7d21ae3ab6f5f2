import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { replaceIn, type Replacing } from './replace.ts'

const replacing = (find: string, replacement: string, more: Partial<Replacing> = {}): Replacing => ({
  find,
  with: replacement,
  how: 'plain',
  matchCase: false,
  ...more,
})

describe('replacing in a title', () => {
  it.each([
    ['Lamp lamps LAMP', replacing('lamp', 'lens'), 'Lens lenss Lens'],
    ['Lamp lamps LAMP', replacing('lamp', 'lens', { how: 'whole words' }), 'Lens lamps Lens'],
    ['Lamp lamps LAMP', replacing('lamp', 'lens', { matchCase: true }), 'Lamp lenss LAMP'],
    ['Keeper’s log, keeper', replacing('keeper', 'warden', { how: 'whole words' }), 'Keeper’s log, warden'],
    ['Tours | Old Light', replacing(' | Old Light', ''), 'Tours'],
    ['Tours 2024 and 2025', replacing('20#', '2026', { how: 'pattern' }), 'Tours 2026 and 2026'],
    ['7 tours, 12 boats', replacing('# tours', '# walks', { how: 'pattern' }), '7 walks, 12 boats'],
    ['Tours (old) now (older)', replacing(' (*)', '', { how: 'pattern' }), 'Tours now'],
    ['Tours – Old Light', replacing(' – *', ' | Skerry', { how: 'pattern' }), 'Tours | Skerry'],
    ['Boats: the crossing', replacing('*: *', '*, or *', { how: 'pattern' }), 'Boats, or the crossing'],
    ['a.b', replacing('.', '$&'), 'a$&b'],
    ['no match', replacing('x*y', '', { how: 'pattern' }), 'no match'],
    ['İstanbul lamp', replacing('lamp', 'lens'), 'İstanbul lens'],
  ])('%s', (text, how, expected) => expect(replaceIn(text, how)).toBe(expected))

  const short = fc.string({ unit: fc.constantFrom('a', 'b', 'A', ' ', '1', 'é'), maxLength: 12 })
  it('plain is what splitting and joining gives', () =>
    fc.assert(
      fc.property(
        short,
        short.filter((s) => s !== ''),
        short,
        (text, find, put) => {
          expect(replaceIn(text, replacing(find, put, { matchCase: true }))).toBe(text.split(find).join(put))
        },
      ),
    ))
  it('a pattern finds what a regular expression of the same meaning finds', () => {
    const sign = fc.string({ unit: fc.constantFrom('a', 'b', '*', '#', ' '), minLength: 1, maxLength: 5 })
    fc.assert(
      fc.property(short, sign, (text, pattern) => {
        // Two gaps that touch, or one at the end, are greedy in no regular expression that is as short: checked above.
        fc.pre(!/\*[*#]|\*$|#[*#]/.test(pattern) && /[ab ]/.test(pattern))
        const source = pattern.replaceAll('*', '[^]*?').replaceAll('#', '\\d+(?:[.,]\\d+)*(?!\\d)')
        expect(replaceIn(text, replacing(pattern, '!', { how: 'pattern', matchCase: true }))).toBe(
          text.replace(new RegExp(source, 'g'), '!'),
        )
      }),
    )
  })
  it('takes no longer than its input is long', () => {
    const text = 'a'.repeat(20_000)
    expect(replaceIn(text, replacing('a*b*c*d#e', '', { how: 'pattern' }))).toBe(text)
  })
})
