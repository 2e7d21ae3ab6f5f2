import fc from 'fast-check'
import { parse } from 'parse5'
import { describe, expect, it } from 'vitest'
import { hostileFrames, TRAP } from '../../../tests/fixtures/hostile-frames.ts'
import { soup } from '../../../tests/fixtures/soup.ts'
import { readSource } from '../source/source.ts'
import { dataUrl, toBase64 } from './base64.ts'
import { START, stillPage } from './still-page.ts'

const bytes = (text: string) => new TextEncoder().encode(text)
const files: Record<string, { text: string; image?: { width: number; height: number } }> = {
  'https://site.example/css/s.css': {
    text: '@import "more.css" screen;@font-face{font-family:f;src:url(../f.woff2)}p{background:url("../img/a.png")}',
  },
  'https://site.example/css/more.css': { text: 'h1{color:red;background:url(../img/none.png)}' },
  'https://site.example/img/a.png': { text: 'PNG' },
  'https://site.example/f.woff2': { text: 'FONT' },
  'https://site.example/img/huge.png': { text: 'x'.repeat(4_000_001), image: { width: 800, height: 600 } },
}
async function still(html: string, url = 'https://site.example/page.html') {
  const read = readSource(bytes(html))
  if (!read.ok) throw new Error(read.why)
  return stillPage(read.source, url, async (address) => {
    const file = files[address]
    return file ? { path: address.slice(21), bytes: bytes(file.text), image: file.image ?? null } : null
  })
}

type Tree = { nodeName: string; attrs?: { name: string; value: string }[]; childNodes?: Tree[] }
/** Every element of a document, with its attributes. */
function elementsOf(html: string): Tree[] {
  const all: Tree[] = []
  const open = [parse(html) as unknown as Tree]
  for (let node = open.pop(); node; node = open.pop()) {
    if (node.attrs) all.push(node)
    open.push(...(node.childNodes ?? []))
  }
  return all
}
const NEVER =
  /^(?:script|iframe|frame|object|embed|applet|base|link|template|portal|use|image|foreignobject|set|animate)$/i
/** What may run or ask, by its element or its attribute. */
function whatCould(html: string): string[] {
  return elementsOf(html).flatMap(({ nodeName, attrs }) => [
    ...(NEVER.test(nodeName) ? [nodeName] : []),
    ...attrs!.flatMap(({ name, value }) =>
      /^on|^(?:srcset|action|formaction|ping|poster|background|data|xlink:href|target|autofocus|http-equiv)$/.test(
        name,
      ) && !(nodeName === 'meta' && value === 'Content-Security-Policy')
        ? [`${nodeName} ${name}`]
        : (name === 'src' && !value.startsWith('data:image/')) || (name === 'href' && value !== '#')
          ? [`${nodeName} ${name}=${value}`]
          : [],
    ),
  ])
}

describe('a page to look at', () => {
  it('keeps what is drawn: its elements, classes and words, each saying where it stands', async () => {
    const html =
      '<!doctype html><html lang="en" class="a"><head><title>T</title></head><body id="b"><h1 class="big">One <em>two</em></h1><p>A &amp; b<br>c</body></html>'
    const made = (await still(html)).html
    expect(made).toContain('<!doctype html><html')
    expect(made).toMatch(/<html[^>]* lang="en" class="a">/)
    expect(made).toContain(
      `<h1 ${START}="${html.indexOf('<h1')}" class="big">One <em ${START}="${html.indexOf('<em')}">two</em></h1>`,
    )
    expect(made).toMatch(/A &amp; b<br[^>]*>c/)
    expect(made).toMatch(/<body[^>]* id="b">/)
  })
  it('leaves out a doctype that is not there: such pages are drawn in another mode', async () => {
    expect((await still('<p>x')).html).toMatch(/^<html/)
  })
  it('has the site’s own sheets, with what they import, and images and fonts as data', async () => {
    const made = await still(
      '<!doctype html><link rel="stylesheet" href="css/s.css"><link rel=stylesheet media=print href=css/s.css><img src="img/a.png" alt="A lamp"><img src="/img/gone.png" alt="Gone"><div style="background:url(img/a.png)">x</div>',
    )
    const png = dataUrl('image/png', bytes('PNG'))
    expect(made.html).toContain('@media screen{h1{color:red;background:url(data:,)}}')
    expect(made.html).toContain(`src:url(${dataUrl('font/woff2', bytes('FONT'))})`)
    expect(made.html.split(png).length - 1).toBe(3)
    expect(made.html).toMatch(/<img[^>]* alt="Gone">/)
    expect(made.html.match(/<style/g)!.length).toBe(1)
    expect(made.absent).toEqual(['https://site.example/img/none.png', 'https://site.example/img/gone.png'])
    expect(made.inSheets.map(({ url, kind }) => `${kind} ${url.slice(21)}`)).toEqual([
      'image img/none.png',
      'font f.woff2',
      'image img/a.png',
    ])
  })
  it('keeps the room of an image that is too much, and names it', async () => {
    const made = await still('<!doctype html><img src="img/huge.png">')
    expect(made.left).toEqual(['img/huge.png'])
    expect(made.html).toContain("width='800' height='600'")
  })
  it('follows the page’s own base', async () => {
    expect((await still('<base href="/img/"><img src=a.png>')).html).toContain('src="data:image/png')
  })
  it.each([
    ['<meta name=viewport content="width=device-width, initial-scale=1">', true],
    ['<meta name=viewport content="width=1024">', false],
    ['<p>none', false],
  ])('knows of %s whether it fits the screen', async (html, fits) => {
    expect((await still(html)).fitsScreen).toBe(fits)
  })
  it('has nothing of a hostile page that could run or ask', async () => {
    const could: Record<string, string[]> = {}
    for (const [name, html] of Object.entries(hostileFrames)) {
      const made = (await still(html)).html
      const found = [
        ...whatCould(made),
        ...(/url\(\s*["']?https?:/i.test(made) ? [`${TRAP} in a style`] : []),
      ]
      if (found.length > 0) could[name] = found
    }
    expect(could).toEqual({})
  })
  it('and of any page, whatever it is made of', async () => {
    await fc.assert(
      fc.asyncProperty(soup, fc.constantFrom(...Object.values(hostileFrames)), async (a, b) => {
        expect(whatCould((await still(`${a}${b}${a}`)).html)).toEqual([])
      }),
      { numRuns: 150 },
    )
  })
  it('is not brought down by depth', async () => {
    const deep = await still(`${'<div>'.repeat(15_000)}x`)
    expect(deep.html.match(/<div/g)!.length).toBeLessThan(600)
    expect((await still(`<style>p{width:${'calc('.repeat(100_000)}</style><p>x`)).html).toContain('<p')
    expect((await still(`<p style="width:${'('.repeat(100_000)}">x`)).html).toContain('x')
  })
})

describe('base64', () => {
  // Source: RFC 4648, section 10.
  it.each([
    ['', ''],
    ['f', 'Zg=='],
    ['fo', 'Zm8='],
    ['foo', 'Zm9v'],
    ['foob', 'Zm9vYg=='],
    ['fooba', 'Zm9vYmE='],
    ['foobar', 'Zm9vYmFy'],
  ])('of %o is %o', (text, written) => expect(toBase64(bytes(text))).toBe(written))
  it('is what the platform writes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 70_000 }), (any) => {
        expect(toBase64(any)).toBe(Buffer.from(any).toString('base64'))
      }),
      { numRuns: 30 },
    )
  })
})
