import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { commonSuffix, inPattern, pageWords, withoutSite } from './patterns.ts'
import { dateTokens, fillTokens, hasTokens } from './tokens.ts'

describe('tokens', () => {
  it('are filled from what the page has; what it has not is named and left standing', () => {
    expect(
      fillTokens('{page} {year} by {author} | {site}', { page: 'Tides', year: '2026', site: 'Light' }),
    ).toEqual({
      text: 'Tides 2026 by {author} | Light',
      unfilled: ['author'],
    })
    expect(fillTokens('A {curly} thing', {})).toEqual({ text: 'A {curly} thing', unfilled: [] })
    expect(hasTokens('{curly}')).toBe(false)
  })
  it('name the month in the page’s language', () => {
    expect(dateTokens('2026-11-24', 'en')).toEqual({ year: '2026', month: 'November' })
    expect(dateTokens('2026-03-31', 'de')).toEqual({ year: '2026', month: 'März' })
    expect(dateTokens('2026-03-31', 'not a tag')).toEqual({ year: '2026', month: 'March' })
  })
})

describe('patterns', () => {
  const site = 'Farrowskerry Light'
  it.each([
    ['Knots | Farrowskerry Light', 'Knots'],
    ['Knots – farrowskerry light', 'Knots'],
    ['Knots | Farrowskerry Light | Farrowskerry Light', 'Knots'],
    ['Knots | {site}', 'Knots'],
    ['Farrowskerry Light', 'Farrowskerry Light'],
    ['Knots | Charts', 'Knots | Charts'],
  ])('%s without the site is %s', (title, own) => expect(withoutSite(title, site)).toBe(own))

  it('give a page’s words back from what they made of them', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('{page} | {site}', '{site}: {page}', '{page} ({year}) – {site}', 'Stay: {page}'),
        fc.constantFrom('Knots', 'Storm lamp', 'Ten'),
        (pattern, words) => {
          const values = { site, year: '2026' }
          expect(pageWords(inPattern(pattern, words), pattern, values)).toBe(words)
          expect(pageWords(fillTokens(inPattern(pattern, words), values).text, pattern, values)).toBe(words)
        },
      ),
    )
  })
  it('guess the site’s name from what most titles end in', () => {
    const titles = ['A | Light', 'B | Light', 'C - light', 'D']
    expect(commonSuffix(titles)).toEqual({ site: 'Light', separator: ' | ', pages: 3 })
    expect(commonSuffix(['A | B', 'C | D', 'E'])).toBeNull()
  })
})
