/**
 * Edits and moves in every encoding that pages come in: byte for byte outside the edits, and what was meant when Chromium
 * reads the page back. Source: WHATWG Encoding Standard, 4.2 (encodings and their labels), as Chromium implements it.
 */
import { expect, test } from '@playwright/test'
import { pageMovesFor } from '../../core/work/page-proof.ts'
import { encode } from '../../core/page/source/encoding.ts'
import { applyDraft } from '../../core/page/proof.ts'
import { readSource } from '../../core/page/source/source.ts'
import { movesOf } from '../../core/site/moves.ts'
import { show } from '../fixtures/structure.ts'
import { encodings } from '../fuzz/fuzz.ts'

/** Letters of each script; in several East Asian encodings some have 5C, 7C or 60 as their second byte. */
const native: Record<string, string> = {
  shift_jis: 'ソ能表予十',
  'euc-jp': 'ソ能表予十',
  gbk: '灯塔俓乗',
  gb18030: '灯塔俓乗',
  big5: '功許蓋燈',
  'euc-kr': '등대한글',
  'windows-1251': 'маяк',
  'iso-8859-5': 'маяк',
  'koi8-r': 'маяк',
  'koi8-u': 'маяк',
  ibm866: 'маяк',
  'x-mac-cyrillic': 'маяк',
  'windows-1253': 'φάρος',
  'iso-8859-7': 'φάρος',
  'windows-1255': 'מגדל',
  'iso-8859-8': 'מגדל',
  'windows-1256': 'منارة',
  'iso-8859-6': 'منارة',
  'windows-874': 'ประภาคาร',
  'windows-1254': 'şığ',
  'windows-1257': 'ąžū',
  'windows-1258': 'đươ',
  'iso-8859-2': 'žřů',
  'windows-1250': 'žřů',
  'iso-8859-3': 'ĝĉŝ',
  'iso-8859-4': 'ķļņ',
  'iso-8859-10': 'ķļņ',
  'iso-8859-13': 'ķļņ',
  'iso-8859-14': 'ŵŷ',
  'iso-8859-15': '€œ',
  macintosh: 'éœ',
}
const BASE = 'https://pages.example/'
const moves = movesOf(['a.html', 'b.html', 'pic.png'], new Map([['b.html', { value: 'new-name' }]]), BASE)
const TITLE = 'A “new” title – Ω 灯 é'

// Nothing can be written in part into ISO-2022-JP: its meaning hangs on what stands before.
const editable = encodings.filter((e) => e !== 'iso-2022-jp')

test('edits and moves change their own bytes alone, and Chromium reads what was meant', async ({ page }) => {
  test.slow()
  for (const encoding of editable) {
    const own = native[encoding] ?? 'éüÆ'
    const wide = encoding.startsWith('utf-16')
    const html = `<!doctype html><html lang="en"><head><meta charset="${encoding}"><title>${own} old</title><style>p::before{content:"${own}";background:url(b.html)}</style><script type="application/ld+json">{"name":"${own}","url":"b.html"}</script></head><body><p style="--x:'${own}';background:url('b.html')">${own}</p><img srcset="pic.png 1x, b.html 2x" alt="${own}"><a href="b.html">${own}</a></body></html>`
    const body = encode(html, encoding, () => {
      throw new Error(`${encoding} cannot write its own letters`)
    })
    const bytes = wide
      ? Uint8Array.from([...(encoding.endsWith('le') ? [0xff, 0xfe] : [0xfe, 0xff]), ...body])
      : body
    const read = readSource(bytes)
    if (!read.ok) throw new Error(read.why)
    const { source, changes, refused } = applyDraft(
      read.source,
      { title: { value: TITLE }, 'meta:description': { value: TITLE } },
      pageMovesFor('a.html', moves, BASE),
    )
    expect(refused, encoding).toEqual([])
    expect(changes.length, encoding).toBeGreaterThan(5)
    // Byte for byte.
    let at = 0
    let from = 0
    for (const change of changes) {
      expect(
        Buffer.from(source.bytes.subarray(at, change.at)).equals(bytes.subarray(from, change.from)),
        encoding,
      ).toBe(true)
      at = change.until
      from = change.to
    }
    expect(Buffer.from(source.bytes.subarray(at)).equals(bytes.subarray(from)), encoding).toBe(true)
    // Read back.
    await show(page, `${BASE}a.html`, source.bytes)
    const seen = await page.evaluate(() => ({
      encoding: document.characterSet.toLowerCase(),
      title: document.title,
      description: document.querySelector('meta[name=description]')?.getAttribute('content'),
      style: document.querySelector('style')!.textContent,
      attribute: document.querySelector('p')!.getAttribute('style'),
      text: document.querySelector('p')!.textContent,
      srcset: document.querySelector('img')!.getAttribute('srcset'),
      alt: document.querySelector('img')!.getAttribute('alt'),
      link: document.querySelector('a')!.getAttribute('href'),
      data: JSON.parse(document.querySelector('script')!.textContent!) as unknown,
    }))
    expect(seen, encoding).toEqual({
      encoding,
      title: TITLE,
      description: TITLE,
      style: `p::before{content:"${own}";background:url(new-name.html)}`,
      attribute: `--x:'${own}';background:url('new-name.html')`,
      text: own,
      srcset: 'pic.png 1x, new-name.html 2x',
      alt: own,
      link: 'new-name.html',
      data: { name: own, url: 'new-name.html' },
    })
  }
})

test('what declares no encoding is written in ASCII, and reads as meant whatever the browser takes it for', async ({
  page,
}) => {
  const bytes = new TextEncoder().encode('<!doctype html><title>old</title><p>x')
  const read = readSource(bytes)
  if (!read.ok) throw new Error(read.why)
  const { source } = applyDraft(read.source, { title: { value: 'Æøå 灯' } })
  expect(source.bytes.every((byte) => byte < 0x80)).toBe(true)
  await show(page, `${BASE}a.html`, source.bytes)
  expect(await page.title()).toBe('Æøå 灯')
})

test('a longer title never pushes the declaration where it comes too late', async ({ page }) => {
  const pad = `<!-- ${'x'.repeat(880)} -->`
  const html = `<!doctype html><html><head><title>old</title>${pad}<meta charset="shift_jis"></head><body>ソ能表</body></html>`
  const read = readSource(encode(html, 'shift_jis', () => '?'))
  if (!read.ok) throw new Error(read.why)
  expect(read.source.encoding).toBe('shift_jis')
  const value = `A title of ${'many '.repeat(40)}words`
  const { source, refused } = applyDraft(read.source, { title: { value } })
  await show(page, `${BASE}a.html`, source.bytes)
  expect(await page.evaluate(() => document.characterSet.toLowerCase())).toBe('shift_jis')
  expect(await page.evaluate(() => document.body.textContent)).toBe('ソ能表')
  expect(await page.title()).toBe(refused.length > 0 ? 'old' : value)
})
