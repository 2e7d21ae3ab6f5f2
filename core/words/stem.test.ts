/** Words of a text, and what matching relies on: a stem begins as its word does. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { languageOf, wordsOf } from './stem.ts'

/** The definition, as an expression: slower by far. */
const pattern = /[\p{L}\p{N}\p{M}]+(?:['’][\p{L}\p{M}]+)*/gu

describe('words of a text', () => {
  it('are runs of letters and digits, an apostrophe within kept, whatever the text', () => {
    fc.assert(
      fc.property(
        fc
          .array(
            fc.constantFrom(
              'a',
              'é',
              'e\u0301',
              '7',
              "'",
              '’',
              ' ',
              '-',
              '灯',
              '😀',
              '𝒜',
              '\ud835',
              'ß',
              '\n',
              'İ',
              '½',
            ),
            { maxLength: 30 },
          )
          .map((p) => p.join('')),
        (text) => {
          expect(wordsOf(text).map((w) => [w.start, w.end])).toEqual(
            [...text.matchAll(pattern)].map((m) => [m.index, m.index + m[0].length]),
          )
        },
      ),
      { numRuns: 2000 },
    )
  })
  it.each([
    'en',
    'de',
    'fr',
    'es',
    'it',
    'pt',
    'nl',
    'da',
    'sv',
    'nb',
    'fi',
    'ro',
    'tr',
    'hu',
    'ca',
    'eu',
    'sl',
  ])('begin with the letter of their stem, accents aside: %s', (lang) => {
    const language = languageOf(lang)
    expect(language.keepsFirst).toBe(true)
    const base = (s: string) => s.normalize('NFD')[0]
    fc.assert(
      fc.property(fc.stringMatching(/^[a-z][a-zäöüßéèêàçñåøæ]{0,14}$/), (word) => {
        expect(base(language.stem(word))).toBe(word[0])
      }),
      { numRuns: 3000 },
    )
  })
})
