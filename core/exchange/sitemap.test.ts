import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readSitemap } from '../site/read-sitemap.ts'
import { datesInSitemap, pagesToList, writeSitemaps } from './sitemap.ts'
import { writeHtaccess, writeNginxMap } from './server-redirects.ts'

const BASE = 'https://s.example/'
const url = fc.webUrl({ withQueryParameters: true, withFragments: false })

describe('a sitemap', () => {
  it('is read back as it was written, whatever the addresses', () =>
    fc.assert(
      fc.property(fc.uniqueArray(url, { minLength: 1, maxLength: 30 }), (urls) => {
        const [file] = writeSitemaps(
          urls.map((u, i) => ({ url: u, lastmod: i % 2 ? '2026-11-26' : null })),
          BASE,
        )
        const read = readSitemap([file!.text])
        expect(read).toMatchObject({ ok: true, of: 'pages', problem: null })
        expect(read.ok && read.entries.map((e) => e.address)).toEqual(urls)
        expect(read.ok && read.entries.map((e) => e.changed)).toEqual(
          urls.map((_, i) => (i % 2 ? '2026-11-26' : null)),
        )
      }),
    ))
  it('becomes an index where the pages or the bytes are too many', () => {
    const pages = Array.from({ length: 7 }, (_, i) => ({ url: `${BASE}${i}`, lastmod: null }))
    const files = writeSitemaps(pages, BASE, { addresses: 3, bytes: 10_000 })
    expect(files.map((f) => f.path)).toEqual([
      'sitemap.xml',
      'sitemap-1.xml',
      'sitemap-2.xml',
      'sitemap-3.xml',
    ])
    const index = readSitemap([files[0]!.text])
    expect(index).toMatchObject({ ok: true, of: 'sitemaps' })
    const parts = files.slice(1).map((f) => readSitemap([f.text]))
    expect(parts.flatMap((p) => (p.ok ? p.entries.map((e) => e.address) : []))).toEqual(
      pages.map((p) => p.url),
    )
    for (const { text } of writeSitemaps(pages, BASE, { addresses: 100, bytes: 260 }).slice(1))
      expect(new TextEncoder().encode(text).length).toBeLessThanOrEqual(260)
  })
  it('of a site without pages is none', () => expect(writeSitemaps([], BASE)).toEqual([]))
  it('lists indexable pages once, the existing order first, dates of what changed', () =>
    expect(
      pagesToList(
        [
          { url: `${BASE}c`, indexable: true, changed: false },
          { url: `${BASE}a`, indexable: true, changed: true },
          { url: `${BASE}a`, indexable: true, changed: false },
          { url: `${BASE}hidden`, indexable: false, changed: true },
          { url: `${BASE}b`, indexable: true, changed: false },
        ],
        { existing: [`${BASE}gone`, `${BASE}c`, 'not an address'], date: '2026-11-26' },
      ),
    ).toEqual([
      { url: `${BASE}c`, lastmod: null },
      { url: `${BASE}a`, lastmod: '2026-11-26' },
      { url: `${BASE}b`, lastmod: null },
    ]))
  it('that is there keeps everything but the dates of what changed', () => {
    const text =
      '<urlset>\n<url><loc>https://s.example/a?x=1&amp;y=2</loc><lastmod>2020-01-01</lastmod></url>\n<url>\n <loc> https://s.example/b </loc> <!-- note --></url><url><loc>https://s.example/c</loc></url></urlset>'
    const changed = new Set(
      ['https://s.example/a?x=1&y=2', 'https://s.example/b'].map((u) => new URL(u).href),
    )
    const replacements = datesInSitemap(text, changed, '2026-11-26')
    let out = text
    for (const { start, end, text: put } of [...replacements].reverse())
      out = out.slice(0, start) + put + out.slice(end)
    expect(out).toContain('</loc> <!-- note -->'.replace('</loc> ', '</loc><lastmod>2026-11-26</lastmod> '))
    expect(out.replaceAll('<lastmod>2026-11-26</lastmod>', '')).toBe(
      text.replace('<lastmod>2020-01-01</lastmod>', ''),
    )
  })
})

describe('redirects for servers', () => {
  const redirects = [
    { from: `${BASE}old%20page.html`, to: `${BASE}new/`, status: '301' },
    { from: `${BASE}a"b$.html`, to: `${BASE}c$d`, status: '302' },
    { from: `${BASE}x?id=3`, to: `${BASE}y`, status: '301' },
  ]
  it('match the whole decoded path and nothing of it stands for more than itself', () => {
    const lines = writeHtaccess(redirects).split('\n')
    expect(lines.slice(0, 4)).toEqual([
      'RewriteEngine On',
      'RewriteRule "^old page\\.html$" "https://s.example/new/" [R=301,L,NE]',
      'RewriteRule "^a\\x22b\\$\\.html$" "https://s.example/c\\$d" [R=302,L,NE]',
      '# Not written, it has a query: https://s.example/x?id=3',
    ])
    expect(writeNginxMap(redirects)).toContain('    "~^/old page\\\\.html$" "https://s.example/new/";\n')
  })
})
