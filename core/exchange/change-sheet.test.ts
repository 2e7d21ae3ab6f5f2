import { describe, expect, it } from 'vitest'
import { applyDraft } from '../page/proof.ts'
import { readPage } from '../page/read/read-page.ts'
import { readSource } from '../page/source/source.ts'
import type { Draft } from '../page/edits/draft.ts'
import { changeSheet, fieldChanges } from './change-sheet.ts'

const where = { path: 'p.html', url: 'https://s.example/p.html' }
function changes(html: string, draft: Draft) {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  return fieldChanges(readPage(read.source, where), readPage(applyDraft(read.source, draft).source, where))
}

describe('the change sheet', () => {
  it('names each field that changed, before and after', () => {
    const html = '<html><head><title>Old</title></head><body><h1>A</h1><h3>B</h3></body></html>'
    expect(
      changes(html, {
        title: { value: 'New' },
        'meta:description': { value: 'D' },
        lang: { value: 'en' },
        [`heading@${html.indexOf('<h3')}`]: { level: 2 },
      }),
    ).toEqual([
      { field: 'Title', before: 'Old', after: 'New' },
      { field: 'Meta description', before: '', after: 'D' },
      { field: 'Language', before: '', after: 'en' },
      { field: 'Heading 2', before: 'H3 B', after: 'H2 B' },
    ])
    expect(changes(html, {})).toEqual([])
  })
  it('names what was taken out or joined', () => {
    const html = '<title>a</title><title>b</title><h1>A</h1><h1>B</h1>'
    const fields = changes(html, {
      [`title@${html.indexOf('<title>b')}`]: { remove: true },
      [`heading@${html.indexOf('<h1>A')}`]: { merge: [html.indexOf('<h1>B')] },
    })
    expect(fields).toEqual([
      { field: 'Headings', before: 'H1 A / H1 B', after: 'H1 A B' },
      { field: 'Title elements', before: '2', after: '1' },
    ])
  })
  it('is one row a field', () => {
    const sheet = changeSheet([
      {
        path: 'a.html',
        url: 'https://s.example/a.html',
        state: 'approved',
        changes: [{ field: 'Title', before: '=x', after: 'y, z' }],
      },
    ])
    expect(sheet).toBe(
      `path,url,state,field,before,after\r\na.html,https://s.example/a.html,approved,Title,'=x,"y, z"\r\n`,
    )
  })
})
