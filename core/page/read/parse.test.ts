/** parse5's own location info is the reference for every place that the cheaper parse records. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { parse, type DefaultTreeAdapterTypes } from 'parse5'
import { describe, expect, it } from 'vitest'
import { malformed } from '../../../tests/fixtures/malformed.ts'
import { soup } from '../../../tests/fixtures/soup.ts'
import { differenceOfParses } from '../../../tests/fixtures/two-parses.ts'
import { isElement, parsePage, type Element, type Node } from './parse.ts'

type Shape = [string, number, number, number | null, number | null][]

/** The html and body elements stay open to the end of the parse, so their end tags are not recorded. */
const staysOpen = (tag: string) => tag === 'html' || tag === 'body'

function ours(text: string): Shape {
  const out: Shape = []
  const walk = (nodes: Node[]) => {
    for (const node of nodes)
      if (isElement(node)) {
        const p = (node as Element).place
        if (p) out.push([node.tagName, p.start, p.startEnd, p.endStart, p.end])
        walk(node.childNodes)
      }
  }
  walk(parsePage(text).document.childNodes)
  return out
}

function theirs(text: string): Shape {
  const out: Shape = []
  const walk = (nodes: DefaultTreeAdapterTypes.ChildNode[]) => {
    for (const node of nodes)
      if ('tagName' in node) {
        const l = node.sourceCodeLocation
        if (l) {
          const start = l.startTag ?? l
          out.push([
            node.tagName,
            start.startOffset,
            start.endOffset,
            staysOpen(node.tagName) ? null : (l.endTag?.startOffset ?? null),
            staysOpen(node.tagName) ? null : (l.endTag?.endOffset ?? null),
          ])
        }
        walk(node.childNodes)
      }
  }
  walk(parse(text, { sourceCodeLocationInfo: true }).childNodes)
  return out
}

const folder = join(import.meta.dirname, '../../../stand-ins/site')
const demo = readdirSync(folder, { recursive: true, encoding: 'utf8' })
  .filter((p) => p.endsWith('.html'))
  .map((p) => readFileSync(join(folder, p), 'utf8'))

describe('places of tags', () => {
  it('are parse5’s own, on every page of the demo', () => {
    expect(demo.length).toBeGreaterThan(35)
    for (const text of demo) expect(ours(text)).toEqual(theirs(text))
  })
  it('are parse5’s own, on whatever is thrown at it', () => {
    fc.assert(
      fc.property(soup, (text) => {
        expect(ours(text)).toEqual(theirs(text))
      }),
      { numRuns: 2000 },
    )
  })
  it('of comments are parse5’s own, and parse errors carry the standard’s codes', () => {
    const { comments, errors } = parsePage('<!doctype html>\n<!-- one --><p id=a id=b><!--two')
    expect(comments).toEqual([
      { text: ' one ', start: 16, end: 28 },
      { text: 'two', start: 41, end: 49 },
    ])
    // Source: WHATWG HTML 13.2.2, parse errors.
    expect(errors.map((e) => e.code)).toEqual(
      expect.arrayContaining(['duplicate-attribute', 'eof-in-comment']),
    )
  })
})

describe('the scanner', () => {
  it('takes nearly every page of the demo, and gives what parse5’s tokenizer gives', () => {
    const differences = demo.map(differenceOfParses)
    expect(differences.filter((d) => d !== null && d !== 'not scanned')).toEqual([])
    expect(differences.filter((d) => d === 'not scanned').length).toBeLessThanOrEqual(1)
  })
  it('gives the same on malformed pages, or leaves them to parse5', () => {
    const differences = Object.entries(malformed).map(([name, text]) => [name, differenceOfParses(text)])
    expect(differences.filter(([, found]) => found !== null && found !== 'not scanned')).toEqual([])
    expect(differences.filter(([, found]) => found === null).length).toBeGreaterThan(25)
  })
  it('gives the same on whatever is thrown at it, or leaves it to parse5', () => {
    let scanned = 0
    fc.assert(
      fc.property(soup, (text) => {
        const difference = differenceOfParses(text)
        if (difference === null) scanned++
        return difference === null || difference === 'not scanned'
      }),
      { numRuns: 2000 },
    )
    expect(scanned).toBeGreaterThan(500)
  })
  it.each([
    ['an unfinished reference', '<p title="a&ampb&amp=c&copy">x &copy y &notit; &#x80; &#0; &#; &foo;'],
    ['a sign that opens nothing, among references', '<p>1 < 2 & 3 &lt 4 < 5 &ampx <'],
    ['the same in the middle', '<p>1 < 2 & 3 &lt 4 < 5 &ampx <b>'],
    ['values without quotation marks', '<p a=x"y&amp<z b=`c d = e/f>'],
    ['repeated and odd attributes', '<p a=1 A=2 b"c <d =e / f=g/>'],
    ['control characters', '<p \x81 a\x02="\x1b">\x80 < \x7f</p\x05>'],
    ['end tags that say too much', '</p a=b></p/></p a/></></ x></1>'],
    ['declarations', '<!DOCTYPE html PUBLIC "-//x//EN"><!x><!-- -- --><?php ?><![CDATA[x]]><!-->'],
    ['a comment in a table', '<table> <!-- once --> <tr><td>x'],
    [
      'raw text',
      '<title>a &lt; <b></title><style><p></style ><script><!-- </script><textarea>\n\nx</textarea>',
    ],
    ['pairs of surrogates, and halves', '<p>😀</p>\ud800<p>\u{1ffff}'],
  ])('%s', (_, text) => {
    expect(differenceOfParses(`<!doctype html>${text}<p>end`)).toBeOneOf([null, 'not scanned'])
  })
})
