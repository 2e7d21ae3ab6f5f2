import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readRedirects, writeRedirects } from '../exchange/redirects.ts'
import { addressOf, collisionKey } from '../addresses/addresses.ts'
import { movesOf, pathParts, redirectsOf, type SlugEdit } from './moves.ts'

const base = 'https://s.example/'
const paths = [
  'index.html',
  'a/index.html',
  'a/b.html',
  'a/img.png',
  'a/c/index.html',
  'a/c/d.html.de',
  'e.html',
  'F/Old page.html',
]
const moves = (edits: Record<string, SlugEdit>, all = paths) =>
  movesOf(all, new Map(Object.entries(edits)), base)
const moved = (edits: Record<string, SlugEdit>, all = paths) => Object.fromEntries(moves(edits, all).paths)
const redirects = (edits: Record<string, SlugEdit>, existing: [string, string][] = [], all = paths) =>
  redirectsOf(
    moves(edits, all),
    all,
    base,
    existing.map(([from, to]) => ({ from: base + from, to: base + to, status: '301' })),
  ).map((r) => [r.from.slice(base.length), r.to.slice(base.length)])

describe('moves', () => {
  it('take a path apart', () => {
    expect(pathParts('a/b.html.de')).toEqual({ segments: ['a', 'b'], extension: '.html.de', folder: false })
    expect(pathParts('a/index.htm')).toEqual({ segments: ['a'], extension: '/index.htm', folder: true })
    expect(pathParts('index.html')).toEqual({ segments: [], extension: '/index.html', folder: true })
  })
  it('rename a page, its extension kept', () => {
    expect(moved({ 'e.html': { value: 'tides' } })).toEqual({ 'e.html': 'tides.html' })
    expect(moved({ 'a/c/d.html.de': { value: 'x' } })).toEqual({ 'a/c/d.html.de': 'a/c/x.html.de' })
    expect(moved({ 'e.html': { value: 'e' } })).toEqual({})
  })
  it('rename a folder with all that stands under it, or its page alone', () => {
    expect(moved({ 'a/index.html': { value: 'z' } })).toEqual({
      'a/index.html': 'z/index.html',
      'a/b.html': 'z/b.html',
      'a/img.png': 'z/img.png',
      'a/c/index.html': 'z/c/index.html',
      'a/c/d.html.de': 'z/c/d.html.de',
    })
    expect(moved({ 'a/index.html': { value: 'z', alone: true } })).toEqual({ 'a/index.html': 'z/index.html' })
    expect(
      moved({ 'a/index.html': { value: 'z' }, 'a/c/index.html': { value: 'y' }, 'a/b.html': { value: 'x' } }),
    ).toMatchObject({
      'a/c/d.html.de': 'z/y/d.html.de',
      'a/b.html': 'z/x.html',
    })
  })
  it('move a page to another folder when all segments are named', () =>
    expect(moved({ 'F/Old page.html': { value: '/press/old-page' } })).toEqual({
      'F/Old page.html': 'press/old-page.html',
    }))
  it('refuse what leaves nothing, the home page, and an address that is taken; the others stand', () => {
    const result = moves({
      'e.html': { value: '??' },
      'index.html': { value: 'x' },
      'a/b.html': { value: 'C' },
      'F/Old page.html': { value: 'ok' },
    })
    expect(result.refused).toEqual([
      { path: 'e.html', why: 'The slug needs at least one letter or digit.' },
      { path: 'index.html', why: 'The home page has no slug to change.' },
    ])
    expect(moves({ 'a/c/index.html': { value: 'b.html' } }).refused.map((r) => r.why)).toEqual([
      'a/b.html already has this address. Choose another slug.',
    ])
    expect(Object.fromEntries(result.paths)).toMatchObject({ 'F/Old page.html': 'F/ok.html' })
    const both = moves({ 'a/b.html': { value: 'same' }, 'a/c/d.html.de': { value: '/a/same' } }, [
      'a/b.html',
      'a/c/d.html.de',
      'x.html',
    ])
    expect(both.paths.size + both.refused.length).toBe(2)
  })
  it('whatever is typed, every address is valid, in its place and its own', () => {
    const slug = fc.record({
      value: fc.oneof(
        fc.string({ unit: 'binary', maxLength: 12 }),
        fc.constantFrom('b', 'e', 'a', '/a/b', '/e', 'c', '../x', '/../y'),
      ),
      alone: fc.boolean(),
    })
    fc.assert(
      fc.property(
        fc.dictionary(fc.constantFrom(...paths.filter((p) => !p.endsWith('png'))), slug),
        (edits) => {
          const { paths: to, addresses } = moves(edits)
          const all = paths.map((p) => to.get(p) ?? p)
          for (const path of all) {
            expect(path).not.toMatch(/^\/|\/\/|(?:^|\/)\.\.?(?:\/|$)/)
            expect(new URL(addressOf(path, base)).href).toBe(addressOf(path, base))
          }
          expect(new Set(all.map((p) => collisionKey(addressOf(p, base)))).size).toBe(all.length)
          const live = new Set(all.map((p) => addressOf(p, base)))
          for (const address of addresses.values()) expect(new URL(address).href).toBe(address)
          const out = redirectsOf(moves(edits), paths, base)
          expect(new Set(out.map((r) => r.from)).size).toBe(out.length)
          for (const r of out) {
            expect(live.has(r.to)).toBe(true)
            expect(live.has(r.from)).toBe(false)
          }
          for (const path of to.keys()) {
            const from = addressOf(path, base)
            expect(live.has(from) || out.some((r) => r.from === from)).toBe(true)
          }
        },
      ),
    )
  })
})

describe('redirects', () => {
  it('lead straight to where a page is now', () => {
    expect(
      redirects({ 'e.html': { value: 'tides' } }, [
        ['old.html', 'e.html'],
        ['older.html', 'old.html'],
      ]),
    ).toEqual([
      ['old.html', 'tides.html'],
      ['older.html', 'tides.html'],
      ['e.html', 'tides.html'],
    ])
  })
  it('of a slug that is changed back, none is left', () =>
    expect(redirects({ 'e.html': { value: 'first' } }, [['first.html', 'e.html']])).toEqual([
      ['e.html', 'first.html'],
    ]))
  it('never lead away from an address at which a page stands, when two pages change places', () => {
    expect(redirects({ 'a/b.html': { value: '/e' }, 'e.html': { value: '/a/b' } })).toEqual([])
  })
  it('do not run in a ring', () =>
    expect(
      redirects({}, [
        ['x', 'y'],
        ['y', 'x'],
      ]),
    ).toEqual([
      ['x', 'y'],
      ['y', 'x'],
    ]))
  it('are written as a sheet and read again', () => {
    const some = [{ from: `${base}a,b`, to: `${base}"c"`, status: '301' }]
    expect(readRedirects(writeRedirects(some))).toEqual(some)
    expect(readRedirects('name,price\nlamp,3\n')).toEqual([])
  })
})

describe('two files that share an address', () => {
  it('part, and links to the address stay with the one that is served there', () => {
    const all = ['k/index.htm', 'k/index.html', 'k/a.html']
    const { paths: to, addresses } = moves({ 'k/index.htm': { value: 'old', alone: true } }, all)
    expect(Object.fromEntries(to)).toEqual({ 'k/index.htm': 'old/index.htm' })
    expect([...addresses.keys()]).toEqual([`${base}k/index.htm`])
  })
})
