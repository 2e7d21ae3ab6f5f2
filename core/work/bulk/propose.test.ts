import { describe, expect, it } from 'vitest'
import { judgedPage } from '../../../tests/fixtures/judged-page.ts'
import { proposalFor } from './propose.ts'
import { proposed, type BulkStep } from './step.ts'
import type { Decisions } from '../decisions.ts'

const HTML = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Old Light: boats</title></head><body><main>
<h1>Boats of the Old Light</h1><p>The boat leaves at ten when the sea allows it. It comes back at five with whoever is on the landing.</p>
<h2>Old Light at night</h2><img src="a.png" alt="The Old Light"><img src="b.png"></main></body></html>`

function propose(
  step: BulkStep,
  { html = HTML, decisions = {}, style = {} }: { html?: string; decisions?: Decisions; style?: object } = {},
) {
  const evaluated = judgedPage(html, { decisions, style })
  const proposal = proposalFor(
    step,
    { row: evaluated.row, decisions, evaluated: () => evaluated },
    { index: evaluated.setting.index, style: evaluated.setting.style, date: '2026-11-26', siteMarks: [] },
  )
  const then = proposal && judgedPage(html, { decisions: proposed(decisions, proposal), style })
  return { proposal, then }
}
const replace = (parts: Extract<BulkStep, { kind: 'replace' }>['in']): BulkStep => ({
  kind: 'replace',
  find: 'Old Light',
  with: 'New Light',
  how: 'plain',
  matchCase: true,
  in: parts,
})

describe('a step for many pages', () => {
  it('replaces words in title, headings and alternative texts, and the page says them', () => {
    const { proposal, then } = propose(replace(['title', 'description', 'heading', 'alternative']))
    expect(proposal!.changes.map((c) => [c.name, c.after])).toEqual([
      ['Title', 'New Light: boats'],
      ['H1', 'Boats of the New Light'],
      ['H2', 'New Light at night'],
      ['Alternative text', 'The New Light'],
    ])
    expect(then!.page.titles[0]!.text).toBe('New Light: boats')
    expect(then!.page.headings.map((h) => h.text)).toEqual(['Boats of the New Light', 'New Light at night'])
    expect(then!.page.images[0]!.alt).toBe('The New Light')
    expect(then!.proof.refused).toEqual([])
  })
  it('works on what is drafted, tokens kept', () => {
    const decisions = { 'edit:title': { value: 'Old Light, {h1}' } }
    const { proposal } = propose(replace(['title']), { decisions })
    expect(proposal!.decisions).toEqual([{ key: 'edit:title', after: { value: 'New Light, {h1}' } }])
    expect(proposal!.changes[0]!.after).toBe('New Light, Boats of the Old Light')
  })
  it('leaves a page alone that has nothing of it', () =>
    expect(propose({ ...replace(['title', 'heading']), find: 'Lamp' } as BulkStep).proposal).toBeNull())
  it('fills an empty description from the first sentences, the H1 or a pattern, and no other', () => {
    const fill = (from: 'h1' | 'sentences' | 'pattern'): BulkStep => ({
      kind: 'fill',
      field: 'description',
      from,
      pattern: '{h1}, by boat',
    })
    expect(propose(fill('sentences')).then!.row.description).toBe(
      'The boat leaves at ten when the sea allows it. It comes back at five with whoever is on the landing.',
    )
    expect(propose(fill('h1')).then!.row.description).toBe('Boats of the Old Light')
    expect(propose(fill('pattern')).then!.row.description).toBe('Boats of the Old Light, by boat')
    expect(propose({ ...fill('pattern'), pattern: '{price}' } as BulkStep).proposal!.why).toMatch(/\{price\}/)
    expect(propose({ ...fill('h1'), field: 'title' } as BulkStep).proposal).toBeNull()
  })
  it('puts titles in a pattern by the page’s own words', () => {
    const { then } = propose(
      { kind: 'pattern', pattern: '{page} | {site}' },
      { style: { siteName: 'Skerry' } },
    )
    expect(then!.row.title).toBe('Old Light: boats | Skerry')
  })
  it('writes titles in a casing style', () =>
    expect(propose({ kind: 'casing', casing: 'ap' }).then!.row.title).toBe('Old Light: Boats'))
  it('keeps a page from results and lets it back, other directives kept', () => {
    expect(propose({ kind: 'robots', index: false }).then!.row.robots).toBe('noindex')
    const html = HTML.replace('<title>', '<meta name="robots" content="none"><title>')
    expect(propose({ kind: 'robots', index: true }, { html }).then!.row.robots).toBe('nofollow')
    expect(propose({ kind: 'robots', index: true }).proposal).toBeNull()
  })
  it('makes certain repairs of the rules asked for, one that gets no better aside', () => {
    const html = HTML.replace('<html lang="en">', '<html>')
    const start = judgedPage(html)
    const repairable = start.openMarks.filter((m) => m.repair && !m.repair.judgement).map((m) => m.rule)
    expect(repairable).toContain('shell-lang')
    const { then } = propose({ kind: 'repair', rules: ['shell-lang'] }, { html })
    expect(then!.page.lang).toBe('en')
    expect(then!.openMarks.some((m) => m.rule === 'shell-lang')).toBe(false)
  })
  it('gives a keyword, sets a state', () => {
    expect(propose({ kind: 'keyword', phrase: 'boats', role: 'primary' }).then!.row.phrase).toBe('boats')
    expect(propose({ kind: 'state', state: 'approved' }).proposal!.decisions).toEqual([
      { key: 'state', after: 'approved' },
    ])
  })
  it('lets a rule’s marks stand for one reason', () => {
    const rule = judgedPage(HTML).openMarks[0]!.rule
    const { proposal, then } = propose({ kind: 'stet', rule, reason: 'So it was set.' })
    expect(proposal!.decisions[0]!.after).toMatchObject({ reason: 'So it was set.' })
    expect(then!.openMarks.some((m) => m.rule === rule)).toBe(false)
  })
})
