/** The sitemap protocol's own examples and limits, and what attacks a reader of XML. */
import { describe, expect, it } from 'vitest'
import { MOST_ADDRESSES, readSitemap } from './read-sitemap.ts'

const read = (text: string) => readSitemap([text])
const addresses = (text: string) => {
  const sitemap = read(text)
  return sitemap.ok ? sitemap.entries.map((e) => e.address) : sitemap.why
}

describe('the protocol', () => {
  // Source: sitemaps.org, Protocol, "Sample XML Sitemap"; the host is ours.
  const sample = `<?xml version="1.0" encoding="UTF-8"?>
<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">
   <url>
      <loc>http://www.tidewatch.example/</loc>
      <lastmod>2005-01-01</lastmod>
      <changefreq>monthly</changefreq>
      <priority>0.8</priority>
   </url>
   <url>
      <loc>http://www.tidewatch.example/catalog?item=12&amp;desc=vacation_hawaii</loc>
      <changefreq>weekly</changefreq>
   </url>
</urlset>`
  it('names pages, with their dates, escapes undone', () => {
    expect(read(sample)).toEqual({
      ok: true,
      of: 'pages',
      entries: [
        { address: 'http://www.tidewatch.example/', changed: '2005-01-01' },
        { address: 'http://www.tidewatch.example/catalog?item=12&desc=vacation_hawaii', changed: null },
      ],
      problem: null,
    })
  })
  it('is the same however it comes in pieces', () => {
    for (const size of [1, 7, 64]) {
      const pieces = Array.from({ length: Math.ceil(sample.length / size) }, (_, i) =>
        sample.slice(i * size, (i + 1) * size),
      )
      expect(readSitemap(pieces)).toEqual(read(sample))
    }
  })
  // Source: sitemaps.org, "Using Sitemap index files".
  it('names other sitemaps in an index', () => {
    const index = '<sitemapindex><sitemap><loc>https://a.example/1.xml.gz</loc></sitemap></sitemapindex>'
    expect(read(index)).toMatchObject({
      ok: true,
      of: 'sitemaps',
      entries: [{ address: 'https://a.example/1.xml.gz' }],
    })
  })
  // Source: sitemaps.org, "Other Sitemap formats": text file.
  it('may be a list of addresses', () => {
    expect(addresses('\ufeffhttps://a.example/1\r\nhttps://a.example/2\n\n')).toEqual([
      'https://a.example/1',
      'https://a.example/2',
    ])
  })
  it('passes over extensions, whatever their names: pictures have addresses of their own', () => {
    const text =
      '<s:urlset xmlns:s="x" xmlns:image="y"><s:url><s:loc><![CDATA[https://a.example/?a&b]]></s:loc><image:image><image:loc>https://a.example/p.png</image:loc></image:image></s:url></s:urlset>'
    expect(addresses(text)).toEqual(['https://a.example/?a&b'])
  })
  it(`names at most ${MOST_ADDRESSES} addresses; what comes after is left out, and said`, () => {
    const url = (i: number) => `<url><loc>https://a.example/${i}</loc></url>`
    const sitemap = read(
      `<urlset>${Array.from({ length: MOST_ADDRESSES + 3 }, (_, i) => url(i)).join('')}</urlset>`,
    )
    expect(sitemap.ok && sitemap.entries.length).toBe(MOST_ADDRESSES)
    expect(sitemap.ok && sitemap.problem).toMatch(/more than 50,000 addresses/)
  })
})

describe('what is no sitemap', () => {
  it.each([
    ['', /is empty/],
    ['Not here.', /neither XML nor a list/],
    ['<!doctype html><html><body>Not found</body></html>', /a web page, not a sitemap/],
    ['<html><body>Not found</body></html>', /a web page, not a sitemap/],
    ['<rss><channel></channel></rss>', /begins with <rss>/],
    ['<urlset><url><loc>https://a.example/?a&b=1</loc></url></urlset>', /no proper XML.*line 1/],
    ['<urlset><url><loc>x</url></urlset>', /no proper XML/],
    ['<urlset><url>', /no proper XML/],
  ])('%s', (text, why) => {
    expect(addresses(text)).toMatch(why)
  })
  it('expands no entity, of its own or of another file', () => {
    const bomb = `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;">]><urlset><url><loc>&b;</loc></url></urlset>`
    expect(addresses(bomb)).toMatch(/document type/)
    expect(addresses('<!DOCTYPE x SYSTEM "file:///etc/passwd"><urlset/>')).toMatch(/document type/)
    expect(addresses('<urlset><url><loc>&undefined;</loc></url></urlset>')).toMatch(/no proper XML/)
  })
  it('leaves an address out that is none, and takes the rest', () => {
    const text = `<urlset><url><loc>${'x'.repeat(3000)}</loc></url><url></url><url><loc>https://a.example/</loc></url></urlset>`
    expect(read(text)).toMatchObject({
      ok: true,
      entries: [{ address: 'https://a.example/' }],
      problem: expect.stringMatching(/left out/),
    })
  })
  it('is given up at the first error, however deep it is nested', () => {
    expect(addresses(`<urlset>${'<a>'.repeat(50_000)}&;`)).toMatch(/no proper XML/)
  })
})
