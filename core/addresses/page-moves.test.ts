import { describe, expect, it } from 'vitest'
import { movedFileBytes } from '../exchange/moved-files.ts'
import { applyDraft } from '../page/proof.ts'
import { readSource } from '../page/source/source.ts'
import { pageMovesFor } from '../work/page-proof.ts'
import { addressAfterMoves, relativeTo } from './page-moves.ts'
import { movesOf } from '../site/moves.ts'

const base = 'https://s.example/'
const paths = ['index.html', 'a/index.html', 'a/b.html', 'a/img.png', 'e.html', 'style.css']
const bytesOf = (text: string) => new TextEncoder().encode(text)
const moves = (edits: Record<string, { value: string; alone?: boolean }>) =>
  movesOf(paths, new Map(Object.entries(edits)), base)
function carriedPage(
  path: string,
  html: string,
  edits: Record<string, { value: string; alone?: boolean }>,
  bytes = bytesOf(html),
) {
  const read = readSource(bytes)
  if (!read.ok) throw new Error(read.why)
  return applyDraft(read.source, {}, pageMovesFor(path, moves(edits), base)).source
}
const text = (path: string, html: string, edits: Record<string, { value: string; alone?: boolean }>) =>
  carriedPage(path, html, edits).text

describe('a relative reference', () => {
  // RFC 3986, 5.4.1: what the normal examples resolve to, under the base of 5.4.
  it.each([
    'g',
    'g/',
    '',
    'g?y',
    'g?y#s',
    ';x',
    'g;x?y#s',
    './',
    '../',
    '../g',
    '../../',
    '../../g',
    'a:b/c',
  ])('to what RFC 3986, 5.4.1 resolves %s to leads there', (reference) => {
    const from = 'http://a/b/c/d;p?q'
    const to = new URL(reference === 'a:b/c' ? './a:b/c' : reference, from).href
    const path = to.replace(/[?#].*/, '')
    expect(new URL(relativeTo(from, path), from).href).toBe(path)
  })
})

describe('an address', () => {
  const pageMoves = {
    from: `${base}a/b.html`,
    to: `${base}z/b.html`,
    addresses: moves({ 'a/index.html': { value: 'z' } }).addresses,
  }
  const bases = { before: pageMoves.from, after: pageMoves.to }
  it.each([
    ['img.png', null],
    ['./', null],
    ['../e.html#top', null],
    ['../a/', './'],
    ['/a/img.png?v=2', '/z/img.png?v=2'],
    ['https://s.example/a#x', 'https://s.example/z#x'],
    ['//s.example/a/', '//s.example/z/'],
    ['https://other.example/a/', null],
    ['mailto:a@s.example', null],
    ['javascript:void(0)', null],
    ['#top', null],
    ['?page=2', null],
    ['http://[', null],
  ])('%s of a page that moved with its folder becomes %s', (written, now) =>
    expect(addressAfterMoves(written, bases, pageMoves)).toBe(now),
  )
})

describe('a page', () => {
  const edits = { 'a/index.html': { value: 'z' } }
  it('has its links, canonical, alternates, og:url, srcset, styles and structured data follow; every other byte stays', () => {
    const html = `<!doctype html><html><head><link rel=canonical href="https://s.example/a/b.html"><link rel="alternate" hreflang="de" href='/a/b.html'>
<meta property="og:url" content="https://s.example/a/b.html"><style>p{background:url("/a/img.png")}</style></head>
<body><A HREF=/a/>up</A> <a href="e.html">e</a><img srcset="/a/img.png 2x, /x.png 3x" src="/x.png" style="background:url(a/img.png)">
<script type="application/ld+json">{"@type":"BreadcrumbList","itemListElement":[{"item":"https://s.example/a/"},{"item":{"@id":"https://s.example/a/b.html#here"}}],"name":"a/b"}</script></body></html>`
    const now = text('index.html', html, edits)
    expect(now).toBe(
      html
        .replace('HREF=/a/>', 'HREF="/z/">')
        .replaceAll('https://s.example/a/', 'https://s.example/z/')
        .replace("'/a/b.html'", "'/z/b.html'")
        .replaceAll('/a/img.png', '/z/img.png')
        .replace('url(a/img.png)', 'url(z/img.png)'),
    )
  })
  it('that moves by itself still reaches what it refers to', () => {
    const now = text(
      'a/index.html',
      '<a href="b.html">b</a><img src=img.png><a href="">here</a><a href="./#x">x</a><a href="../e.html">e</a>',
      { 'a/index.html': { value: '/deep/er/z', alone: true } },
    )
    expect(now).toBe(
      '<a href="../../../a/b.html">b</a><img src="../../../a/img.png"><a href="">here</a><a href="./#x">x</a><a href="../../../e.html">e</a>',
    )
  })
  it('with a base of its own follows that', () =>
    expect(text('e.html', '<base href="/a/"><a href="b.html">b</a>', edits)).toBe(
      '<base href="/a/"><a href="../z/b.html">b</a>',
    ))
  it('that moves by itself leaves alone what only looks like an address', () => {
    const moved = { 'a/index.html': { value: '/deep/er/z', alone: true } }
    const html = `<meta property="og:image:width" content="600"><meta property="og:image" content="img.png">
<script type="application/ld+json">{"item":"Stories","@id":"_:b0","image":"img.png","mainEntityOfPage":"#here","target":"Two words/three"}</script>`
    expect(text('a/index.html', html, moved)).toBe(
      html
        .replace('content="img.png"', 'content="../../../a/img.png"')
        .replace('"image":"img.png"', '"image":"../../../a/img.png"'),
    )
  })
  it('has addresses in templates, drawings, refreshes and on two lines follow', () => {
    const html =
      '<meta http-equiv=refresh content="5; url=/a/b.html"><template><a href="/a/">t</a></template><svg><a xlink:href="/a/b.html">s</a></svg><form action="/a/"><button formaction=/a/b.html></form><a href="\n/a/\n">n</a>'
    expect(text('index.html', html, edits)).toBe(
      '<meta http-equiv=refresh content="5; url=/z/b.html"><template><a href="/z/">t</a></template><svg><a xlink:href="/z/b.html">s</a></svg><form action="/z/"><button formaction="/z/b.html"></form><a href="\n/z/\n">n</a>',
    )
  })
  it('in another encoding keeps its bytes', () => {
    const latin = Uint8Array.from('<title>Caf\xe9</title><a href="a/b.html">\xe9</a>', (c) => c.charCodeAt(0))
    const { bytes } = carriedPage('index.html', '', edits, latin)
    expect(Buffer.from(bytes).toString('latin1')).toBe('<title>Caf\xe9</title><a href="z/b.html">\xe9</a>')
  })
  it('an edit of the same place goes first, and what it says follows too', () => {
    const read = readSource(bytesOf('<link rel=canonical href=/a/b.html>'))
    if (!read.ok) throw new Error(read.why)
    const pageMoves = pageMovesFor('a/b.html', moves(edits), base)
    const proof = applyDraft(read.source, { canonical: { value: 'https://s.example/a/b.html' } }, pageMoves)
    expect(proof.source.text).toBe('<link rel=canonical href="https://s.example/z/b.html">')
  })
})

describe('other files', () => {
  it('style sheets and sitemaps follow, everything else stays', () => {
    const all = moves({ 'a/index.html': { value: 'z' } })
    const file = (path: string, content: string) =>
      new TextDecoder().decode(movedFileBytes(path, bytesOf(content), all, base))
    expect(file('style.css', '@import "a/x.css"; b{c:url( a/img.png )}')).toBe(
      '@import "a/x.css"; b{c:url( z/img.png )}',
    )
    expect(file('sitemap.xml', '<loc>https://s.example/a/</loc><loc>https://s.example/e.html</loc>')).toBe(
      '<loc>https://s.example/z/</loc><loc>https://s.example/e.html</loc>',
    )
    expect(file('a.txt', 'https://s.example/a/')).toBe('https://s.example/a/')
  })
})
