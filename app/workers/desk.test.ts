/** The worker's rooms without a browser: intake, opening, evaluating, handing off, on an IndexedDB in memory. */
import 'fake-indexeddb/auto'
import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { unzipSync } from 'fflate'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Decisions } from '../../core/work/decisions.ts'
import { writeZip } from '../../core/exchange/zip.ts'
import { db } from '../store/db.ts'
import { commit } from '../store/work-log.ts'
import * as approval from './approval.ts'
import * as desk from './desk.ts'
import * as handOff from './hand-off.ts'
import { cancelIntake, takeIn, takeInProject } from './intake.ts'
import { prepare } from './open-input.ts'

// Here a page's id is its path, as of a site that was taken in before pages had ids of their own.
vi.mock('../../core/site/page-identity.ts', async (original) => {
  const actual = await original<typeof import('../../core/site/page-identity.ts')>()
  return { ...actual, filePage: (_id: string, file: string, url: string) => actual.filePage(file, file, url) }
})

const utf8 = (text: string) => new TextEncoder().encode(text)
const TODAY = '2026-11-23'
const DEMO = join(import.meta.dirname, '../../stand-ins/site')
const file = (name: string, content: Uint8Array | string) => new File([content as BlobPart], name)
const quiet = () => {}

const PAGE = (title: string, more = '') =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title>${more}</head><body><main><h1>${title}</h1><p>The boat leaves at ten when the sea allows, and comes back at five.</p></main></body></html>`

function demoZip(): Uint8Array {
  const entries = readdirSync(DEMO, { recursive: true, withFileTypes: true }).filter((e) => e.isFile())
  return writeZip(
    entries.map((e): [string, Uint8Array] => {
      const path = join(e.parentPath, e.name)
      return [path.slice(DEMO.length + 1), new Uint8Array(readFileSync(path))]
    }),
  )
}

async function takeInZip(zip: Uint8Array, base?: string): Promise<string> {
  const prepared = await prepare({ kind: 'zip', file: file('site.zip', zip) })
  if (!prepared.ok) throw new Error(prepared.why)
  const { ticket, name } = prepared.prepared
  const taken = await takeIn(
    { ticket, name, base: base ?? prepared.prepared.base, today: TODAY, demo: false },
    quiet,
  )
  if (!taken.ok) throw new Error(taken.why)
  return taken.site.id
}

beforeEach(async () => {
  await Promise.all(db.tables.map((t) => t.clear()))
})

describe('intake', () => {
  it('guesses the address from a canonical, then from the folder’s name', async () => {
    const canonical = PAGE('A', '<link rel="canonical" href="https://guess.example/docs/a/">')
    const zip = writeZip([
      ['a/index.html', new TextEncoder().encode(canonical)],
      ['style.css', new TextEncoder().encode('p{}')],
    ])
    expect(await prepare({ kind: 'zip', file: file('x.zip', zip) })).toMatchObject({
      ok: true,
      prepared: { base: 'https://guess.example/docs/', baseFrom: 'a page’s canonical', pages: 1, others: 1 },
    })
    const home = PAGE('A', '<link rel="canonical" href="https://guess.example/docs/index.html">')
    const own = writeZip([['index.html', new TextEncoder().encode(home)]])
    expect(await prepare({ kind: 'zip', file: file('y.zip', own) })).toMatchObject({
      prepared: { base: 'https://guess.example/docs/' },
    })
    const folder = {
      kind: 'files' as const,
      name: 'light.example',
      files: [{ path: 'a.html', file: file('a.html', PAGE('A')) }],
    }
    expect(await prepare(folder)).toMatchObject({
      prepared: { base: 'https://light.example/', baseFrom: 'the folder’s name' },
    })
    expect(await prepare({ kind: 'paste', html: PAGE('A') })).toMatchObject({
      prepared: { base: 'https://site.example/', baseFrom: 'nothing on the pages' },
    })
  })
  it('takes one folder around everything for the root, and keeps its name in the paths', async () => {
    const text = (s: string) => new TextEncoder().encode(s)
    const id = await takeInZip(
      writeZip([
        [
          'my-site/index.html',
          text(PAGE('Home of the light on the rock', '<link rel="canonical" href="https://s.example/">')),
        ],
        ['my-site/a/b.html', text(PAGE('The second page of this small site'))],
      ]),
    )
    const rows = await db.ledger.where('site').equals(id).toArray()
    expect(rows.map((r) => [r.path, r.url])).toEqual([
      ['my-site/a/b.html', 'https://s.example/a/b.html'],
      ['my-site/index.html', 'https://s.example/'],
    ])
  })
  it('keeps aside what is no page, names what could not be read, and keeps it too', async () => {
    const id = await takeInZip(
      writeZip([
        ['good.html', new TextEncoder().encode(PAGE('Good'))],
        ['empty.html', new Uint8Array()],
        ['picture.html', Uint8Array.from([0xff, 0xd8, 0xff, 0xe0])],
        ['img/x.png', Uint8Array.from([1, 2, 3])],
      ]),
    )
    const site = await db.sites.get(id)
    expect(site).toMatchObject({ pages: 1, otherFiles: 3, status: 'ready' })
    expect(site!.unread.map((u) => u.path)).toEqual(['empty.html', 'picture.html'])
    expect((await db.files.where('site').equals(id).toArray()).map((f) => f.path)).toEqual([
      'empty.html',
      'img/x.png',
      'picture.html',
    ])
  })
  it('refuses what holds no pages, a wrong address, and a ticket that was used', async () => {
    expect(
      await prepare({ kind: 'zip', file: file('x.zip', writeZip([['a.txt', new Uint8Array([1])]])) }),
    ).toMatchObject({
      ok: false,
      why: expect.stringMatching(/No pages were found/),
    })
    const prepared = await prepare({ kind: 'paste', html: PAGE('A') })
    if (!prepared.ok) throw new Error(prepared.why)
    const given = {
      ticket: prepared.prepared.ticket,
      name: '',
      base: 'not an address',
      today: TODAY,
      demo: false,
    }
    expect(await takeIn(given, quiet)).toMatchObject({
      ok: false,
      why: expect.stringMatching(/not a web address/),
    })
    expect(await takeIn({ ...given, base: 's.example' }, quiet)).toMatchObject({
      ok: true,
      site: { name: 's.example' },
    })
    expect(await takeIn({ ...given, base: 's.example' }, quiet)).toMatchObject({
      ok: false,
      why: expect.stringMatching(/Drop it again/),
    })
  })
  it('leaves nothing when none of the pages can be read, or when it is cancelled', async () => {
    const prepared = await prepare({ kind: 'page', file: file('a.html', '') })
    if (!prepared.ok) throw new Error(prepared.why)
    const base = 'https://s.example/'
    expect(
      await takeIn({ ticket: prepared.prepared.ticket, name: 'x', base, today: TODAY, demo: false }, quiet),
    ).toMatchObject({
      ok: false,
      why: expect.stringMatching(/None of the pages could be read.*empty/),
    })
    const files = Array.from({ length: 60 }, (_, i) => ({
      path: `p${i}.html`,
      file: file(`p${i}.html`, PAGE(`Page ${i}`)),
    }))
    const many = await prepare({ kind: 'files', name: 'x', files })
    if (!many.ok) throw new Error(many.why)
    const { ticket } = many.prepared
    const result = await takeIn({ ticket, name: 'x', base, today: TODAY, demo: false }, ({ done }) => {
      if (done >= 20) cancelIntake(ticket)
    })
    expect(result).toMatchObject({ ok: false, why: expect.stringMatching(/Nothing was kept/) })
    expect(await db.sites.count()).toBe(0)
    expect(await db.pages.count()).toBe(0)
  })
})

describe('a site that is open', () => {
  it('evaluates a page as its decisions change; the marks of the site follow', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    const opened = await desk.openSite(id, TODAY)
    expect(opened!.rows).toHaveLength(45)
    expect(opened!.siteMarks.map((m) => m.rule)).toEqual([
      'title-duplicate',
      'title-near-duplicate',
      'description-duplicate',
      'slug-collision',
      'page-orphan',
      'data-dangling',
      'data-conflict',
    ])

    const path = 'tours/tower.html'
    const before = await desk.evaluatePage(path, {})
    expect(before!.view.marks.find((m) => m.rule === 'title-duplicate')!.otherPages).toEqual([
      'tours/lens-room.html',
    ])
    expect(before!.siteMarks).toBeNull()
    const after = await desk.evaluatePage(path, { 'edit:title': { value: 'Tower' } })
    expect(after!.siteMarks!.map((m) => m.rule)).not.toContain('title-duplicate')
    expect(after!.view).toMatchObject({
      title: 'Tower',
      sourceTitle: 'Lighthouse Tower Tour: Steps, View and Tea',
    })
    expect(after!.view.marks.map((m) => m.rule)).toContain('title-short')
    expect(await desk.evaluatePage('no/such.html', {})).toBeNull()
  })

  it('lets a mark stand while its figure holds, and offers repairs with keys of the source', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    await desk.openSite(id, TODAY)
    const path = 'stories/fog-signal.html'
    const { view } = (await desk.evaluatePage(path, {}))!
    const split = view.marks.find((m) => m.rule === 'h1-split')!
    const keys = Object.keys(split.repair!.edits)
    expect(keys).toEqual([view.headings.find((h) => h.text === 'What the fog signal')!.key])
    const stood: Decisions = {
      [split.stetKey]: { fingerprint: split.fingerprint, reason: 'So it was set.', date: TODAY },
    }
    const letStand = (await desk.evaluatePage(path, stood))!.view
    expect(letStand.marks.find((m) => m.rule === 'h1-split')!.stet).toMatchObject({
      reason: 'So it was set.',
    })
    expect(letStand.row.rules).not.toContain('h1-split')
    expect(letStand.row.flaw).toBe(view.row.flaw - 1)
    const changed = (await desk.evaluatePage(path, {
      ...stood,
      [`edit:${keys[0]}`]: { value: 'What the horn' },
    }))!.view
    expect(changed.marks.find((m) => m.rule === 'h1-split')).toMatchObject({
      stet: null,
      stoodBefore: { reason: 'So it was set.' },
    })

    const joined = (await desk.evaluatePage(path, { [`edit:${keys[0]}`]: split.repair!.edits[keys[0]!] }))!
      .view
    expect(joined.headings.filter((h) => h.level === 1).map((h) => h.text)).toEqual([
      'What the fog signal says and why it stopped',
    ])
    // A second repair, found in the proof, still speaks of the source.
    const gap = joined.marks.find((m) => m.rule === 'heading-skip')!
    expect(Object.keys(gap.repair!.edits)).toEqual(
      view.headings.filter((h) => h.level === 4 && h.landmark === 'main').map((h) => h.key),
    )
  })

  it('makes rows anew whose decisions changed while it was closed', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    await commit(
      id,
      'Title',
      [
        {
          page: 'shop/index.html',
          key: 'edit:title',
          after: { value: 'Charts, lamps and a fog horn from the island' },
        },
      ],
      TODAY,
    )
    const opened = await desk.openSite(id, TODAY)
    const row = opened!.rows.find((r) => r.path === 'shop/index.html')!
    expect(row).toMatchObject({ title: 'Charts, lamps and a fog horn from the island', titleFit: 'fits' })
    expect(row.rules).not.toContain('title-short')
    expect(opened!.work).toHaveLength(1)
  })

  it('hands off the whole site with only the changed bytes, or the changed files alone, and says what changed', async () => {
    const input = unzipSync(demoZip())
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    await desk.openSite(id, TODAY)
    const title = {
      page: 'jobs/index.html',
      key: 'edit:title',
      after: { value: 'Lighthouse Jobs: a Ladder or a Kettle' },
    }
    const gone = { page: 'contact.html', key: 'edit:heading@9999', after: { level: 2 } }
    await commit(
      id,
      'Title',
      [title, gone, { page: 'contact.html', key: 'keyword:primary', after: 'radio' }],
      TODAY,
    )
    const changes = await handOff.changedPages()
    expect(
      changes.pages.map((c) => [c.path, c.state, c.changes.map((f) => f.field), c.refused.length]),
    ).toEqual([
      ['contact.html', 'drafted', [], 1],
      ['jobs/index.html', 'drafted', ['Title'], 0],
    ])
    expect(await handOff.changesCsv()).toContain(
      'jobs/index.html,https://farrowskerry.example/jobs/,drafted,Title,,Lighthouse Jobs: a Ladder or a Kettle',
    )

    const whole = unzipSync((await handOff.handOff('whole', quiet))!.zip)
    expect(Object.keys(whole).sort()).toEqual([...Object.keys(input), 'changes.csv'].sort())
    for (const [path, bytes] of Object.entries(input))
      if (path !== title.page)
        expect(Buffer.compare(Buffer.from(whole[path]!), Buffer.from(bytes)), path).toBe(0)
    const text = (bytes: Uint8Array) => Buffer.from(bytes).toString('latin1')
    expect(
      text(whole[title.page]!).replace(/\n {2}<title>Lighthouse Jobs: a Ladder or a Kettle<\/title>/, ''),
    ).toBe(text(input[title.page]!))
    expect(Object.keys(unzipSync((await handOff.handOff('changed', quiet))!.zip))).toEqual([
      'changes.csv',
      title.page,
    ])
  })

  it('goes out as a project file and comes back the same', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    await commit(
      id,
      'Title',
      [{ page: 'shop/index.html', key: 'edit:title', after: { value: 'Shop of the light' } }],
      TODAY,
    )
    await commit(id, 'Approved', [{ page: 'shop/index.html', key: 'state', after: 'approved' }], TODAY)
    const project = (await handOff.exportProject(id))!
    const prepared = await prepare({ kind: 'zip', file: file('light.keen-quill.zip', project) })
    if (!prepared.ok) throw new Error(prepared.why)
    expect(prepared.prepared).toMatchObject({
      kind: 'project',
      pages: 45,
      base: 'https://farrowskerry.example/',
    })
    const taken = await takeInProject(prepared.prepared.ticket, TODAY, [], quiet)
    if (!taken.ok) throw new Error(taken.why)
    expect(taken.site.id).not.toBe(id)
    expect(
      Buffer.compare(Buffer.from((await handOff.exportProject(taken.site.id))!), Buffer.from(project)),
    ).toBe(0)
  })

  it('takes keywords from a sheet by path or by address, and names rows without a page', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    await desk.openSite(id, TODAY)
    expect(
      await desk.readKeywordSheet(
        utf8(
          'url,primary,secondary\nhttps://farrowskerry.example/shop/,fog horn, lamp ;chart\nhttps://x.example/,y,\n',
        ),
      ),
    ).toEqual({
      ok: true,
      read: {
        matched: [{ id: 'shop/index.html', primary: 'fog horn', secondary: ['lamp', 'chart'] }],
        unmatched: ['https://x.example/'],
      },
    })
    expect(await desk.readKeywordSheet(utf8('page,keyword\n'))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/must name the columns/),
    })
    const rows = (await desk.evaluateRows(
      [{ page: 'shop/index.html', decisions: { 'keyword:primary': 'fog horn' } }],
      true,
    ))!.rows
    expect(rows[0]!.rules).toContain('title-keyword')
  })
})

describe('changed addresses in the worker', () => {
  const site = {
    'index.html': PAGE('The light and its pages', '<link rel="canonical" href="https://s.example/">').replace(
      '</main>',
      '<img src="a/pic.png" alt="The light"><a href="a/">a</a><a href="c.html">c</a></main>',
    ),
    'a/index.html': PAGE('The first folder of this site').replace('</main>', '<a href="b.html">b</a></main>'),
    'a/b.html': PAGE('A page within the first folder').replace(
      '</main>',
      '<a href="../c.html#x">c</a></main>',
    ),
    'c.html': PAGE('A page at the top of the site').replace('</main>', '<a href="a/b.html">b</a></main>'),
    'main.css': 'p{background:url(a/pic.png)}',
    'a/pic.png': 'x',
  }
  const zip = (files: Record<string, string>) =>
    writeZip(Object.entries(files).map(([p, t]): [string, Uint8Array] => [p, new TextEncoder().encode(t)]))
  const slug = (value: string, alone?: true): Decisions => ({
    'edit:slug': { value, ...(alone ? { alone } : {}) },
  })
  const text = (bytes: Uint8Array | undefined) => new TextDecoder().decode(bytes)

  it('move a folder, name what moves with it, and follow in every file that leaves', async () => {
    const id = await takeInZip(zip(site), 'https://s.example/')
    await desk.openSite(id, TODAY)
    const answer = (await desk.evaluatePage('a/index.html', slug('z')))!
    expect(answer.view).toMatchObject({
      url: 'https://s.example/z/',
      address: { oldUrl: 'https://s.example/a/', under: 1, refused: null },
    })
    expect(answer.moved).toEqual(['a/b.html'])
    const rows = (await desk.evaluateRows([{ page: 'a/b.html', decisions: {} }], true))!.rows
    expect(rows[0]!.url).toBe('https://s.example/z/b.html')
    // Links to the new addresses are no broken ones: what is judged is what leaves.
    const home = (await desk.evaluatePage('index.html', {}))!
    expect(home.view.marks.map((m) => m.rule)).not.toContain('link-broken')
    expect(await handOff.slugEffect('a/index.html', { 'a/index.html': slug('z') })).toEqual({
      moved: [
        { from: 'https://s.example/a/b.html', to: 'https://s.example/z/b.html' },
        { from: 'https://s.example/a/', to: 'https://s.example/z/' },
      ],
      followers: [
        { path: 'c.html', url: 'https://s.example/c.html', isPage: true, count: 1 },
        { path: 'index.html', url: 'https://s.example/', isPage: true, count: 2 },
        { path: 'main.css', url: 'https://s.example/main.css', isPage: false, count: 1 },
      ],
      redirects: 3,
    })
    await commit(id, 'Slug', [{ page: 'a/index.html', key: 'edit:slug', after: { value: 'z' } }], TODAY)
    const whole = unzipSync((await handOff.handOff('whole', quiet))!.zip)
    expect(Object.keys(whole).sort()).toEqual([
      'c.html',
      'changes.csv',
      'index.html',
      'main.css',
      'redirects.csv',
      'z/b.html',
      'z/index.html',
      'z/pic.png',
    ])
    expect(text(whole['main.css'])).toBe('p{background:url(z/pic.png)}')
    expect(text(whole['c.html'])).toBe(site['c.html'].replace('a/b.html', 'z/b.html'))
    expect(text(whole['z/b.html'])).toBe(site['a/b.html'])
    expect(Object.keys(unzipSync((await handOff.handOff('changed', quiet))!.zip)).sort()).toEqual(
      Object.keys(whole).sort(),
    )
    const changed = await handOff.changedPages()
    expect(changed.pages.map((p) => [p.path, p.changes.map((c) => c.field)])).toEqual([
      ['a/b.html', ['Address']],
      ['a/index.html', ['Address']],
    ])
    expect(changed.followers.map((f) => f.path).sort()).toEqual(['c.html', 'index.html'])
    expect(changed.redirects).toHaveLength(3)

    // Opened again, the site is at its new addresses at once.
    const opened = (await desk.openSite(id, TODAY))!
    expect(opened.rows.find((r) => r.path === 'a/b.html')!.url).toBe('https://s.example/z/b.html')
    // Taken back, nothing of it stays.
    expect((await desk.evaluatePage('a/index.html', {}))!.moved).toEqual(['a/b.html'])
    await commit(id, 'Slug', [{ page: 'a/index.html', key: 'edit:slug', after: undefined }], TODAY)
    expect(Object.keys(unzipSync((await handOff.handOff('whole', quiet))!.zip)).sort()).toEqual(
      Object.keys(site).sort(),
    )
    expect(await handOff.redirectsCsv()).toBe('from,to,status\r\n')
  })
  it('that are taken are named and not carried out', async () => {
    const id = await takeInZip(zip(site), 'https://s.example/')
    await desk.openSite(id, TODAY)
    const { view } = (await desk.evaluatePage('a/index.html', slug('C.html')))!
    expect(view.url).toBe('https://s.example/a/')
    expect(view.address.refused).toMatch(/c\.html already has this address/)
    expect((await desk.evaluatePage('index.html', slug('x')))!.view.address.refused).toMatch(/home page/)
  })
})

describe('house style, tokens and takes in the worker', () => {
  it('fills tokens into the proof, and the shared wording follows', async () => {
    const page = PAGE('Tides of the rock', '<meta property="og:title" content="Old">')
    const id = await takeInZip(
      writeZip([['tides.html', new TextEncoder().encode(page)]]),
      'https://s.example/',
    )
    await desk.openSite(id, TODAY)
    desk.setSite({ style: { siteName: 'Light', titlePattern: '{page} | {site}' } })
    const decisions: Decisions = { 'edit:title': { value: '{page} {year} | {site}' }, follow: ['og:title'] }
    const { view } = (await desk.evaluatePage('tides.html', decisions))!
    expect(view.title).toBe('Tides of the rock 2026 | Light')
    expect(view.carriers).toEqual([
      { name: 'og:title', content: 'Tides of the rock 2026 | Light', follows: true },
    ])
    expect(view.marks.map((m) => m.rule)).not.toContain('title-suffix')
    const unfilled = (await desk.evaluatePage('tides.html', {
      'edit:title': { value: 'By {author}, for all who sail' },
    }))!.view
    expect(unfilled.marks.map((m) => m.rule)).toContain('title-placeholder')
    expect(new TextDecoder().decode((await handOff.pageBytes('tides.html', decisions))!)).toContain(
      '<title>Tides of the rock 2026 | Light</title>',
    )
  })
  it('judges pages by the style of their address, also after the site is opened again', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    await commit(
      id,
      'House style',
      [
        {
          page: '',
          key: 'style',
          after: { addresses: [{ match: '/shop/*', rules: { 'title-short': 'off' } }] },
        },
      ],
      TODAY,
    )
    const opened = (await desk.openSite(id, TODAY))!
    expect(opened.style.addresses).toHaveLength(1)
    const row = (opened.rows.find((r) => r.path === 'shop/index.html') ?? null)!
    expect(row.rules).not.toContain('title-short')
    expect(opened.rows.find((r) => r.path === 'stay/booking.html')!.rules).toContain('title-short')
  })
  it('drafts takes from the page and names the marks of each', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    await desk.openSite(id, TODAY)
    const judged = (await desk.judgeTakes('shop/index.html', {
      'keyword:primary': 'lighthouse shop',
      'takes:title': [{ text: 'A shop', from: '' }],
    }))!
    expect(judged.drafted.title.map((t) => t.text)).toContain('Lighthouse shop: The shop')
    expect(judged.marks['title\nA shop']).toEqual(
      expect.arrayContaining(['Short title', 'The keyword is not in the title']),
    )
    expect(judged.marks['title\nLighthouse shop: The shop']).not.toContain('The keyword is not in the title')
    expect(judged.drafted.description.length).toBeGreaterThan(0)
  })
  it('previews a pattern from what is decided, and guesses the site’s name', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    const opened = (await desk.openSite(id, TODAY))!
    expect(desk.titleGuess()).toBeNull()
    await commit(
      id,
      'Title',
      [{ page: 'contact.html', key: 'edit:title', after: { value: 'Ring us | {site}' } }],
      TODAY,
    )
    const style = { ...opened.style, siteName: 'Farrowskerry Light', titlePattern: '{page} | {site}' }
    const preview = (await desk.patternPreview('{page} | {site}', '/con*', style))!
    expect(preview).toMatchObject({
      pages: 1,
      changes: [{ path: 'contact.html', value: 'Ring us | {site}', after: 'Ring us | Farrowskerry Light' }],
    })
  })
  it('gives pages for approval before and after, with the other takes', async () => {
    const id = await takeInZip(demoZip(), 'https://farrowskerry.example/')
    await desk.openSite(id, TODAY)
    const work: Decisions = {
      'edit:title': { value: 'Ring the quay' },
      'takes:title': [
        { text: 'Ring the quay', from: '' },
        { text: 'Call the quay', from: '' },
      ],
    }
    const pages = await approval.approvalPages(['contact.html', 'no/such.html'], { 'contact.html': work }, {})
    const [page] = pages
    expect(page).toMatchObject({
      before: { title: 'Contact the Lighthouse: Telephone, Post and Radio' },
      after: { title: 'Ring the quay', url: 'https://farrowskerry.example/contact.html' },
      takes: { title: ['Call the quay'], description: [] },
    })
    expect(await approval.approvalFile(pages, [])).toContain('For approval: farrowskerry.example')
  })
})
