/** A site planned and fetched over answers of the test's own: what comes, what fails, what is left out, and whether it is whole. */
import { describe, expect, it } from 'vitest'
import type { Ask, FetchedMessage } from '../site/fetched.ts'
import { fetchSite } from './fetch-site.ts'
import { planSite, typedAddress, type SiteQuestion } from './site-plan.ts'

type Table = Record<
  string,
  Partial<Extract<FetchedMessage, { ok: true }>> & { text?: string; fails?: string }
>
/** Answers by address; an address that is not in the table is answered 404. */
const askFrom =
  (table: Table): Ask =>
  async (address, as) => {
    const url = as === 'robots' ? new URL('/robots.txt', address).href : address
    const { text = '', fails, ...answer } = table[url] ?? { status: 404, text: 'none' }
    if (fails) return { ok: false, url, hops: [], code: 'failed', message: fails }
    return {
      ok: true,
      url,
      hops: [],
      status: 200,
      mediaType: 'text/html',
      charset: null,
      robots: [],
      canonical: null,
      body: new TextEncoder().encode(text),
      ...answer,
    }
  }
const question = (more: Partial<SiteQuestion> = {}): SiteQuestion => ({
  address: 's.example',
  how: 'sitemap',
  most: 100,
  leaveOut: [],
  path: '/',
  queries: false,
  ...more,
})
const urlset = (...addresses: string[]) =>
  `<urlset>${addresses.map((a) => `<url><loc>${a}</loc></url>`).join('')}</urlset>`
const S = 'https://s.example'
async function take(table: Table, more: Partial<SiteQuestion> = {}, signal?: AbortSignal) {
  const ask = askFrom(table)
  const planned = await planSite(question(more), ask)
  if (!planned.ok) throw new Error(planned.why)
  let id = 0
  return fetchSite(planned.plan, ask, {
    date: '2026-11-26',
    newId: () => `p${id++}`,
    ...(signal ? { signal } : {}),
  })
}

describe('an address as it is typed', () => {
  it.each([
    ['s.example', `${S}/`],
    [' https://s.example/a#b ', `${S}/a`],
    ['http://s.example?', 'http://s.example/'],
    ['', null],
    ['ftp://s.example', null],
  ])('%s: %s', (typed, address) => expect(typedAddress(typed)).toBe(address))
})

describe('a sitemap', () => {
  it('is found by robots.txt, through an index, and at the usual place', async () => {
    const ask = askFrom({
      [`${S}/robots.txt`]: { text: `Sitemap: ${S}/index.xml` },
      [`${S}/index.xml`]: {
        text: `<sitemapindex><sitemap><loc>${S}/one.xml</loc></sitemap><sitemap><loc>two.xml</loc></sitemap></sitemapindex>`,
      },
      [`${S}/one.xml`]: { text: urlset(`${S}/a`) },
      [`${S}/two.xml`]: { text: urlset(`${S}/b`, `${S}/a`) },
    })
    const planned = await planSite(question(), ask)
    expect(planned.ok && planned.plan.addresses.map((a) => a.url)).toEqual([`${S}/a`, `${S}/b`])
    const usual = await planSite(question(), askFrom({ [`${S}/sitemap.xml`]: { text: urlset(`${S}/c`) } }))
    expect(usual.ok && usual.plan.addresses.map((a) => a.url)).toEqual([`${S}/c`])
  })
  it('that names another spelling of the site is followed there', async () => {
    const planned = await planSite(
      question(),
      askFrom({ [`${S}/sitemap.xml`]: { text: urlset('https://www.s.example/a') } }),
    )
    expect(planned.ok && planned.plan.addresses[0]).toEqual({ url: 'https://www.s.example/a', leftOut: null })
    expect(planned.ok && planned.plan.remarks[0]).toMatch(/lists pages of https:\/\/www\.s\.example/)
  })
  it('that is not there, or no sitemap, is said with another way to go on', async () => {
    const tables: Table[] = [
      {},
      { [`${S}/sitemap.xml`]: { text: '<html>' } },
      { [`${S}/sitemap.xml`]: { fails: 'The server does not answer.' } },
    ]
    for (const table of tables)
      expect(await planSite(question(), askFrom(table))).toMatchObject({
        ok: false,
        why: expect.stringMatching(/Have its links followed instead/),
      })
  })
  it('indexes that name each other end', async () => {
    const index = (to: string) => `<sitemapindex><sitemap><loc>${S}/${to}.xml</loc></sitemap></sitemapindex>`
    const planned = await planSite(
      question(),
      askFrom({
        [`${S}/robots.txt`]: { text: `Sitemap: ${S}/a.xml` },
        [`${S}/a.xml`]: { text: index('b') },
        [`${S}/b.xml`]: { text: index('a') },
      }),
    )
    expect(planned).toMatchObject({ ok: false })
  })
  it('of a site whose robots.txt fails gives a plan of nothing, with the reason', async () => {
    const planned = await planSite(
      question(),
      askFrom({ [`${S}/robots.txt`]: { status: 500 }, [`${S}/sitemap.xml`]: { text: urlset(`${S}/a`) } }),
    )
    expect(planned.ok && [planned.plan.addresses[0]!.leftOut, planned.plan.remarks[0]]).toEqual([
      'robots',
      expect.stringMatching(/nothing may be fetched/),
    ])
  })
})

describe('pages that are fetched', () => {
  it('come as they were served; a redirect is no page of its own', async () => {
    const came = await take({
      [`${S}/sitemap.xml`]: {
        text: urlset(`${S}/a`, `${S}/old`, `${S}/older`, `${S}/err`, `${S}/doc`, `${S}/down`, `${S}/empty`),
      },
      [`${S}/a`]: { text: '<title>A</title>', charset: 'utf-8', robots: ['noindex'] },
      [`${S}/old`]: { url: `${S}/a`, hops: [{ url: `${S}/old`, status: 301 }], text: '<title>A</title>' },
      [`${S}/older`]: {
        url: `${S}/new`,
        hops: [{ url: `${S}/older`, status: 302 }],
        text: '<title>N</title>',
      },
      [`${S}/err`]: { status: 500, text: '<h1>Broken</h1>' },
      [`${S}/doc`]: { mediaType: 'application/pdf', text: '%PDF' },
      [`${S}/down`]: { fails: 'The server does not answer.' },
      [`${S}/empty`]: { text: '' },
    })
    expect(
      came.pages.map(({ identity }) => [
        identity.url,
        identity.served!.status,
        identity.served!.redirects.map((r) => r.url),
      ]),
    ).toEqual([
      [`${S}/a`, 200, [`${S}/old`]],
      [`${S}/new`, 200, [`${S}/older`]],
      [`${S}/err`, 500, []],
    ])
    expect(came.pages[0]!.identity.served).toMatchObject({
      charset: 'utf-8',
      robots: ['noindex'],
      contentType: 'text/html',
      date: '2026-11-26',
    })
    expect(came.failed.map((f) => f.url)).toEqual([`${S}/down`, `${S}/empty`])
    expect(came.leftOut).toEqual([{ url: `${S}/doc`, leftOut: 'not a page' }])
    expect(came).toMatchObject({ whole: false, files: [`${S}/doc`] })
  })
  it('are the whole site when nothing that it names was left out', async () => {
    const sitemap = { [`${S}/sitemap.xml`]: { text: urlset(`${S}/`, `${S}/a`) }, [`${S}/a`]: { text: '<p>' } }
    const whole = await take({
      ...sitemap,
      [`${S}/`]: { text: '<a href="/a">a</a><a href="/b.pdf">b</a><a href="https://o.example/">o</a>' },
    })
    expect(whole.whole).toBe(true)
    const less = await take({ ...sitemap, [`${S}/`]: { text: '<a href="/a">a</a><a href="/c">c</a>' } })
    expect(less.whole).toBe(false)
    expect((await take({ ...sitemap, [`${S}/`]: { text: '<p>' } }, { most: 1 })).whole).toBe(false)
  })
  it('are found by following links', async () => {
    const came = await take(
      {
        [`${S}/`]: { text: '<a href="a">a</a> <a href="/robots-holds/x">x</a>' },
        [`${S}/a`]: { text: '<a href="/">home</a> <a href="b#c">b</a>' },
        [`${S}/b`]: { text: '<p>b' },
        [`${S}/robots.txt`]: { text: 'User-agent: *\nDisallow: /robots-holds/' },
      },
      { how: 'links' },
    )
    expect(came.pages.map((p) => p.identity.url)).toEqual([`${S}/`, `${S}/a`, `${S}/b`])
    expect(came.leftOut).toEqual([{ url: `${S}/robots-holds/x`, leftOut: 'robots' }])
    expect(came.whole).toBe(false)
  })
  it('end when it is cancelled, with what came', async () => {
    const cancel = new AbortController()
    const addresses = Array.from({ length: 50 }, (_, i) => `${S}/${i}`)
    const table: Table = { [`${S}/sitemap.xml`]: { text: urlset(...addresses) } }
    for (const address of addresses) table[address] = { text: '<p>' }
    const ask = askFrom(table)
    const planned = await planSite(question(), ask)
    let asked = 0
    const came = await fetchSite(
      (planned as Extract<typeof planned, { ok: true }>).plan,
      async (...args) => {
        if (++asked === 10) cancel.abort()
        return ask(...args)
      },
      { date: 'x', newId: () => `p${asked}`, signal: cancel.signal },
    )
    expect(came.cancelled).toBe(true)
    expect(came.pages.length).toBeLessThan(11)
    expect(asked).toBeLessThan(15)
  })
})
