/** Sheets as they come: RFC 4180, other separators and encodings, office files; nothing in them is run. */
import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import Papa from 'papaparse'
import { utils, write } from '@e965/xlsx'
import { recogniseColumns } from './columns.ts'
import { pagesOfSheet } from './pages-sheet.ts'
import { readSheet, writeCsv, writeOffice, type Sheet } from './sheet.ts'
import { readSuggestions } from './suggestions.ts'
import { writeZip } from './zip.ts'

const text = (s: string) => new TextEncoder().encode(s)
async function sheet(bytes: Uint8Array): Promise<Sheet> {
  const read = await readSheet(bytes)
  if (!read.ok) throw new Error(read.why)
  return read.sheet
}
const utf16 = (s: string) =>
  Uint8Array.from([0xff, 0xfe, ...[...s].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8])])

describe('a sheet of text', () => {
  // RFC 4180, 2: the definitions' own examples.
  it.each([
    ['each record on its line', 'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n', ['zzz', 'yyy', 'xxx']],
    ['the last without a line end', 'aaa,bbb,ccc\r\nzzz,yyy,xxx', ['zzz', 'yyy', 'xxx']],
    ['in double quotes', '"aaa","bbb","ccc"\r\nzzz,yyy,xxx', ['zzz', 'yyy', 'xxx']],
    ['with a line end in a cell', 'aaa,bbb,ccc\r\nzzz,"y\r\nyy",xxx', ['zzz', 'y\r\nyy', 'xxx']],
    ['with a double quote doubled', 'aaa,bbb,ccc\r\nzzz,"b""bb",xxx', ['zzz', 'b"bb', 'xxx']],
  ])('as RFC 4180 has it: %s', async (_, csv, row) => {
    expect(await sheet(text(csv))).toEqual({
      heading: ['aaa', 'bbb', 'ccc'],
      rows: [row],
      lines: expect.any(Array),
    })
  })
  it.each([
    ['semicolons', text('url;title\r\n/a;x, y'), 'x, y'],
    ['tabs', text('url\ttitle\r\n/a\tx, y'), 'x, y'],
    ['UTF-8 with a BOM', text('\ufeffurl,title\r\n/a,Färgen'), 'Färgen'],
    ['UTF-16', utf16('url,title\r\n/a,Färgen'), 'Färgen'],
    ['windows-1252', Uint8Array.from([...text('url,title\r\n/a,F'), 0xe4, ...text('rgen'), 0x80]), 'Färgen€'],
  ])('with %s', async (_, bytes, title) => {
    const { heading, rows } = await sheet(bytes)
    expect([heading, rows]).toEqual([['url', 'title'], [['/a', title]]])
  })
  it('counts lines as an editor does, empty ones among them', async () => {
    expect((await sheet(text('\r\nurl\r\n\r\n/a\r\n/b'))).lines).toEqual([4, 5])
  })
  it.each([
    ['', /empty/],
    [' \r\n,', /empty/],
    ['url\r\n"a', /double quote/],
  ])('that is none, %j, is refused with what to do', async (csv, why) => {
    expect(await readSheet(text(csv))).toMatchObject({ ok: false, why: expect.stringMatching(why) })
  })
})

describe('an office file', () => {
  const rows = [
    ['Page URL', 'Title', 'Words'],
    ['https://s.example/a', 'Tides & “times”', 412],
    ['https://s.example/b', '=1+1', null],
  ]
  it.each(['xlsx', 'ods'] as const)('comes back as it was written: %s', async (form) => {
    const { heading, rows: read } = await sheet(await writeOffice(rows, form))
    expect(heading).toEqual(rows[0])
    expect(read).toEqual([
      ['https://s.example/a', 'Tides & “times”', '412'],
      ['https://s.example/b', '=1+1', ''],
    ])
  })
  it('gives what its formulas came to, and runs none', async () => {
    const book = utils.book_new()
    const cells = utils.aoa_to_sheet([['url', 'title']])
    cells.A2 = { t: 's', v: 'https://s.example/', f: 'HYPERLINK("https://evil.example/")' }
    cells.B2 = { t: 'n', v: 2, f: '1+1' }
    cells['!ref'] = 'A1:B2'
    utils.book_append_sheet(book, cells, 'x')
    const bytes = new Uint8Array(write(book, { type: 'array', bookType: 'xlsx' }) as ArrayBuffer)
    expect((await sheet(bytes)).rows).toEqual([['https://s.example/', '2']])
  })
  it('that is a ZIP of something else, damaged, or swells beyond measure, is refused', async () => {
    const xlsx = await writeOffice(rows, 'xlsx')
    const bomb = writeZip([['xl/worksheets/sheet1.xml', new Uint8Array(80_000_000)]])
    for (const bytes of [
      writeZip([['a.html', text('<p>')]]),
      xlsx.subarray(0, xlsx.length / 2),
      bomb,
      Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0]),
    ])
      expect(await readSheet(bytes)).toMatchObject({ ok: false, why: expect.stringMatching(/\w{4}/) })
  })
  it('whose rows repeat without end is bounded', async () => {
    const content = `<?xml version="1.0"?><office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><office:body><office:spreadsheet><table:table table:name="x"><table:table-row><table:table-cell office:value-type="string"><text:p>url</text:p></table:table-cell></table:table-row><table:table-row table:number-rows-repeated="1048000"><table:table-cell office:value-type="string"><text:p>/a</text:p></table:table-cell></table:table-row></table:table></office:spreadsheet></office:body></office:document-content>`
    const ods = writeZip([
      ['mimetype', text('application/vnd.oasis.opendocument.spreadsheet')],
      ['content.xml', text(content)],
    ])
    expect(await readSheet(ods)).toMatchObject({ ok: false })
  })
  it('is never thrown over by what was dropped (generated)', async () => {
    await fc.assert(
      fc.asyncProperty(fc.uint8Array({ maxLength: 300 }), fc.boolean(), async (bytes, zip) => {
        const read = await readSheet(zip ? Uint8Array.from([0x50, 0x4b, 3, 4, ...bytes]) : bytes)
        if (!read.ok) expect(read.why).toMatch(/\w{4}/)
      }),
    )
  })
})

describe('cells', () => {
  it('go out as text and come back the same, formulas guarded (generated)', async () => {
    const cell = fc.oneof(fc.string(), fc.constantFrom('=1+1', '@x', '+a', "'=x", '-1', 'a"b;c')).map((s) =>
      s
        .trim()
        .replace(/\r\n?|\0/g, ' ')
        .trim(),
    )
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 6 }), async (body) => {
        const csv = writeCsv([['address', 'title'], ...body])
        for (const written of Papa.parse<string[]>(csv).data.flat())
          expect(written).not.toMatch(/^[=+\-@\t\r]/)
        const kept = body.filter((row) => row.some((c) => c.trim() !== ''))
        if (kept.length > 0) expect((await sheet(text(csv))).rows).toEqual(kept)
      }),
    )
  })
})

const table = (heading: string[], ...rows: string[][]): Sheet => ({
  heading,
  rows,
  lines: rows.map((_, i) => i + 2),
})

describe('columns', () => {
  it.each([
    [
      'pages',
      ['URL', 'Title 1', 'Meta Description 1', 'H1-1', 'Word Count', 'Status Code'],
      { address: 0, title: 1, description: 2, h1: 3, words: 4, status: 5 },
    ],
    [
      'suggestions',
      [
        'Page',
        'Current Title',
        'New Title',
        'New Title length',
        'Recommended meta description',
        'Primary keyword',
        'Secondary keywords',
        'Comment',
      ],
      { address: 0, title: 2, description: 4, keyword: 5, secondary: 6, note: 7 },
    ],
    ['pages', ['Page', 'Current Title', 'New Title'], { address: 0, title: 1 }],
    ['suggestions', ['Adresse', 'Titel neu', 'Beschreibung'], { address: 0, title: 1, description: 2 }],
    ['suggestions', ['URL', 'Suggested URL', 'Page title'], { address: 0, slug: 1, title: 2 }],
  ] as const)('of %s are known by what they are called: %j', (purpose, heading, columns) => {
    expect(
      recogniseColumns(
        table(
          [...heading],
          heading.map((_, i) => (i === 0 ? '/a' : 'x')),
        ),
        purpose,
      ),
    ).toEqual(columns)
  })
  it('are known by what stands in them', () => {
    expect(
      recogniseColumns(table(['', 'Where'], ['x', 'https://s.example/a'], ['y', 's.example/b']), 'pages'),
    ).toEqual({ address: 1 })
  })
})

describe('suggestions', () => {
  const pages = ['/', '/a/', '/b', '/shop?id=3', '/tours/night/'].map((path) => ({
    id: path,
    path: `https://www.s.example${path}`,
    url: `https://www.s.example${path}`,
  }))
  const read = (...addresses: string[]) =>
    readSuggestions(
      table(['url', 'title'], ...addresses.map((a) => [a, 'T'])),
      { address: 0, title: 1 },
      pages,
    )
  it.each([
    ['https://www.s.example/a/', '/a/'],
    ['http://s.example/a', '/a/'],
    ['S.EXAMPLE/b/', '/b'],
    ['/a', '/a/'],
    ['/', '/'],
    ['https://s.example', '/'],
    ['https://s.example/a/index.html', '/a/'],
    ['s.example/shop?id=3', '/shop?id=3'],
  ])('%s is for %s', (address, id) => expect(read(address).matched[0]?.id).toBe(id))
  it.each(['https://other.example/a/', '/A/', 's.example/shop', '', 'Home page'])(
    '%j is for no page',
    (address) => {
      expect(read(address)).toMatchObject({ matched: [], unmatched: [{ row: 2, address }] })
    },
  )
  it('names the nearest page, and rows that cannot be told apart', () => {
    expect(read('/tours/nigth').unmatched[0]!.near[0]).toBe('https://www.s.example/tours/night/')
    expect(read('/a', '/a/').twice).toEqual([{ row: 3, address: '/a/' }])
    const two = [...pages, { id: 'x', path: 'http://s.example/a', url: 'http://s.example/a' }]
    expect(readSuggestions(table(['url'], ['s.example/a']), { address: 0 }, two)).toMatchObject({
      matched: [],
      twice: [{ row: 2 }],
    })
  })
})

describe('pages of a sheet', () => {
  it('say what the row says and no more', () => {
    const given = table(
      ['u', 't', 'w', 's', 'k'],
      ['/a?x=1#y', 'A <b> & c', '1,412', '404', 'tide; ebb'],
      ['/a?x=1', 'again', '', '', ''],
      ['nothing', '', '', '', ''],
    )
    let n = 0
    const made = pagesOfSheet(
      given,
      { address: 0, title: 1, words: 2, status: 3, keyword: 4 },
      { site: 'https://s.example/', date: '2026-11-26', newId: () => `p${n++}` },
    )
    expect(made.pages).toHaveLength(1)
    expect(made.pages[0]).toMatchObject({
      identity: {
        id: 'p0',
        url: 'https://s.example/a?x=1',
        file: null,
        partial: 'row',
        words: 1412,
        served: { status: 404 },
      },
      decisions: { 'keyword:primary': 'tide', 'keyword:secondary': ['ebb'] },
    })
    const html = new TextDecoder().decode(made.pages[0]!.bytes)
    expect(html).toContain('<title>A &#60;b&#62; &#38; c</title>')
    expect(html).not.toContain('description')
    expect(made.unread.map((u) => u.path)).toEqual(['row 3', 'row 4'])
    expect(made.base).toBe('https://s.example/')
  })
})
