/** Edits of text blocks through the proof: exact words, no other byte, in every encoding. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { isPagePath } from '../../addresses/addresses.ts'
import { movesOf } from '../../site/moves.ts'
import { pageMovesFor } from '../../work/page-proof.ts'
import { applyDraft } from '../proof.ts'
import { encode } from '../source/encoding.ts'
import { readSource, type Source } from '../source/source.ts'
import { pageText } from '../text/page-text.ts'
import { shownOf, textOf } from '../text/shown.ts'
import { noEdits, tryTextEdits } from '../../../tests/fixtures/text-edits.ts'
import { Chance } from '../../../tests/fuzz/fuzz.ts'

const site = join(import.meta.dirname, '../../../stand-ins/site')
const pages = readdirSync(site, { recursive: true, encoding: 'utf8' })
  .filter(isPagePath)
  .sort()
  .map((path) => new Uint8Array(readFileSync(join(site, path))))

function source(html: string | Uint8Array): Source {
  const read = readSource(typeof html === 'string' ? new TextEncoder().encode(html) : html)
  if (!read.ok) throw new Error(read.why)
  return read.source
}
const page = (body: string, head = '<meta charset="utf-8">') =>
  `<!doctype html><html lang="en"><head>${head}<title>x</title></head><body>${body}</body></html>`
const keyOf = (of: Source, text: string) =>
  `text@${pageText(of).blocks.find((b) => b.block.text === text)!.byte}`
const body = (of: Source) => /<body>(.*)<\/body>/s.exec(of.text)![1]

describe('1,000 generated edits of the demo’s pages', () => {
  it('give the words that were wanted, change no other byte, bring no parse error', () => {
    const counts = noEdits()
    const chance = new Chance(20261126)
    while (counts.edits < 1000) tryTextEdits(chance.one(pages), chance, 4, counts)
    expect(counts.problems).toEqual([])
    expect(counts.refused).toBeLessThan(10)
    expect(counts.editable / counts.words).toBeGreaterThan(0.98)
  })
  it.each([
    'windows-1252',
    'iso-8859-2',
    'windows-1251',
    'shift_jis',
    'euc-jp',
    'gbk',
    'big5',
    'euc-kr',
    'utf-16le',
  ])('in %s too', (encoding) => {
    const counts = noEdits()
    const chance = new Chance(7)
    const html = page(
      '<main><h1>The caf&eacute; at the point</h1><p>One <b>bold</b> word and <a href="x">a link</a>, then more.</p><ul><li>first<li>second</ul></main>',
      `<meta charset="${encoding}">`,
    )
    const bytes =
      encoding === 'utf-16le'
        ? Uint8Array.from([
            0xff,
            0xfe,
            ...[...html].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
          ])
        : encode(html, encoding, (c) => `&#${c.codePointAt(0)};`)
    tryTextEdits(bytes, chance, 150, counts)
    expect(counts.edits).toBeGreaterThan(100)
    expect(counts.problems).toEqual([])
  })
})

describe('a block', () => {
  it('that is edited beside a link that moves and a heading that changes keeps to itself', () => {
    const of = source(page('<h2>Old</h2><p>See <a href="b.html">the guide</a> now.</p>'))
    const key = keyOf(of, 'See the guide now.')
    const heading = `heading@${pageText(of).blocks[0]!.byte}`
    const proof = applyDraft(of, {
      [key]: { value: 'Read the guide today.' },
      [heading]: { level: 3, value: 'New' },
    })
    expect(proof.refused).toEqual([])
    expect(body(proof.source)).toBe('<h3>New</h3><p>Read <a href="b.html">the guide</a> today.</p>')
  })
  it('has links that follow pages that move, though they were put in before', () => {
    const of = source(page('<p>the guide</p>'))
    const base = 'https://s.example/'
    const moves = movesOf(['a.html', 'b.html'], new Map([['b.html', { value: 'guide' }]]), base)
    const proof = applyDraft(
      of,
      { [keyOf(of, 'the guide')]: { links: [{ phrase: 'guide', nth: 0, href: '/b.html' }] } },
      pageMovesFor('a.html', moves, base),
    )
    expect(body(proof.source)).toBe('<p>the <a href="/guide.html">guide</a></p>')
  })
  it('of a page that declares no encoding is written in ASCII', () => {
    const of = source(page('<p>coffee</p>', ''))
    expect(body(applyDraft(of, { [keyOf(of, 'coffee')]: { value: 'café' } }).source)).toBe('<p>caf&#233;</p>')
  })
  it('goes with its line, and takes the list that it would leave empty along', () => {
    const of = source(page('\n<p>one</p>\n<ul>\n  <li>two</li>\n</ul>\n<p>three</p>\n'))
    expect(body(applyDraft(of, { [keyOf(of, 'one')]: { remove: true } }).source)).toBe(
      '\n<ul>\n  <li>two</li>\n</ul>\n<p>three</p>\n',
    )
    expect(body(applyDraft(of, { [keyOf(of, 'two')]: { remove: true } }).source)).toBe(
      '\n<p>one</p>\n<p>three</p>\n',
    )
  })
  it.each([
    ['<table><tr><td>cell</td><td>b</td></tr></table>', 'cell', /part of a table/],
    ['<dl><dt>term</dt><dd>what</dd></dl>', 'what', /list of terms/],
    ['<p>open<p>closing</p>', 'closing', /never closed/],
  ])('that the rest needs does not go: %s', (html, text, why) => {
    const of = source(page(html))
    expect(applyDraft(of, { [keyOf(of, text)]: { remove: true } }).refused[0]!.why).toMatch(why)
  })
  it('that is no longer there is refused', () => {
    expect(applyDraft(source(page('<p>x</p>')), { 'text@3': { value: 'y' } }).refused[0]!.why).toMatch(
      /no longer in the source/,
    )
  })
  it('of a heading in several pieces of mark-up changes as other text does', () => {
    const of = source(page('<h1>The <em>old</em> light <b>here</b></h1>'))
    const key = `heading@${pageText(of).blocks[0]!.byte}`
    const proof = applyDraft(of, { [key]: { value: 'A new light there' } })
    expect(proof.refused).toEqual([])
    const items = pageText(proof.source).blocks[0]!.items()
    expect(items.ok && textOf(shownOf(items.items.items))).toBe('A new light there')
  })
})
