import { describe, expect, it } from 'vitest'
import { readPage } from '../page/read/read-page.ts'
import { plainText } from '../page/read/plain-text.ts'
import { readSource } from '../page/source/source.ts'
import { defaultStyle } from '../rules/house-style.ts'
import { addressOf } from '../addresses/addresses.ts'
import { emptyIndex, entryOf, updateIndex } from './site-index.ts'
import { shownPrice } from '../structured-data/shown-price.ts'
import { furnitureOf, publishedYear } from '../structured-data/things.ts'
import { forbiddenIn } from '../wording/forbidden.ts'
import { draftHasTokens, fillDraft, followDraft, sectionOf, tokenValues } from './page-tokens.ts'

const base = 'https://s.example/'
function pageOf(html: string, path = 'shop/lamp.html') {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  return readPage(read.source, { path, url: addressOf(path, base) })
}
const paths = ['index.html', 'shop/index.html', 'shop/lamp.html', 'old_stories/a.html']
const site = emptyIndex(
  base,
  true,
  paths.map((p) => [p, p] as const),
)
for (const path of paths)
  updateIndex(
    site,
    path,
    entryOf(path, pageOf(path === 'shop/index.html' ? '<h1>The shop</h1>' : '<p>x', path), site),
  )
const style = { ...defaultStyle, siteName: 'Light', titlePattern: '{page} | {site}' }
const values = (html: string, path?: string) =>
  tokenValues(pageOf(html, path), { site, style, date: '2026-11-24' })

describe('a page’s values for tokens', () => {
  it('come from its title, its H1, its data, its place in the site, and the date', () => {
    expect(
      values(
        '<html lang=en><title>Storm lantern | Light</title><h1>The lantern</h1><script type="application/ld+json">{"@type":"Product","offers":{"price":"64.00","priceCurrency":"GBP"},"author":{"name":"Maud"}}</script>',
      ),
    ).toEqual({
      page: 'Storm lantern',
      site: 'Light',
      section: 'The shop',
      year: '2026',
      month: 'November',
      h1: 'The lantern',
      author: 'Maud',
      price: '£64',
    })
  })
  it('are missing where the page has nothing', () => {
    expect(values('<p>x', 'index.html')).toMatchObject({
      page: null,
      section: null,
      h1: null,
      author: null,
      price: null,
    })
    expect(values('<meta name=author content=Maud><h1>Only an H1</h1>')).toMatchObject({
      page: 'Only an H1',
      author: 'Maud',
    })
  })
  it('name a section without a page of its own by its folder', () => {
    expect(sectionOf(`${base}old_stories/a.html`, site)).toBe('Old stories')
    expect(sectionOf(`${base}shop/`, site)).toBe('Shop')
    expect(sectionOf('https://elsewhere.example/x/y', site)).toBeNull()
  })
})

describe('a draft with tokens', () => {
  it('is filled in wordings alone', () => {
    const draft = {
      title: { value: '{page} {year}' },
      'meta:description': { value: 'By {author}.' },
      canonical: { value: 'https://s.example/{year}' },
    }
    expect(draftHasTokens(draft)).toBe(true)
    expect(draftHasTokens({ canonical: draft.canonical, 'jsonld@3': { value: '{year}' } })).toBe(false)
    expect(fillDraft(draft, { page: 'Tides', year: '2026' })).toEqual({
      title: { value: 'Tides 2026' },
      'meta:description': { value: 'By {author}.' },
      canonical: draft.canonical,
    })
  })
  it('takes along the metas that follow', () => {
    const present = { title: 'Old', description: null }
    expect(followDraft({ title: { value: 'New' } }, ['og:title', 'twitter:description'], present)).toEqual({
      title: { value: 'New' },
      'meta:og:title': { value: 'New' },
    })
    expect(followDraft({}, ['og:title'], present)).toEqual({ 'meta:og:title': { value: 'Old' } })
    expect(followDraft({}, [], present)).toEqual({})
  })
})

describe('what results set beside a snippet', () => {
  const data = (json: string) => pageOf(`<script type="application/ld+json">${json}</script>`)
  it('is read from the page’s own data, wherever it stands', () => {
    const page = data(
      '{"@graph":[{"@type":"Article","datePublished":"2026-09-14","author":[{"name":"Maud"}]},{"@type":"BreadcrumbList","itemListElement":[{"position":2,"name":"Lens"},{"position":1,"item":{"name":"Stories"}}]},{"aggregateRating":{"ratingValue":4.7,"ratingCount":38}}]}',
    )
    expect(furnitureOf(page)).toEqual({
      date: '2026-09-14',
      rating: { value: '4.7', best: '5', count: '38' },
      price: null,
      trail: ['Stories', 'Lens'],
      author: 'Maud',
    })
    expect(publishedYear(page)).toBe('2026')
  })
  it('is nothing where there is no data, or none that can be read', () => {
    const nothing = { date: null, rating: null, price: null, trail: null, author: null }
    expect(furnitureOf(pageOf('<p>x'))).toEqual(nothing)
    expect(furnitureOf(data('{"price":'))).toEqual(nothing)
    expect(furnitureOf(data('[1,"x",null,{"@type":"Review","ratingValue":3}]'))).toEqual(nothing)
  })
  it('writes a price as the language does, and as it stands where it cannot', () => {
    expect(shownPrice({ amount: '18.50', currency: 'GBP' }, 'en-GB')).toBe('£18.50')
    expect(shownPrice({ amount: 'from 18', currency: 'GBP' }, 'en')).toBe('from 18 GBP')
    expect(shownPrice({ amount: '18', currency: null }, 'en')).toBe('18')
  })
})

describe('words', () => {
  it('that are forbidden are found whole, whatever their case', () => {
    expect(
      forbiddenIn('Cheap lamps: CLICK  here!', ['cheap', 'click here', 'lamp', ''].filter(Boolean)),
    ).toEqual(['cheap', 'click here'])
    expect(forbiddenIn('a.b', ['a+b'])).toEqual([])
  })
  it('written as markup are read as text', () => {
    expect(plainText('A <b>bold</b> lamp &amp;amp; oil')).toBe('A bold lamp & oil')
    expect(plainText('1 < 2 & 3')).toBe('1 < 2 & 3')
    expect(plainText('<b>'.repeat(20_000) + 'deep')).toBe('deep')
  })
})
