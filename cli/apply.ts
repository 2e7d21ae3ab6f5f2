import { parseArgs } from 'node:util'
import type { Draft, Edit } from '../core/page/edits/draft.ts'
import { robotsDirectives, unknownDirectives } from '../core/rules/address/robots-unknown.ts'
import { addressOf, isPagePath, isWebAddress } from '../core/addresses/addresses.ts'
import { movesOf, noMoves, type SlugEdit } from '../core/site/moves.ts'
import { safeSegment } from '../core/wording/slug.ts'
import { baseFrom, cellOf, sheetFrom } from './inputs.ts'
import { checkOut } from './output-folder.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import { openSite } from './site-files.ts'
import { writeSite } from './write-site.ts'

const targets = new Map([
  ['title', 'title'],
  ['description', 'meta:description'],
  ['canonical', 'canonical'],
  ['robots', 'meta:robots'],
])
const known = ['path', 'url', 'slug', ...targets.keys()]

/** What is wrong with a cell of the sheet; null where it can be written. */
function problemOf(column: string, cell: string): string | null {
  if (column === 'canonical' && /^[a-z][a-z0-9+.-]*:/i.test(cell) && !isWebAddress(cell))
    return `the canonical “${cell}” is not an http or https address`
  const wrong = column === 'robots' ? unknownDirectives(robotsDirectives(cell)) : []
  return wrong.length > 0
    ? `unknown robots ${wrong.length === 1 ? 'directive' : 'directives'} ${wrong.map((d) => `“${d}”`).join(', ')}`
    : null
}

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
  const { changes, out } = values
  const { columns, rows } = sheetFrom(changes, 'the changes')
  const unknown = columns.filter((c) => c !== '' && !known.includes(c))
  if (unknown.length > 0)
    throw new Problem(`${changes}: unknown column ${unknown.join(', ')}; ${known.join(', ')} are known.`)
  const by = columns.includes('path') ? 'path' : columns.includes('url') ? 'url' : null
  if (!by) throw new Problem(`${changes}: a column path or url is expected.`)
  if (values['base-url'] === undefined && (by === 'url' || columns.includes('slug')))
    throw new Problem(
      `The sheet has a column ${by === 'url' ? 'url' : 'slug'}: give the address of the root with --base-url.`,
    )
  const base = baseFrom(values['base-url'])

  const site = openSite(positionals)
  checkOut(out, positionals)
  const pages = site.whole ? site.paths.filter(isPagePath) : site.paths
  const byKey = new Map(
    pages.map((path) => [by === 'path' ? path : addressOf(site.addressPath(path), base), path]),
  )
  const drafts = new Map<string, Draft>()
  const slugs = new Map<string, SlugEdit>()
  const problems: string[] = []
  for (const { line, cells } of rows) {
    const key = cellOf(cells, by)
    const path = byKey.get(key)
    if (!path) problems.push(`row ${line}: no page ${key}`)
    else if (drafts.has(path)) problems.push(`row ${line}: a second row for ${key}`)
    else {
      const edits: Record<string, Edit> = {}
      for (const [column, target] of targets) {
        const cell = cellOf(cells, column)
        if (cell === '') continue
        const wrong = problemOf(column, cell)
        if (wrong) problems.push(`row ${line}: ${wrong}`)
        else edits[target] = { value: cell }
      }
      drafts.set(path, edits)
      const slug = cellOf(cells, 'slug')
      if (slug && safeSegment(slug) !== slug)
        problems.push(
          `row ${line}: the slug “${slug}” cannot stand in an address${safeSegment(slug) ? `; “${safeSegment(slug)}” can` : ''}`,
        )
      else if (slug) slugs.set(site.addressPath(path), { value: slug })
    }
  }
  const moves = slugs.size > 0 ? movesOf(site.paths.map(site.addressPath), slugs, base) : noMoves
  const written = writeSite(site, drafts, moves, base, out, problems)
  const addresses = written.moved > 0 ? `, ${written.moved} at new addresses (see redirects.csv)` : ''
  await print(`${written.files} files written to ${out}, ${written.changed} of them changed${addresses}\n`)
  return 0
}
