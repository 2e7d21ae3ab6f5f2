import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { parse, type DefaultTreeAdapterTypes } from 'parse5'
import { readFetched, writeFetched } from './fetched-message.ts'
import type { ChangedPage } from './hand-off.ts'
import { writeWorksheet } from './worksheet.ts'

const page = (changes: ChangedPage['changes']): ChangedPage => ({
  id: 'p',
  path: 'a.html',
  url: 'https://s.example/a',
  state: 'drafted',
  changes,
  refused: [],
})

describe('the worksheet', () => {
  it('says every field that changed, and nothing of a page is markup in it (generated)', () => {
    const hostile = fc.oneof(
      fc.string(),
      fc.constantFrom('</pre><script>alert(1)</script>', '"><img src=x onerror=a>', '</title>', '&lt;', "'"),
    )
    fc.assert(
      fc.property(hostile, hostile, hostile, (site, before, after) => {
        const html = writeWorksheet({
          site,
          date: '2026-11-26',
          pages: [page([{ field: 'Title', before, after }])],
          redirects: [{ from: before, to: after, status: '301' }],
        })
        const elements: DefaultTreeAdapterTypes.Element[] = []
        const walk = (node: DefaultTreeAdapterTypes.Node) => {
          if ('tagName' in node) elements.push(node)
          if ('childNodes' in node) node.childNodes.forEach(walk)
        }
        walk(parse(html))
        expect(elements.filter((e) => e.tagName === 'script')).toHaveLength(1)
        expect(
          elements.some((e) => e.tagName === 'img' || e.attrs.some((a) => a.name.startsWith('on'))),
        ).toBe(false)
        const shown = elements.find((e) => e.tagName === 'pre')
        if (after !== '') expect(shown?.childNodes.length ?? 0).toBeLessThan(2)
      }),
    )
  })
})

describe('a page handed from the server to the browser', () => {
  it('arrives as it was sent (generated)', () => {
    fc.assert(
      fc.property(fc.uint8Array(), fc.string(), fc.boolean(), (body, said, ok) => {
        const message = ok
          ? {
              ok,
              url: 'https://s.example/',
              hops: [{ url: said, status: 301 }],
              status: 200,
              mediaType: said,
              charset: null,
              robots: [said],
              canonical: said,
              body,
            }
          : { ok, url: 'https://s.example/', hops: [], code: 'x', message: `m${said}` }
        expect(readFetched(writeFetched(message as never))).toEqual(message)
      }),
    )
  })
  it('that is anything else is nothing', () => {
    for (const bytes of [
      [],
      [0, 0, 0, 9],
      [255, 255, 255, 255, 1],
      [0, 0, 0, 2, 123, 125],
      [0, 0, 0, 1, 120],
    ])
      expect(readFetched(Uint8Array.from(bytes))).toBeNull()
  })
})
