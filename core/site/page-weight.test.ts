import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { dusk, HEIGHT, WIDTH } from '../../scripts/dusk.ts'
import { readPage } from '../page/read/read-page.ts'
import { readSource } from '../page/source/source.ts'
import { fileSizeOf, imageSizeOf, sizesOnDemand } from './file-sizes.ts'
import { inBytes } from './in-bytes.ts'
import { candidatesOf, chosenSource, oversizeOf, resourcesOf, shownWidth, weightOf } from './page-weight.ts'
import { emptyIndex } from './site-index.ts'

const BASE = 'https://site.example/'
function page(html: string) {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  return readPage(read.source, { path: 'a.html', url: `${BASE}a.html` })
}
const site = (files: Record<string, number>) =>
  emptyIndex(
    BASE,
    true,
    ['a.html', ...Object.keys(files)].map((path) => [path, path] as const),
    { sizes: new Map(Object.entries(files).map(([path, bytes]) => [path, { bytes, image: null }])) },
  )
const image = (html: string) => page(html).images[0]!

describe('what a page weighs', () => {
  it('is its own bytes and each of its files once', () => {
    const html =
      '<link rel=stylesheet href=s.css><link rel="alternate stylesheet" href=t.css><script src=s.js></script><script src="s.js?v=2"></script><script>var a</script><script type=text/template src=t.tpl></script><img src=a.png><img src="/a.png"><img src="data:image/png;base64,AA=="><img src=https://elsewhere.example/b.png>'
    const weight = weightOf(
      page(html),
      site({ 's.css': 10, 't.css': 7, 's.js': 200, 'a.png': 3000, 't.tpl': 9 }),
    )
    expect(weight).toEqual({
      page: html.length,
      style: 10,
      // An address with a query is another file to a browser.
      script: 400,
      image: 3000,
      total: html.length + 3410,
      absent: 1,
    })
  })
  it('knows what is waited for before anything is drawn', () => {
    const html =
      '<head><link rel=stylesheet href=a.css><link rel=stylesheet media=print href=b.css><link rel=stylesheet media="screen and (min-width: 1px)" href=c.css><script src=a.js></script><script defer src=b.js></script><script async src=c.js></script><script type=module src=d.js></script></head><body><script src=e.js></script>'
    const waited = resourcesOf(page(html), site({})).filter((r) => r.blocks)
    expect(waited.map((r) => r.named)).toEqual(['a.css', 'c.css', 'a.js'])
  })
  it('is never less than the page, and the sum of its parts', () => {
    const piece = fc.constantFrom(
      '<img src=a.png>',
      '<img srcset="b.png 2x">',
      '<script src=s.js></script>',
      '<link rel=stylesheet href=s.css>',
      '<p>x',
    )
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 30 }), (pieces) => {
        const facts = page(pieces.join(''))
        const {
          total,
          page: itself,
          style,
          script,
          image: images,
          absent,
        } = weightOf(facts, site({ 'a.png': 5, 's.js': 6, 's.css': 7 }))
        expect(total).toBe(itself + style + script + images)
        expect(itself).toBe(facts.bytes)
        expect(absent).toBe(pieces.includes('<img srcset="b.png 2x">') ? 1 : 0)
      }),
    )
  })
})

describe('the place of an image', () => {
  it.each([
    ['<img width=300>', 300],
    ['<img width="300px">', 300],
    ['<img width="50%">', null],
    ['<img>', null],
    ['<img srcset="a 100w" sizes="400px">', 400],
    ['<img srcset="a 100w" sizes="(max-width: 600px) 100vw, 33.3vw">', 1280],
    ['<img srcset="a 100w" sizes="calc(100vw - 20px)">', null],
    ['<img width=200 sizes="400px">', 200],
  ])('of %s is %s px wide', (html, px) => expect(shownWidth(image(html))).toBe(px))

  // Source: WHATWG HTML 4.8.4.2.2, and its examples of srcset and sizes.
  it.each([
    ['<img src=a.png>', 'a.png'],
    ['<img src=a.png srcset="b.png 2x">', 'a.png'],
    ['<img srcset="b.png, c.png 2x">', 'b.png'],
    ['<img src=s.png srcset="s.png 300w, m.png 600w, l.png 1200w" sizes="400px">', 'm.png'],
    ['<img src=s.png srcset="l.png 1200w, s.png 300w" sizes="4000px">', 'l.png'],
    ['<img srcset="data:image/png;base64,AA,BB 1x, a,b.png 2x">', 'data:image/png;base64,AA,BB'],
  ])('%s loads %s', (html, address) => expect(chosenSource(image(html))).toBe(address))

  it('reads any srcset, and no address has white space', () => {
    fc.assert(
      fc.property(fc.string(), (srcset) => {
        for (const { address } of candidatesOf(srcset)) expect(address).not.toMatch(/\s|,$/)
      }),
    )
  })
  it('is too small for a file of more than twice its width', () => {
    const size = { bytes: 400_000, image: { width: 1200, height: 800 } }
    expect(oversizeOf(image('<img width=600>'), size)).toBeNull()
    expect(oversizeOf(image('<img width=300>'), size)).toEqual({
      natural: 1200,
      place: 300,
      enough: 600,
      saved: 300_000,
    })
    expect(oversizeOf(image('<img width=0>'), size)).toBeNull()
    expect(oversizeOf(image('<img width=300>'), { bytes: 1, image: null })).toBeNull()
  })
})

describe('sizes of files', () => {
  it('are read from the bytes of images, and only of those', () => {
    expect(fileSizeOf('img/dusk.png', dusk())).toEqual({
      bytes: dusk().length,
      image: { width: WIDTH, height: HEIGHT },
    })
    expect(fileSizeOf('dusk.txt', dusk()).image).toBeNull()
    const drawing = readFileSync('stand-ins/site/img/tower.svg')
    expect(imageSizeOf(drawing)).toEqual({ width: 320, height: 200 })
  })
  it('of anything else are none, and nothing hangs or throws', () => {
    const heads = [
      [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
      [0xff, 0xd8, 0xff, 0xe1],
      [0x47, 0x49, 0x46, 0x38, 0x39, 0x61],
      [0x52, 0x49, 0x46, 0x46, 0, 0, 0, 0, 0x57, 0x45, 0x42, 0x50],
      [0, 0, 0, 0, 0x66, 0x74, 0x79, 0x70, 0x61, 0x76, 0x69, 0x66],
      [0, 0, 0, 0x0c, 0x4a, 0x58, 0x4c, 0x20, 0x0d, 0x0a, 0x87, 0x0a],
      [0x49, 0x49, 0x2a, 0],
      [0x4d, 0x4d, 0, 0x2a],
      [0, 0, 1, 0],
      [0x42, 0x4d],
      [0x3c, 0x73, 0x76, 0x67, 0x20],
    ]
    fc.assert(
      fc.property(fc.constantFrom(...heads), fc.uint8Array({ maxLength: 400 }), (head, rest) => {
        const size = imageSizeOf(new Uint8Array([...head, ...rest]))
        if (size) expect(Math.min(size.width, size.height)).toBeGreaterThan(0)
      }),
      { numRuns: 3_000 },
    )
    // Text that begins as many drawings.
    expect(imageSizeOf(new TextEncoder().encode('<svg '.repeat(200_000)))).toBeNull()
    expect(imageSizeOf(new Uint8Array(0))).toBeNull()
  })
  it('on demand are asked for once', () => {
    let asked = 0
    const sizes = sizesOnDemand((id) => (asked++, id === 'a.png' ? dusk() : null))
    for (const _ of [1, 2])
      expect([sizes.get('a.png')?.image?.width, sizes.get('b')]).toEqual([WIDTH, undefined])
    expect(asked).toBe(2)
  })
})

describe('bytes in words', () => {
  it.each([
    [0, '0 bytes'],
    [999, '999 bytes'],
    [1_499, '1 kB'],
    [340_400, '340 kB'],
    [999_499, '999 kB'],
    [999_500, '1.0 MB'],
    [2_449_000, '2.4 MB'],
    [1_234_567_890, '1,234.6 MB'],
  ])('%i are %s', (bytes, words) => expect(inBytes(bytes)).toBe(words))
})
