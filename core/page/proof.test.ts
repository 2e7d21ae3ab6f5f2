/** Invariants 1 and 2: nothing outside an edit changes, whatever the encoding, line ends and quoting. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Draft } from './edits/draft.ts'
import { encode } from './source/encoding.ts'
import { descriptionOf, titleOf, canonicalOf } from './read/facts.ts'
import { soup } from '../../tests/fixtures/soup.ts'
import { applyDraft, toProofByte, toSourceByte } from './proof.ts'
import { readPage } from './read/read-page.ts'
import { readSource, type Source } from './source/source.ts'

const where = { path: 'p.html', url: 'https://site.example/p.html' }
function source(input: string | Uint8Array): Source {
  const result = readSource(typeof input === 'string' ? new TextEncoder().encode(input) : input)
  if (!result.ok) throw new Error(result.why)
  return result.source
}
const apply = (html: string, draft: Draft) => applyDraft(source(html), draft)
const textOf = (html: string, draft: Draft) => apply(html, draft).source.text
const facts = (s: Source) => readPage(s, where)
const at = (html: string, part: string) => new TextEncoder().encode(html.slice(0, html.indexOf(part))).length

/** The bytes of the proof with each change put back. */
function undone(before: Source, draft: Draft): Uint8Array {
  const { source: after, changes } = applyDraft(before, draft)
  const out: number[] = []
  let read = 0
  for (const c of changes) {
    out.push(...after.bytes.subarray(read, c.at), ...before.bytes.subarray(c.from, c.to))
    read = c.until
  }
  out.push(...after.bytes.subarray(read))
  return Uint8Array.from(out)
}

const value = fc.oneof(
  fc.string(),
  fc.string({ unit: 'grapheme' }),
  fc.constantFrom('</title><script>', '"><img>', "it's & <b>", 'a\nb', '&amp;', '€ 😀', ' x '),
)
const drafts = fc.record(
  {
    title: fc.record({ value }),
    'meta:description': fc.record({ value }),
    canonical: fc.record({ value }),
    'meta:robots': fc.record({ value }),
    lang: fc.constant({ value: 'en-GB' }),
  },
  { requiredKeys: [] },
)

describe('applyDraft', () => {
  it('of an empty draft is the source, byte for byte (1)', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1 }), (bytes) => {
        const read = readSource(bytes)
        if (read.ok) expect(applyDraft(read.source, {}).source.bytes).toBe(bytes)
      }),
    )
  })
  it('changes no byte outside its changes, and is the same when applied to its own proof (2)', () => {
    fc.assert(
      fc.property(
        soup.filter((t) => t !== ''),
        drafts,
        fc.constantFrom('utf-8', 'windows-1252', 'euc-kr', 'bom'),
        (html, draft, encoding) => {
          const named =
            encoding === 'bom' ? '\ufeff' + html : encoding === 'utf-8' ? html : html + `<!--${encoding}-->`
          const before = source(
            encoding === 'bom' ? new TextEncoder().encode(named) : encode(named, encoding, () => '?'),
          )
          expect(Buffer.compare(undone(before, draft), before.bytes)).toBe(0)
          const once = applyDraft(before, draft)
          const again = applyDraft(
            once.source,
            Object.fromEntries(Object.entries(draft).filter(([k]) => !once.refused.some((r) => r.key === k))),
          )
          if (once.refused.length === 0) expect(Buffer.compare(again.source.bytes, once.source.bytes)).toBe(0)
        },
      ),
      { numRuns: 1500 },
    )
  })
  it('writes what reads back as what was typed, whatever was typed, and nothing else', () => {
    const pages = [
      '<!doctype html><html><head><title>Old</title><meta name="description" content="old"><link rel=canonical href=/old></head><body><h1>H</h1>',
      "<head><meta name='description' content='it&#39;s'></head>",
      '<meta name=description content=x><title>a</title><p>b',
      '<meta name=description><link rel=canonical>',
      'just text',
      '<!doctype html>\r\n<html>\r\n<body>\r\n<p>x',
      '<head><div>spilled</div><title>in the body</title></head>',
    ]
    fc.assert(
      fc.property(fc.constantFrom(...pages), drafts, (html, draft) => {
        const proof = apply(html, draft)
        const [before, after] = [facts(source(html)), facts(proof.source)]
        const shown = (v: string) =>
          v
            .replaceAll('\0', '')
            .toWellFormed()
            .replace(/[ \t\n\f\r]+/g, ' ')
            .trim()
        const refused = new Set(proof.refused.map((r) => r.key))
        if (draft.title && !refused.has('title')) expect(titleOf(after)?.text).toBe(shown(draft.title.value))
        else expect(titleOf(after)?.text).toBe(titleOf(before)?.text)
        if (draft['meta:description'])
          expect(descriptionOf(after)?.content).toBe(shown(draft['meta:description'].value))
        else expect(descriptionOf(after)?.content).toBe(descriptionOf(before)?.content)
        if (draft.canonical) expect(canonicalOf(after)?.href).toBe(shown(draft.canonical.value))
        expect(Array.from(after.headings, (h) => h.text)).toEqual(Array.from(before.headings, (h) => h.text))
        expect(after.main.text).toBe(before.main.text)
      }),
      { numRuns: 1500 },
    )
  })
  it('keeps the quoting that is there, quotes what is unquoted, adds what is absent', () => {
    const d: Draft = { 'meta:description': { value: `a "b" 'c' & d` } }
    expect(textOf(`<meta name="description" content="x">`, d)).toBe(
      `<meta name="description" content="a &quot;b&quot; 'c' &amp; d">`,
    )
    expect(textOf(`<meta name='description' content='x'>`, d)).toBe(
      `<meta name='description' content='a "b" &#39;c&#39; &amp; d'>`,
    )
    expect(textOf(`<meta name=description content=x>`, d)).toBe(
      `<meta name=description content="a &quot;b&quot; 'c' &amp; d">`,
    )
    expect(textOf(`<META NAME=description />`, d)).toBe(
      `<META NAME=description content="a &quot;b&quot; 'c' &amp; d" />`,
    )
  })
  it('inserts in the head with the lines and line ends of its neighbours', () => {
    const d: Draft = { title: { value: 'T' } }
    expect(textOf('<head>\r\n  <meta charset=utf-8>\r\n</head>', d)).toBe(
      '<head>\r\n  <meta charset=utf-8>\r\n  <title>T</title>\r\n</head>',
    )
    expect(textOf('<html>\n<head></head>', d)).toBe('<html>\n<head><title>T</title>\n</head>')
    expect(textOf('<!doctype html>\n<p>x', d)).toBe('<!doctype html>\n<title>T</title>\n<p>x')
    expect(textOf('<p>x', d)).toBe('<title>T</title>\n<p>x')
    expect(textOf('<head><div>spill</div><meta name=a content=b></head>', d)).toBe(
      '<head>\n<title>T</title><div>spill</div><meta name=a content=b></head>',
    )
  })
  it('writes numeric references for what the page’s encoding lacks', () => {
    const page = encode('<meta charset=iso-8859-1><title>x</title>é', 'windows-1252', () => '?')
    const proof = applyDraft(source(page), { title: { value: 'Ωé–' } })
    expect(Buffer.from(proof.source.bytes).toString('latin1')).toBe(
      '<meta charset=iso-8859-1><title>&#937;é\x96</title>é',
    )
  })
  it('edits UTF-16 in its own units, and says why it does not edit ISO-2022-JP', () => {
    const page = Uint8Array.from([0xff, 0xfe, ...encode('<title>x</title>é', 'utf-16le', () => '?')])
    expect(applyDraft(source(page), { title: { value: 'ø' } }).source.text).toBe('<title>ø</title>é')
    const refused = applyDraft(source('<meta charset=iso-2022-jp><title>x</title>'), {
      title: { value: 'y' },
    })
    expect(refused.changes).toEqual([])
    expect(refused.refused[0]!.why).toMatch(/Save it as UTF-8/)
  })
  it('refuses what is uncertain and what overlaps, and lets the rest stand', () => {
    expect(apply('<title>never closed', { title: { value: 'x' } }).refused[0]!.why).toMatch(/never closed/)
    const html = '<h1>a</h1><h1>b</h1><h2>c'
    const proof = apply(html, {
      [`heading@${at(html, '<h1>a')}`]: { merge: [at(html, '<h1>b')] },
      [`heading@${at(html, '<h1>b')}`]: { remove: true },
      [`heading@${at(html, '<h2>c')}`]: { level: 3 },
      'heading@9999': { level: 2 },
    })
    expect(proof.source.text).toBe('<h1><span>a</span> <span>b</span></h1><h2>c')
    expect(proof.refused.map((r) => r.why)).toEqual([
      expect.stringMatching(/same place/),
      expect.stringMatching(/no end tag/),
      expect.stringMatching(/no longer/),
    ])
  })
  it('changes a heading’s words within its markup, or says that it cannot', () => {
    const html = '<h2 class=x>The <a href=b>fog &amp; horn</a> of 1861</h2>'
    const key = 'heading@0'
    expect(textOf(html, { [key]: { value: 'The fog & bell of 1861' } })).toBe(
      '<h2 class=x>The <a href=b>fog &amp; bell</a> of 1861</h2>',
    )
    expect(textOf(html, { [key]: { value: 'The fog & horn of 1987' } })).toBe(
      '<h2 class=x>The <a href=b>fog &amp; horn</a> of 1987</h2>',
    )
    expect(textOf(html, { [key]: { level: 3, value: 'A fog & horn of 1861' } })).toBe(
      '<h3 class=x>A <a href=b>fog &amp; horn</a> of 1861</h3>',
    )
    expect(textOf(html, { [key]: { value: 'Something else' } })).toBe(
      '<h2 class=x><a href=b>Something else</a></h2>',
    )
    const two = '<h2>One <a href=b>two</a> three <a href=c>four</a></h2>'
    expect(apply(two, { [key]: { value: 'New words' } }).refused[0]!.why).toMatch(/several pieces/)
    expect(textOf('<h2>Lamps<a href="#l">¶</a></h2>', { [key]: { value: 'Lamp rooms' } })).toBe(
      '<h2>Lamp rooms<a href="#l">¶</a></h2>',
    )
    expect(textOf('<h2></h2>', { [key]: { value: 'a < b' } })).toBe('<h2>a &lt; b</h2>')
  })
  it('makes JSON-LD safe within its script element', () => {
    const html = '<script type="application/ld+json">{}</script>'
    const proof = apply(html, { 'jsonld@0': { value: '{"a":"</script><!--\u2028"}' } })
    expect(proof.source.text).toBe(
      '<script type="application/ld+json">{"a":"\\u003c/script>\\u003c!--\\u2028"}</script>',
    )
  })
  it('maps places between source and proof', () => {
    const { changes } = apply('<title>abc</title><p>x', { title: { value: 'abcdef' } })
    expect(toProofByte(changes, 20)).toBe(23)
    expect(toSourceByte(changes, 23)).toBe(20)
    expect(toSourceByte(changes, 5)).toBe(5)
  })
})
