import { parseArgs } from 'node:util'
import {
  dataFileOfDocument,
  dataFileOfPage,
  dataReports,
  type DataFile,
  type DataFileReport,
} from '../core/exchange/data-report.ts'
import type { Outcome } from '../core/page/read/boundary.ts'
import { handOffFiles } from '../core/exchange/hand-off.ts'
import { defaultStyle } from '../core/rules/house-style.ts'
import { addressOf } from '../core/addresses/addresses.ts'
import { baseFrom, dateFrom, formatFrom } from './inputs.ts'
import { print } from './output.ts'
import { siteFrom } from './site.ts'
import { openSite } from './site-files.ts'

const isDocument = (path: string) => /\.(?:jsonld|json)$/i.test(path)
const isPage = (path: string) => /\.(?:html?|xhtml)(?:\.[a-z-]+)?$/i.test(path)

/** Judges structured data alone: documents, or the blocks of pages; each mark with its JSON pointer. */
export async function checkData(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      format: { type: 'string', default: 'text' },
      date: { type: 'string' },
      'base-url': { type: 'string' },
    },
  })
  const format = formatFrom(values.format, ['text', 'json'])
  const date = dateFrom(values.date)
  const given = openSite(positionals)
  const base = baseFrom(values['base-url'] ?? given.project?.site.base)
  const read = given.project ? await proofsOf(positionals, date, values['base-url']) : given.read
  const files: { path: string; read(): Outcome<DataFile> }[] = []
  const single = positionals.length === given.paths.length
  for (const path of given.paths) {
    // In a folder, what is neither a page nor a document is passed over.
    if (!single && !isDocument(path) && !isPage(path)) continue
    const url = addressOf(given.addressPath(path), base)
    files.push({
      path,
      read: () =>
        isDocument(path)
          ? { ok: true, value: dataFileOfDocument(path, url, read(path)) }
          : dataFileOfPage(path, url, read(path)),
    })
  }
  const { files: reports, unread: left } = dataReports(
    files,
    defaultStyle,
    date,
    base,
    values['base-url'] !== undefined || given.project !== null,
  )
  const unread = [...given.unread, ...left]
  await print(
    format === 'json' ? JSON.stringify({ files: reports, unread }, null, 2) + '\n' : textOf(reports, unread),
  )
  return reports.some((f) => f.blocks.some((b) => b.marks.some((m) => m.severity === 'blocker'))) ? 1 : 0
}

/** The files of a project as its work leaves them, by their paths as they were taken in. */
async function proofsOf(
  given: string[],
  date: string,
  baseUrl: string | undefined,
): Promise<(path: string) => Uint8Array> {
  const site = siteFrom(given, { baseUrl, date })
  const changed = new Map<string, Uint8Array>()
  for await (const { from, bytes } of handOffFiles(site, { which: 'changed', lists: false }))
    if (from !== null) changed.set(from, bytes)
  return (path) => changed.get(path) ?? site.bytes(path)
}

function textOf(reports: DataFileReport[], unread: { path: string; why: string }[]): string {
  const lines: string[] = []
  for (const { path, blocks } of reports) {
    lines.push(path)
    if (blocks.length === 0) lines.push('  describes nothing')
    for (const { line, types, features, marks } of blocks) {
      lines.push(`  line ${line}: ${types.join(', ') || 'no type'}`)
      for (const f of features)
        lines.push(
          `    ${f.feature}: ${
            f.retired?.scope === 'gone'
              ? `no longer shown, since ${f.retired.since}`
              : `${f.eligible ? 'eligible' : `not eligible; missing: ${f.missing.join(', ')}`}${f.retired ? `; shown for few sites, since ${f.retired.since}` : ''}`
          }`,
        )
      for (const m of marks)
        lines.push(
          `    ${m.severity.padEnd(7)} ${m.line}:${m.column}  ${m.pointer || '/'}  ${m.rule}: ${m.message}`,
        )
    }
    lines.push('')
  }
  for (const { path, why } of unread) lines.push(`not read  ${path}: ${why}`)
  return lines.join('\n') + '\n'
}
