import { parseArgs } from 'node:util'
import { isWebAddress } from '../core/addresses/addresses.ts'
import { cellOf } from '../core/exchange/keyword-sheet.ts'
import { robotsDirectives, unknownDirectives } from '../core/rules/address/robots-unknown.ts'
import { pathOf, type PageId } from '../core/site/page-identity.ts'
import type { Decisions } from '../core/work/decisions.ts'
import { safeSegment } from '../core/wording/slug.ts'
import { dateFrom, sheetFrom } from './inputs.ts'
import { checkOut } from './output-folder.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import type { Edit } from '../core/page/edits/draft.ts'
import { readEdits } from './edits.ts'
import { decide, siteFrom, type CommandSite } from './site.ts'
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
    options: {
      changes: { type: 'string' },
      edits: { type: 'string' },
      out: { type: 'string' },
      'base-url': { type: 'string' },
    },
  })
  if (positionals.length !== 1) throw new Problem('apply takes one page, folder or ZIP archive.')
  if (!values.changes && !values.edits)
    throw new Problem('Name the sheet of changes, --changes FILE.csv, or the edits, --edits FILE.json.')
  if (!values.out) throw new Problem('Name an empty or new folder to write to: --out DIR.')
  const { out } = values
  const sheet = values.changes ? changesFrom(values.changes, values['base-url']) : null
  const edits = values.edits ? readEdits(values.edits) : new Map<string, Record<string, Edit>>()
  const site = siteFrom(positionals, { baseUrl: values['base-url'], date: dateFrom(undefined) })
  checkOut(out, positionals)
  const decided = new Map<PageId, Decisions>()
  const problems: string[] = []
  if (sheet) applySheet(site, sheet, decided, problems)
  const byPath = new Map(site.inOrder.map((page) => [pathOf(page), page.id]))
  for (const [path, own] of edits) {
    const id = byPath.get(path)
    if (id === undefined) problems.push(`no page ${path}`)
    else
      decided.set(id, {
        ...(decided.get(id) ?? site.decisionsOf(id)),
        ...Object.fromEntries(Object.entries(own).map(([target, edit]) => [`edit:${target}`, edit])),
      })
  }
  const before = site.decisionsOf
  decide(site, (id) => decided.get(id) ?? before(id))
  const written = await writeSite(site, out, { strict: true, lists: false, problems })
  const addresses = written.moved > 0 ? `, ${written.moved} at new addresses (see redirects.csv)` : ''
  await print(`${written.files} files written to ${out}, ${written.changed} of them changed${addresses}\n`)
  return 0
}

interface ChangeSheet {
  by: 'path' | 'url'
  rows: ReturnType<typeof sheetFrom>['rows']
}

function changesFrom(changes: string, baseUrl: string | undefined): ChangeSheet {
  const { columns, rows } = sheetFrom(changes, 'the changes')
  const unknown = columns.filter((c) => c !== '' && !known.includes(c))
  if (unknown.length > 0)
    throw new Problem(`${changes}: unknown column ${unknown.join(', ')}; ${known.join(', ')} are known.`)
  const by = columns.includes('path') ? 'path' : columns.includes('url') ? 'url' : null
  if (!by) throw new Problem(`${changes}: a column path or url is expected.`)
  if (baseUrl === undefined && (by === 'url' || columns.includes('slug')))
    throw new Problem(
      `The sheet has a column ${by === 'url' ? 'url' : 'slug'}: give the address of the root with --base-url.`,
    )
  return { by, rows }
}

/** Takes the rows over as decisions; what is wrong with them is added to the problems. */
function applySheet(
  site: CommandSite,
  { by, rows }: ChangeSheet,
  decided: Map<PageId, Decisions>,
  problems: string[],
): void {
  const byKey = new Map(site.inOrder.map((page) => [by === 'path' ? pathOf(page) : page.url, page.id]))
  for (const { line, cells } of rows) {
    const name = cellOf(cells, by)
    const id = byKey.get(name)
    if (id === undefined) problems.push(`row ${line}: no page ${name}`)
    else if (decided.has(id)) problems.push(`row ${line}: a second row for ${name}`)
    else {
      const decisions: Record<string, unknown> = { ...site.decisionsOf(id) }
      for (const [column, target] of targets) {
        const cell = cellOf(cells, column)
        if (cell === '') continue
        const wrong = problemOf(column, cell)
        if (wrong) problems.push(`row ${line}: ${wrong}`)
        else decisions[`edit:${target}`] = { value: cell }
      }
      const slug = cellOf(cells, 'slug')
      if (slug && safeSegment(slug) !== slug)
        problems.push(
          `row ${line}: the slug “${slug}” cannot stand in an address${safeSegment(slug) ? `; “${safeSegment(slug)}” can` : ''}`,
        )
      else if (slug) decisions['edit:slug'] = { value: slug }
      decided.set(id, decisions)
    }
  }
}
