/** Malformed pages: read without a crash, and every edit changes its own bytes and what was meant, or is refused. */
import { describe, expect, it } from 'vitest'
import type { Draft, Edit } from '../../core/page/edits/draft.ts'
import { outlineOf, type PageFacts } from '../../core/page/read/facts.ts'
import { toBytePlaces } from '../../core/page/source/places.ts'
import { applyDraft } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import { readSource } from '../../core/page/source/source.ts'
import { malformed } from '../fixtures/malformed.ts'
import { audit, repairAll } from '../fixtures/structure.ts'

const where = { path: 'a.html', url: 'https://pages.example/a.html' }
const levels = (p: PageFacts) => outlineOf(p).map((h) => `${h.level} ${h.text}`)

describe.each(Object.entries(malformed))('%s', (_, html) => {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  const { source } = read
  const facts = readPage(source, where)
  const bytesOf = (list: { start: number }[]) => list.map((t) => toBytePlaces(source, [t.start])[0]!)

  /** Applies one edit; null when it is refused. Every byte outside it is as it was. */
  function edited(key: string, edit: Edit): PageFacts | null {
    const proof = applyDraft(source, { [key]: edit } satisfies Draft)
    if (proof.refused.length > 0) {
      expect(proof.changes).toEqual([])
      return null
    }
    let from = 0
    let to = 0
    for (const c of [...proof.changes, null]) {
      const [end, until] = c ? [c.from, c.at] : [source.bytes.length, proof.source.bytes.length]
      expect(Buffer.compare(source.bytes.subarray(from, end), proof.source.bytes.subarray(to, until))).toBe(0)
      if (c) [from, to] = [c.to, c.until]
    }
    return readPage(proof.source, where)
  }

  it('is read and judged', () => {
    expect(audit(facts)).toBeInstanceOf(Array)
  })
  it('levels and paragraphs: the one heading changes, the others stand', () => {
    const places = bytesOf(facts.headings)
    facts.headings.forEach((h, i) => {
      if (h.role !== null || h.hidden) return
      const at = outlineOf(facts).indexOf(h)
      const deeper = h.level === 6 ? 5 : h.level + 1
      const moved = edited(`heading@${places[i]}`, { level: deeper })
      if (moved)
        expect(levels(moved)).toEqual(levels(facts).map((l, k) => (k === at ? `${deeper} ${h.text}` : l)))
      const gone = edited(`heading@${places[i]}`, { tag: 'p' })
      if (gone) expect(levels(gone)).toEqual(levels(facts).filter((_, k) => k !== at))
    })
  })
  it('look-alikes, pictures, comments: what is meant changes, the headings stand', () => {
    bytesOf(facts.lookAlikes).forEach((at, i) => {
      const made = edited(`block@${at}`, { level: 2 })
      if (made) expect(levels(made)).toContain(`2 ${facts.lookAlikes[i]!.text}`)
    })
    bytesOf(facts.images).forEach((at, i) => {
      const named = edited(`alt@${at}`, { value: 'It’s “a < b” & c' })
      if (named) {
        expect(named.images[i]!.alt).toBe('It’s “a < b” & c')
        expect(levels(named).length).toBe(levels(facts).length)
      }
    })
    bytesOf(facts.comments).forEach((at) => {
      const without = edited(`comment@${at}`, { remove: true })
      if (without) {
        expect(without.comments.length).toBe(facts.comments.length - 1)
        expect(levels(without)).toEqual(levels(facts))
      }
    })
  })
  it('the shell: title, language, doctype, code in the head', () => {
    edited('title', { value: 'New' })
    const named = edited('lang', { value: 'da' })
    if (named) expect(named.lang).toBe('da')
    const typed = edited('doctype', { value: 'html' })
    if (typed) expect(typed.doctype).toBe(true)
    const coded = edited('new:code', { value: '<meta name="kq" content="1">' })
    if (coded) expect(coded.metas.some((m) => m.name === 'kq' && m.inHead)).toBe(true)
  })
  it('every repair holds', () => {
    expect(repairAll(source, where).wrong).toEqual([])
  })
})
