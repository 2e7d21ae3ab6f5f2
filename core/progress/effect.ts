/**
 * Whether changed pages do better than pages left alone: a difference of differences on the scale of ratios (Angrist and
 * Pischke, Mostly Harmless Econometrics, 2009, ch. 5), with a 95 % interval by the bootstrap over pages (Efron and
 * Tibshirani, An Introduction to the Bootstrap, 1993), its ends widened for few pages (the expanded percentile interval:
 * Hesterberg, What Teachers Should Know About the Bootstrap, The American Statistician 69, 2015). Sources from memory.
 */
import { figuresFrom, noSums, addTo, sumOver, type Figures, type PageDays, type Sums } from './statistics.ts'

export interface ChangedPage {
  /** Its address as it is compared. */
  page: string
  /** The day on which it changed, as a number of days; itself partly before and partly after, and left out. */
  day: number
}
export interface Effect {
  /** As a ratio less one: 0.14 is 14 % more. Of a position: places, below zero is better. */
  estimate: number
  low: number
  high: number
}
export interface BeforeAndAfter {
  page: string
  before: Figures
  after: Figures
}
export interface ProgressReport {
  /** Weeks on either side of a change; 0 where there is nothing to compare. */
  weeks: number
  pages: BeforeAndAfter[]
  /** Pages left alone that they are set against. */
  others: number
  /** Changed pages of which there is too little before or after. */
  tooRecent: string[]
  /** Null where it cannot be told; `why` says why. */
  effect: Record<Measured, Effect | null>
  why: string | null
}
export const measured = ['clicks', 'impressions', 'ctr', 'position'] as const
export type Measured = (typeof measured)[number]

/** Fewer pages or clicks than this, on either side, tell nothing. Common practice, no source. */
export const FEWEST_PAGES = 5
export const FEWEST_CLICKS = 50
const RESAMPLES = 1000
const SEED = 20261126

/** One page's sums on both sides of a day. */
interface Spans {
  before: Sums
  after: Sums
}

export function progressOf(
  statistics: PageDays,
  changed: readonly ChangedPage[],
  asked: { weeks: number; seed?: number },
): ProgressReport {
  const available = ({ day }: ChangedPage) =>
    Math.floor(Math.min(day - statistics.first, statistics.last - day) / 7)
  const known = changed.filter(({ page }) => statistics.pages.has(page))
  const most = known.reduce((weeks, one) => Math.max(weeks, available(one)), 0)
  const weeks = Math.min(asked.weeks, most)
  const told = weeks === 0 ? [] : known.filter((one) => available(one) >= weeks)
  const changedPages = new Set(changed.map(({ page }) => page))
  const alone = [...statistics.pages.keys()].filter((page) => !changedPages.has(page))
  const changedSpans = told.map((one) => spansOf(statistics, one.page, one.day, weeks))
  const nothing = { clicks: null, impressions: null, ctr: null, position: null }
  const report: ProgressReport = {
    weeks,
    pages: told.map(({ page }, i) => ({
      page,
      before: figuresFrom(changedSpans[i]!.before),
      after: figuresFrom(changedSpans[i]!.after),
    })),
    others: alone.length,
    tooRecent: known.filter((one) => !told.includes(one)).map(({ page }) => page),
    effect: nothing,
    why: null,
  }
  report.why = whyNot(report, changedSpans)
  if (report.why !== null) return report
  // A day's windows are the same for every page that changed on it.
  const days = [...new Set(told.map(({ day }) => day))]
  const control = days.map((day) => alone.map((page) => spansOf(statistics, page, day, weeks)))
  const dayOf = told.map(({ day }) => days.indexOf(day))
  if (control.some((spans) => sumClicks(spans) < FEWEST_CLICKS)) {
    report.why = `The pages left alone have fewer than ${FEWEST_CLICKS} clicks in these weeks: too few to tell.`
    return report
  }
  report.effect = effects(changedSpans, dayOf, control, asked.seed ?? SEED)
  return report
}

const sumClicks = (spans: readonly Spans[]) =>
  spans.reduce((n, { before, after }) => n + before.clicks + after.clicks, 0)

function whyNot({ weeks, pages, others }: ProgressReport, own: readonly Spans[]): string | null {
  if (pages.length === 0)
    return weeks === 0
      ? 'No changed page has a whole week before and after its change yet.'
      : 'No changed page is in the statistics.'
  if (pages.length < FEWEST_PAGES) return `Fewer than ${FEWEST_PAGES} pages were changed: too few to tell.`
  if (others < FEWEST_PAGES) return `Fewer than ${FEWEST_PAGES} pages were left alone to set them against.`
  if (sumClicks(own) < FEWEST_CLICKS) return `Fewer than ${FEWEST_CLICKS} clicks: too few to tell.`
  return null
}

const spansOf = ({ pages }: PageDays, page: string, day: number, weeks: number): Spans => {
  const days = pages.get(page)
  return {
    before: sumOver(days, day - weeks * 7, day - 1),
    after: sumOver(days, day + 1, day + weeks * 7),
  }
}

/** What each measure is of some sums, on a scale on which differences are taken: logarithms of ratios, places as they are. */
const scales: Record<Measured, (sums: Sums) => number> = {
  clicks: ({ clicks }) => Math.log(clicks),
  impressions: ({ impressions }) => Math.log(impressions),
  ctr: ({ clicks, impressions }) => Math.log(clicks / impressions),
  position: ({ places, impressions }) => places / impressions,
}
const asRatio = (measure: Measured, difference: number) =>
  measure === 'position' ? difference : Math.exp(difference) - 1

function effects(
  own: readonly Spans[],
  dayOf: readonly number[],
  control: readonly (readonly Spans[])[],
  seed: number,
): Record<Measured, Effect | null> {
  const others = control[0]!.length
  const all = differences(own, dayOf, control, whole(own.length), whole(others))
  const random = randomFrom(seed)
  const drawn = Object.fromEntries(measured.map((m) => [m, [] as number[]])) as Record<Measured, number[]>
  for (let i = 0; i < RESAMPLES; i++) {
    const sample = differences(own, dayOf, control, resampled(own.length, random), resampled(others, random))
    for (const measure of measured) {
      const value = sample[measure]
      if (Number.isFinite(value)) drawn[measure].push(value)
    }
  }
  const tail = expandedTail(Math.min(own.length, others))
  return Object.fromEntries(
    measured.map((measure) => {
      const values = drawn[measure].sort((a, b) => a - b)
      // Where many samples give nothing, what is left would say too much.
      if (!Number.isFinite(all[measure]) || values.length < RESAMPLES * 0.9) return [measure, null]
      return [
        measure,
        {
          estimate: asRatio(measure, all[measure]),
          low: asRatio(measure, quantile(values, tail)),
          high: asRatio(measure, quantile(values, 1 - tail)),
        },
      ]
    }),
  ) as Record<Measured, Effect | null>
}

const whole = (n: number) => Array.from({ length: n }, (_, i) => i)
const resampled = (n: number, random: () => number) =>
  Array.from({ length: n }, () => Math.floor(random() * n))

/** After less before of the changed pages, less the same of the others in the same weeks. */
function differences(
  own: readonly Spans[],
  dayOf: readonly number[],
  control: readonly (readonly Spans[])[],
  chosen: readonly number[],
  chosenOthers: readonly number[],
): Record<Measured, number> {
  const before = noSums()
  const after = noSums()
  const perDay = new Map<number, number>()
  for (const i of chosen) {
    addTo(before, own[i]!.before)
    addTo(after, own[i]!.after)
    perDay.set(dayOf[i]!, (perDay.get(dayOf[i]!) ?? 0) + own[i]!.before.impressions)
  }
  // Others are set against each day's pages as much as those pages are seen.
  const seen = [...perDay.values()].reduce((sum, n) => sum + n, 0)
  const trend = Object.fromEntries(measured.map((m) => [m, 0])) as Record<Measured, number>
  for (const [day, weight] of perDay) {
    const othersBefore = noSums()
    const othersAfter = noSums()
    for (const i of chosenOthers) {
      addTo(othersBefore, control[day]![i]!.before)
      addTo(othersAfter, control[day]![i]!.after)
    }
    for (const measure of measured)
      trend[measure] +=
        (seen > 0 ? weight / seen : 1 / perDay.size) *
        (scales[measure](othersAfter) - scales[measure](othersBefore))
  }
  return Object.fromEntries(
    measured.map((m) => [m, scales[m](after) - scales[m](before) - trend[m]]),
  ) as Record<Measured, number>
}

function quantile(sorted: readonly number[], share: number): number {
  const at = share * (sorted.length - 1)
  const low = Math.floor(at)
  const high = Math.min(sorted.length - 1, low + 1)
  return sorted[low]! + (sorted[high]! - sorted[low]!) * (at - low)
}

/** The share cut off at either end for 95 %, widened for n pages: Φ(−√(n/(n−1)) · t). */
export function expandedTail(n: number): number {
  return normalBelow(-Math.sqrt(n / (n - 1)) * tQuantile(n - 1))
}

/** The 97.5 % quantile of Student's t (Hill, Algorithm 396, Communications of the ACM 13, 1970, from memory, by its first terms of Cornish and Fisher). */
export function tQuantile(freedom: number): number {
  const z = 1.959963985
  const terms = [
    (z ** 3 + z) / 4,
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96,
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384,
  ]
  return terms.reduce((t, term, i) => t + term / freedom ** (i + 1), z)
}

/** The normal distribution below x (Abramowitz and Stegun, Handbook of Mathematical Functions, 26.2.17; error below 7.5e-8). */
export function normalBelow(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x))
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return x > 0 ? 1 - tail : tail
}

/** Numbers from 0 up to 1, the same for the same seed (Mulberry32). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 0x100000000
  }
}

const percent = (ratio: number) => Math.abs(Math.round(ratio * 100))

/** An effect as a sentence's middle: “about 14 % more clicks than pages left alone, between 3 and 26 %”. */
export function effectInWords(
  measure: Exclude<Measured, 'position'>,
  { estimate, low, high }: Effect,
): string {
  const what = { clicks: 'clicks', impressions: 'impressions', ctr: 'clicks an impression' }[measure]
  const signed = (ratio: number) => `${ratio < 0 && percent(ratio) > 0 ? 'minus ' : ''}${percent(ratio)}`
  if (low <= 0 && high >= 0)
    return `no clear difference in ${what} from pages left alone (between ${signed(low)} and ${signed(high)} %)`
  const more = estimate > 0
  const [near, far] = more ? [low, high] : [high, low]
  return `about ${percent(estimate)} % ${more ? 'more' : 'fewer'} ${what} than pages left alone, between ${percent(near)} and ${percent(far)} %`
}
