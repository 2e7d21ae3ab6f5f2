/** Pages without a file: their addresses, their slugs, and what is handed off of them. */
import { describe, expect, it } from 'vitest'
import { handOffFiles, changesOf, redirectsNow, type SiteAtHand } from '../exchange/hand-off.ts'
import { readSource } from '../page/source/source.ts'
import { defaultStyle } from '../rules/house-style.ts'
import { noMoves } from '../site/moves.ts'
import type { PageIdentity } from '../site/page-identity.ts'
import { emptyIndex, idAt } from '../site/site-index.ts'
import type { Decisions } from './decisions.ts'
import { runOverPages } from './run.ts'
import { addressesFor, filesFromRoot, settleMoves, slugPath, slugsOf, type SiteSetting } from './setting.ts'

const BASE = 'https://s.example/'
const fetched = (path: string, redirects: string[] = []): PageIdentity => ({
  id: path,
  url: BASE + path,
  file: null,
  served: {
    status: 200,
    address: BASE + path,
    redirects: redirects.map((url) => ({ url: BASE + url, status: 301 })),
    contentType: 'text/html',
    charset: 'utf-8',
    robots: [],
    canonical: null,
    date: '2026-11-26',
  },
  partial: null,
})
const pageHtml = (title: string, links: string[] = []) =>
  `<!doctype html><html lang="en"><head><title>${title}</title></head><body><main><h1>${title}</h1>${links.map((l) => `<a href="${l}">x</a>`).join('')}</main></body></html>`

/** A site of pages that were fetched, judged, with what was decided for them. */
async function siteOf(
  pages: Record<string, string>,
  work: Record<string, Decisions> = {},
  redirects: Record<string, string[]> = {},
) {
  const identities = Object.keys(pages).map((path) => fetched(path, redirects[path]))
  const site = { root: '', base: BASE }
  const files = filesFromRoot(identities, [], site)
  const setting: SiteSetting = {
    index: emptyIndex(BASE, true, files, { pages: identities }),
    style: defaultStyle,
    name: 'x',
    baseKnown: true,
    moves: noMoves,
    date: '2026-11-26',
    templates: [],
    ...site,
  }
  const decisionsOf = (id: string): Decisions => work[id] ?? {}
  settleMoves(setting, files, slugsOf(identities, decisionsOf, setting))
  const bytes = (path: string) => new TextEncoder().encode(pages[path]!)
  await runOverPages(
    { setting, pages: identities, decisionsOf, read: ({ id }) => ({ ok: true, value: bytes(id) }) },
    { onPage: () => {} },
  )
  const hand: SiteAtHand = {
    setting,
    pages: new Map(identities.map((p) => [p.id, p])),
    otherFiles: [],
    decisionsOf,
    sourceOf: async ({ id, served }) => {
      const read = readSource(bytes(id), served)
      return read.ok ? { ok: true, value: read.source } : read
    },
    bytesOf: async () => null,
    itemsOf: async () => [],
  }
  return { setting, hand, identities }
}

describe('an address without a file', () => {
  it.each([
    ['', 'index.html'],
    ['about/', 'about/index.html'],
    ['about', 'about'],
    ['a/b.html', 'a/b.html'],
    ['caf%C3%A9/', 'café/index.html'],
    ['shop?id=3', null],
    ['index.html', null],
  ])('%s has the path %s', (path, expected) => {
    expect(slugPath({ file: null, url: BASE + path }, { root: '', base: BASE })).toBe(expected)
  })
  it('of another site has none', () => {
    expect(slugPath({ file: null, url: 'https://o.example/a' }, { root: '', base: BASE })).toBeNull()
  })
  it('is a page of its own with and without its slash, and with its query', async () => {
    const { setting } = await siteOf({
      about: pageHtml('A'),
      'about/': pageHtml('B'),
      shop: pageHtml('S'),
      'shop?id=3': pageHtml('T'),
    })
    const at = (path: string) => idAt(setting.index, BASE + path)
    expect([at('about'), at('about/'), at('shop?id=3'), at('shop?id=4'), at('shop')]).toEqual([
      'about',
      'about/',
      'shop?id=3',
      'shop',
      'shop',
    ])
  })
  it('that redirected leads to its page, and who still links to it is known', async () => {
    const { setting } = await siteOf(
      { '': pageHtml('H', ['/old', '/new/']), 'new/': pageHtml('N') },
      {},
      { 'new/': ['old'] },
    )
    expect(idAt(setting.index, `${BASE}old`)).toBe('new/')
    expect([...setting.index.throughRedirect.get(`${BASE}old`)!]).toEqual([''])
    expect(setting.index.inbound.get('new/')).toBe(1)
  })
})

describe('a slug that changes', () => {
  const pages = {
    '': pageHtml('Home', ['/tours/', 'tours/night/']),
    'tours/': pageHtml('Tours'),
    'tours/night/': pageHtml('Night', ['../']),
  }
  const work = { 'tours/': { 'edit:slug': { value: 'walks' } } }
  it('gives redirects, and the links to change, page by page', async () => {
    const { hand, setting, identities } = await siteOf(pages, work)
    expect(identities.map((p) => addressesFor(p, setting).url)).toEqual([
      BASE,
      `${BASE}walks/`,
      `${BASE}walks/night/`,
    ])
    expect((await redirectsNow(hand)).map((r) => [r.from, r.to])).toEqual([
      [`${BASE}tours/`, `${BASE}walks/`],
      [`${BASE}tours/night/`, `${BASE}walks/night/`],
    ])
    const { pages: changed } = await changesOf(hand)
    const home = changed.find((p) => p.url === BASE)!
    expect(home.changes).toEqual([
      { field: 'Links that follow', before: '/tours/, tours/night/', after: '/walks/, walks/night/' },
    ])
  })
  it('moves the files that the pages would be', async () => {
    const { hand } = await siteOf(pages, work)
    const files = []
    for await (const file of handOffFiles(hand, { which: 'changed', lists: true })) files.push(file.path)
    expect(files.sort()).toEqual(['changes.csv', 'index.html', 'redirects.csv'])
  })
})
