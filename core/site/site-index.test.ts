import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addressOf, addressesOf, collisionKey, isPagePath, normaliseBase } from '../addresses/addresses.ts'
import { emptyIndex, repeated, updateIndex, type IndexEntry, type SiteIndex } from './site-index.ts'

const entry = fc.record({
  id: fc.constantFrom('a.html', 'b.html', 'c.html', 'A.html'),
  title: fc.option(fc.constantFrom('One', 'one ', 'Two', 'Day 1 of four', 'Day 2 of four', 'Day 2 of five')),
  description: fc.option(fc.constantFrom('x', 'y')),
  indexable: fc.boolean(),
  targets: fc.uniqueArray(fc.constantFrom('a.html', 'b.html', 'img.png'), { maxLength: 3 }),
  inText: fc.constant(0),
  linked: fc.integer({ min: 0, max: 3 }),
  unindexed: fc.constant(null),
  redirected: fc.subarray(['https://s.example/old', 'https://s.example/older']),
  keyword: fc.option(fc.constantFrom('knot', 'cours knot')),
  things: fc.option(
    fc.record({
      things: fc.array(
        fc.record({
          id: fc.option(fc.constantFrom('#a', '#b')),
          types: fc.constantFrom<string[]>(['Organization'], ['Event'], []),
          name: fc.option(fc.constantFrom('Light', 'Trust')),
          says: fc.constantFrom<Record<string, string>>(
            {},
            { name: 'Light' },
            { name: 'Light', url: 'https://a.example/' },
          ),
        }),
        { maxLength: 3 },
      ),
      links: fc.constant<never[]>([]),
    }),
  ),
  gone: fc.boolean(),
})
const dump = (i: SiteIndex) =>
  JSON.stringify([
    [...i.entries].sort(),
    [...i.inbound].sort(),
    [...i.withThings].sort(),
    ...[
      i.byTitle,
      i.byDescription,
      i.byAddress,
      i.byNearTitle,
      i.byKeyword,
      i.byThing,
      i.throughRedirect,
    ].map((g) => [...g].map(([k, v]) => [k, [...v].sort()]).sort()),
  ])

describe('the site index', () => {
  it('updated page by page is the index built anew (invariant 5)', () => {
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 20 }), (steps) => {
        const updated = emptyIndex('https://s.example/', true, [])
        const last = new Map<string, IndexEntry>()
        for (const { gone, ...e } of steps) {
          const full = { ...e, path: e.id, url: 'https://s.example/' + e.id, h1: null }
          updateIndex(updated, e.id, gone ? null : full)
          if (gone) last.delete(e.id)
          else last.set(e.id, full)
        }
        const anew = emptyIndex('https://s.example/', true, [])
        for (const [id, e] of last) updateIndex(anew, id, e)
        expect(dump(updated)).toBe(dump(anew))
        for (const group of repeated(updated.byTitle, updated)) expect(group.length).toBeGreaterThan(1)
      }),
    )
  })
})

describe('addresses', () => {
  it('of paths', () => {
    const base = 'https://s.example/'
    expect(addressOf('index.html', base)).toBe(base)
    expect(addressOf('a/index.html', base)).toBe(base + 'a/')
    expect(addressOf('a/b c.html', base)).toBe(base + 'a/b%20c.html')
    // RFC 3986 3.3: sub-delims, ":" and "@" stand in a path as they are.
    expect(addressOf("a!$&'()*+,;=:@.html", base)).toBe(base + "a!$&'()*+,;=:@.html")
    expect(addressesOf('a/index.html.de', base)).toEqual([
      base + 'a/index.html.de',
      base + 'a/',
      base + 'a',
      base + 'a/index.html',
    ])
  })
  it('collide by case and by a slash at the end', () => {
    expect(collisionKey('https://s.example/A/')).toBe(collisionKey('https://s.example/a'))
  })
  it('of pages: by extension, with a language tag behind', () => {
    expect(
      ['a.html', 'a.HTM', 'a.xhtml', 'a.html.de', 'a.html.pt-br', 'a.htmlx', 'a.html.gz.x', 'a.png'].map(
        isPagePath,
      ),
    ).toEqual([true, true, true, true, true, false, false, false])
  })
  it('of a root are mended where that is certain, else refused', () => {
    expect(normaliseBase('www.s.example/a?x#y')).toBe('https://www.s.example/a/')
    expect(normaliseBase('ftp://s.example/')).toBeNull()
    expect(normaliseBase('no address')).toBeNull()
  })
})
