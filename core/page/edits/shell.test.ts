/** Edits of the shell and of lines that become headings or paragraphs: the bytes that change, and those that do not. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { soup } from '../../../tests/fixtures/soup.ts'
import { runExample } from '../../rules/examples.ts'
import { ruleOf } from '../../rules/runner.ts'
import { resolveRepair } from '../../rules/resolve.ts'
import type { Draft } from './draft.ts'
import { applyDraft } from '../proof.ts'
import { readPage } from '../read/read-page.ts'
import { readSource, type Source } from '../source/source.ts'
import { whyNotInHead } from './shell.ts'

function sourceOf(html: string): Source {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  return read.source
}
const apply = (html: string, draft: Draft) => applyDraft(sourceOf(html), draft)
const textOf = (html: string, draft: Draft) => apply(html, draft).source.text
const at = (html: string, part: string) => new TextEncoder().encode(html.slice(0, html.indexOf(part))).length
const why = (html: string, draft: Draft) => apply(html, draft).refused[0]?.why

describe('lines that become something else', () => {
  it('a heading a paragraph, a paragraph a heading: attributes and inner markup stay', () => {
    const html = '<p>é</p><H2 CLASS="x" id=y>The <i>horn</i></H2 ><div class="t">Price</div>'
    expect(textOf(html, { [`heading@${at(html, '<H2')}`]: { tag: 'p' } })).toBe(
      '<p>é</p><p CLASS="x" id=y>The <i>horn</i></p ><div class="t">Price</div>',
    )
    expect(textOf(html, { [`block@${at(html, '<div')}`]: { level: 2, value: 'Prices' } })).toBe(
      '<p>é</p><H2 CLASS="x" id=y>The <i>horn</i></H2 ><h2 class="t">Prices</h2>',
    )
  })
  it('a line under a heading its subtitle, in the hgroup that is there or in a new one', () => {
    const html = '<header><h1>T</h1>\n<h2 class=s>Sub</h2></header>'
    expect(textOf(html, { [`heading@${at(html, '<h2')}`]: { hgroup: at(html, '<h1') } })).toBe(
      '<header><hgroup><h1>T</h1>\n<p class=s>Sub</p></hgroup></header>',
    )
    const inOne = '<hgroup><h1>T</h1><h2>Sub</h2></hgroup>'
    expect(textOf(inOne, { [`heading@${at(inOne, '<h2')}`]: { hgroup: at(inOne, '<h1') } })).toBe(
      '<hgroup><h1>T</h1><p>Sub</p></hgroup>',
    )
    const apart = '<h1>T</h1><p>x</p><h2>Sub</h2>'
    expect(why(apart, { [`heading@${at(apart, '<h2')}`]: { hgroup: at(apart, '<h1') } })).toMatch(
      /something between/,
    )
  })
  it('is refused where it is uncertain', () => {
    expect(why('<p>never closed<div>x</div>', { 'block@0': { level: 2 } })).toMatch(/no end tag/)
    expect(why('<div><p>x</p></div>', { 'block@0': { level: 2 } })).toMatch(/not allowed in a heading/)
    expect(why('<section>x</section>', { 'block@0': { level: 2 } })).toMatch(/paragraph or a plain block/)
  })
})

describe('edits of the shell', () => {
  it('alternative texts, ids and addresses, in the quoting that is there', () => {
    const html = `<head><meta charset=utf-8><link rel=icon href='/i.svg'></head><p id=a>x</p><img src=b alt=''><img src=c>`
    expect(
      textOf(html, {
        [`alt@${at(html, '<img src=b')}`]: { value: 'It’s “5 < 6”' },
        [`alt@${at(html, '<img src=c')}`]: { value: 'The lamp' },
        [`id@${at(html, '<p')}`]: { value: 'b' },
        [`link@${at(html, '<link')}`]: { value: '/j.svg' },
      }),
    ).toBe(
      `<head><meta charset=utf-8><link rel=icon href='/j.svg'></head><p id="b">x</p><img src=b alt='It’s “5 < 6”'><img src=c alt="The lamp">`,
    )
    expect(textOf(html, { [`alt@${at(html, '<img src=b')}`]: { remove: true } })).toBe(
      html.replace(" alt=''", ''),
    )
  })
  it('comments go with their line; one that is never closed stays', () => {
    expect(textOf('<p>a</p>\n  <!-- TODO -->\n<p>b</p>', { 'comment@11': { remove: true } })).toBe(
      '<p>a</p>\n<p>b</p>',
    )
    expect(textOf('<p>a<!-- x -->b</p>', { 'comment@4': { remove: true } })).toBe('<p>ab</p>')
    expect(why('<p>a<!-- x', { 'comment@4': { remove: true } })).toMatch(/never closed/)
  })
  it('a doctype, a language and an encoding come in their order', () => {
    expect(
      textOf('<p>x', { charset: { value: 'utf-8' }, lang: { value: 'en' }, doctype: { value: 'html' } }),
    ).toBe('<!doctype html>\n<html lang="en">\n<meta charset="utf-8">\n<p>x')
  })
  it('a link past the menu leads to the main content, which gets an id where it has none', () => {
    const html = '<body>\n<nav id=main>x</nav><main class=m>y</main></body>'
    expect(textOf(html, { skip: { value: 'Skip to main content' } })).toBe(
      '<body>\n<a href="#content">Skip to main content</a>\n<nav id=main>x</nav><main class=m id="content">y</main></body>',
    )
    expect(why('<body><p>x</body>', { skip: { value: 'x' } })).toMatch(/no main element/)
  })
  it('code is added at the end of the head as it is, and refused where it would close it', () => {
    const link = '<link rel="icon" href="/i.svg">'
    expect(textOf('<head><title>x</title></head>', { 'new:code': { value: link } })).toBe(
      `<head><title>x</title>${link}</head>`,
    )
    expect(whyNotInHead('<script>if (a < b) document.write("<div>")</script>')).toBeNull()
    expect(whyNotInHead('<meta name=a content=b>\n<!-- c -->')).toBeNull()
    expect(whyNotInHead('<div>x</div>')).toMatch(/<div> is not allowed in the head/)
    expect(whyNotInHead('text')).toMatch(/is text/)
    expect(whyNotInHead('<script>x')).toMatch(/opened and not closed/)
    expect(whyNotInHead('<!-- x')).toMatch(/never closed/)
  })
})

/** The ids whose repairs, certain or to be judged, change the body or the shell. */
const repairing = [
  'h1-split',
  'heading-skip',
  'heading-empty',
  'heading-furniture',
  'heading-subtitle',
  'heading-role',
  'heading-look-alike',
  'shell-doctype',
  'shell-viewport',
  'shell-skip-link',
  'shell-comment',
]

describe('on any page, however broken', () => {
  const heads = fc.constantFrom(
    '',
    '<!doctype html>',
    '<!doctype html><html lang=en><head><title>x</title></head><body>',
  )
  const lines = fc
    .array(
      fc.constantFrom(
        '<h1>One</h1>',
        '<h1> </h1>',
        '<h2>Two <em>and</em></h2>',
        '<h4 class="t">Four</h4>',
        '<h2></h2>',
        '<h3>Open',
        '</h3>',
        '<nav><h3>Menu</h3>',
        '</nav>',
        '<header>',
        '</header>',
        '<p><b>Bold line</b></p>',
        '<div class="card-title">Card</div>',
        '<p>text ',
        '</p>',
        '<div role=heading>R</div>',
        '<!-- TODO x -->',
        '<main>',
        '</main>',
        '<table><tr><td>',
        '</table>',
        '<b><i>x</b></i>',
        '<frameset>',
        'é ',
        '\r\n',
        '<a href="#x">x</a>',
        '<meta name=viewport content="user-scalable=no, width=1">',
      ),
      { maxLength: 24 },
    )
    .map((p) => p.join(''))
  it('a repair takes its mark away or is refused with a reason, brings no blocker, and changes no other byte', () => {
    fc.assert(
      fc.property(heads, lines, (head, body) => {
        const html = head + body
        for (const id of repairing) {
          const run = runExample(html, ruleOf(id))
          const mark = run.marks.find((m) => m.repair)
          if (!mark) continue
          const source = sourceOf(html === '' ? '<p>' : html)
          const { edits } = resolveRepair({ source, changes: [], refused: [] }, mark.repair!)!
          const proof = applyDraft(source, edits)
          let rest = 0
          for (const c of proof.changes) rest += c.until - c.at - (c.to - c.from)
          expect(proof.source.bytes.length).toBe(source.bytes.length + rest)
          let from = 0
          let to = 0
          for (const c of proof.changes) {
            expect(
              Buffer.compare(source.bytes.subarray(from, c.from), proof.source.bytes.subarray(to, c.at)),
            ).toBe(0)
            from = c.to
            to = c.until
          }
          expect(Buffer.compare(source.bytes.subarray(from), proof.source.bytes.subarray(to))).toBe(0)
          if (proof.refused.length > 0) {
            for (const r of proof.refused) expect(r.why.length).toBeGreaterThan(20)
            continue
          }
          const after = runExample(proof.source.text, ruleOf(id))
          expect(after.marks.length, `${id} on ${html}`).toBeLessThan(run.marks.length)
          const blockers = (text: string) =>
            runExample(text)
              .marks.filter((m) => m.severity === 'blocker')
              .map((m) => m.rule)
          const had = blockers(html)
          for (const b of blockers(proof.source.text))
            expect(had, `${id} brought ${b} on ${html}`).toContain(b)
        }
      }),
      { numRuns: 400 },
    )
  })
  it('reading never throws; every place lies in the page and every heading in its place', () => {
    fc.assert(
      fc.property(fc.oneof(soup, lines), (html) => {
        const page = readPage(sourceOf(html || 'x'), { path: 'a', url: 'https://s.example/a' })
        for (const list of [page.headings, page.lookAlikes, page.images, page.comments, page.ids, page.rels])
          for (const { start } of list as { start: number }[])
            expect(start).toBeLessThan(Math.max(1, html.length))
        for (const l of page.lookAlikes)
          expect(html.slice(l.start, l.start + 1 + l.tag.length)).toBe(`<${l.tag}`)
        for (const c of page.comments) expect(html.slice(c.start, c.start + 1)).toBe('<')
        expect(page.main.lead).toBeLessThanOrEqual(page.main.words + 1)
      }),
      { numRuns: 1500 },
    )
  })
  it('ten thousand nested elements are read and edited', () => {
    const html = `${'<div>'.repeat(10_000)}<h2>Deep</h2>${'</div>'.repeat(10_000)}<h4>x</h4>`
    const key = `heading@${at(html, '<h4')}`
    expect(textOf(html, { [key]: { tag: 'p' } })).toBe(html.replace('<h4>x</h4>', '<p>x</p>'))
  })
})
