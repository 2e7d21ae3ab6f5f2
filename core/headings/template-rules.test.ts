/** Rules for what recurs: what they change, what goes before them, what speaks against them, what is suggested. */
import { describe, expect, it } from 'vitest'
import { applyDraft } from '../page/proof.ts'
import { readPage } from '../page/read/read-page.ts'
import { readSource } from '../page/source/source.ts'
import {
  conflictOf,
  describeRule,
  outlineItems,
  outlineWith,
  overTemplates,
  previewRule,
  suggestRules,
  templateDraft,
  type OutlineItem,
  type TemplateRule,
} from './template-rules.ts'

const where = { path: 'a.html', url: 'https://site.example/a.html' }
function read(html: string) {
  const result = readSource(new TextEncoder().encode(html))
  if (!result.ok) throw new Error(result.why)
  const { source } = result
  return { source, items: outlineItems(source, readPage(source, where)) }
}
const rule = (r: Partial<TemplateRule>): TemplateRule => ({
  id: 'r',
  tag: 'p',
  className: null,
  landmark: null,
  become: 2,
  except: [],
  ...r,
})

const PAGE =
  '<nav><h3 class=m>Menu</h3></nav><main><p class="big page-title">Tides</p><h2>Spring é</h2><p>text</p><h2>Neap</h2></main><footer><h4>Hours</h4></footer>'

describe('a rule for many pages', () => {
  it('makes every line with a class a heading, in the page’s own bytes, its attributes kept', () => {
    const { source, items } = read(PAGE)
    const draft = templateDraft(items, [rule({ className: 'page-title', become: 1 })], 'a.html')
    expect(applyDraft(source, draft).source.text).toBe(
      PAGE.replace('<p class="big page-title">Tides</p>', '<h1 class="big page-title">Tides</h1>'),
    )
  })
  it('makes headings of a landmark paragraphs', () => {
    const { source, items } = read(PAGE)
    const draft = templateDraft(items, [rule({ tag: 'h3', landmark: 'nav', become: 'p' })], 'a.html')
    expect(applyDraft(source, draft).source.text).toContain('<p class=m>Menu</p>')
  })
  it('leaves excepted pages, and lines that an editor has decided of, as they are', () => {
    const { items } = read(PAGE)
    const rules = [rule({ tag: 'h2', become: 3, except: ['b.html'] })]
    expect(templateDraft(items, rules, 'b.html')).toEqual({})
    const templates = templateDraft(items, rules, 'a.html')
    const [first, second] = Object.keys(templates)
    const all = overTemplates({ [first!]: { level: 4 }, [second!]: { value: 'Neap tides' } }, templates)
    expect(all[first!]).toEqual({ level: 4 })
    expect(all[second!]).toEqual({ level: 3, value: 'Neap tides' })
  })
  it('shows outlines before and after, and counts the lines that change', () => {
    const { items } = read(PAGE)
    const preview = previewRule(
      new Map([['a.html', items]]),
      rule({ className: 'page-title', become: 1 }),
      [],
      new Map(),
    )
    expect(preview.pages).toHaveLength(1)
    expect(preview.pages[0]).toMatchObject({ changed: 1, conflict: null })
    expect(preview.pages[0]!.before.map((l) => l.level)).toEqual([3, 2, 2, 4])
    expect(preview.pages[0]!.after.map((l) => l.level)).toEqual([3, 1, 2, 2, 4])
    expect(outlineWith(items, {}).every((l) => !l.changed)).toBe(true)
  })
  it('says what speaks against it: two H1, no H1 left, lines that are never closed', () => {
    const two = read('<h1>A</h1><p class=t>B is <i>here</i></p><p class="page-title">C</p>')
    const r = rule({ className: 'page-title', become: 1 })
    expect(conflictOf(two.items, r, templateDraft(two.items, [r], 'x'))).toBe('It would have 2 H1.')
    const none = read('<h1 class=t>A</h1><h2>B</h2>')
    const away = rule({ tag: 'h1', className: 't', become: 'p' })
    expect(conflictOf(none.items, away, templateDraft(none.items, [away], 'x'))).toMatch(/without an H1/)
    const open = read('<h2 class=t>A<h2>B</h2>')
    const deep = rule({ tag: 'h2', className: 't', become: 3 })
    expect(conflictOf(open.items, deep, {})).toMatch(/no end tag of its own/)
    expect(templateDraft(open.items, [deep], 'x')).toEqual({})
  })
  it('is suggested for what recurs on three pages or more, the most of them deciding what it becomes', () => {
    const outlines = new Map<string, OutlineItem[]>()
    for (const n of [1, 2, 3])
      outlines.set(
        `${n}.html`,
        read(
          `<nav><h3>Menu</h3></nav><main><h1>T</h1><h${n === 3 ? 3 : 2}>x</h${n === 3 ? 3 : 2}><p class="section-title">Before you come</p></main>`,
        ).items,
      )
    const found = suggestRules(outlines, [])
    expect(found.map((s) => describeRule(s.rule))).toEqual([
      { what: 'H3 in the menu', become: 'paragraphs' },
      { what: 'Paragraphs with class “section-title”', become: 'H2' },
    ])
    expect(found[1]).toMatchObject({ pages: 3, samples: ['Before you come'] })
    expect(suggestRules(outlines, [{ ...found[0]!.rule, id: 'k', except: [] }])).toHaveLength(1)
  })
  it('names a class that heads pages without an H1', () => {
    const outlines = new Map<string, OutlineItem[]>()
    for (const n of [1, 2, 3])
      outlines.set(`${n}.html`, read(`<div class="page-title">Page ${n}</div><h2>x</h2>`).items)
    expect(suggestRules(outlines, []).map((s) => s.rule.become)).toEqual([1])
  })
})
