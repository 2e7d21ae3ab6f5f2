import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bomOf, decode, encode, encodingOfLabel, prescan } from './encoding.ts'
import { lineAndColumn, lineStarts, toBytePlaces } from './places.ts'
import { headerRobots, type Served } from './served.ts'
import { readSource, sourceOf } from './source.ts'

const bytes = (...b: number[]) => Uint8Array.from(b)
const ascii = (text: string) => new TextEncoder().encode(text)

describe('encodings', () => {
  it('follow the WHATWG labels', () => {
    // Source: WHATWG Encoding Standard, "Names and labels".
    expect(['latin1', 'ISO-8859-1', 'ascii', 'x-cp1252'].map(encodingOfLabel)).toEqual(
      Array(4).fill('windows-1252'),
    )
    expect(encodingOfLabel('ks_c_5601-1987')).toBe('euc-kr')
    expect(encodingOfLabel('nonsense')).toBeNull()
  })
  it('decode windows-1252 by the standard’s index, its undefined bytes as controls', () => {
    expect(decode(bytes(0x80, 0x93, 0x94, 0x99, 0x81, 0xe9), 'windows-1252')).toBe('€“”™\x81é')
  })
  it('are found by BOM, then by what is declared in the first 1024 bytes', () => {
    expect(bomOf(bytes(0xef, 0xbb, 0xbf, 0x41))).toEqual({ encoding: 'utf-8', length: 3 })
    expect(prescan(ascii('<meta charset="iso-8859-1">'))?.encoding).toBe('windows-1252')
    expect(
      prescan(ascii("<meta http-equiv='Content-Type' content='text/html; charset=euc-kr'>"))?.encoding,
    ).toBe('euc-kr')
    expect(prescan(ascii('<meta name=x content="charset=euc-kr">'))).toBeNull()
    expect(prescan(ascii('<!-- <meta charset=euc-kr> --><meta charset=utf-16>'))?.encoding).toBe('utf-8')
    expect(prescan(ascii(' '.repeat(1020) + '<meta charset=euc-kr>'))).toBeNull()
  })
  it('fall back to UTF-8 where the bytes are valid, else to windows-1252', () => {
    const read = (b: Uint8Array) => readSource(b)
    expect(read(ascii('<p>é'))).toMatchObject({
      ok: true,
      source: { encoding: 'utf-8', encodingBy: 'valid-utf-8' },
    })
    expect(read(bytes(0x3c, 0x70, 0x3e, 0xe9, 0x20))).toMatchObject({
      ok: true,
      source: { encoding: 'windows-1252', text: '<p>é ' },
    })
  })
  it('refuse what is no page, with what to do', () => {
    for (const [b, why] of [
      [bytes(), /empty/],
      [bytes(0xff, 0xd8, 0xff, 0xe0), /JPEG/],
      [ascii('%PDF-1.7'), /PDF/],
      [bytes(0x3c, 0, 0x70, 0), /binary data, or UTF-16 without/],
      [ascii('<meta charset=iso-2022-kr>'), /Save it as UTF-8/],
    ] as const)
      expect(readSource(b)).toMatchObject({ ok: false, why: expect.stringMatching(why) })
  })
  it('write back what they read: every character of a one-byte and a two-byte encoding', () => {
    const all = decode(
      Uint8Array.from({ length: 128 }, (_, i) => i + 128),
      'windows-1252',
    )
    expect([...encode(all, 'windows-1252', () => '?')]).toEqual(
      Array.from({ length: 128 }, (_, i) => i + 128),
    )
    expect(
      decode(
        encode('등대의 빛', 'euc-kr', () => '?'),
        'euc-kr',
      ),
    ).toBe('등대의 빛')
    expect(
      decode(
        encode('灯台の灯り', 'shift_jis', () => '?'),
        'shift_jis',
      ),
    ).toBe('灯台の灯り')
    expect(new TextDecoder().decode(encode('x 😀', 'windows-1252', (c) => `&#${c.codePointAt(0)};`))).toBe(
      'x &#128512;',
    )
  })
})

describe('places', () => {
  it('in bytes: UTF-8 with malformed parts, UTF-16, two-byte encodings', () => {
    const broken = bytes(0x61, 0xe2, 0x82, 0x62, 0xf0, 0x9f, 0x98, 0x80, 0x63, 0xff, 0x64)
    const source = sourceOf(broken, 'utf-8', 'meta', 0)
    expect(source.text).toBe('a\ufffdb😀c\ufffdd')
    expect(toBytePlaces(source, [0, 1, 2, 3, 5, 6, 7])).toEqual([0, 1, 3, 4, 8, 9, 10])
    expect(
      toBytePlaces(sourceOf(bytes(0xff, 0xfe, 0x61, 0, 0x62, 0), 'utf-16le', 'bom', 2), [0, 1, 2]),
    ).toEqual([2, 4, 6])
    expect(
      toBytePlaces(
        sourceOf(
          encode('a등b', 'euc-kr', () => '?'),
          'euc-kr',
          'meta',
          0,
        ),
        [1, 2, 3],
      ),
    ).toEqual([1, 3, 4])
  })
  it('in bytes of any UTF-8, right or malformed: what lies before and behind decodes to the two parts of the text', () => {
    const letters = fc.array(fc.constantFrom(0x61, 0x0a, 0x3c), { maxLength: 12 })
    const anything = fc.array(
      fc.oneof(fc.constantFrom(0x61, 0xc3, 0xa9, 0xe2, 0x82, 0xac, 0xf0, 0x9f), fc.nat(255)),
      {
        maxLength: 24,
      },
    )
    fc.assert(
      fc.property(fc.oneof(letters, anything), (list) => {
        const source = sourceOf(bytes(...list), 'utf-8', 'meta', 0)
        const places = Array.from({ length: source.text.length + 1 }, (_, place) => place)
        toBytePlaces(source, places).forEach((at, place) => {
          const [before, behind] = [list.slice(0, at), list.slice(at)].map(
            (part) => sourceOf(bytes(...part), 'utf-8', 'meta', 0).text,
          )
          expect(before! + behind!).toBe(source.text)
          // A place within a pair of surrogates is that behind it.
          const isWithin = /^[\udc00-\udfff]/.test(source.text.slice(place))
          expect(before!.length).toBe(isWithin ? place + 1 : place)
        })
      }),
    )
  })
  it('as lines and columns: CRLF is one line end, a lone CR one too', () => {
    const starts = lineStarts('a\r\nbc\rd\n')
    expect([0, 1, 3, 4, 6, 8].map((p) => lineAndColumn(starts, p))).toEqual([
      { line: 1, column: 1 },
      { line: 1, column: 2 },
      { line: 2, column: 1 },
      { line: 2, column: 2 },
      { line: 3, column: 1 },
      { line: 4, column: 1 },
    ])
  })
})

describe('what the server says', () => {
  const served = (more: Partial<Served>): Served => ({
    status: 200,
    address: 'https://s.example/',
    redirects: [],
    contentType: 'text/html',
    charset: null,
    robots: [],
    canonical: null,
    date: '2026-11-26',
    ...more,
  })
  // WHATWG HTML 13.2.3.2: a BOM, then the transport layer, then the prescan.
  it.each([
    [
      'its charset goes before the page’s own',
      '<meta charset=utf-8>',
      'windows-1252',
      'windows-1252',
      'header',
    ],
    ['a BOM goes before it', '\ufeff<p>', 'windows-1252', 'utf-8', 'bom'],
    ['an unknown charset says nothing', '<meta charset=euc-kr>', 'nonsense', 'euc-kr', 'meta'],
    ['none leaves it to the page', '<meta charset=euc-kr>', null, 'euc-kr', 'meta'],
  ])('%s', (_, html, charset, encoding, encodingBy) => {
    expect(readSource(ascii(html), served({ charset }))).toMatchObject({ source: { encoding, encodingBy } })
  })
  it('to all crawlers is told from what it says to one', () => {
    const robots = [
      'NoIndex, nofollow',
      'otherbot: noarchive',
      'unavailable_after: 25 Jun 2027',
      ' max-snippet: 20',
    ]
    expect(headerRobots(served({ robots }))).toEqual([
      'noindex',
      'nofollow',
      'unavailable_after: 25 jun 2027',
      'max-snippet: 20',
    ])
    expect(headerRobots(null)).toEqual([])
  })
})
