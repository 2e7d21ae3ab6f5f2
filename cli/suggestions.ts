/** `quill suggestions`: how a consultant's sheet matches the pages of a site. */
import { readFileSync, existsSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { recogniseColumns } from '../core/exchange/columns.ts'
import { readSheet } from '../core/exchange/sheet.ts'
import { readSuggestions } from '../core/exchange/suggestions.ts'
import { pathOf } from '../core/site/page-identity.ts'
import { dateFrom, formatFrom } from './inputs.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import { siteFrom } from './site.ts'

export async function suggestions(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      sheet: { type: 'string' },
      'base-url': { type: 'string' },
      format: { type: 'string', default: 'text' },
    },
  })
  const format = formatFrom(values.format, ['text', 'json'])
  if (!values.sheet) throw new Problem('Name the sheet of suggestions: --sheet FILE.')
  if (!existsSync(values.sheet))
    throw new Problem(`${values.sheet}: there is no such file (the suggestions).`)
  const site = siteFrom(positionals, { baseUrl: values['base-url'], date: dateFrom(undefined) })
  const read = await readSheet(readFileSync(values.sheet))
  if (!read.ok) throw new Problem(`${values.sheet}: ${read.why}`)
  const { sheet } = read
  const columns = recogniseColumns(sheet, 'suggestions')
  const pages = site.inOrder.map((page) => ({ id: page.id, path: pathOf(page), url: page.url }))
  const pathOfId = new Map(pages.map(({ id, path }) => [id, path]))
  const { matched, unmatched, twice } = readSuggestions(sheet, columns, pages)
  if (format === 'json') {
    const named = Object.fromEntries(
      Object.entries(columns).map(([role, index]) => [role, sheet.heading[index]]),
    )
    await print(
      `${JSON.stringify(
        {
          columns: named,
          matched: matched.map(({ id, ...row }) => ({ ...row, path: pathOfId.get(id) })),
          unmatched,
          twice,
        },
        null,
        2,
      )}\n`,
    )
    return 0
  }
  for (const row of matched)
    await print(
      `row ${row.row}: ${pathOfId.get(row.id)}\n${row.title ? `  title: ${row.title}\n` : ''}${row.description ? `  description: ${row.description}\n` : ''}`,
    )
  for (const row of unmatched)
    await print(
      `row ${row.row}: ${row.address} is no page${row.near.length > 0 ? `; nearest: ${row.near.join(', ')}` : ''}\n`,
    )
  for (const row of twice)
    await print(`row ${row.row}: ${row.address} means two pages, or a page that a row before it means\n`)
  await print(`${matched.length} matched, ${unmatched.length} not, ${twice.length} not told apart\n`)
  return 0
}
