/** What is said of structured data alone, block by block: the shape that `quill check-data` prints. */
import { lineAndColumn, lineStarts } from '../page/source/places.ts'
import { readPage } from '../page/read/read-page.ts'
import { onePage, pageFrom, type Outcome } from '../page/read/boundary.ts'
import { sourceOf } from '../page/source/source.ts'
import type { PageFacts, Need } from '../page/read/facts.ts'
import { catalogue } from '../rules/catalogue.ts'
import type { HouseStyle, Severity } from '../rules/house-style.ts'
import { isCertain, type Mark, type SiteMark } from '../rules/rule.ts'
import { auditPage, auditSite } from '../rules/runner.ts'
import { addressOnly, emptyIndex, updateIndex, type SiteIndex } from '../site/site-index.ts'
import { featuresOf } from '../structured-data/features.ts'
import { pointerAt } from '../json/json.ts'
import { siteThings } from '../structured-data/site-things.ts'
import { schemaTypes, type PageData } from '../structured-data/page-data.ts'
import { dataOf } from '../structured-data/read.ts'

export interface DataMark {
  rule: string
  severity: Severity
  message: string
  line: number
  column: number
  start: number
  end: number | null
  repair: boolean
  /** RFC 6901, within the block. */
  pointer: string
}
export interface DataFeature {
  feature: string
  eligible: boolean
  missing: string[]
  recommended: string[]
  /** The thing it is about. */
  pointer: string
  /** Where results show the feature no longer, or for few sites. */
  retired?: { since: string; scope: 'limited' | 'gone' }
}
export interface DataFileReport {
  path: string
  blocks: { line: number; types: string[]; features: DataFeature[]; marks: DataMark[] }[]
}

export interface DataFile {
  path: string
  url: string
  page: PageFacts
  text: string
  /** What is known of it: of a document that is no page, its data alone. */
  known?: ReadonlySet<Need>
}

/** A page whose blocks are judged, or why it is left out. */
export function dataFileOfPage(path: string, url: string, bytes: Uint8Array): Outcome<DataFile> {
  const read = pageFrom(bytes, { path, url })
  return read.ok
    ? { ok: true, value: { path, url, page: read.value.page, text: read.value.source.text } }
    : read
}
const decoder = new TextDecoder('utf-8')
const dataAlone: ReadonlySet<Need> = new Set(['data'])
let emptyPage: PageFacts | null = null
/** The facts of a page of which nothing is known. */
const blank = (): PageFacts =>
  (emptyPage ??= readPage(sourceOf(new Uint8Array(), 'utf-8', 'bom', 0), { path: '', url: '' }))

/** A JSON-LD document that stands for itself: one block, and no page around it. */
export function dataFileOfDocument(path: string, url: string, bytes: Uint8Array): DataFile {
  const text = decoder.decode(bytes)
  const page: PageFacts = { ...blank(), path, url, data: [{ json: text, jsonStart: 0, start: 0, end: 0 }] }
  return { path, url, page, text, known: dataAlone }
}

/** Rules about what a block says; that there is none is said of pages, not of blocks. */
const only = new Set(catalogue.filter((r) => r.family === 'data' && r.id !== 'data-none').map((r) => r.id))

/**
 * Reports on each file; what points from one to another is judged among those given. A file is read when its turn comes
 * and let go again: ten thousand of them need not be in memory at once.
 */
export function dataReports(
  files: readonly { path: string; read(): Outcome<DataFile> }[],
  style: HouseStyle,
  date: string,
  base: string,
  baseKnown: boolean,
): { files: DataFileReport[]; unread: { path: string; why: string }[] } {
  const site = emptyIndex(
    base,
    // Several files are one site: what none of them describes is described nowhere.
    files.length > 1,
    files.map((f) => [f.path, f.path] as const),
  )
  const unread: { path: string; why: string }[] = []
  const reports = new Map<string, DataFileReport>()
  for (const { path, read } of files) {
    const outcome = onePage(() => {
      const file = read()
      if (!file.ok) return file
      updateIndex(site, path, {
        ...addressOnly(path, path, file.value.url),
        things: siteThings(file.value.page),
      })
      return { ok: true, value: reportOf(file.value, site, style, date, baseKnown) }
    })
    if (outcome.ok) reports.set(path, outcome.value)
    else {
      updateIndex(site, path, null)
      unread.push({ path, why: outcome.why })
    }
  }
  const ofPage = new Map<string, SiteMark[]>()
  for (const mark of auditSite(site, style, date, only))
    for (const path of mark.pages) {
      const marks = ofPage.get(path)
      if (marks) marks.push(mark)
      else ofPage.set(path, [mark])
    }
  for (const { path, read } of files) {
    const marks = ofPage.get(path)
    const report = reports.get(path)
    const file = marks && report ? read() : null
    if (file?.ok) addMarks(report!, file.value, marks!)
  }
  return { files: [...reports.values()], unread }
}

function reportOf(
  file: DataFile,
  site: SiteIndex,
  style: HouseStyle,
  date: string,
  baseKnown: boolean,
): DataFileReport {
  const { path, page, text, known } = file
  const data = dataOf(page)
  const at = placesIn(text)
  const marks = auditPage(page, site, style, { date, only, baseKnown, ...(known ? { known } : {}) })
  const states = featuresOf(data)
  return {
    path,
    blocks: page.data.map((block, i) => {
      const pointer = pointersIn(data, page, i)
      return {
        line: at(block.start).line,
        types: data.blocks[i]!.roots.flatMap(schemaTypes),
        features: states
          .filter((s) => s.thing.block === i)
          .map(({ feature, thing, eligible, missing, recommended }) => ({
            feature: feature.id,
            eligible,
            missing: missing.map((l) => l.path),
            recommended: recommended.map((l) => l.path),
            pointer: pointer(thing.start),
            ...(feature.retired
              ? { retired: { since: feature.retired.since, scope: feature.retired.scope } }
              : {}),
          })),
        marks: inBlock(marks, page, i, at, pointer),
      }
    }),
  }
}

/** Puts marks of the site's among those of the page's blocks, each at its place. */
function addMarks(report: DataFileReport, { page, text }: DataFile, siteMarks: readonly SiteMark[]): void {
  const data = dataOf(page)
  const marks = siteMarks.flatMap((m) => placed(m, data))
  report.blocks.forEach((block, i) => {
    const more = inBlock(marks, page, i, placesIn(text), pointersIn(data, page, i))
    if (more.length > 0) block.marks = [...block.marks, ...more].sort((a, b) => a.start - b.start)
  })
}

/** Where a place stands, as line and column; the lines are found when a place is first asked for. */
function placesIn(text: string): (place: number) => { line: number; column: number } {
  let starts: number[] | null = null
  return (place) =>
    place === 0 ? { line: 1, column: 1 } : lineAndColumn((starts ??= lineStarts(text)), place)
}
function pointersIn(data: PageData, page: PageFacts, i: number): (place: number) => string {
  const { json } = data.blocks[i]!
  return (place) => (json ? pointerAt(json, place - page.data[i]!.jsonStart) : '')
}

function inBlock(
  marks: readonly Mark[],
  page: PageFacts,
  i: number,
  at: (place: number) => { line: number; column: number },
  pointer: (place: number) => string,
): DataMark[] {
  const { jsonStart, json } = page.data[i]!
  return marks
    .filter((m) => m.start !== null && m.start >= jsonStart && m.start <= jsonStart + json.length)
    .map(({ rule, severity, message, start, end, repair }) => ({
      rule,
      severity,
      message,
      ...at(start!),
      start: start!,
      end,
      repair: isCertain(repair),
      pointer: pointer(start!),
    }))
    .sort((a, b) => a.start - b.start)
}

/** A mark of the site's at its place on a page: the pointer that leads nowhere, the thing that is described in two ways. */
function placed(mark: SiteMark, data: PageData): Mark[] {
  const { rule, severity, message, values } = mark
  const at = (start: number, end: number): Mark => ({
    rule,
    severity,
    message,
    values,
    start,
    end,
    repair: null,
  })
  for (const thing of data.things)
    for (const property of thing.properties) {
      if (property.name !== values.property) continue
      if (rule === 'data-dangling')
        for (const v of property.values)
          if (v.kind === 'reference' && v.id === values.id) return [at(v.start, v.end)]
      if (
        rule === 'data-conflict' &&
        (thing.id === values.what || String(values.what).startsWith('the organisation'))
      ) {
        const said = property.values[0]
        const text = said?.kind === 'literal' ? String(said.iri ?? said.value) : null
        if (text === null || text.trim() === values.one || text.trim() === values.other)
          return [at(property.under.start, property.under.end)]
      }
    }
  return []
}
