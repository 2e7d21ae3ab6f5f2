/** parse5's own location info is the reference for every place that the cheaper parse records. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { parse, type DefaultTreeAdapterTypes } from 'parse5'
import { describe, expect, it } from 'vitest'
import { soup } from '../../../tests/fixtures/soup.ts'
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

describe('places of tags', () => {
  it('are parse5’s own, on every page of the demo', () => {
    const folder = join(import.meta.dirname, '../../../stand-ins/site')
    const pages = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((p) =>
      p.endsWith('.html'),
    )
    expect(pages.length).toBeGreaterThan(35)
    for (const page of pages) {
      const text = readFileSync(join(folder, page), 'utf8')
      expect(ours(text)).toEqual(theirs(text))
    }
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
