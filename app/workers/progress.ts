/** How the site does in results: weeks, before and after, where to work next; from the statistics that are kept. */
import { sameAddress } from '../../core/addresses/addresses.ts'
import type { Table } from '../../core/exchange/csv.ts'
import { readSheet } from '../../core/exchange/sheet.ts'
import { readStatistics } from '../../core/exchange/statistics-sheet.ts'
import { chancesOf, type Chance, type Chances } from '../../core/progress/chances.ts'
import { progressOf, type ProgressReport } from '../../core/progress/effect.ts'
import {
  dayNumber,
  figuresFrom,
  keyOf,
  pageDays,
  sumOver,
  weeksOf,
  type DayOfPage,
  type Figures,
  type PageDays,
  type StatisticsAnswer,
} from '../../core/progress/statistics.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { handOffsOf, type Decisions } from '../../core/work/decisions.ts'
import { folderOf } from '../../core/work/ledger-filter.ts'
import { answersKept, keepAnswer } from '../store/answers.ts'
import { db, firstOf } from '../store/db.ts'
import { current, type Open } from './open-site.ts'

interface Known {
  of: string
  rows: DayOfPage[]
  days: PageDays
  movedTo: ReadonlyMap<string, string>
  asOf: string
  source: string
}
let known: Known | null = null

/** The newest statistics of the open site; null where there are none. */
async function statisticsKnown(open: Open): Promise<Known | null> {
  const kept = (await answersKept<{ site: string }, StatisticsAnswer>('statistics'))
    .filter(({ question }) => sameAddress(question.site, open.site.base))
    .sort((a, b) => (a.date < b.date ? 1 : -1))[0]
  if (!kept) return null
  const { answer, source, date } = kept
  const { moves } = open.setting
  const of = JSON.stringify([
    open.site.id,
    date,
    source,
    answer.asOf,
    answer.rows.length,
    [...moves.addresses],
  ])
  if (known?.of !== of) {
    // The last day may be unfinished.
    const rows = answer.rows.filter((row) => row.date < answer.asOf)
    const movedTo = moves.addresses
    known = { of, rows, days: pageDays(rows, movedTo), movedTo, asOf: answer.asOf, source }
  }
  return known
}

export type ProgressGroup =
  { kind: 'site' | 'changed' | 'alone' } | { kind: 'folder' | 'page' | 'phrase'; value: string }
export interface ProgressWeek extends Figures {
  /** YYYY-MM-DD */
  monday: string
}
export interface ProgressView {
  asOf: string
  source: string
  weeks: ProgressWeek[]
  handOffs: { date: string; what: string; pages: number }[]
  report: ProgressReport
  folders: string[]
  phrases: string[]
  /** Marks that pages had on the days of the snapshots. */
  marks: { date: string; marks: number; pages: number }[]
}

const MOST_PHRASES = 500

/** Null where nothing is known of the site's statistics yet. */
export async function progressView(
  ofSite: Decisions,
  group: ProgressGroup,
  weeks: number,
): Promise<ProgressView | null> {
  const open = current
  const statistics = open && (await statisticsKnown(open))
  if (!open || !statistics) return null
  const { days, rows, movedTo, asOf, source } = statistics
  const changed = changedPages(open, ofSite, movedTo)
  const snapshots = await db.snapshots.where('site').equals(firstOf(open.site)).sortBy('date')
  const urls = [...open.rows.values()].map((row) => row.url)
  const phrases = new Map<string, number>()
  for (const { phrase, impressions } of rows)
    if (phrase !== null) phrases.set(phrase, (phrases.get(phrase) ?? 0) + impressions)
  return {
    asOf,
    source,
    weeks: weeksFor(statistics, group, changed, movedTo),
    handOffs: handOffsOf(ofSite).map(({ date, what, pages }) => ({ date, what, pages: pages.length })),
    report: progressOf(
      days,
      [...changed].map(([page, day]) => ({ page, day })),
      { weeks },
    ),
    folders: [...new Set(urls.map(folderOf))].sort(),
    phrases: [...phrases]
      .sort((a, b) => b[1] - a[1])
      .slice(0, MOST_PHRASES)
      .map(([phrase]) => phrase),
    marks: snapshots.map(({ date, pages }) => ({
      date,
      pages: pages.length,
      marks: pages.reduce((n, page) => n + page.rules.length, 0),
    })),
  }
}

/** Pages that were handed off, by their address as it is compared, each with the day of its first hand-off. */
function changedPages(
  { rows }: Open,
  ofSite: Decisions,
  movedTo: ReadonlyMap<string, string>,
): Map<string, number> {
  const changed = new Map<string, number>()
  for (const { date, pages } of handOffsOf(ofSite))
    for (const id of pages) {
      const url = rows.get(id)?.url
      if (url === undefined) continue
      const key = keyOf(url, movedTo)
      changed.set(key, Math.min(changed.get(key) ?? Infinity, dayNumber(date)))
    }
  return changed
}

function weeksFor(
  { days, rows }: Known,
  group: ProgressGroup,
  changed: ReadonlyMap<string, number>,
  movedTo: ReadonlyMap<string, string>,
): ProgressWeek[] {
  const all = [...days.pages.keys()]
  const inGroup = (): { of: PageDays; pages: Iterable<string> } => {
    switch (group.kind) {
      case 'site':
        return { of: days, pages: all }
      case 'changed':
        return { of: days, pages: all.filter((page) => changed.has(page)) }
      case 'alone':
        return { of: days, pages: all.filter((page) => !changed.has(page)) }
      case 'folder':
        return { of: days, pages: all.filter((page) => folderOf(page) === group.value) }
      case 'page':
        return { of: days, pages: [keyOf(group.value, movedTo)] }
      case 'phrase': {
        const ofPhrase = rows
          .filter((row) => row.phrase === group.value)
          .map((row) => ({ ...row, phrase: null }))
        const of = { ...pageDays(ofPhrase, movedTo), first: days.first, last: days.last }
        return { of, pages: of.pages.keys() }
      }
    }
  }
  const { of, pages } = inGroup()
  return weeksOf(of, pages).map(({ monday, sums }) => ({ monday, ...figuresFrom(sums) }))
}

/** The ledger shows each page's figures of so many days: four weeks, so that each day of the week counts alike. */
const LEDGER_DAYS = 28

/** What the last four weeks that are known came to, by page; a page of which nothing is known is left out. */
export async function figuresOfPages(): Promise<ReadonlyMap<PageId, Figures>> {
  const open = current
  const statistics = open && (await statisticsKnown(open))
  const figures = new Map<PageId, Figures>()
  if (!open || !statistics) return figures
  const { days, movedTo } = statistics
  for (const { id, url } of open.rows.values()) {
    const ofPage = days.pages.get(keyOf(url, movedTo))
    if (ofPage) figures.set(id, figuresFrom(sumOver(ofPage, days.last - LEDGER_DAYS + 1, days.last)))
  }
  return figures
}

export interface ChanceOfPage extends Chance {
  id: PageId | null
}
/** Where to work next; pages of the site by their ids. Null where nothing is known of its statistics. */
export async function chancesView(): Promise<Record<keyof Chances, ChanceOfPage[]> | null> {
  const open = current
  const statistics = open && (await statisticsKnown(open))
  if (!open || !statistics) return null
  const { lessClicked, withinReach } = chancesOf(statistics.rows)
  const ids = new Map([...open.rows.values()].map((row) => [keyOf(row.url, new Map()), row.id]))
  const named = (chance: Chance): ChanceOfPage => ({
    ...chance,
    id: ids.get(keyOf(chance.page, statistics.movedTo)) ?? null,
  })
  return { lessClicked: lessClicked.map(named), withinReach: withinReach.map(named) }
}

/** Keeps an editor's own sheet as the site's statistics. */
export async function statisticsFromSheet(
  bytes: Uint8Array,
  source: string,
  today: string,
): Promise<{ ok: true; rows: number; unread: { row: number; why: string }[] } | { ok: false; why: string }> {
  const open = current
  if (!open) return { ok: false, why: 'No site is open.' }
  const opened = await readSheet(bytes)
  if (!opened.ok) return opened
  const { heading, rows: lines, lines: numbers } = opened.sheet
  const table: Extract<Table, { ok: true }> = {
    ok: true,
    columns: heading,
    rows: lines.map((cells, i) => ({
      line: numbers[i]!,
      cells: Object.fromEntries(heading.map((name, k) => [name, cells[k] ?? ''])),
    })),
  }
  const read = readStatistics(table)
  if (!read.ok) return read
  const { rows, unread } = read.read
  const last = rows.reduce((newest, row) => (row.date > newest ? row.date : newest), '')
  if (last === '')
    return {
      ok: false,
      why: `No row could be read. ${unread[0] ? `Row ${unread[0].row}: ${unread[0].why}` : ''}`,
    }
  // A sheet's last day is whole as far as anybody says: the day after it is the one that is not.
  const asOf = new Date(Date.parse(`${last}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10)
  await keepAnswer('statistics', { site: open.site.base }, { date: today, source, answer: { asOf, rows } })
  return { ok: true, rows: rows.length, unread }
}
