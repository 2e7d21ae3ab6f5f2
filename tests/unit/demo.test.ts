/** The demo site: every planted mistake is found, and nothing else. */
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readTable } from '../../core/exchange/csv.ts'
import { catalogue } from '../../core/rules/catalogue.ts'
import { rulesReference } from '../../scripts/generate-docs.ts'
import { demoFiles } from '../../scripts/generate-demo-site.ts'

const root = join(import.meta.dirname, '../..')

describe('the demo site', () => {
  it('is what its copy gives', () => {
    for (const [path, bytes] of demoFiles())
      expect(Buffer.compare(readFileSync(join(root, 'stand-ins', path)), bytes), path).toBe(0)
  })
  it('has the marks of the table beside it, and no others; and one of every rule that its files can show', () => {
    const table = readTable(readFileSync(join(root, 'stand-ins/planted.csv'), 'utf8'))
    if (!table.ok) throw new Error(table.why)
    const planted = table.rows.map((r) => `${r.cells.path} ${r.cells.rule}`).sort()
    let json: string
    try {
      json = execFileSync(
        process.execPath,
        [
          'scripts/quill.mjs',
          'audit',
          'stand-ins/site',
          '--base-url',
          'https://farrowskerry.example/',
          '--keywords',
          'stand-ins/keywords.csv',
          '--style',
          'stand-ins/house-style.json',
          '--date',
          '2026-11-23',
          '--format',
          'json',
        ],
        { cwd: root, encoding: 'utf8', maxBuffer: 1 << 26 },
      )
    } catch (error) {
      // Exit 1: blockers remain, as planted.
      json = (error as { stdout: string }).stdout
    }
    const report = JSON.parse(json) as {
      pages: { path: string; marks: { rule: string }[] }[]
      site: { marks: { rule: string; pages: string[] }[] }
    }
    const found = [
      ...report.pages.flatMap((p) => p.marks.map((m) => `${p.path} ${m.rule}`)),
      ...report.site.marks.flatMap((m) => m.pages.map((p) => `${p} ${m.rule}`)),
    ].sort()
    expect(found).toEqual(planted)
    const rules = new Set(table.rows.map((r) => r.cells.rule))
    // What the house must ask for first, what no file's address can have, and what only a server or a sitemap says.
    const asked = [
      'title-case',
      'title-suffix',
      'title-forbidden',
      'description-forbidden',
      'slug-parameters',
      'address-fails',
      'address-redirects',
      'sitemap-absent',
      'sitemap-dead',
      'robots-header',
    ]
    expect(catalogue.map((r) => r.id).filter((id) => !rules.has(id))).toEqual(asked)
  })
})

describe('the rule reference', () => {
  it('is what the rules give', () => {
    expect(readFileSync(join(root, 'docs/rules.md'), 'utf8')).toBe(rulesReference())
  })
})
