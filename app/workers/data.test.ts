/** Structured data in the worker and through the form: what is entered is in the JSON and back, what is built follows. */
import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { writeZip } from '../../core/exchange/zip.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import type { Edit } from '../../core/page/edits/draft.ts'
import { blockEditor } from '../sheets/data/data-edits.ts'
import { db } from '../store/db.ts'
import type { Session } from '../session/session.ts'
import * as data from './data.ts'
import * as search from './data-search.ts'
import * as site from './data-site.ts'
import * as desk from './desk.ts'
import * as handOff from './hand-off.ts'
import { takeIn } from './intake.ts'
import { prepare } from './open-input.ts'

// Here a page's id is its path, as of a site that was taken in before pages had ids of their own.
vi.mock('../../core/site/page-identity.ts', async (original) => {
  const actual = await original<typeof import('../../core/site/page-identity.ts')>()
  return { ...actual, filePage: (_id: string, file: string, url: string) => actual.filePage(file, file, url) }
})

const TODAY = '2026-11-25'
const block = (json: string) => `<script type="application/ld+json">${json}</script>`
const lamp =
  '\r\n{\r\n    "@context" : "https://schema.org",\r\n    "@type": "Product",\r\n    "name": "Storm \\u006camp", "offers": [ { "@type": "Offer", "price": 85 },\r\n      {"@type":"Offer","price":"90.00"} ],\r\n    "isRelatedTo": { "@id": "#wick" }\r\n}\r\n'
const page = (head: string, body: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Storm lamp</title>${head}</head><body><main>${body}</main></body></html>`
const FILES: Record<string, string> = {
  'index.html': page(
    block(
      '{"@context":"https://schema.org","@type":"Organization","@id":"https://t.example/#us","name":"The Trust"}',
    ),
    '<h1>Home</h1>',
  ),
  'shop/index.html': page('', '<h1>Shop</h1>'),
  'shop/lamp.html': page(block(lamp), '<h1>Storm lamp</h1><p>£85</p>'),
  'faq.html': page(
    '',
    '<h1>Questions</h1><h2>May dogs come?</h2><p>Yes.</p><h2>Is there a lift?</h2><p>No.</p><p>Never.</p>',
  ),
}
const text = (s: string) => new TextEncoder().encode(s)

beforeEach(async () => {
  await Promise.all(db.tables.map((t) => t.clear()))
  const zip = writeZip(Object.entries(FILES).map(([p, c]) => [p, text(c)] as [string, Uint8Array]))
  const prepared = await prepare({ kind: 'zip', file: new File([zip as BlobPart], 'x.zip') })
  if (!prepared.ok) throw new Error(prepared.why)
  const taken = await takeIn(
    {
      ticket: prepared.prepared.ticket,
      name: 'The Trust',
      base: 'https://t.example/',
      today: TODAY,
      demo: false,
    },
    () => {},
  )
  if (!taken.ok) throw new Error(taken.why)
  await desk.openSite(taken.site.id, TODAY)
})

/** A page's decisions as the form changes them, with the session's part played by a plain object. */
function form(path: string, key: string, shown: string, start: Decisions = {}) {
  let decisions: Decisions = start
  const session = {
    type: (_: string, k: string, after: unknown) => (decisions = { ...decisions, [k]: after }),
    blur: () => Promise.resolve(),
  } as unknown as Session
  return {
    editor: blockEditor(
      session,
      path,
      key,
      () => shown,
      () => decisions,
    ),
    decisions: () => decisions,
  }
}
const shopBlock = async (decisions: Decisions = {}) =>
  (await data.dataView('shop/lamp.html', decisions))!.blocks[0]!

describe('the form', () => {
  it('shows a block’s things with their pointers, controls, and what is asked for', async () => {
    const shown = await shopBlock()
    expect(shown.key).toBe(
      `jsonld@${text(FILES['shop/lamp.html']!.slice(0, FILES['shop/lamp.html']!.indexOf('<script'))).length}`,
    )
    const [thing] = shown.things
    expect(thing!.fields.map((f) => [f.name, f.pointer, f.control, f.values.length])).toEqual([
      ['name', '/name', 'text', 1],
      ['offers', '/offers', 'thing', 2],
      ['isRelatedTo', '/isRelatedTo', 'thing', 1],
    ])
    const [offer] = thing!.fields[1]!.values
    expect(offer!.thing!.fields.map((f) => [f.name, f.pointer, f.control])).toEqual([
      ['price', '/offers/0/price', 'number'],
    ])
    expect(
      offer!.thing!.missing.filter((m) => m.asked === 'required').map((m) => [m.name, m.control]),
    ).toEqual([['priceCurrency', 'currency']])
    expect(shown.features).toMatchObject([{ id: 'Product', eligible: false }])
    expect(thing!.fields[2]!.values[0]).toMatchObject({
      kind: 'reference',
      text: 'https://t.example/shop/lamp.html#wick',
    })
  })

  it('keeps every byte of the block but the value that was entered, and shows what was entered', async () => {
    const shown = await shopBlock()
    await fc.assert(
      fc.asyncProperty(fc.string({ unit: 'binary', maxLength: 20 }), async (entered) => {
        const { editor, decisions } = form('shop/lamp.html', shown.key, shown.json)
        editor.set('/name', entered)
        const value = (decisions()[`edit:${shown.key}`] as Edit | undefined)?.value ?? shown.json
        const at = lamp.indexOf('"Storm \\u006camp"')
        expect(value.startsWith(lamp.slice(0, at))).toBe(true)
        expect(value.endsWith(lamp.slice(at + '"Storm \\u006camp"'.length))).toBe(true)
        const again = await shopBlock(decisions())
        expect(again.things[0]!.fields[0]!.values[0]!.text).toBe(entered)
      }),
      { numRuns: 60 },
    )
  })

  it('adds, moves and takes out things and values', async () => {
    const shown = await shopBlock()
    const { editor, decisions } = form('shop/lamp.html', shown.key, shown.json)
    editor.move('/offers', 0, 1)
    editor.add('/offers/0', 'priceCurrency', 'GBP')
    editor.add('', 'brand', { '@type': 'Brand' })
    editor.add('/brand', 'name', 'Farrow')
    editor.add('', 'name', 'A second name')
    editor.remove('/isRelatedTo')
    const again = await shopBlock(decisions())
    expect(JSON.parse(again.json)).toEqual({
      '@context': 'https://schema.org',
      '@type': 'Product',
      name: ['Storm lamp', 'A second name'],
      offers: [
        { '@type': 'Offer', price: '90.00', priceCurrency: 'GBP' },
        { '@type': 'Offer', price: 85 },
      ],
      brand: { '@type': 'Brand', name: 'Farrow' },
    })
    expect(again.json).toContain('\r\n    "@type": "Product",\r\n')
  })

  it('knows the things of the site that can be pointed to', async () => {
    expect((await data.dataView('shop/lamp.html', {}))!.siteThings).toEqual([
      { id: 'https://t.example/#us', name: 'The Trust', types: ['Organization'] },
    ])
  })
})

describe('what is built from the page', () => {
  const built = async () => (await data.buildData('faq.html', {}, 'FAQPage'))!
  it('follows the page’s headings, until a value is written by hand', async () => {
    const { value, built: links, open } = await built()
    expect(open).toEqual([])
    expect(Object.values(links.links)).toHaveLength(4)
    const start = { 'edit:data:faq': { value, built: links } }
    const byte = text(FILES['faq.html']!.slice(0, FILES['faq.html']!.indexOf('<h2>May'))).length
    const heading = { [`edit:heading@${byte}`]: { value: 'May dogs and cats come?' } }
    const names = async (decisions: Decisions) =>
      (
        JSON.parse((await data.dataView('faq.html', decisions))!.blocks[0]!.json) as {
          mainEntity: { name: string; acceptedAnswer: { text: string } }[]
        }
      ).mainEntity
    expect((await names(start)).map((q) => [q.name, q.acceptedAnswer.text])).toEqual([
      ['May dogs come?', 'Yes.'],
      ['Is there a lift?', 'No. Never.'],
    ])
    expect((await names({ ...start, ...heading }))[0]!.name).toBe('May dogs and cats come?')
    const { editor, decisions } = form('faq.html', 'data:faq', value, start)
    editor.set('/mainEntity/0/name', 'Are dogs welcome?')
    expect((await names({ ...decisions(), ...heading })).map((q) => q.name)).toEqual([
      'Are dogs welcome?',
      'Is there a lift?',
    ])
    // The file that is handed off says the same.
    const file = new TextDecoder().decode((await handOff.pageBytes('faq.html', { ...start, ...heading }))!)
    expect(file).toContain('"name": "May dogs and cats come?"')
    expect(file).toContain('<h2>May dogs and cats come?</h2>')
  })
  it('says of each value where on the page it was found', async () => {
    const { value, built: links } = await built()
    const view = (await data.dataView('faq.html', { 'edit:data:faq': { value, built: links } }))!
    const question = view.blocks[0]!.things[0]!.fields[0]!.values[1]!.thing!
    const [name] = question.fields.find((f) => f.name === 'name')!.values
    expect(name!.found).toMatchObject({ what: 'a question on the page', line: expect.any(Number) })
    expect(view.blocks[0]!.built).toBe('FAQPage')
  })
})

describe('search', () => {
  it('finds properties of a type by name and by meaning, in British spelling too; superseded ones never', async () => {
    const names = async (words: string) =>
      (await search.searchProperties(['Product'], words)).map((p) => p.name)
    expect((await names('colour'))[0]).toBe('color')
    expect((await names('gtin'))[0]).toBe('gtin')
    expect(await names('headline')).not.toContain('headline')
    expect((await search.searchTypes('boat')).map((t) => t.name)).toEqual(
      expect.arrayContaining(['BoatTrip', 'BoatTerminal']),
    )
    expect((await search.searchTypes('organisation'))[0]!.name).toBe('Organization')
    expect((await search.searchTypes('UserLikes')).map((t) => t.name)).not.toContain('UserLikes')
    expect(await search.describeTerm('datePublished')).toMatch(/^Date of first publication/)
  })
})

describe('the whole site', () => {
  it('is given a breadcrumb in one step: where there is none, and not on the home page', async () => {
    const found = await site.dataStepPreview('breadcrumb', {}, Object.keys(FILES))
    expect(found.map((p) => [p.path, p.says, p.skipped])).toEqual([
      ['index.html', '', 'It is the home page.'],
      ['shop/index.html', 'The Trust › Shop', null],
      ['shop/lamp.html', 'The Trust › Shop › Storm lamp', null],
      ['faq.html', 'The Trust › Questions', null],
    ])
    expect(found.flatMap((p) => p.marks)).toEqual([])
    const again = await site.dataStepPreview(
      'breadcrumb',
      { 'faq.html': { 'edit:data:breadcrumb': found[3]!.edit } },
      ['faq.html'],
    )
    expect(again[0]!.skipped).toBe('It has a breadcrumb.')
  })
  it('passes over a page in which nothing can be changed, and says why', async () => {
    await db.pages.filter((page) => page.id === 'faq.html').modify({ encoding: 'iso-2022-jp' })
    const [faq] = await site.dataStepPreview('breadcrumb', {}, ['faq.html'])
    expect(faq).toMatchObject({ edit: null, skipped: expect.stringMatching(/^The page is in ISO-2022-JP/) })
  })
  it('says who publishes each page, by the organisation that it describes already', async () => {
    const found = await site.dataStepPreview('organisation', {}, Object.keys(FILES))
    expect(found.map((p) => p.skipped)).toEqual(['It describes the organisation.', null, null, null])
    expect(JSON.parse(found[3]!.json)).toMatchObject({
      '@type': 'WebPage',
      publisher: { '@id': 'https://t.example/#us' },
    })
  })
  it('is a table and a graph', async () => {
    const { pages, things, links } = await site.siteData()
    expect(pages.map((p) => [p.path, p.types, p.none])).toEqual([
      ['faq.html', [], true],
      ['index.html', ['Organization'], false],
      ['shop/index.html', [], true],
      ['shop/lamp.html', ['Product'], false],
    ])
    expect(things.map((t) => t.name)).toEqual(['The Trust', 'Storm lamp'])
    expect(links).toMatchObject([
      { property: 'isRelatedTo', to: 'https://t.example/shop/lamp.html#wick', dangling: true },
    ])
  })
})
