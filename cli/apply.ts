import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { parseArgs } from 'node:util'
import { readTable } from '../core/exchange/csv.ts'
import type { Draft, Edit } from '../core/page/draft.ts'
import { applyDraft } from '../core/page/proof.ts'
import { readSource } from '../core/page/source.ts'
import { addressOf, isPagePath } from '../core/site/addresses.ts'
import { baseFrom, fileText } from './audit.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import { openSite } from './site-files.ts'

const targets: Record<string, string> = {
  title: 'title',
  description: 'meta:description',
  canonical: 'canonical',
  robots: 'meta:robots',
}
const known = ['path', 'url', 'slug', ...Object.keys(targets)]

/** Reads the changes and applies them in memory; only when all of them could be is anything written. */
export async function apply(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { changes: { type: 'string' }, out: { type: 'string' }, 'base-url': { type: 'string' } },
  })
  if (positionals.length !== 1) throw new Problem('apply takes one page, folder or ZIP archive.')
  if (!values.changes) throw new Problem('Name the sheet of changes: --changes FILE.csv.')
  if (!values.out) throw new Problem('Name an empty or new folder to write to: --out DIR.')
  const out = values.out
  if (existsSync(out) && readdirSync(out).length > 0)
    throw new Problem(`${out} is not empty. Name an empty or new folder.`)

  const table = readTable(fileText(values.changes, 'the changes'))
  if (!table.ok) throw new Problem(`${values.changes}: ${table.why}`)
  const { columns, rows } = table
  const unknown = columns.filter((c) => c !== '' && !known.includes(c))
  if (unknown.length > 0)
    throw new Problem(
      `${values.changes}: unknown column ${unknown.join(', ')}; ${known.join(', ')} are known.`,
    )
  const by = columns.includes('path') ? 'path' : columns.includes('url') ? 'url' : null
  if (!by) throw new Problem(`${values.changes}: a column path or url is expected.`)
  if (columns.includes('slug'))
    throw new Problem('The slug column cannot be applied: not yet. Take the column out.')
  if (by === 'url' && values['base-url'] === undefined)
    throw new Problem('Pages are named by url: give the address of the root with --base-url.')
  const base = baseFrom(values['base-url'])

  const site = openSite(positionals)
  const pages = site.whole ? site.paths.filter(isPagePath) : site.paths
  const byKey = new Map(
    pages.map((path) => [by === 'path' ? path : addressOf(site.addressPath(path), base), path]),
  )
  const drafts = new Map<string, Draft>()
  const problems: string[] = []
  for (const { line, cells } of rows) {
    const key = cells[by]!.trim()
    const path = byKey.get(key)
    if (!path) problems.push(`row ${line}: no page ${key}`)
    else if (drafts.has(path)) problems.push(`row ${line}: a second row for ${key}`)
    else {
      const edits: Record<string, Edit> = {}
      for (const [column, target] of Object.entries(targets)) {
        const cell = cells[column]?.trim()
        if (cell) edits[target] = { value: cell }
      }
      drafts.set(path, edits)
    }
  }
  const proofs = new Map<string, Uint8Array>()
  for (const [path, draft] of drafts) {
    const result = readSource(site.read(path))
    if (!result.ok) {
      problems.push(`${path}: ${result.why}`)
      continue
    }
    const proof = applyDraft(result.source, draft)
    problems.push(...proof.refused.map((r) => `${path}, ${r.key}: ${r.why}`))
    if (proof.changes.length > 0) proofs.set(path, proof.source.bytes)
  }
  if (problems.length > 0) throw new Problem(`nothing was written. ${problems.join('; ')}`)

  for (const path of site.paths) {
    const target = join(out, site.whole ? path : site.addressPath(path))
    mkdirSync(dirname(target), { recursive: true })
    writeFileSync(target, proofs.get(path) ?? site.read(path))
  }
  mkdirSync(out, { recursive: true })
  await print(`${site.paths.length} files written to ${out}, ${proofs.size} of them changed\n`)
  return 0
}
