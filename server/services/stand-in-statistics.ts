/**
 * The stand-in for the statistics service: the demo site's clicks and impressions, invented, with weeks, a season and
 * noise; pages of the hand-off in stand-ins/hand-off.json do better since, others do not. The same each time.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { addressOf } from '../../core/addresses/addresses.ts'
import { randomFrom } from '../../core/progress/effect.ts'
import { dateOf, dayNumber, type DayOfPage, type StatisticsAnswer } from '../../core/progress/statistics.ts'
import { chanceOf } from './competitors.ts'
import { keywordsOfDemo } from './demo-keywords.ts'

const BASE = 'https://farrowskerry.example/'
const FIRST = '2026-06-01'
const AS_OF = '2026-11-24'
/** How much more often changed pages are clicked. */
const GAIN = 0.22

export function standInStatistics(parameters: URLSearchParams): { status: number; body: object } {
  const site = parameters.get('site') ?? ''
  if (!URL.canParse(site)) return { status: 400, body: { why: 'Name the site by its address.' } }
  const within = (name: string, plain: string) => {
    const given = parameters.get(name) ?? ''
    return /^\d{4}-\d{2}-\d{2}$/.test(given) ? given : plain
  }
  const to = within('to', AS_OF)
  const from = within('from', FIRST)
  // Whoever asks years later gets what there is all the same.
  const rows = new URL(site).host === new URL(BASE).host ? rowsBetween(from > AS_OF ? FIRST : from, to) : []
  const answer: StatisticsAnswer = { asOf: AS_OF, rows }
  return { status: 200, body: answer }
}

function rowsBetween(from: string, to: string): DayOfPage[] {
  const { date, pages } = JSON.parse(
    readFileSync(join(process.cwd(), 'stand-ins/hand-off.json'), 'utf8'),
  ) as { date: string; pages: string[] }
  const changed = new Set(pages)
  const [first, last] = [
    Math.max(dayNumber(FIRST), dayNumber(from)),
    Math.min(dayNumber(AS_OF), dayNumber(to)),
  ]
  const rows: DayOfPage[] = []
  for (const { path, phrases } of keywordsOfDemo()) {
    const page = addressOf(path, BASE)
    const random = randomFrom(Math.floor(chanceOf(`${path} statistics`) * 2 ** 32))
    const size = 30 + 400 * chanceOf(`${path} size`) ** 2
    const place = 2 + 12 * chanceOf(`${path} place`)
    const appeal = 0.7 + 0.6 * chanceOf(`${path} appeal`)
    // All days are drawn, so that the same day is the same whatever is asked for.
    for (let day = dayNumber(FIRST); day <= dayNumber(AS_OF); day++) {
      const season = 1 + 0.45 * Math.cos((2 * Math.PI * (day - dayNumber('2026-07-25'))) / 365)
      const weekday = [1.1, 1, 0.95, 0.95, 1, 1.15, 1.2][(day + 3) % 7]!
      const impressions = Math.round(size * season * weekday * (0.85 + 0.3 * random()))
      const position = place + random() - 0.5
      const isBetter = changed.has(path) && day > dayNumber(date)
      const rate = (appeal * 0.3) / place ** 0.8
      const expected = impressions * rate * (isBetter ? 1 + GAIN : 1)
      const clicks = Math.max(0, Math.round(expected + Math.sqrt(expected) * (random() + random() - 1) * 2))
      if (day < first || day > last) continue
      const at = { date: dateOf(day), page, position: Math.round(position * 10) / 10 }
      rows.push({ ...at, phrase: null, clicks, impressions })
      if (phrases[0])
        rows.push({
          ...at,
          phrase: phrases[0],
          clicks: Math.round(clicks * 0.6),
          impressions: Math.round(impressions * 0.55),
        })
    }
  }
  return rows
}
