/** An audit's report in each of its formats, written as it comes: a beginning, page after page, an end. */
import {
  reportColumns,
  reportRows,
  siteRows,
  type PageReport,
  type Report,
} from '../core/exchange/audit-report.ts'
import { writeRows } from '../core/exchange/csv.ts'
import { plural } from './words.ts'

export interface ReportWriter {
  begin(): string
  page(report: PageReport): string
  end(siteMarks: Report['site']['marks'], totals: Report['totals'], unread: Report['unread']): string
}

const indented = (value: unknown, by: string) => JSON.stringify(value, null, 2).replace(/\n/g, `\n${by}`)

/** As `JSON.stringify(report, null, 2)` writes the whole. */
function jsonWriter(version: string, base: string): ReportWriter {
  let pages = 0
  return {
    begin: () =>
      `{\n  "tool": "keen-quill",\n  "version": ${JSON.stringify(version)},\n  "base": ${JSON.stringify(base)},\n  "pages": [`,
    page: (report) => `${pages++ > 0 ? ',' : ''}\n    ${indented(report, '    ')}`,
    end: (marks, totals, unread) =>
      `${pages > 0 ? '\n  ' : ''}],\n  "site": ${indented({ marks }, '  ')},\n  "totals": ${indented(totals, '  ')},\n  "unread": ${indented(unread, '  ')}\n}\n`,
  }
}

function csvWriter(urlOf: (path: string) => string): ReportWriter {
  return {
    begin: () => writeRows([reportColumns]),
    page: (report) => writeRows(reportRows(report)),
    end: (marks, _totals, unread) =>
      writeRows([
        ...marks.flatMap((mark) => siteRows(mark, urlOf)),
        ...unread.map((u) => [u.path, '', 'unread', '', u.why, null, null]),
      ]),
  }
}

function textWriter(): ReportWriter {
  return {
    begin: () => '',
    page({ path, url, marks, html = [] }) {
      if (marks.length === 0 && html.length === 0) return ''
      const lines = marks.map(
        (m) =>
          `  ${m.severity.padEnd(7)} ${m.line === null ? 'page' : `${m.line}:${m.column}`}  ${m.rule}: ${m.message}`,
      )
      const conformance = html.map((f) => `  html    ${f.line}:${f.column}  ${f.rule}: ${f.message}`)
      return [`${path}  ${url}`, ...lines, ...conformance, '', ''].join('\n')
    },
    end(siteMarks, { pages, blocker, flaw, nit }, unread) {
      const out: string[] = []
      for (const mark of siteMarks)
        out.push(
          `site  ${mark.severity.padEnd(7)} ${mark.rule}: ${mark.message}`,
          ...mark.pages.map((p) => `  ${p}`),
          '',
        )
      for (const { path, why } of unread) out.push(`not read  ${path}: ${why}`)
      out.push(
        `${plural(pages, 'page')}: ${plural(blocker, 'blocker')}, ${plural(flaw, 'flaw')}, ${plural(nit, 'nit')}`,
      )
      return out.join('\n') + '\n'
    },
  }
}

export const reportWriter = (
  format: 'text' | 'json' | 'csv',
  { version, base, urlOf }: { version: string; base: string; urlOf(path: string): string },
): ReportWriter =>
  format === 'json' ? jsonWriter(version, base) : format === 'csv' ? csvWriter(urlOf) : textWriter()
