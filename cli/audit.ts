import { existsSync, readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import about from '../package.json' with { type: 'json' }
import {
  pageReport,
  reportCsv,
  siteMarkReport,
  totalsOf,
  type Report,
} from '../core/exchange/audit-report.ts'
import { readTable } from '../core/exchange/csv.ts'
import { compileKeyword, type Keywords } from '../core/keywords/match.ts'
import { measure } from '../core/measure/snippet.ts'
import { descriptionOf, titleOf } from '../core/page/facts.ts'
import { readPage } from '../core/page/read-page.ts'
import { readSource } from '../core/page/source.ts'
import { defaultStyle, readHouseStyle, type HouseStyle } from '../core/rules/house-style.ts'
import { auditPage, auditSite } from '../core/rules/runner.ts'
import { addressOf, isPagePath, normaliseBase } from '../core/site/addresses.ts'
import { addressOnly, emptyIndex, entryOf, keywordKey, updateIndex } from '../core/site/site-index.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import { openSite } from './site-files.ts'

export const DEFAULT_BASE = 'https://site.example/'

export function baseFrom(given: string | undefined): string {
  if (given === undefined) return DEFAULT_BASE
  const base = normaliseBase(given)
  if (!base) throw new Problem(`--base-url “${given}” is no http or https address.`)
  return base
}

export function fileText(path: string, what: string): string {
  if (!existsSync(path)) throw new Problem(`${path}: there is no such file (${what}).`)
  return readFileSync(path, 'utf8')
}

/** Keywords by path or by address: `path,primary,secondary`, secondary separated by `;`. */
function readKeywords(file: string): Map<string, Keywords> {
  const table = readTable(fileText(file, 'the keywords'))
  if (!table.ok) throw new Problem(`${file}: ${table.why}`)
  const by = table.columns.includes('path') ? 'path' : table.columns.includes('url') ? 'url' : null
  if (!by || !table.columns.includes('primary'))
    throw new Problem(`${file}: the columns path (or url), primary and secondary are expected.`)
  return new Map(
    table.rows.map(({ cells }) => [
      cells[by]!.trim(),
      {
        primary: cells.primary!.trim(),
        secondary: (cells.secondary ?? '')
          .split(';')
          .map((s) => s.trim())
          .filter(Boolean),
      },
    ]),
  )
}

function readStyle(file: string): HouseStyle {
  let json: unknown
  try {
    json = JSON.parse(fileText(file, 'the house style'))
  } catch (error) {
    if (error instanceof Problem) throw error
    throw new Problem(`${file}: no JSON (${(error as Error).message}).`)
  }
  const result = readHouseStyle(json)
  if (!result.ok) throw new Problem(`${file}: ${result.why}`)
  return result.style
}

export async function audit(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      'base-url': { type: 'string' },
      keywords: { type: 'string' },
      style: { type: 'string' },
      date: { type: 'string' },
      format: { type: 'string', default: 'text' },
    },
  })
  const { format } = values
  if (!['text', 'json', 'csv'].includes(format))
    throw new Problem(`--format “${format}”: text, json or csv is expected.`)
  const date = values.date ?? new Date().toISOString().slice(0, 10)
  if (!/^\d{4}-\d{2}-\d{2}$/.test(date) || Number.isNaN(Date.parse(date)))
    throw new Problem(`--date “${date}”: YYYY-MM-DD is expected.`)
  const base = baseFrom(values['base-url'])
  const style = values.style ? readStyle(values.style) : defaultStyle
  const keywords = values.keywords ? readKeywords(values.keywords) : new Map<string, Keywords>()

  const files = openSite(positionals)
  const index = emptyIndex(
    base,
    files.whole,
    files.paths.map((p) => [p, files.addressPath(p)] as const),
  )
  const report: Report = {
    tool: 'keen-quill',
    version: about.version,
    base,
    pages: [],
    site: { marks: [] },
    totals: { pages: 0, blocker: 0, flaw: 0, nit: 0 },
    unread: [...files.unread],
  }
  const keywordsFor = (path: string) =>
    keywords.get(path) ?? keywords.get(addressOf(files.addressPath(path), base)) ?? null
  const keywordFor = (path: string, lang: string | null) => {
    const primary = keywordsFor(path)?.primary
    return primary ? compileKeyword(primary, lang) : null
  }
  const inOrder = files.whole ? files.paths.filter(isPagePath) : files.paths
  // Every page's address is known to the first rule that runs; and what the home page links to.
  for (const path of inOrder)
    updateIndex(index, path, {
      ...addressOnly(path, addressOf(files.addressPath(path), base)),
      keyword: keywordKey(keywordFor(path, style.language)),
    })
  const home = index.addresses.get(base)
  const pagePaths = [...inOrder].sort((a, b) => Number(b === home) - Number(a === home))
  for (const path of pagePaths) {
    let bytes: Uint8Array
    try {
      bytes = files.read(path)
    } catch (error) {
      updateIndex(index, path, null)
      report.unread.push({ path, why: (error as Error).message })
      continue
    }
    const result = readSource(bytes)
    if (!result.ok) {
      updateIndex(index, path, null)
      report.unread.push({ path, why: result.why })
      continue
    }
    const page = readPage(result.source, {
      path,
      url: addressOf(files.addressPath(path), base),
      main: style.main,
    })
    updateIndex(index, path, entryOf(path, page, index, keywordFor(path, page.lang ?? style.language)))
    const marks = auditPage(page, index, style, {
      date,
      keywords: keywordsFor(path),
      baseKnown: values['base-url'] !== undefined,
    })
    const measured = (role: 'title' | 'description') => {
      const text = role === 'title' ? titleOf(page)?.text : descriptionOf(page)?.content
      return text ? measure(text, role, style.slots) : null
    }
    report.pages.push(pageReport(page, result.source.text, marks, measured))
  }
  const place = new Map(inOrder.map((path, i) => [path, i]))
  report.pages.sort((a, b) => place.get(a.path)! - place.get(b.path)!)
  const siteMarks = auditSite(index, style, date)
  report.site.marks = siteMarkReport(siteMarks)
  report.totals = totalsOf(report.pages, siteMarks)

  await print(
    format === 'json'
      ? JSON.stringify(report, null, 2) + '\n'
      : format === 'csv'
        ? reportCsv(report)
        : textReport(report),
  )
  return report.totals.blocker > 0 ? 1 : 0
}

const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`

function textReport(report: Report): string {
  const out: string[] = []
  for (const page of report.pages) {
    if (page.marks.length === 0) continue
    out.push(`${page.path}  ${page.url}`)
    for (const mark of page.marks)
      out.push(
        `  ${mark.severity.padEnd(7)} ${mark.line === null ? 'page' : `${mark.line}:${mark.column}`}  ${mark.rule}: ${mark.message}`,
      )
    out.push('')
  }
  for (const mark of report.site.marks)
    out.push(
      `site  ${mark.severity.padEnd(7)} ${mark.rule}: ${mark.message}`,
      ...mark.pages.map((p) => `  ${p}`),
      '',
    )
  for (const { path, why } of report.unread) out.push(`not read  ${path}: ${why}`)
  const { pages, blocker, flaw, nit } = report.totals
  out.push(
    `${plural(pages, 'page')}: ${plural(blocker, 'blocker')}, ${plural(flaw, 'flaw')}, ${plural(nit, 'nit')}`,
  )
  return out.join('\n') + '\n'
}
