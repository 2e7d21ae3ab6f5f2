/** Whole-page conformance: what the HTML standard says of content models, attributes and values (WHATWG HTML, chapter 4). */
import { describe, expect, it } from 'vitest'
import { conformanceOf } from '../../core/conformance/conformance.ts'

const page = (body: string) =>
  `<!doctype html>\n<html lang="en">\n<head><meta charset="utf-8"><title>A title</title></head>\n<body>\n${body}\n</body>\n</html>\n`
const rulesOf = async (body: string) => (await conformanceOf(page(body))).map((f) => [f.rule, f.line])

describe('conformance of a whole page', () => {
  it('finds nothing where nothing is wrong', async () => {
    expect(await conformanceOf(page('<main><h1>Tides</h1><p>Twice a day.</p></main>'))).toEqual([])
  })
  it.each([
    // 4.4.1: phrasing content only in a p.
    ['a block in a span', '<p><span><div>x</div></span></p>', 5],
    // 15.2: center is obsolete.
    ['an obsolete element', '<center>x</center>', 5],
    // 4.8.3: src is required.
    ['a missing attribute', '<p>\n<img alt="x">\n</p>', 6],
    // 4.10.5: type has a list of keywords.
    ['a value that is not in the list', '<p><input type="numbr" aria-label="x"></p>', 5],
  ])('finds %s, at its line', async (_, body, line) => {
    const found = await rulesOf(body)
    expect(found.length).toBeGreaterThan(0)
    expect(found[0]![1]).toBe(line)
  })
  it('says so where a page is too large or too deep, and never rejects', async () => {
    for (const html of ['<div>'.repeat(400), '<p>x</p>'.repeat(40_000), 'x'.repeat(2_000_001)])
      expect(await conformanceOf(html)).toEqual([
        expect.objectContaining({ rule: 'not-checked', message: expect.stringMatching(/too many to check/) }),
      ])
    for (const html of ['', '<', '\0', '<p <p>', '</'])
      expect(await conformanceOf(html)).toBeInstanceOf(Array)
  })
})
