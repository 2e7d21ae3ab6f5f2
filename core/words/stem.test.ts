/** Words of a text, and what matching relies on: a stem begins as its word does. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { eachWordThatBegins, languageOf, wordsBetween, wordsOf } from './stem.ts'

/** The definition, as an expression: slower by far. */
const pattern = /[\p{L}\p{N}\p{M}]+(?:['’][\p{L}\p{M}]+)*/gu

/** Whatever words are made of, and what goes between and within them. */
const anyText = fc
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
  .map((p) => p.join(''))

describe('words of a text', () => {
  it('are runs of letters and digits, an apostrophe within kept, whatever the text', () => {
    fc.assert(
      fc.property(anyText, (text) => {
        expect(wordsOf(text).map((w) => [w.start, w.end])).toEqual(
          [...text.matchAll(pattern)].map((m) => [m.index, m.index + m[0].length]),
        )
      }),
      { numRuns: 2000 },
    )
  })
  it('are the same where only those with some first letters are asked for', () => {
    const firsts = new Uint8Array(128)
    for (const c of 'ax7') firsts[c.charCodeAt(0)] = 1
    fc.assert(
      fc.property(anyText, (text) => {
        const asked: number[][] = []
        eachWordThatBegins(firsts, text, (start, end) => asked.push([start, end]))
        expect(asked).toEqual(
          wordsOf(text)
            .filter(({ start }) => text[start]! >= '\x80' || 'ax7'.includes(text[start]!))
            .map(({ start, end }) => [start, end]),
        )
      }),
    )
  })
  it('are counted between two of them, to so many', () => {
    fc.assert(
      fc.property(anyText, fc.nat(5), (text, most) => {
        const words = wordsOf(text)
        const between = wordsBetween(text, words[0]?.end ?? 0, words.at(-1)?.start ?? 0, most)
        expect(between).toBe(Math.min(most, Math.max(0, words.length - 2)))
      }),
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
