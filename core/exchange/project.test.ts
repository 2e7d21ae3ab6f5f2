import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { filePage, type PageIdentity } from '../site/page-identity.ts'
import { readProject, writeProject, type Project } from './project.ts'
import { writeZip } from './zip.ts'

const decisions = fc.record(
  {
    'edit:title': fc.record({ value: fc.string() }),
    'edit:heading@812': fc.record({ level: fc.integer({ min: 1, max: 6 }) }),
    'keyword:primary': fc.string({ maxLength: 50 }),
    'keyword:secondary': fc.array(fc.string({ maxLength: 20 }), { maxLength: 3 }),
    'stet:title-short|title': fc.record({
      fingerprint: fc.string(),
      reason: fc.string(),
      date: fc.constant('2026-11-23'),
    }),
    state: fc.constantFrom('drafted', 'approved', 'handed off'),
    note: fc.string(),
  },
  { requiredKeys: [] },
)
const project = fc.record({
  site: fc.record({
    name: fc.string({ minLength: 1, maxLength: 30 }),
    base: fc.constant('https://s.example/a/'),
    whole: fc.boolean(),
    root: fc.constantFrom('', 'site/'),
    takenIn: fc.constant('2026-11-23'),
  }),
  work: fc
    .dictionary(fc.constantFrom('index.html', 'f-1', ''), decisions)
    .map((byPage) => new Map(Object.entries(byPage))),
  log: fc.array(
    fc.record({
      at: fc.constant('2026-11-23T10:00:00Z'),
      label: fc.string(),
      undone: fc.boolean(),
      changes: fc.array(
        fc.record({
          page: fc.constantFrom('index.html', 'f-1', ''),
          key: fc.constant('edit:title'),
          after: fc.record({ value: fc.string() }),
        }),
      ),
    }),
  ),
  files: fc
    .dictionary(fc.constantFrom('index.html', 'a/b.html', 'img/x.png'), fc.uint8Array(), {
      minKeys: 1,
      noNullPrototype: true,
    })
    .map((o) => new Map(Object.entries(o))),
  addresses: fc.option(
    fc.record({
      sitemap: fc.option(fc.constant(['https://s.example/a/x'])),
      files: fc.constant(['https://s.example/a/x.pdf']),
    }),
  ),
  fetched: fc
    .dictionary(fc.constantFrom('f-1', 'f-2'), fc.uint8Array())
    .map((byPage) => new Map(Object.entries(byPage))),
})
const served = {
  status: 200,
  address: 'https://s.example/a/about/',
  contentType: 'text/html; charset=utf-8',
  charset: 'utf-8',
  robots: ['noindex'],
  redirects: [{ url: 'https://s.example/old', status: 301 }],
  canonical: null,
  date: '2026-11-23',
}
/** The pages of what was generated: every HTML file, and every page that was fetched. */
const pagesOf = ({ files, fetched }: Pick<Project, 'files' | 'fetched'>): PageIdentity[] => [
  ...[...files.keys()]
    .filter((path) => path.endsWith('.html'))
    .map((path) => filePage(path, path, `https://s.example/a/${path}`)),
  ...[...fetched.keys()].map((id): PageIdentity => ({
    id,
    url: `https://s.example/a/${id}/`,
    file: null,
    served,
    partial: null,
  })),
]

describe('the project file', () => {
  it('comes back as the same project (invariant 6)', () => {
    fc.assert(
      fc.property(project, (given) => {
        const whole = { ...given, pages: pagesOf(given) } as Project
        if (whole.files.size + whole.fetched.size === 0) return
        const result = readProject(writeProject(whole))
        if (!result.ok) throw new Error(result.why)
        expect(result.project).toEqual(whole)
      }),
      { numRuns: 200 },
    )
  })
  it('of the first version opens with its decisions and log, pages known by their paths', () => {
    const change = { path: 'site/a.html', key: 'edit:title', after: { value: 'Tides' } }
    const first = {
      format: 'keen-quill-project',
      version: 1,
      site: { name: 'x', base: 'https://s.example/', whole: true, root: 'site/', takenIn: '2026-11-23' },
      work: { 'site/a.html': { 'edit:title': { value: 'Tides' } }, '': { name: 'x' } },
      log: [{ at: '2026-11-23', label: 'Title', undone: false, changes: [change] }],
    }
    const result = readProject(
      writeZip([
        ['project.json', new TextEncoder().encode(JSON.stringify(first))],
        ['source/site/a.html', new Uint8Array([60])],
        ['source/site/a.css', new Uint8Array([60])],
      ]),
    )
    if (!result.ok) throw new Error(result.why)
    expect(result.project.pages).toEqual([filePage('site/a.html', 'site/a.html', 'https://s.example/a.html')])
    expect(result.project.work.get('site/a.html')).toEqual({ 'edit:title': { value: 'Tides' } })
    expect(result.project.log[0]!.changes).toEqual([
      { page: 'site/a.html', key: 'edit:title', after: { value: 'Tides' } },
    ])
  })
  it('that names a page which is not in it is damaged', () => {
    const given = {
      site: { name: 'x', base: 'https://s.example/', whole: true, root: '', takenIn: '2026-11-23' },
      pages: [filePage('a', 'a.html', 'https://s.example/a.html')],
      work: new Map(),
      log: [],
      addresses: null,
      files: new Map([['b.html', new Uint8Array([60])]]),
      fetched: new Map(),
    }
    expect(readProject(writeProject(given))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/a\.html is not in it/),
    })
  })
  it('is refused with a word when it is none, damaged, or holds what no editor decided', () => {
    const zip = (json: string) =>
      writeZip([
        ['project.json', new TextEncoder().encode(json)],
        ['source/a.html', new Uint8Array([60])],
      ])
    expect(readProject(writeZip([['a.html', new Uint8Array([60])]]))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/not a project file/),
    })
    expect(readProject(zip('{'))).toMatchObject({ ok: false, why: expect.stringMatching(/not valid JSON/) })
    const whole = {
      format: 'keen-quill-project',
      version: 1,
      site: { name: 'x', base: 'https://s.example/', whole: true, root: '', takenIn: 'x' },
      work: { 'a.html': { 'run:code': 'x' } },
      log: [],
    }
    expect(readProject(zip(JSON.stringify(whole)))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/“run:code” is not a known decision/),
    })
    expect(readProject(zip(JSON.stringify({ ...whole, version: 9 })))).toMatchObject({ ok: false })
  })
})
