import { matchesAddress } from '../addresses/match-address.ts'
import { describe, expect, it } from 'vitest'
import { runExample } from './examples.ts'
import {
  defaultStyle,
  limitsExplained,
  ownStyle,
  presets,
  readHouseStyle,
  styleFor,
  writeHouseStyle,
  type HouseStyle,
} from './house-style.ts'

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

const style = (more: unknown): HouseStyle => {
  const read = readHouseStyle(more)
  if (!read.ok) throw new Error(read.why)
  return read.style
}

describe('house style by address', () => {
  it('matches a path from the root, * standing for anything', () => {
    expect(matchesAddress('/stories/*', '/stories/')).toBe(true)
    expect(matchesAddress('/stories/*', '/stories/a/b.html')).toBe(true)
    expect(matchesAddress('/stories/*', '/old/stories/a')).toBe(false)
    expect(matchesAddress('/*.html', '/a/b.html')).toBe(true)
    expect(matchesAddress('/a.b', '/aXb')).toBe(false)
    expect(matchesAddress('/*a*a*a*a*a*b', '/' + 'a'.repeat(30))).toBe(false)
  })
  it('lays what is asked of an address over what is asked of the site, in order', () => {
    const whole = style({
      casing: 'ap',
      limits: { titleLongest: 60 },
      addresses: [
        { match: '/s/*', type: 'article', limits: { titleLongest: 50 }, rules: { 'title-short': 'off' } },
        { match: '/s/deep/*', casing: 'sentence', rules: { 'title-short': 'nit' } },
      ],
    })
    expect(styleFor(whole, 'https://x.example/')).toBe(whole)
    expect(styleFor(whole, 'https://x.example/s/a?q#f')).toMatchObject({
      type: 'article',
      casing: 'ap',
      limits: { titleLongest: 50, titleShortest: 30 },
    })
    const deep = styleFor(whole, 'https://x.example/s/deep/a.html')
    expect(deep).toMatchObject({
      casing: 'sentence',
      rules: { 'title-short': 'nit' },
      limits: { titleLongest: 50 },
    })
    expect(styleFor(whole, 'https://x.example/s/deep/b.html')).toBe(deep)
  })
  it('is what rules judge by, on pages and across the site', () => {
    const only = (rules: object) => ({ addresses: [{ match: '/page.html', rules }] })
    const short = { html: '<title>Tide</title>' }
    expect(runExample(short).marks.map((m) => m.rule)).toContain('title-short')
    expect(
      runExample({ ...short, style: only({ 'title-short': 'off' }) }).marks.map((m) => m.rule),
    ).not.toContain('title-short')
    expect(
      runExample({ ...short, style: only({ 'title-short': 'blocker' }) }).marks.find(
        (m) => m.rule === 'title-short',
      )!.severity,
    ).toBe('blocker')
    const twins = { html: '<title>Tide</title>', pages: { 'b.html': '<title>Tide</title>' } }
    expect(
      runExample({ ...twins, style: only({ 'title-duplicate': 'off' }) }).siteMarks.find(
        (m) => m.rule === 'title-duplicate',
      )!.pages,
    ).toEqual(['b.html'])
  })
})

describe('a house style as a file', () => {
  it('holds what differs from the defaults, and is read back the same', () => {
    const own = style({
      siteName: 'Light',
      limits: { slugWords: 4 },
      addresses: [{ match: '/a/*', titlePattern: null }],
    })
    const json = JSON.parse(writeHouseStyle(own))
    expect(Object.keys(json.style).sort()).toEqual(['addresses', 'limits', 'siteName'])
    expect(readHouseStyle(json)).toEqual({ ok: true, style: own })
    expect(ownStyle(defaultStyle)).toEqual({})
    expect(readHouseStyle({ format: 'something-else', style: {} })).toMatchObject({
      ok: false,
      why: expect.stringMatching(/is not a house style/),
    })
  })
  it('every preset is one, and every limit is explained', () => {
    for (const preset of presets) expect(readHouseStyle(preset.style).ok, preset.name).toBe(true)
    expect(limitsExplained.map((l) => l.key).sort()).toEqual(Object.keys(defaultStyle.limits).sort())
  })
})
