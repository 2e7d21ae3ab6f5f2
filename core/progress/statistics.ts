/** How pages do in results, day by day: what a statistics service or a sheet says. */
import Joi from 'joi'
import { queryKey } from '../addresses/addresses.ts'

export interface DayOfPage {
  /** YYYY-MM-DD */
  date: string
  page: string
  /** Null for a page's total of that day. */
  phrase: string | null
  clicks: number
  impressions: number
  /** The mean place in results, from 1; meaningless without impressions. */
  position: number
}
export interface StatisticsAnswer {
  /** YYYY-MM-DD, the last day that there is anything of. */
  asOf: string
  rows: DayOfPage[]
}

const day = Joi.string().pattern(/^\d{4}-\d{2}-\d{2}$/)
const amount = Joi.number().min(0).max(1e12)
export const MOST_ROWS = 2_000_000
export const statisticsSchema = Joi.object<StatisticsAnswer>({
  asOf: day.required(),
  rows: Joi.array()
    .max(MOST_ROWS)
    .items(
      Joi.object({
        date: day.required(),
        page: Joi.string()
          .max(2000)
          .pattern(/^https?:\/\//i)
          .required(),
        phrase: Joi.string().max(500).allow(null).default(null),
        clicks: amount.required(),
        impressions: amount.required(),
        position: Joi.number().min(0).max(10_000).required(),
      }).unknown(true),
    )
    .required(),
}).unknown(true)

export interface Figures {
  clicks: number
  impressions: number
  /** Clicks ÷ impressions; 0 without impressions. */
  ctr: number
  /** Weighted by impressions; null without any. */
  position: number | null
}

/** Sums that figures are made of. */
export interface Sums {
  clicks: number
  impressions: number
  /** Places times impressions. */
  places: number
}
export const noSums = (): Sums => ({ clicks: 0, impressions: 0, places: 0 })
export function addTo(sums: Sums, more: Sums): void {
  sums.clicks += more.clicks
  sums.impressions += more.impressions
  sums.places += more.places
}
export const figuresFrom = ({ clicks, impressions, places }: Sums): Figures => ({
  clicks,
  impressions,
  ctr: impressions > 0 ? clicks / impressions : 0,
  position: impressions > 0 ? places / impressions : null,
})

const DAY = 86_400_000
/** Days since 1970. */
export const dayNumber = (date: string): number => Math.floor(Date.parse(`${date}T00:00:00Z`) / DAY)
export const dateOf = (number: number): string => new Date(number * DAY).toISOString().slice(0, 10)

/** A site's statistics by page and day; what is known of phrases alone is summed where a page's total is not given. */
export interface PageDays {
  /** By address as it is compared: each day's sums by its number. */
  pages: Map<string, Map<number, Sums>>
  first: number
  last: number
}

/**
 * `movedTo` names for an old address the one at which the page stands now: both are one page. A row without a phrase is
 * the page's total of its day and goes before what its phrases come to.
 */
export function pageDays(
  rows: readonly DayOfPage[],
  movedTo: ReadonlyMap<string, string> = new Map(),
): PageDays {
  const totals = new Map<string, Map<number, Sums>>()
  const parts = new Map<string, Map<number, Sums>>()
  let first = Infinity
  let last = -Infinity
  for (const { date, page, phrase, clicks, impressions, position } of rows) {
    const number = dayNumber(date)
    first = Math.min(first, number)
    last = Math.max(last, number)
    const key = keyOf(page, movedTo)
    const into = phrase === null ? totals : parts
    let days = into.get(key)
    if (!days) into.set(key, (days = new Map()))
    let sums = days.get(number)
    if (!sums) days.set(number, (sums = noSums()))
    addTo(sums, { clicks, impressions, places: position * impressions })
  }
  for (const [key, days] of parts) {
    const whole = totals.get(key)
    if (!whole) totals.set(key, days)
    else for (const [number, sums] of days) if (!whole.has(number)) whole.set(number, sums)
  }
  return { pages: totals, first, last }
}

const MOST_MOVES = 20
/** An address as it is compared, where the page stands now. */
export function keyOf(page: string, movedTo: ReadonlyMap<string, string>): string {
  let key = queryKey(page)
  for (let moves = 0; moves < MOST_MOVES; moves++) {
    const next = movedTo.get(key)
    if (next === undefined || next === key) break
    key = next
  }
  return key
}

/** What some days, `from` and `to` included, come to. */
export function sumOver(days: ReadonlyMap<number, Sums> | undefined, from: number, to: number): Sums {
  const sums = noSums()
  if (!days) return sums
  for (let number = from; number <= to; number++) {
    const of = days.get(number)
    if (of) addTo(sums, of)
  }
  return sums
}

/** Weeks from Monday on, each with the sums of these pages; weeks that the statistics do not hold whole are left out. */
export function weeksOf(statistics: PageDays, pages: Iterable<string>): { monday: string; sums: Sums }[] {
  const { first, last } = statistics
  const weeks: { monday: string; sums: Sums }[] = []
  const listed = [...pages]
  // 1970-01-01 was a Thursday: day 4 a Monday.
  for (let monday = Math.ceil((first - 4) / 7) * 7 + 4; monday + 6 <= last; monday += 7) {
    const sums = noSums()
    for (const page of listed) addTo(sums, sumOver(statistics.pages.get(page), monday, monday + 6))
    weeks.push({ monday: dateOf(monday), sums })
  }
  return weeks
}
