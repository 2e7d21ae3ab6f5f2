import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compileKeyword, findKeyword, hasKeyword } from './match.ts'
import { languageOf, wordsOf } from './stem.ts'

const has = (text: string, keyword: string, lang = 'en') => hasKeyword(text, compileKeyword(keyword, lang))

describe('keyword matching', () => {
  it('takes any word form and any order within three words more than the keyword has', () => {
    expect(has('Evenings of lighting the lamps', 'lamp lighting evening')).toBe(true)
    expect(has('The lamp that we had been lighting', 'lamp lighting')).toBe(false)
    expect(has('Lamp, as ever, lighting', 'lamp lighting')).toBe(true)
    expect(has('lamplighting', 'lamp lighting')).toBe(false)
  })
  it('drops stop words, keeps a keyword that is nothing else, and finds nothing of an empty one', () => {
    expect(has('boats to the island', 'the boat to an island')).toBe(true)
    expect(has('to be or not', 'to be')).toBe(true)
    expect(has('anything', '')).toBe(false)
  })
  it('folds case, apostrophes and composed letters', () => {
    expect(has('KEEPER’S Cottage', "keeper's cottage")).toBe(true)
    expect(has('cafe\u0301', 'café', 'fr')).toBe(true)
  })
  it('stems in the page’s language (Snowball)', () => {
    // Source: what Debian's libstemmer-tools prints for the same words (`npm run check-real` compares whole lists).
    expect(['generously', 'crossings'].map(languageOf('en-GB').stem)).toEqual(['generous', 'cross'])
    expect(languageOf('de').stem('häuser')).toBe('haus')
    expect(has('Fyrtårnene ved havet', 'fyrtårn hav', 'da')).toBe(true)
    expect(languageOf('x-unknown').stem('words')).toBe('word')
    expect(languageOf('ja').stem('words')).toBe('words')
  })
  it('agrees with a plain look at every word, in their order', () => {
    const word = fc.constantFrom(
      'lamp',
      'Lamps',
      "lamp's",
      'lighting',
      'lights',
      'of',
      'a',
      'evening',
      'l',
      '–',
    )
    fc.assert(
      fc.property(fc.array(word, { maxLength: 40 }), (words) => {
        const text = words.join(' ')
        const keyword = compileKeyword('lamp lighting', 'en')
        const stems = wordsOf(text).map(({ word: w }) => languageOf('en').stem(w))
        const places: number[][] = []
        for (let i = 0; i < stems.length; i++) {
          const others = keyword.stems.map((stem) => stems.indexOf(stem, i))
          if (others.some((at) => at < 0 || at >= i + 5) || !others.includes(i)) continue
          places.push(others.sort((a, b) => a - b))
          i = others.at(-1)!
        }
        const inText = wordsOf(text)
        expect(findKeyword(text, keyword).map((m) => [m.start, m.end])).toEqual(
          places.map((at) => [inText[at[0]!]!.start, inText[at.at(-1)!]!.end]),
        )
      }),
    )
  })
  it('gives the places of the words, without overlaps', () => {
    const matches = findKeyword(
      'Knots: a knot course, and courses in knots.',
      compileKeyword('knot course', 'en'),
    )
    expect(matches.map((m) => [m.start, m.end])).toEqual([
      [0, 20],
      [26, 42],
    ])
  })
})
