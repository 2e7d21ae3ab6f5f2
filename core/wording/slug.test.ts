import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeSlug, safeSegment, transliterate } from './slug.ts'

const slug = (text: string, lang: string | null = 'en', keep = '') =>
  makeSlug(text, { lang, words: 6, characters: 60, keep })

describe('transliteration', () => {
  // ICAO Doc 9303-3, section 6 (Latin); ELOT 743 (Greek); BGN/PCGN 1947 (Russian): from memory.
  it.each([
    ['de', 'Größe', 'groesse'],
    ['de', 'Übernachtung', 'uebernachtung'],
    ['fr', 'Œuvres', 'oeuvres'],
    ['fr', 'Élève', 'eleve'],
    ['fr', 'façade', 'facade'],
    ['pl', 'Łódź', 'lodz'],
    ['pl', 'żółć', 'zolc'],
    ['el', 'Αθήνα', 'athina'],
    ['el', 'Θεσσαλονίκη', 'thessaloniki'],
    ['el', 'Ευαγγελία', 'evangelia'],
    ['el', 'αυτό', 'afto'],
    ['el', 'Μπάμπης', 'bampis'],
    ['ru', 'Москва', 'moskva'],
    ['ru', 'Щукин', 'shchukin'],
    ['ru', 'объект', 'obekt'],
    ['uk', 'Київ', 'kyyiv'],
    ['bg', 'Търново', 'tarnovo'],
    ['da', 'fyrtårn', 'fyrtaarn'],
    ['sv', 'fyrtårn', 'fyrtarn'],
    ['tr', 'ışık', 'isik'],
  ])('%s: %s', (lang, word, expected) => expect(transliterate(word, lang)).toBe(expected))
})

describe('a slug made from words', () => {
  it('drops filler words on the page’s language, unless they are the keyword’s or all there is', () => {
    expect(slug('The Wreck of the Marguerite')).toBe('wreck-marguerite')
    expect(slug('The Wreck of the Marguerite', 'en', 'wreck of the marguerite')).toBe(
      'the-wreck-of-the-marguerite',
    )
    expect(slug('What to Do')).toMatch(/^[a-z-]+$/)
    expect(slug('Die Größe der Lampe', 'de')).toBe('groesse-lampe')
    expect(slug('La façade de l’hôtel', 'fr')).not.toContain('la-')
  })
  it('keeps to the limits by whole words', () => {
    expect(
      makeSlug('one lamp two lamps three lamps four', { lang: null, words: 3, characters: 60 }).split('-'),
    ).toHaveLength(3)
    expect(makeSlug('lighthouse keeper cottage', { lang: 'en', words: 6, characters: 20 })).toBe(
      'lighthouse-keeper',
    )
  })
  it('is empty where a script cannot be put so', () => expect(slug('灯台', 'ja')).toBe(''))
})

describe('a segment as it is typed', () => {
  it('is made fit', () => {
    expect(safeSegment('  Opening times? ')).toBe('Opening-times')
    expect(safeSegment('../../etc')).toBe('etc')
    expect(safeSegment('a/b\\c%2F')).toBe('abc2F')
    expect(safeSegment('fyrtårn')).toBe('fyrtårn')
    expect(safeSegment('con')).toBe('con-page')
    expect(safeSegment('???')).toBe('')
  })
  it('gives a valid address whatever is typed (RFC 3986, 3.3: pchar)', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 40 }), (typed) => {
        const safe = safeSegment(typed)
        expect(encodeURIComponent(safe)).toMatch(/^(?:[A-Za-z0-9\-._~]|%[0-9A-F]{2})*$/)
        expect(new URL(safe || 'x', 'https://s.example/a/').pathname.split('/')).toHaveLength(3)
        expect(safeSegment(safe)).toBe(safe)
      }),
    )
  })
})
