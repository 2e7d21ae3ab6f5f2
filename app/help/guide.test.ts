import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import routes from '../routes.ts'
import { findSections, guide, sectionsOf } from './guide.ts'
import { viewAt, views } from './views.ts'

describe('the guide in the application', () => {
  it('has every section of the document, and all of its words', () => {
    const source = readFileSync('docs/guide.md', 'utf8')
    expect(guide.map((s) => s.heading)).toEqual([...source.matchAll(/^## (.+)$/gm)].map((m) => m[1]))
    const words = (text: string) => text.split(/\s+/).filter((word) => word !== '' && word !== '##')
    expect(words(guide.map((s) => `${s.heading} ${s.text}`).join(' '))).toEqual(
      words(source.slice(source.indexOf('\n## '))),
    )
  })
  it('has a section for every view', () => {
    const headings = new Set(guide.map((s) => s.heading))
    expect(Object.values(views).filter((view) => !headings.has(view.section))).toEqual([])
  })
  it('finds each section by its own heading, first', () => {
    for (const { heading } of guide) expect(findSections(guide, heading)[0]!.heading).toBe(heading)
  })
  it('finds a word wherever it stands, in either kind of apostrophe and any case', () => {
    const sections = sectionsOf('# T\n\nBefore.\n\n## One\nThe page’s slug\n## Two\nRobots\n')
    expect(findSections(sections, "PAGE'S").map((s) => s.heading)).toEqual(['One'])
    expect(findSections(sections, 'slug robots')).toEqual([])
    expect(findSections(sections, '').length).toBe(2)
  })
  it('reads any document, and finds only what holds every word', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (text, typed) => {
        for (const { heading, text: body } of findSections(sectionsOf(text), typed))
          for (const word of typed.replaceAll('’', "'").toLowerCase().split(/\s+/).filter(Boolean))
            expect(`${heading} ${body}`.replaceAll('’', "'").toLowerCase()).toContain(word)
      }),
    )
  })
})

describe('the view at an address', () => {
  it('is known for every view of a site, and for each sheet of the desk', () => {
    const sections = routes.flatMap((r) => r.children ?? []).flatMap((r) => (r.path ? [r.path] : []))
    expect(sections.length).toBeGreaterThan(8)
    for (const section of sections) expect(viewAt(`/sites/1/${section}`, ''), section).not.toBeNull()
    expect(viewAt('/sites/1/desk', '?page=a&sheet=line-up')).toBe('line-up')
    expect(viewAt('/sites/1/ledger', '?view=left')).toBe('left')
    expect(viewAt('/', '')).toBe('shelf')
  })
  it('is none where there is none, and never a name of JavaScript’s own', () => {
    expect(viewAt('/about', '')).toBeNull()
    expect(viewAt('/sites/1/constructor', '')).toBeNull()
    expect(viewAt('/sites/1/desk', '?sheet=__proto__')).toBe('snippet')
  })
})
