import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { typedSegments, ownParts } from '../sheets/snippet/address-parts.ts'
import { boldExtra, emphasised, sliceRuns } from './emphasis.ts'
import { shownDate } from './furniture-text.ts'
import { shownPath } from '../ui/shown-path.ts'

describe('words that stand out', () => {
  it('are the forms of the keyword’s words, each once', () => {
    const runs = emphasised('Lamps lit: the lighting of lamps', ['lamp lighting', 'lamp'], 'en')
    expect(runs.filter((r) => r.weight === 'bold').map((r) => r.text)).toEqual(
      ['Lamps', 'lit', 'lighting', 'lamps'].filter((w) => w !== 'lit'),
    )
    expect(runs.map((r) => r.text).join('')).toBe('Lamps lit: the lighting of lamps')
  })
  it('make a line wider, and nothing else does', () => {
    expect(boldExtra(emphasised('Lamp lighting', ['lamp'], 'en'), 20)).toBeGreaterThan(1)
    expect(boldExtra(emphasised('Lamp lighting', [], 'en'), 20)).toBe(0)
  })
  it('are cut anywhere without losing a letter', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('lamp ', 'lit ', 'oil', ', ')), fc.nat(40), (words, at) => {
        const text = words.join('')
        const runs = emphasised(text, ['lamp'], 'en')
        const joined = (r: { text: string }[]) => r.map((x) => x.text).join('')
        expect(joined(sliceRuns(runs, 0, at)) + joined(sliceRuns(runs, at, text.length))).toBe(text)
      }),
    )
  })
})

describe('an address in parts', () => {
  const site = { root: 'site/', base: 'https://s.example/' }
  it('is what was typed, else what the page has', () => {
    expect(
      ownParts({ file: 'site/a/b.html', path: 'site/a/b.html', url: 'https://s.example/a/b.html' }, site)
        .segments,
    ).toEqual(['a', 'b'])
    expect(
      ownParts({ file: null, path: 'https://s.example/a/b/', url: 'https://s.example/a/c/' }, site).segments,
    ).toEqual(['a', 'b'])
    expect(typedSegments(undefined, ['a', 'b'])).toEqual(['a', 'b'])
    expect(typedSegments({ value: 'c d' }, ['a', 'b'])).toEqual(['a', 'c d'])
    expect(typedSegments({ value: '/x/y' }, ['a', 'b'])).toEqual(['x', 'y'])
  })
  it('is shown as a reader sees it; another index than the usual by its name', () => {
    const at = (path: string, url: string) => shownPath({ path, url: `https://s.example/${url}` })
    expect(at('a/index.html', 'a/')).toBe('/a/')
    expect(at('a/index.htm', 'a/')).toBe('/a/index.htm')
    expect(at('f%C3%A6.html', 'f%C3%A6.html')).toBe('/fæ.html')
  })
})

describe('a date before a description', () => {
  it('is written in the page’s language; none where the data has none', () => {
    expect(shownDate('2026-09-14', 'en-GB')).toMatch(/^14 Sept? 2026$/)
    expect(shownDate('2026-09-14T10:00:00Z', 'de')).toMatch(/^14\. Sept?\.? 2026$/)
    expect(shownDate('2026-09-14', 'no tag at all')).toMatch(/2026/)
    expect(shownDate('soon', 'en')).toBeNull()
    expect(shownDate(null, 'en')).toBeNull()
  })
})
