/** New blocks behind blocks of text, through the proof: they read as typed, stand where they may, and nothing else changes. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { noInsertions, tryInsertions } from '../../../tests/fixtures/new-blocks.ts'
import { Chance } from '../../../tests/fuzz/fuzz.ts'
import { isPagePath } from '../../addresses/addresses.ts'
import { applyDraft } from '../proof.ts'
import { encode } from '../source/encoding.ts'
import { readSource, type Source } from '../source/source.ts'
import type { NewBlock } from '../text/insertion.ts'
import { pageText } from '../text/page-text.ts'

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
const page = (body: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>x</title></head><body>${body}</body></html>`
const bodyOf = (of: Source) => /<body>(.*)<\/body>/s.exec(of.text)![1]
const byteOf = (of: Source, text: string) => pageText(of).blocks.find((b) => b.block.text === text)!.byte

/** The body with blocks put behind the one that reads `after`, or why not. */
function put(body: string, after: string, ...blocks: Omit<NewBlock, 'id'>[]): string {
  const of = source(page(body))
  const edit = { blocks: blocks.map((b, i) => ({ ...b, id: `a${i}` })) }
  const proof = applyDraft(of, { [`after@${byteOf(of, after)}`]: edit })
  return proof.refused[0]?.why ?? bodyOf(proof.source)!
}

describe('600 generated insertions', () => {
  it('into the demo’s pages read as typed, change no other byte, bring no parse error', () => {
    const counts = noInsertions()
    const chance = new Chance(20261126)
    while (counts.put + counts.refused < 600) tryInsertions(chance.one(pages), chance, 4, counts)
    expect(counts.problems).toEqual([])
    expect(counts.put).toBeGreaterThan(300)
  })
  it.each(['windows-1252', 'shift_jis', 'gbk', 'euc-kr', 'utf-16le'])('in %s too', (encoding) => {
    const html = page(
      '<main>\n<h1>Caf&eacute;</h1>\n<p>One <b>bold</b> word</p>\n<ul>\n  <li>first\n  <li>second\n</ul></main>',
    ).replace('utf-8', encoding)
    const bytes =
      encoding === 'utf-16le'
        ? Uint8Array.from([
            0xff,
            0xfe,
            ...[...html].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
          ])
        : encode(html, encoding, (c) => `&#${c.codePointAt(0)};`)
    const counts = noInsertions()
    tryInsertions(bytes, new Chance(3), 60, counts)
    expect(counts.problems).toEqual([])
    expect(counts.put).toBeGreaterThan(20)
  })
})

describe('a new block', () => {
  it('has a line of its own where the one before it has, and its siblings’ class and case', () => {
    expect(put('\n  <p class="t">one</p>\n  <p class="t">two</p>\n', 'one', { kind: 'p', text: 'new' })).toBe(
      '\n  <p class="t">one</p>\n  <p class="t">new</p>\n  <p class="t">two</p>\n',
    )
    expect(put('<P>one</P><P>two</P>', 'one', { kind: 'p', text: 'a < b' })).toBe(
      '<P>one</P><P>a &lt; b</P><P>two</P>',
    )
  })
  it('is an entry of the list, also where entries are not closed', () => {
    expect(put('<ul>\n<li>one\n<li>two\n</ul>', 'one', { kind: 'li', text: 'new' })).toBe(
      '<ul>\n<li>one\n<li>new</li>\n<li>two\n</ul>',
    )
  })
  it('stands behind the list when it follows the last entry, and is refused in its middle', () => {
    expect(put('<ul><li>one</li><li>two</li></ul>', 'two', { kind: 'p', text: 'new' })).toBe(
      '<ul><li>one</li><li>two</li></ul><p>new</p>',
    )
    expect(put('<ul><li>one</li><li>two</li></ul>', 'one', { kind: 'p', text: 'new' })).toMatch(
      /middle of a list/,
    )
  })
  it('is not put into tables', () => {
    expect(put('<table><tr><td>cell</td></tr></table>', 'cell', { kind: 'p', text: 'new' })).toMatch(
      /into a table/,
    )
  })
  it('stands beside the removal of the one before it', () => {
    const of = source(page('\n<p>one</p>\n<p>two</p>\n'))
    const at = byteOf(of, 'one')
    const proof = applyDraft(of, {
      [`text@${at}`]: { remove: true },
      [`after@${at}`]: { blocks: [{ id: 'a1', kind: 'p', text: 'new' }] },
    })
    expect(proof.refused).toEqual([])
    expect(bodyOf(proof.source)).toBe('\n<p>new</p>\n<p>two</p>\n')
  })
})

describe('a question', () => {
  const asked = { kind: 'question', text: 'How long?', answer: 'An hour.' } as const
  it('is written as the page writes its own', () => {
    expect(put('<details><summary>Who?</summary><p>We.</p></details>', 'We.', asked)).toBe(
      '<details><summary>Who?</summary><p>We.</p></details><details><summary>How long?</summary><p>An hour.</p></details>',
    )
    expect(put('<dl><dt>Who?</dt><dd>We.</dd><dt>When?</dt><dd>Now.</dd></dl>', 'Who?', asked)).toBe(
      '<dl><dt>Who?</dt><dd>We.</dd><dt>How long?</dt><dd>An hour.</dd><dt>When?</dt><dd>Now.</dd></dl>',
    )
    expect(put('<h1>T</h1><h2>Who?</h2><p>We.</p>', 'We.', asked)).toBe(
      '<h1>T</h1><h2>Who?</h2><p>We.</p><h2>How long?</h2><p>An hour.</p>',
    )
  })
  it('is a heading below the one that it stands under, where the page has no questions', () => {
    expect(put('<h1>T</h1><p>text</p>', 'text', asked)).toBe(
      '<h1>T</h1><p>text</p><h2>How long?</h2><p>An hour.</p>',
    )
  })
})

describe('a link that is taken away', () => {
  it('leaves its words, and what else is changed in the block is changed', () => {
    const of = source(page('<p>See <a href="b.html">the <b>guide</b></a> now.</p>'))
    const at = byteOf(of, 'See the guide now.')
    const link = of.text.indexOf('<a ')
    const proof = applyDraft(of, { [`text@${at}`]: { unlink: [link], value: 'See the guide today.' } })
    expect(proof.refused).toEqual([])
    expect(bodyOf(proof.source)).toBe('<p>See the <b>guide</b> today.</p>')
  })
  it('stays where something may lead to it', () => {
    const of = source(page('<p>See <a id="x" href="b.html">it</a>.</p>'))
    const proof = applyDraft(of, { [`text@${byteOf(of, 'See it.')}`]: { unlink: [of.text.indexOf('<a ')] } })
    expect(proof.refused[0]!.why).toMatch(/id or name/)
  })
})
