/** An audit in the shapes of the command line's contract (`quill audit`): fields are added, never renamed. */
import { canonicalOf, descriptionOf, robotsOf, titleOf, type PageFacts } from '../page/read/facts.ts'
import { lineAndColumn, lineStarts } from '../page/source/places.ts'
import type { Measured, Role } from '../measure/snippet.ts'
import type { Finding } from '../conformance/conformance.ts'
import type { Severity } from '../rules/house-style.ts'
import { isCertain, type Mark, type SiteMark } from '../rules/rule.ts'
import type { PageId } from '../site/page-identity.ts'
import { parseJson, typesOf } from '../json/json.ts'

export interface ReportMark {
  rule: string
  severity: Severity
  message: string
  line: number | null
  column: number | null
  start: number | null
  end: number | null
  repair: boolean
}
export interface PageReport {
  path: string
  url: string
  title: string | null
  titlePx: number | null
  description: string | null
  descriptionPx: number | null
  canonical: string | null
  robots: string[]
  lang: string | null
  words: number
  images: number
  headings: object[]
  structuredData: { types: string[]; line: number }[]
  marks: ReportMark[]
  /** Whole-page HTML conformance, where it was asked for: no marks, in no totals. */
  html?: Finding[]
}
export interface Report {
  tool: 'keen-quill'
  version: string
  base: string
  pages: PageReport[]
  site: { marks: { rule: string; severity: Severity; message: string; pages: string[] }[] }
  totals: { pages: number } & Record<Severity, number>
  unread: { path: string; why: string }[]
}

const px = (measured: Measured | null) => (measured ? Math.round(measured.px * 100) / 100 : null)

/** `measure` gives the measured title and description, as the audit's rules saw them. */
export function pageReport(
  page: PageFacts,
  text: string,
  marks: Mark[],
  measured: (role: Role) => Measured | null,
): PageReport {
  const starts = lineStarts(text)
  const at = (place: number | null) =>
    place === null ? { line: null, column: null } : lineAndColumn(starts, place)
  const title = titleOf(page)
  const description = descriptionOf(page)
  return {
    path: page.path,
    url: page.url,
    title: title?.text ?? null,
    titlePx: title ? (px(measured('title')) ?? 0) : null,
    description: description?.content ?? null,
    descriptionPx: description ? (px(measured('description')) ?? 0) : null,
    canonical: canonicalOf(page)?.url ?? canonicalOf(page)?.href ?? null,
    robots: robotsOf(page),
    lang: page.lang,
    words: page.main.words,
    images: page.images.length,
    headings: Array.from(page.headings, (h) => ({
      level: h.level,
      text: h.text,
      landmark: h.landmark,
      ...at(h.start),
      start: h.start,
      end: h.end,
      ...(h.hidden ? { hidden: true } : {}),
      ...(h.role ? { role: h.role } : {}),
    })),
    structuredData: page.data.map((block) => {
      const json = parseJson(block.json)
      return { types: json.ok ? typesOf(json.value) : [], line: at(block.start).line! }
    }),
    marks: marks.map((m) => ({
      rule: m.rule,
      severity: m.severity,
      message: m.message,
      ...at(m.start),
      start: m.start,
      end: m.end,
      repair: isCertain(m.repair),
    })),
  }
}

/** Marks on the site with their pages by path; `pathOf` knows a page's by its id. */
export const siteMarkReport = (
  marks: readonly SiteMark[],
  pathOf: (id: PageId) => string,
): Report['site']['marks'] =>
  marks.map(({ rule, severity, message, pages }) => ({
    rule,
    severity,
    message,
    pages: pages.map(pathOf),
  }))

/** The report as a sheet: one row a mark, marks on the site with every page they name. */
export const reportColumns = ['path', 'url', 'rule', 'severity', 'message', 'line', 'column']
export const reportRows = ({ path, url, marks }: PageReport): (string | number | null)[][] =>
  marks.map((m) => [path, url, m.rule, m.severity, m.message, m.line, m.column])
export const siteRows = (
  { pages, rule, severity, message }: Report['site']['marks'][number],
  urlOf: (path: string) => string,
): (string | number | null)[][] =>
  pages.map((path) => [path, urlOf(path), rule, severity, message, null, null])
