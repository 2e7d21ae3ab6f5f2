/** Structure in the worker: the head, excerpts, previews, notes on the look, comparison, rules for what recurs. */
import 'fake-indexeddb/auto'
import { unzipSync } from 'fflate'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { writeZip } from '../../core/exchange/zip.ts'
import type { TemplateRule } from '../../core/headings/template-rules.ts'
import { db } from '../store/db.ts'
import { commit } from '../store/work-log.ts'
import * as desk from './desk.ts'
import * as handOff from './hand-off.ts'
import { takeIn } from './intake.ts'
import { prepare } from './open-input.ts'
import * as structure from './structure.ts'
import * as templates from './templates.ts'

// Here a page's id is its path, as of a site that was taken in before pages had ids of their own.
vi.mock('../../core/site/page-identity.ts', async (original) => {
  const actual = await original<typeof import('../../core/site/page-identity.ts')>()
  return { ...actual, filePage: (_id: string, file: string, url: string) => actual.filePage(file, file, url) }
})

const TODAY = '2026-11-23'
const HTML = [
  '<!doctype html>',
  '<html lang="en">',
  '<head>',
  '  <meta charset="utf-8">',
  '  <title>Tides é and moons</title>',
  '  <meta name="author" content="Ada">',
  '  <link rel="stylesheet" href="s.css">',
  '  <style>main h2.t { color: red }</style>',
  '</head>',
  '<body>',
  '  <!-- TODO -->',
  '  <main><h1 id="a">Tides</h1>',
  '  <h3 class="t">Spring</h3>',
  '  <p id="a" class="page-title">Neap</p><img src="lamp.png"><img src="gone.png" alt="Gone"></main>',
  '</body>',
  '</html>',
].join('\n')
const text = (s: string) => new TextEncoder().encode(s)

async function openSite(files: Record<string, string>): Promise<string> {
  const zip = writeZip(Object.entries(files).map(([p, c]) => [p, text(c)] as [string, Uint8Array]))
  const prepared = await prepare({ kind: 'zip', file: new File([zip as BlobPart], 'x.zip') })
  if (!prepared.ok) throw new Error(prepared.why)
  const { ticket, name } = prepared.prepared
  const taken = await takeIn(
    { ticket, name, base: 'https://t.example/', today: TODAY, demo: false },
    () => {},
  )
  if (!taken.ok) throw new Error(taken.why)
  await desk.openSite(taken.site.id, TODAY)
  return taken.site.id
}
const one = () => openSite({ 'index.html': HTML, 's.css': 'h3 { top: 0 }\n.t {}', 'lamp.png': 'x' })
const byteOf = (part: string) => text(HTML.slice(0, HTML.indexOf(part))).length

beforeEach(async () => {
  await Promise.all(db.tables.map((t) => t.clear()))
})

describe('the head', () => {
  it('has every thing at its line, with the key by which it is edited, bytes counted where letters are not one', async () => {
    await one()
    const head = (await structure.headOf('index.html', {}))!
    expect(head).toMatchObject({ doctype: true, lang: 'en', mainBy: 'main', skipLink: false, robots: [] })
    expect(head.metas.map((m) => [m.name, m.key, m.line])).toEqual([
      ['author', `meta:author@${byteOf('<meta name="author"')}`, 6],
    ])
    expect(head.links.map((l) => [l.rel, l.href, l.key])).toEqual([
      ['stylesheet', 's.css', `link@${byteOf('<link')}`],
    ])
    expect(head.images.map((i) => [i.alt, i.file, i.key])).toEqual([
      [null, 'lamp.png', `alt@${byteOf('<img src="lamp')}`],
      ['Gone', null, `alt@${byteOf('<img src="gone')}`],
    ])
    expect(head.repeatedIds.map((i) => [i.id, i.count, i.line])).toEqual([
      ['a', 2, 12],
      ['a', 2, 14],
    ])
    expect(head.comments).toMatchObject([{ text: 'TODO', what: 'a note to oneself', line: 11 }])
  })
  it('knows what the editor put in by the edit that did', async () => {
    await one()
    const head = (await structure.headOf('index.html', {
      'edit:meta:viewport': { value: 'width=device-width' },
      'edit:new:code': { value: '<link rel="icon" href="i.svg">' },
    }))!
    expect(head.metas.find((m) => m.name === 'viewport')!.key).toBe('meta:viewport')
    expect(head.links.find((l) => l.rel === 'icon')!.key).toBe('new:code')
    expect(head.added).toEqual([{ key: 'new:code', value: '<link rel="icon" href="i.svg">' }])
    // What stands behind is still addressed by its byte in the source.
    expect(head.images[0]!.key).toBe(`alt@${byteOf('<img src="lamp')}`)
  })
  it('gives pictures that the site has, and nothing that is none', async () => {
    await one()
    expect(await structure.pictureOf('lamp.png')).toMatchObject({ type: 'image/png' })
    expect(await structure.pictureOf('s.css')).toBeNull()
    expect(await structure.pictureOf('gone.png')).toBeNull()
  })
})

describe('the source', () => {
  it('is shown around a place, the place marked', async () => {
    await one()
    const excerpt = (await structure.excerptOf('index.html', {}, HTML.indexOf('<h3')))!
    expect(excerpt.lines[excerpt.at]!.slice(excerpt.from, excerpt.to)).toBe('<h3 class="t">')
    expect(excerpt.first + excerpt.at).toBe(13)
  })
  it('before and after an edit, line by line, over what is decided already', async () => {
    await one()
    const heading = `heading@${byteOf('<h3')}`
    const decided = { [`edit:${heading}`]: { value: 'Spring tides' } }
    expect(await structure.previewEdits('index.html', decided, { [heading]: { level: 2 } })).toEqual({
      hunks: [
        { line: 13, before: '<h3 class="t">Spring tides</h3>', after: '<h2 class="t">Spring tides</h2>' },
      ],
      refused: [],
    })
    const block = `block@${byteOf('<main')}`
    expect((await structure.previewEdits('index.html', {}, { [block]: { level: 2 } }))!.refused[0]).toMatch(
      /paragraph or a plain block/,
    )
  })
  it('names the selectors that address a tag which changed, in the page and in the site’s style sheets', async () => {
    await one()
    expect(await structure.lookNotes('index.html', {})).toEqual([])
    const notes = await structure.lookNotes('index.html', { [`edit:heading@${byteOf('<h3')}`]: { level: 2 } })
    expect(notes.map((n) => [n.where, n.selector])).toEqual([
      ['', 'main h2.t'],
      ['s.css', 'h3'],
    ])
  })
})

describe('comparison', () => {
  it('sets a page beside another, judged for the same keyword; what cannot be read is said', async () => {
    await openSite({ 'index.html': HTML, 'b.html': '<title>Moons</title><h1>Moons and tides</h1><h2>x</h2>' })
    const decisions = { 'keyword:primary': 'tide' }
    const result = (await structure.compare(
      'index.html',
      decisions,
      [
        { id: 'b.html', decisions: {} },
        { html: new Uint8Array([0, 1, 2, 0, 0]), name: 'x' },
      ],
      null,
    ))!
    expect(result.own.keyword).toMatchObject({ places: ['title', 'H1', 'first 100 words'], inText: 1 })
    expect(result.others).toMatchObject([
      {
        ok: true,
        structure: {
          name: 'b.html',
          sections: 1,
          keyword: { places: ['H1', 'first 100 words'] },
          title: { text: 'Moons', characters: 5 },
        },
      },
      { ok: false, name: 'x', why: expect.stringMatching(/binary/) },
    ])
    const forAnother = (await structure.compare('index.html', decisions, [], 'moon'))!
    expect(forAnother.own.keyword).toMatchObject({ text: 'moon', places: ['title'], inText: 0 })
  })
})

describe('rules for what recurs', () => {
  const page = (i: number) =>
    `<title>Page ${i}</title><main><p class="page-title">Page ${i}</p><h2>x</h2></main>`
  const rule: TemplateRule = {
    id: 'r',
    tag: 'p',
    className: 'page-title',
    landmark: null,
    become: 1,
    except: ['p2.html'],
  }
  it('are suggested, previewed, kept with the site, hold in rows and in the hand-off, and leave nothing when taken back', async () => {
    const id = await openSite({ 'p1.html': page(1), 'p2.html': page(2), 'p3.html': page(3) })
    expect(
      (await templates.templateSuggestions()).map((s) => [s.rule.className, s.rule.become, s.pages]),
    ).toEqual([['page-title', 1, 3]])
    expect(await db.pageOutlines.count()).toBe(3)
    const preview = (await templates.templatePreview(rule))!
    expect(preview.pages.map((p) => [p.path, p.changed, p.conflict])).toEqual([
      ['p1.html', 1, null],
      ['p2.html', 1, null],
      ['p3.html', 1, null],
    ])
    await commit(id, 'Rule', [{ page: '', key: 'templates', after: [rule] }], TODAY)
    const opened = (await desk.openSite(id, TODAY))!
    expect(opened.templates).toEqual([rule])
    expect(opened.rows.map((r) => [r.path, r.h1])).toEqual([
      ['p1.html', 'Page 1'],
      ['p2.html', null],
      ['p3.html', 'Page 3'],
    ])
    expect(await templates.templateReach()).toEqual({ r: 2 })
    const changed = await handOff.changedPages()
    expect(changed.pages.map((p) => p.path)).toEqual(['p1.html', 'p3.html'])
    const files = unzipSync((await handOff.handOff('whole', () => {}))!.zip)
    const read = (path: string) => new TextDecoder().decode(files[path])
    expect(read('p1.html')).toBe(
      page(1).replace('<p class="page-title">Page 1</p>', '<h1 class="page-title">Page 1</h1>'),
    )
    expect(read('p2.html')).toBe(page(2))
    await commit(id, 'Taken back', [{ page: '', key: 'templates', after: undefined }], TODAY)
    expect((await desk.openSite(id, TODAY))!.rows.every((r) => r.h1 === null)).toBe(true)
    expect((await handOff.changedPages()).pages).toEqual([])
  })
  it('give way to what an editor decided of the page', async () => {
    await openSite({ 'p1.html': page(1), 'p2.html': page(2), 'p3.html': page(3) })
    desk.setSite({ templates: [rule] })
    const key = `edit:block@${page(1).indexOf('<p class')}`
    const answer = (await desk.evaluatePage('p1.html', { [key]: { level: 2 } }))!
    expect(Array.from(answer.view.headings, (h) => [h.level, h.text, h.base.level])).toEqual([
      [2, 'Page 1', 1],
      [2, 'x', 2],
    ])
    const left = (await desk.evaluatePage('p2.html', {}))!
    expect(left.view.others).toMatchObject([{ kind: 'like', text: 'Page 2' }])
  })
})
