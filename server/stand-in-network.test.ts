/** The invented web: answered without a socket, in two states; unknown names are nobody's. */
import { describe, expect, it } from 'vitest'
import { createFetcher } from './fetching/fetcher.ts'
import { standInTransport, type WebState } from './stand-in-network.ts'

const elsewhere = () => Promise.reject(new Error('asked the network'))
const fetcher = (state: WebState) => createFetcher({ transport: standInTransport(state, elsewhere) })
const get = (state: WebState, path: string, host = 'tidewatch.example') =>
  fetcher(state).fetch(`https://${host}${path}`, 'page')
const title = (fetched: Awaited<ReturnType<typeof get>>) =>
  fetched.ok
    ? /<title>(.*?)<\/title>/.exec(new TextDecoder('windows-1252').decode(fetched.body))?.[1]
    : fetched.code

describe('tidewatch.example', () => {
  it.each([
    ['/', { ok: true, status: 200, mediaType: 'text/html' }],
    ['/tours.html', { ok: true, status: 200, url: 'https://tidewatch.example/tours/' }],
    ['/prices/', { ok: true, robots: ['noindex'] }],
    ['/history/', { ok: true, charset: 'windows-1252' }],
    ['/book/', { ok: true, status: 500 }],
    ['/winter/', { ok: true, status: 404 }],
    ['/nowhere/', { ok: true, status: 404 }],
    ['/brochure.pdf', { ok: true, mediaType: 'application/octet-stream' }],
    ['/staff/rota/', { ok: false, code: 'robots' }],
  ])('%s', async (path, expected) => {
    expect(await get('first', path)).toMatchObject(expected)
  })
  it('is another some weeks later', async () => {
    expect(title(await get('first', '/tours/'))).toMatch(/3 Routes/)
    expect(title(await get('second', '/tours/'))).toMatch(/from Tidewatch Quay/)
    expect(await get('second', '/caves/')).toMatchObject({ url: 'https://tidewatch.example/sea-caves/' })
    expect(await get('second', '/winter/')).toMatchObject({ ok: true, status: 200 })
    expect(await get('second', '/tours/family/')).toMatchObject({ ok: true, status: 410 })
  })
})

describe('the demo’s own host', () => {
  it('serves the demo’s pages, and others later', async () => {
    expect(title(await get('first', '/shop/', 'farrowskerry.example'))).toBe('Shop')
    expect(title(await get('second', '/shop/', 'farrowskerry.example'))).toMatch(/Lighthouse Shop/)
    const sitemap = await fetcher('first').fetch('https://farrowskerry.example/sitemap.xml', 'sitemap')
    expect(sitemap.ok && new TextDecoder().decode(sitemap.body).match(/<loc>/g)).toHaveLength(45)
  })
  it('has every edit of its second state applied: the pages they are made in are there', async () => {
    for (const path of ['/', '/crossings/timetable.html', '/courses/knots.html', '/visit/with-children.html'])
      expect(await get('second', path, 'farrowskerry.example')).toMatchObject({ ok: true, status: 200 })
    expect(await get('second', '/evenings/page2.html', 'farrowskerry.example')).toMatchObject({ status: 404 })
  })
})

describe('other names', () => {
  it('under .example are nobody’s, and no file is read for them', async () => {
    for (const host of ['nowhere.example', 'tidewatch.example.example', '..example'])
      expect(await get('first', '/', host)).toMatchObject({ ok: false })
    expect(await get('first', '/%2e%2e/%2e%2e/package.json')).toMatchObject({ ok: true, status: 404 })
    expect(await get('first', '/..%2f..%2f..%2fpackage.json')).toMatchObject({ ok: true, status: 404 })
  })
  it('are asked over the network', async () => {
    expect(await get('first', '/', 'a.org')).toMatchObject({ ok: false })
  })
})
