/** `quill progress`: how changed pages do since, set against those left alone. */
import { parseArgs } from 'node:util'
import { readStatistics } from '../core/exchange/statistics-sheet.ts'
import { effectInWords, measured, progressOf, type ChangedPage } from '../core/progress/effect.ts'
import { dayNumber, keyOf, pageDays } from '../core/progress/statistics.ts'
import { formatFrom, sheetFrom } from './inputs.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import { plural } from './words.ts'

const WEEKS = 4

export async function progress(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      statistics: { type: 'string' },
      changes: { type: 'string' },
      weeks: { type: 'string', default: String(WEEKS) },
      format: { type: 'string', default: 'text' },
    },
  })
  if (positionals.length > 0) throw new Problem('progress takes no PATH: name its two sheets.')
  if (!values.statistics || !values.changes)
    throw new Problem('Name both sheets: --statistics FILE.csv and --changes FILE.csv.')
  const format = formatFrom(values.format, ['text', 'json'])
  if (!/^[1-9]\d?$/.test(values.weeks))
    throw new Problem(`--weeks “${values.weeks}”: a number from 1 to 99 is expected.`)
  const read = readStatistics(sheetFrom(values.statistics, 'the statistics'))
  if (!read.ok) throw new Problem(`${values.statistics}: ${read.why}`)
  const { rows, unread } = read.read
  for (const { row, why } of unread.slice(0, 5))
    process.stderr.write(`quill: ${values.statistics}, line ${row}, left out: ${why}\n`)
  if (rows.length === 0) throw new Problem(`${values.statistics}: there is no row in it that could be read.`)
  const { changes, written } = changesFrom(values.changes)
  const effectOnPages = progressOf(pageDays(rows), changes, { weeks: Number(values.weeks) })
  // Pages are told by their addresses as the sheet has them.
  const nameOf = (page: string) => written.get(page) ?? page
  const report = {
    ...effectOnPages,
    pages: effectOnPages.pages.map((one) => ({ ...one, page: nameOf(one.page) })),
    tooRecent: effectOnPages.tooRecent.map(nameOf),
  }
  if (format === 'json') {
    await print(JSON.stringify(report, null, 2) + '\n')
    return 0
  }
  const lines = [
    `${plural(report.pages.length, 'changed page')} over ${plural(report.weeks, 'week')} before and after, set against ${plural(report.others, 'page')} left alone`,
    ...(report.why === null
      ? measured.flatMap((measure) => {
          const effect = report.effect[measure]
          if (measure === 'position')
            return effect
              ? [
                  `position: ${effect.estimate.toFixed(1)} places against pages left alone, between ${effect.low.toFixed(1)} and ${effect.high.toFixed(1)}; below zero is better`,
                ]
              : []
          return [`${measure}: ${effect ? effectInWords(measure, effect) : 'too little to tell'}`]
        })
      : [report.why]),
    ...report.tooRecent.map((page) => `too recent: ${page}`),
    ...report.pages.map(
      ({ page, before, after }) =>
        `${page}: ${before.clicks} → ${after.clicks} clicks, ${before.impressions} → ${after.impressions} impressions`,
    ),
  ]
  await print(lines.join('\n') + '\n')
  return 0
}

function changesFrom(file: string): { changes: ChangedPage[]; written: Map<string, string> } {
  const table = sheetFrom(file, 'the changes')
  for (const column of ['page', 'date'])
    if (!table.columns.includes(column))
      throw new Problem(`${file}: it has no column “${column}”. Its columns are page and date.`)
  const first = new Map<string, number>()
  const written = new Map<string, string>()
  for (const { line, cells } of table.rows) {
    const [page, date] = [cells.page!.trim(), cells.date!.trim()]
    if (!URL.canParse(page)) throw new Problem(`${file}, line ${line}: “${page}” is no web address.`)
    if (!/^\d{4}-\d{2}-\d{2}$/.test(date))
      throw new Problem(`${file}, line ${line}: “${date}” is no date. Write it as 2026-11-26.`)
    // What changed twice is looked at from its first change on.
    const key = keyOf(page, new Map())
    written.set(key, page)
    first.set(key, Math.min(first.get(key) ?? Infinity, dayNumber(date)))
  }
  return { changes: [...first].map(([page, day]) => ({ page, day })), written }
}
