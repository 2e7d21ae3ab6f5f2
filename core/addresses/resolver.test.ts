import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { resolveAddress } from './addresses.ts'
import { resolverFor } from './resolver.ts'

const bases = [
  'https://s.example/',
  'https://s.example/a/b.html',
  'http://s.example:8080/a/b/c/?q=1/2',
  'https://s.example/a%20b/ø/',
  'https://s.example',
  'file:///home/ada/a.html',
  'about:blank',
  'no base',
  'mailto:a@b.example',
]
const piece = fc.oneof(
  fc.constantFrom(
    'a',
    'b.html',
    'index.html',
    '..',
    '.',
    '',
    'x y',
    'ø',
    '%41',
    'a:b',
    '~u',
    'a.b.c',
    '@',
    '..a',
    'a..',
    '.a',
  ),
  fc.string({ maxLength: 5 }),
)
const href = fc.oneof(
  fc
    .tuple(
      fc.constantFrom('', '/', '//', '../', '../../', './', '?', '#', 'HTTP://', 'https:', 'a:', '\t'),
      fc.array(piece, { maxLength: 4 }),
      fc.constantFrom('', '/', '#f', '#f/..', '?q', '#ø'),
    )
    .map(([start, pieces, end]) => start + pieces.join('/') + end),
  fc.string(),
)

describe('addresses of a page', () => {
  it('are those that URL gives', () => {
    fc.assert(
      fc.property(fc.constantFrom(...bases), fc.array(href, { maxLength: 6 }), (base, hrefs) => {
        const resolve = resolverFor(base)
        for (const h of [...hrefs, ...hrefs]) expect(resolve(h)).toBe(resolveAddress(h, base))
      }),
      { numRuns: 3000 },
    )
  })
  it.each([
    ['../../../x.html', 'https://s.example/a/b.html', 'https://s.example/x.html'],
    ['c/d.html#e', 'https://s.example/a/b.html', 'https://s.example/a/c/d.html#e'],
    ['#e', 'https://s.example/a/b.html?q', 'https://s.example/a/b.html?q#e'],
    ['..', 'https://s.example/a/b.html', 'https://s.example/'],
  ])('%s under %s', (href, base, address) => expect(resolverFor(base)(href)).toBe(address))
})
