import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
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
  work: fc.dictionary(fc.constantFrom('index.html', 'a/b.html', ''), decisions, { noNullPrototype: true }),
  log: fc.array(
    fc.record({
      at: fc.constant('2026-11-23T10:00:00Z'),
      label: fc.string(),
      undone: fc.boolean(),
      changes: fc.array(
        fc.record({
          path: fc.constantFrom('index.html', ''),
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
})

describe('the project file', () => {
  it('comes back as the same project (invariant 6)', () => {
    fc.assert(
      fc.property(project, (given) => {
        const result = readProject(writeProject(given as Project))
        if (!result.ok) throw new Error(result.why)
        const { files, ...rest } = result.project
        expect(rest).toEqual({ site: given.site, work: given.work, log: given.log })
        expect([...files].sort()).toEqual([...given.files].sort())
      }),
      { numRuns: 200 },
    )
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
