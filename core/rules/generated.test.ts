/** Invariant 4 of docs/architecture.md on generated heads: a repair removes its mark and adds no blocker; messages are whole. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addressOf } from '../addresses/addresses.ts'
import { movesOf } from '../site/moves.ts'
import { runExample } from './examples.ts'
import { ruleOf } from './runner.ts'

const words = fc.constantFrom(
  'Storm',
  'lantern',
  'LIGHTHOUSE',
  'the',
  'of',
  'a',
  'tide,',
  'Tide:',
  '|',
  '–',
  '2024',
  'keeper’s',
  '{year}',
  '&amp;lt;b>',
  'Fyrtårn',
  '灯台',
  'lamp.',
  'lorem ipsum',
)
const wording = fc.array(words, { maxLength: 16 }).map((w) => w.join(' '))
const segment = fc.constantFrom(
  'lamps',
  'Old Page',
  'the_lamp',
  'page1',
  'a--b',
  'fyrtårn',
  'of-the-lamp',
  '2024',
  'x'.repeat(70),
)
const part = fc.oneof(
  wording.map((w) => `<title>${w}</title>`),
  wording.map((w) => `<meta name="description" content="${w.replace(/"/g, '')}">`),
  fc.constantFrom(
    '<link rel="canonical" href="/gone">',
    '<link rel="canonical" href="https://site.example/b.html">',
    '<meta name="robots" content="noindex, maybe">',
    '<meta name="keywords" content="a, b">',
    '<p>early</p>',
    '<meta property="og:title" content="x">',
    '<h1>Lamp</h1>',
    '<svg><title>no</title></svg>',
  ),
)
const style = fc.record(
  {
    casing: fc.constantFrom('as typed', 'sentence', 'ap', 'chicago'),
    titlePattern: fc.constantFrom(null, '{page} | {site}', '{site}: {page}', '{page} {year}'),
    siteName: fc.constantFrom(null, 'Light', 'The Light'),
    forbiddenWords: fc.constantFrom([], ['lamp'], ['tide', 'a (b']),
    protectedWords: fc.constantFrom([], ['LIGHTHOUSE'], ['lantern of']),
  },
  { requiredKeys: [] },
)
const example = fc.record({
  html: fc
    .array(part, { maxLength: 6 })
    .map(
      (p) =>
        `<!doctype html><html lang="en"><head>${p.join('')}</head><body><main><p>Some words about the lamp.</p></main></body></html>`,
    ),
  path: fc.array(segment, { minLength: 1, maxLength: 5 }).map((s) => `${s.join('/')}.html`),
  keywords: fc.constantFrom(
    undefined,
    { primary: 'storm lantern', secondary: [] },
    { primary: 'the', secondary: ['灯台'] },
  ),
  style,
  pages: fc.constantFrom({
    'b.html': '<title>Storm lantern</title>',
    'index.html': '<a href="lamps.html">x</a>',
  }),
})
const clean = <T extends { keywords?: unknown }>(e: T): T => {
  const { keywords, ...rest } = e
  return (keywords ? e : rest) as T
}

describe('any page under any house style', () => {
  it('is judged in order, each mark with a place in the page and a message without gaps', () => {
    fc.assert(
      fc.property(example, (given) => {
        const { marks, siteMarks, text } = runExample(clean(given) as never)
        for (const mark of [...marks, ...siteMarks]) {
          expect(mark.message).not.toMatch(/undefined|null|NaN|\[object/)
          expect(mark.message).toMatch(/[.!?”]$/)
          expect(ruleOf(mark.rule).id).toBe(mark.rule)
        }
        for (const { start, end } of marks) {
          if (start !== null) expect(start).toBeLessThan(text.length)
          if (start !== null && end !== null) expect(end).toBeGreaterThan(start)
        }
        const starts = marks.map((m) => m.start ?? -1)
        expect(starts).toEqual([...starts].sort((a, b) => a - b))
        for (const mark of marks)
          for (const silenced of ruleOf(mark.rule).silences ?? [])
            expect(marks.map((m) => m.rule)).not.toContain(silenced)
      }),
    )
  })
  it('loses a mark by its repair, and gains no blocker', () => {
    const repairable = [
      'title-case',
      'title-suffix',
      'title-multiple',
      'description-markup',
      'description-multiple',
      'canonical-relative',
      'slug-illegal',
      'slug-uppercase',
      'slug-underscore',
      'slug-filler',
    ]
    fc.assert(
      fc.property(example, (given) => {
        const e = clean(given) as never
        const before = runExample(e)
        const blockers = before.marks.filter((m) => m.severity === 'blocker').map((m) => m.rule)
        for (const id of repairable) {
          const only = runExample(e, ruleOf(id))
          if (!only.repaired) continue
          const after = only.repaired()
          expect(after.marks.length, id).toBeLessThan(only.marks.length)
          const all = runExample({ ...(e as object), html: after.text, path: after.page.path } as never)
          for (const m of all.marks)
            if (m.severity === 'blocker') expect(blockers, `${id} brought ${m.rule}`).toContain(m.rule)
        }
      }),
      { numRuns: 60 },
    )
  })
  it('is at the address that its slug’s repair says', () => {
    fc.assert(
      fc.property(example, (given) => {
        const e = clean(given) as { path: string }
        for (const id of ['slug-illegal', 'slug-uppercase', 'slug-underscore', 'slug-filler']) {
          const [mark] = runExample(given as never, ruleOf(id)).marks
          const edit = mark?.repair?.edits[0]?.edit
          if (!edit) continue
          const moves = movesOf(
            [e.path, 'b.html', 'index.html'],
            new Map([[e.path, { value: edit.value! }]]),
            'https://site.example/',
          )
          expect(moves.refused).toEqual([])
          const url = addressOf(moves.paths.get(e.path)!, 'https://site.example/')
          expect(new URL(url).href).toBe(url)
        }
      }),
    )
  })
})
