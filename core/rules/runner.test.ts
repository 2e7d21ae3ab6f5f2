import { emptyIndex } from '../site/site-index.ts'
import { describe, expect, it } from 'vitest'
import { catalogue } from './catalogue.ts'
import { runExample } from './examples.ts'
import { defaultStyle } from './house-style.ts'
import { auditPage } from './runner.ts'

const blockers = (marks: { severity: string; rule: string }[]) =>
  marks.filter((m) => m.severity === 'blocker').map((m) => m.rule)

describe('the catalogue', () => {
  it('has ids that stand once', () => {
    const ids = catalogue.map((r) => r.id)
    expect(new Set(ids).size).toBe(ids.length)
  })
  it('silences only rules by an id of the same family', () => {
    for (const rule of catalogue)
      for (const id of rule.silences ?? []) expect(id.split('-')[0]).toBe(rule.id.split('-')[0])
  })
})

describe.each(catalogue.map((r) => [r.id, r] as const))('%s', (id, rule) => {
  it('has both kinds of example', () => {
    expect(rule.examples.clean.length).toBeGreaterThan(0)
    expect(rule.examples.marked.length).toBeGreaterThan(0)
  })
  it.each(rule.examples.clean.map((e) => [typeof e === 'string' ? e : JSON.stringify(e), e] as const))(
    'lets %s stand',
    (_, example) => {
      const run = runExample(example, rule)
      expect([...run.marks, ...run.siteMarks]).toEqual([])
    },
  )
  it.each(rule.examples.marked.map((e) => [e.html.slice(0, 80), e] as const))('marks %s', (_, example) => {
    const run = runExample(example, rule)
    const found = [...run.marks, ...run.siteMarks]
    expect(found.map((m) => m.rule)).toContain(id)
    expect(found[0]!.message).toMatch(example.says)
    expect(found[0]!.message).not.toMatch(/undefined|null|NaN/)
    if (example.at === null) expect(run.marks[0]!.start).toBeNull()
    if (example.at)
      expect(run.text.slice(run.marks[0]!.start!)).toMatch(
        new RegExp('^' + example.at.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')),
      )
  })
  it.each(rule.examples.marked.map((e) => [e.html.slice(0, 80), e] as const))('repairs %s', (_, example) => {
    const before = runExample(example, rule)
    if (!before.repaired) return
    const after = before.repaired()
    expect(after.marks.length).toBeLessThan(before.marks.length)
    const all = runExample(example).repaired ? runExample(example) : null
    if (!all) return
    const own = all.marks.find((m) => m.rule === id)!
    expect(own.repair).not.toBeNull()
    expect(
      blockers(runExample({ ...example, html: after.text }).marks).filter(
        (b) => !blockers(all.marks).includes(b),
      ),
    ).toEqual([])
  })
})

describe('the runner', () => {
  const run = (html: string, style = {}) => runExample({ html, style })
  it('silences what a graver rule of the same text has said', () => {
    const rules = run(`<title>${'Wide words '.repeat(12)}</title>`).marks.map((m) => m.rule)
    expect(rules).toContain('title-cut')
    expect(rules).not.toContain('title-long')
  })
  it('orders marks by place, those on the page as a whole first', () => {
    const starts = run('<img src=x><h3>a</h3><h6>b</h6>').marks.map((m) => m.start ?? -1)
    expect(starts).toEqual([...starts].sort((a, b) => a - b))
  })
  it('follows the house: off, and another severity', () => {
    const marks = run('<title>Shop</title>', {
      rules: { 'title-short': 'blocker', 'shell-lang': 'off' },
    }).marks
    expect(marks.find((m) => m.rule === 'title-short')?.severity).toBe('blocker')
    expect(marks.some((m) => m.rule === 'shell-lang')).toBe(false)
  })
  it('keeps quiet about what a sheet did not supply', () => {
    const { page } = run('<title>Shop</title>')
    const site = emptyIndex('', false, [])
    const marks = auditPage(page, site, defaultStyle, { date: '2026-11-23', known: new Set(['title']) })
    expect(marks.map((m) => m.rule)).toEqual(['title-short'])
  })
})
