import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { parseArgs } from 'node:util'
import { readTable } from '../core/exchange/csv.ts'
import { fileBytes, proofOf, readRedirects, REDIRECTS, writeRedirects } from '../core/exchange/hand-off.ts'
import type { Draft, Edit } from '../core/page/draft.ts'
import { readSource } from '../core/page/source.ts'
import { addressOf, isPagePath } from '../core/site/addresses.ts'
import { movesOf, noMoves, redirectsOf, type SlugEdit } from '../core/site/moves.ts'
import { safeSegment } from '../core/wording/slug.ts'
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
  if (values['base-url'] === undefined && (by === 'url' || columns.includes('slug')))
    throw new Problem(
      `The sheet has a column ${by === 'url' ? 'url' : 'slug'}: give the address of the root with --base-url.`,
    )
  const base = baseFrom(values['base-url'])

  const site = openSite(positionals)
  const pages = site.whole ? site.paths.filter(isPagePath) : site.paths
  const byKey = new Map(
    pages.map((path) => [by === 'path' ? path : addressOf(site.addressPath(path), base), path]),
  )
  const drafts = new Map<string, Draft>()
  const slugs = new Map<string, SlugEdit>()
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
      const slug = cells.slug?.trim()
      if (slug && safeSegment(slug) !== slug)
        problems.push(
          `row ${line}: the slug “${slug}” cannot stand in an address${safeSegment(slug) ? `; “${safeSegment(slug)}” can` : ''}`,
        )
      else if (slug) slugs.set(site.addressPath(path), { value: slug })
    }
  }
  const addressPaths = site.paths.map(site.addressPath)
  const moves = slugs.size > 0 ? movesOf(addressPaths, slugs, base) : noMoves
  problems.push(...moves.refused.map((r) => `${r.path}: ${r.why}`))
  const proofs = new Map<string, Uint8Array>()
  for (const path of moves.paths.size > 0 ? site.paths : drafts.keys()) {
    const draft = drafts.get(path)
    const bytes = site.read(path)
    const result = isPagePath(path) || draft ? readSource(bytes) : null
    if (!result?.ok) {
      if (result && draft) problems.push(`${path}: ${result.why}`)
      const carried = fileBytes(site.addressPath(path), bytes, moves, base)
      if (carried !== bytes) proofs.set(path, carried)
      continue
    }
    const proof = proofOf(site.addressPath(path), result.source, draft ?? {}, moves, base)
    problems.push(...proof.refused.map((r) => `${path}, ${r.key}: ${r.why}`))
    if (proof.changes.length > 0) proofs.set(path, proof.source.bytes)
  }
  if (problems.length > 0) throw new Problem(`nothing was written. ${problems.join('; ')}`)

  for (const path of site.paths) {
    const given = site.addressPath(path)
    const target = join(out, moves.paths.get(given) ?? (site.whole ? path : given))
    mkdirSync(dirname(target), { recursive: true })
    writeFileSync(target, proofs.get(path) ?? site.read(path))
  }
  mkdirSync(out, { recursive: true })
  if (moves.paths.size > 0) {
    const earlier = site.paths.includes(REDIRECTS)
      ? readRedirects(new TextDecoder().decode(site.read(REDIRECTS)))
      : []
    writeFileSync(join(out, REDIRECTS), writeRedirects(redirectsOf(moves, addressPaths, base, earlier)))
  }
  const addresses = moves.paths.size > 0 ? `, ${moves.paths.size} at new addresses (see ${REDIRECTS})` : ''
  await print(`${site.paths.length} files written to ${out}, ${proofs.size} of them changed${addresses}\n`)
  return 0
}
