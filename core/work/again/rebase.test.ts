/** What becomes of every kind of edit when its page is taken in again. */
import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import type { Draft } from '../../page/edits/draft.ts'
import { readSource, type Source } from '../../page/source/source.ts'
import { filePage } from '../../site/page-identity.ts'
import { emptyIndex } from '../../site/site-index.ts'
import { noMoves } from '../../site/moves.ts'
import { defaultStyle } from '../../rules/house-style.ts'
import { stateOf, type Decisions } from '../decisions.ts'
import type { SiteSetting } from '../setting.ts'
import { matchBlocks } from './match-blocks.ts'
import { matchPages, type NewPage, type OldPage } from './match-pages.ts'
import { rebaseDecisions } from './rebase-decisions.ts'
import { rebaseDraft } from './rebase.ts'

function source(html: string): Source {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  return read.source
}
const page = (body: string, head = '<title>Tides</title>') =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8">${head}</head><body><main>${body}</main></body></html>`
/** The byte at which something begins in a page of ASCII. */
const at = (html: string, what: string, nth = 0) => {
  let place = -1
  for (let i = 0; i <= nth; i++) place = html.indexOf(what, place + 1)
  if (place < 0) throw new Error(`no ${what}`)
  return place
}
const fate = (old: string, now: string, draft: Draft) =>
  rebaseDraft(source(old), source(now), draft).edits.map(({ now: target, status }) => [target, status])

describe('an edit of the head', () => {
  const old = page('<h1>x</h1>', '<title>Tides</title><meta name="description" content="When it turns.">')
  const now = (title: string, description = 'When it turns.') =>
    page('<h1>x</h1>', `<title>${title}</title><meta name="description" content="${description}">`)
  it.each([
    ['Tides', 'still to do'],
    ['Tide times', 'in place'],
    ['Tide  times ', 'in place'],
    ['Ebb', 'in conflict'],
  ])('whose title is now “%s”: %s', (title, status) => {
    expect(fate(old, now(title), { title: { value: 'Tide times' } })).toEqual([['title', status]])
  })
  it('evens out quotes and dashes', () => {
    expect(fate(old, now('The keeper’s – tides'), { title: { value: "The keeper's - tides" } })).toEqual([
      ['title', 'in place'],
    ])
  })
  it('of each kind', () => {
    const bare =
      '<html><head><title>x</title></head><body><nav><a href="/">n</a></nav><main id="m"><h1>x</h1></main></body></html>'
    const json = '{"@context":"https://schema.org","@type":"Thing","name":"x"}'
    const draft: Draft = {
      lang: { value: 'en' },
      doctype: { value: 'html' },
      charset: { value: 'utf-8' },
      canonical: { value: 'https://s.example/' },
      'meta:robots': { value: 'noindex' },
      'new:icon': { value: '<link rel="icon" href="/i.png">' },
      'data:thing': { value: json },
      skip: { value: 'Skip' },
    }
    const live = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>x</title><link rel="canonical" href="https://s.example/"><meta name="robots" content="noindex"><link rel="icon" href="/i.png"><script type="application/ld+json">{"@type":"Thing","@context":"https://schema.org","name":"x"}</script></head><body><a href="#m">Skip</a><nav><a href="/">n</a></nav><main id="m"><h1>x</h1></main></body></html>`
    expect(new Set(fate(bare, live, draft).map(([, status]) => status))).toEqual(new Set(['in place']))
    expect(new Set(fate(bare, bare, draft).map(([, status]) => status))).toEqual(new Set(['still to do']))
  })
  it('that takes something out is in place when it is gone', () => {
    expect(fate(old, page('<h1>x</h1>'), { 'meta:description': { remove: true } })).toEqual([
      ['meta:description', 'in place'],
    ])
  })
  it('of a page that a sheet alone knew is not in conflict with what was not known', () => {
    const row = source(page('', ''))
    const { edits } = rebaseDraft(
      row,
      source(now('Tides')),
      { title: { value: 'Tide times' } },
      { isWhole: false },
    )
    expect(edits[0]!.status).toBe('still to do')
  })
})

describe('an edit of something in the page', () => {
  const old = page(
    '<h1>The tides</h1><p>One.</p><h2>Ebb and how it goes out</h2><p>Two.</p><h2>Flood</h2><img src="/a.3f2a9c81.png" alt="A"><!-- note --><p>Three.</p>',
  )
  const ebb = `heading@${at(old, '<h2>')}`
  it('follows its element to where it is now', () => {
    const now = page('<p>New.</p><h1>The tides</h1><p>One.</p><h2>Ebb and how it goes out</h2><p>Two.</p>')
    expect(fate(old, now, { [ebb]: { value: 'Ebb' } })).toEqual([
      [`heading@${at(now, '<h2>')}`, 'still to do'],
    ])
  })
  it('is in place where its level is what was wanted', () => {
    const now = old.replace('<h2>Ebb and how it goes out</h2>', '<h3>Ebb and how it goes out</h3>')
    expect(fate(old, now, { [ebb]: { level: 3 } })).toEqual([[`heading@${at(now, '<h3>')}`, 'in place']])
    expect(fate(old, old, { [ebb]: { level: 3 } })).toEqual([[ebb, 'still to do']])
    expect(fate(old, now.replace(/h3>/g, 'h4>'), { [ebb]: { level: 3 } })[0]![1]).toBe('in conflict')
  })
  it('is in conflict where somebody else wrote something else', () => {
    const now = old.replace('Ebb and how it goes out', 'Ebb and how it runs out')
    expect(fate(old, now, { [ebb]: { value: 'Ebb' } })[0]![1]).toBe('in conflict')
  })
  it('is gone where its element is', () => {
    const now = old.replace('<h2>Ebb and how it goes out</h2><p>Two.</p>', '')
    expect(fate(old, now, { [ebb]: { value: 'Ebb' } })).toEqual([[null, 'gone']])
  })
  it('waits for its neighbours where both wordings are in the page', () => {
    const now = old.replace('<p>Two.</p>', '<p>Two.</p><h2>Ebb and flood, a short account</h2>')
    const wanted = { [ebb]: { value: 'Ebb and flood, a short account' } }
    expect(fate(old, now, wanted)).toEqual([[`heading@${at(now, '<h2>')}`, 'still to do']])
  })
  it('of a picture knows it by its file, whatever its version', () => {
    const now = old.replace('a.3f2a9c81.png', 'a.77aa00ff.png')
    const alt = { [`alt@${at(old, '<img')}`]: { value: 'A tide' } }
    expect(fate(old, now, alt)).toEqual([[`alt@${at(now, '<img')}`, 'still to do']])
    expect(fate(old, now.replace('alt="A"', 'alt="A tide"'), alt)[0]![1]).toBe('in place')
  })
  it('of a comment that is gone, and was to go, is in place', () => {
    const draft = { [`comment@${at(old, '<!-- note')}`]: { remove: true as const } }
    expect(fate(old, old.replace('<!-- note -->', ''), draft)).toEqual([[null, 'in place']])
    expect(fate(old, old, draft)[0]![1]).toBe('still to do')
  })
  it('that joins headings brings all of them over, or is in conflict', () => {
    const parts = page('<h1>The light</h1><h1>at the point</h1><p>x</p>')
    const draft = { [`heading@${at(parts, '<h1>')}`]: { merge: [at(parts, '<h1>', 1)] } }
    const moved = page('<p>A word before it all.</p><h1>The light</h1><h1>at the point</h1><p>x</p>')
    const [edit] = rebaseDraft(source(parts), source(moved), draft).edits
    expect(edit).toMatchObject({ status: 'still to do', edit: { merge: [at(moved, '<h1>', 1)] } })
    const half = page('<h1>The light</h1><p>x</p>')
    expect(rebaseDraft(source(parts), source(half), draft).edits[0]!.status).toBe('in conflict')
  })
  it('of structured data knows it by what it is about', () => {
    const data = (name: string, more = '') =>
      page(
        '',
        `<title>x</title><script type="application/ld+json">{"@type":"Event","name":"${name}"${more}}</script>`,
      )
    const draft = {
      [`jsonld@${at(data('Lamp'), '<script')}`]: {
        value: '{"@type":"Event","name":"Lamp","url":"https://s.example/"}',
      },
    }
    expect(fate(data('Lamp'), data('Lamp'), draft)[0]![1]).toBe('still to do')
    expect(fate(data('Lamp'), data('Lamp', ',"url":"https://s.example/"'), draft)[0]![1]).toBe('in place')
    expect(fate(data('Lamp'), data('Lamp', ',"url":"https://o.example/"'), draft)[0]![1]).toBe('in conflict')
  })
})

describe('blocks', () => {
  const lines = (...texts: string[]) => texts.map((text) => ({ tag: 'p', text }))
  it('match themselves, whatever they are (generated)', () => {
    const line = fc.record({
      tag: fc.constantFrom('p', 'h2', 'li'),
      text: fc.constantFrom('a', 'b', 'a long enough line of text', 'another line that is long'),
    })
    fc.assert(
      fc.property(fc.array(line, { maxLength: 20 }), (all) => {
        const matches = matchBlocks(all, all)
        for (const [i, { to }] of matches) expect(all[to]).toEqual(all[i])
        expect(matches.size).toBe(all.length)
      }),
    )
  })
  it('never give one new block to two old ones (generated)', () => {
    const line = fc.record({ tag: fc.constantFrom('p', 'h2'), text: fc.stringMatching(/^[ab ]{0,30}$/) })
    fc.assert(
      fc.property(fc.array(line, { maxLength: 15 }), fc.array(line, { maxLength: 15 }), (a, b) => {
        const targets = [...matchBlocks(a, b).values()].map((m) => m.to)
        expect(new Set(targets).size).toBe(targets.length)
      }),
    )
  })
  it('that are the only ones left between their neighbours are a suggestion', () => {
    const before = lines('the first line of the page, long', 'old words', 'the last line of the page, long')
    const now = lines(
      'the first line of the page, long',
      'quite something else',
      'the last line of the page, long',
    )
    expect(matchBlocks(before, now).get(1)).toEqual({ to: 1, sure: false })
  })
})

describe('pages', () => {
  const old = (id: string, path: string, words: Partial<OldPage> = {}): OldPage => ({
    id,
    url: `https://s.example${path}`,
    file: null,
    title: null,
    h1: null,
    description: null,
    ...words,
  })
  const now = (path: string, redirects: string[] = []): NewPage => ({
    url: `https://s.example${path}`,
    file: null,
    redirects: redirects.map((r) => `https://s.example${r}`),
  })
  it('are known by their address, by a redirect, by what they say', async () => {
    const words = { title: 'Knots', h1: 'Knots', description: 'Eight of them.' }
    const matches = await matchPages(
      [old('a', '/a'), old('b', '/B/'), old('c', '/c'), old('d', '/d', words), old('e', '/e')],
      [now('/a'), now('/b'), now('/c2', ['/c']), now('/d2'), now('/f')],
      async (i) => (i === 3 ? { ...words, title: 'All knots' } : { title: 'x', h1: null, description: null }),
    )
    expect([...matches].map(([i, { id, by }]) => [i, id, by]).sort()).toEqual([
      [0, 'a', 'address'],
      [1, 'b', 'address'],
      [2, 'c', 'redirect'],
      [3, 'd', 'content'],
    ])
  })
  it('of which two say the same are not told apart by that', async () => {
    const words = { title: 'Knots', h1: 'Knots', description: null }
    const matches = await matchPages(
      [old('a', '/a', words), old('b', '/b', words)],
      [now('/c'), now('/d')],
      async () => words,
    )
    expect(matches.size).toBe(0)
  })
})

describe('a page’s decisions', () => {
  const setting: SiteSetting = {
    index: emptyIndex('https://s.example/', true, [['p', 'a.html']]),
    style: { ...defaultStyle, siteName: 'Light' },
    name: 'Light',
    base: 'https://s.example/',
    baseKnown: true,
    root: '',
    moves: noMoves,
    date: '2026-11-26',
    templates: [],
  }
  const identity = filePage('p', 'a.html', 'https://s.example/a.html')
  const rebased = (old: string, now: string, decisions: Decisions) =>
    rebaseDecisions(
      { identity, source: source(old), decisions, setting },
      { identity, source: source(now) },
      '2026-11-26',
    ).decisions
  const old = page('<h1>Tides</h1><h2>Ebb and how it goes out</h2><p>x</p>')
  const kept = { 'keyword:primary': 'tides', note: 'ask Maud', 'takes:title': [{ text: 'T', from: '' }] }

  it('that are live retire with their date, and the page is in place', () => {
    const next = rebased(old, old.replace('Tides</title>', 'Tide times</title>'), {
      ...kept,
      state: 'handed off',
      'edit:title': { value: 'Tide times' },
    })
    expect(next).toEqual({
      ...kept,
      state: 'in place',
      live: [{ target: 'title', value: 'Tide times', date: '2026-11-26' }],
    })
    expect(stateOf(next)).toBe('in place')
    expect(stateOf({ ...next, 'edit:title': { value: 'x' } })).toBe('drafted')
  })
  it('with tokens are live when the page says what they were filled with', () => {
    const next = rebased(old, old.replace('<title>Tides', '<title>Tides | Light'), {
      'edit:title': { value: '{h1} | {site}' },
    })
    expect(next['edit:title']).toBeUndefined()
    expect(next.live).toMatchObject([{ value: 'Tides | Light' }])
  })
  it('that are in conflict wait for the editor, and are not lost the next time', () => {
    const now = old.replace('<title>Tides', '<title>Ebb')
    const once = rebased(old, now, { ...kept, state: 'approved', 'edit:title': { value: 'Tide times' } })
    expect(once).toMatchObject({
      state: 'drafted',
      'conflict:title': { wanted: 'Tide times', says: 'Ebb', was: 'Tides' },
    })
    expect(rebased(now, now, once)).toMatchObject({ 'conflict:title': { wanted: 'Tide times' } })
    expect(rebased(now, now.replace('Ebb', 'Tide times'), once)).toMatchObject({
      live: [{ target: 'title' }],
      state: 'in place',
    })
  })
  it('whose element is gone are kept aside; marks that were let stand follow theirs', () => {
    const key = at(old, '<h2>')
    const stet = { fingerprint: 'f', reason: 'on purpose', date: '2026-11-01' }
    const decisions = {
      [`edit:heading@${key}`]: { value: 'Ebb' },
      [`stet:heading-long|${key}`]: stet,
      'stet:title-short|title': stet,
    }
    const moved = page('<p>first</p><h1>Tides</h1><h2>Ebb and how it goes out</h2><p>x</p>')
    expect(rebased(old, moved, decisions)).toEqual({
      [`edit:heading@${at(moved, '<h2>')}`]: { value: 'Ebb' },
      [`stet:heading-long|${at(moved, '<h2>')}`]: stet,
      'stet:title-short|title': stet,
    })
    const gone = rebased(old, page('<h1>Tides</h1><p>x</p>'), decisions)
    expect(gone[`aside:edit:heading@${key}`]).toMatchObject({
      value: { value: 'Ebb' },
      was: 'h2 Ebb and how it goes out',
    })
    expect(gone[`aside:stet:heading-long|${key}`]).toMatchObject({ value: stet })
    expect(gone['stet:title-short|title']).toEqual(stet)
  })
  it('lose nothing, whatever becomes of the page (generated)', () => {
    const html = fc
      .array(
        fc.constantFrom(
          '<h1>Tides</h1>',
          '<h2>Ebb and how it goes out</h2>',
          '<h2>Flood</h2>',
          '<p>x</p>',
          '<img src=a.png alt=a>',
          '</main>',
          '<h2>',
        ),
      )
      .map((parts) => page(parts.join('')))
    fc.assert(
      fc.property(html, html, (before, after) => {
        const decisions: Record<string, unknown> = { 'edit:title': { value: 'Tide times' } }
        for (const m of before.matchAll(/<h2>/g))
          decisions[`edit:heading@${m.index}`] = { value: `Was ${m.index}` }
        const next = rebased(before, after, decisions)
        const there = JSON.stringify(next)
        for (const key of Object.keys(decisions)) {
          const { value } = decisions[key] as { value: string }
          expect(there).toContain(value)
        }
      }),
      {
        numRuns: 300,
        // Two edits that come to the same heading.
        examples: [
          [
            page('<h2><h2>Ebb and how it goes out</h2><h1>Tides</h1>'),
            page('<h2>Flood</h2><h1>Tides</h1><h2>Flood</h2>'),
          ],
        ],
      },
    )
  })
})
