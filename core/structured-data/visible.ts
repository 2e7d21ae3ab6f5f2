/** Whether what the data says stands on the page too: formatting of dates, prices, numbers and entities allowed for. */
import type { PageFacts } from '../page/read/facts.ts'

const references = new Map([
  ['amp', '&'],
  ['lt', '<'],
  ['gt', '>'],
  ['quot', '"'],
  ['apos', "'"],
  ['nbsp', ' '],
  ['ndash', '–'],
  ['mdash', '—'],
  ['rsquo', '’'],
  ['lsquo', '‘'],
  ['ldquo', '“'],
  ['rdquo', '”'],
  ['hellip', '…'],
  ['shy', ''],
])
/** Text of a value that may hold markup, as an answer or a job's description may: tags out, references decoded. */
export const textOfMarkup = (value: string): string =>
  value
    .replace(/<[^<>]*>/g, ' ')
    .replace(
      /&(?:#(\d+)|#x([0-9a-f]+)|([a-z]+));/gi,
      (all: string, dec?: string, hex?: string, name?: string) => {
        const code = dec ? Number(dec) : hex ? parseInt(hex, 16) : null
        if (code !== null) return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : all
        return references.get(name!.toLowerCase()) ?? all
      },
    )
/** As compared: letters and digits alone, in lower case, single spaces between. */
export const folded = (text: string): string =>
  ` ${text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/\u00ad/g, '')
    .replace(/['’]/g, '')
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, ' ')
    .trim()} `

interface Seen {
  text: string
  lower: string
  numbers: ReadonlySet<number> | null
  free: boolean | null
  /** Runs of so many words that stand in the text, by how many. */
  runs: Map<number, ReadonlySet<string>>
  dates: { lang: string; seen: SeenDates } | null
}
const cache = new WeakMap<PageFacts, Seen>()
function seenOn(page: PageFacts): Seen {
  let seen = cache.get(page)
  if (!seen) {
    seen = {
      text: folded(page.text),
      lower: page.text.normalize('NFKC').toLowerCase(),
      numbers: null,
      free: null,
      runs: new Map(),
      dates: null,
    }
    cache.set(page, seen)
  }
  return seen
}

/** Phrases of up to so many words are looked up; of a longer one each run of so many, before the text is searched for the whole. */
const RUN = 6

function runsOf(seen: Seen, length: number): ReadonlySet<string> {
  let runs = seen.runs.get(length)
  if (!runs) {
    const words = seen.text.trim().split(' ')
    const wordRuns = new Set<string>()
    for (let i = 0; i + length <= words.length; i++) wordRuns.add(words.slice(i, i + length).join(' '))
    seen.runs.set(length, (runs = wordRuns))
  }
  return runs
}

/** Whether the words of a text stand on the page, in their order. */
export const isTextSeen = (page: PageFacts, value: string): boolean => {
  const text = folded(textOfMarkup(value))
  const words = text.trim().split(' ')
  if (words[0] === '') return true
  const seen = seenOn(page)
  if (words.length <= RUN) return runsOf(seen, words.length).has(words.join(' '))
  const runs = runsOf(seen, RUN)
  for (let i = 0; i + RUN <= words.length; i++) if (!runs.has(words.slice(i, i + RUN).join(' '))) return false
  return seen.text.includes(text)
}

/** Every number that a text can be read to hold: with points or commas before the decimals, spaces or either between thousands. */
function numbersIn(text: string): Set<number> {
  const amounts = new Set<number>()
  for (const [token] of text.matchAll(/\d(?:[\d.,'’\u00a0\u202f\u2009 ]*\d)?/g)) {
    const pieces = token.split(/[\u00a0\u202f\u2009 ]/)
    for (const piece of [...pieces, pieces.join('')]) {
      const plain = piece.replace(/['’]/g, '')
      const last = Math.max(plain.lastIndexOf('.'), plain.lastIndexOf(','))
      amounts.add(Number(plain.replace(/[.,]/g, '')))
      if (last > 0)
        amounts.add(Number(`${plain.slice(0, last).replace(/[.,]/g, '')}.${plain.slice(last + 1)}`))
    }
  }
  return amounts
}
/** Said instead of a price of nothing; common practice, no source. */
const free = /\b(?:free|gratis|kostenlos|gratuit|gratuito|fri entré|no charge)\b/u
/** Whether a number stands on the page, however it is written. */
export function isNumberSeen(page: PageFacts, value: string): boolean {
  const number = Number(value.replace(/\s/g, ''))
  if (!Number.isFinite(number)) return isTextSeen(page, value)
  const seen = seenOn(page)
  seen.numbers ??= numbersIn(seen.lower)
  return seen.numbers.has(number) || (number === 0 && (seen.free ??= free.test(seen.lower)))
}

const monthNames = new Map<string, string[][]>()
/** The names that a language has for each month, long and short, in lower case. */
export function monthsOf(lang: string): string[][] {
  let months = monthNames.get(lang)
  if (months) return months
  months = []
  for (let month = 0; month < 12; month++) {
    const names = new Set<string>()
    for (const tag of [lang, 'en'])
      for (const style of ['long', 'short'] as const)
        for (const day of [undefined, 'numeric'] as const)
          try {
            const parts = new Intl.DateTimeFormat(tag, { month: style, day, timeZone: 'UTC' }).formatToParts(
              Date.UTC(2026, month, 1),
            )
            const name = parts
              .find((p) => p.type === 'month')
              ?.value.toLowerCase()
              .replace(/\.$/, '')
            if (name && !/^\d+$/.test(name)) names.add(name)
          } catch {
            // A language tag that is none has no names.
          }
    months.push([...names])
  }
  if (monthNames.size > 200) monthNames.clear()
  monthNames.set(lang, months)
  return months
}

/** The dates that a page's text can be read to hold, in the forms in which they are asked for. */
interface SeenDates {
  /** `month-day` beside the month's name, the year left out or not. */
  named: Set<string>
  /** `year-month` beside the month's name or in figures. */
  months: Set<string>
  /** `year-month-day` in figures, in any usual order. */
  figures: Set<string>
  /** Four figures in a row. */
  years: Set<string>
}

const before =
  /(?:(\d{1,2})(?:st|nd|rd|th|er|º|\.)?\s?[–-]\s?)?(?<!\d)(\d{1,2})(?:st|nd|rd|th|er|º|\.)?[^\d\n]{0,6}$/u
const after = /^[^\d\n]{0,6}(?<!\d)(\d{1,2})(?!\d)(?:st|nd|rd|th)?(?:\s?[–-]\s?(\d{1,2})(?!\d))?/u
const yearAfter = /^\.?\D{0,4}(\d{4})/u
const letter = /\p{L}/u

function datesIn(lower: string, lang: string): SeenDates {
  const seen: SeenDates = { named: new Set(), months: new Set(), figures: new Set(), years: new Set() }
  const months = new Map<string, number[]>()
  monthsOf(lang).forEach((names, i) => {
    for (const name of names) months.set(name, [...(months.get(name) ?? []), i + 1])
  })
  for (const [name, numbers] of months)
    for (let at = lower.indexOf(name); at >= 0; at = lower.indexOf(name, at + name.length)) {
      const end = at + name.length
      const year = yearAfter.exec(lower.slice(end, end + 12))?.[1]
      const whole = !letter.test(lower[at - 1] ?? '') && !letter.test(lower[end] ?? '')
      const days: (string | undefined)[] = []
      if (whole) {
        const [, from, day] = before.exec(lower.slice(Math.max(0, at - 24), at)) ?? []
        const [, first, last] = after.exec(lower.slice(end, end + 24)) ?? []
        days.push(from, day, first, last)
      }
      for (const month of numbers) {
        if (year) seen.months.add(`${Number(year)}-${month}`)
        for (const day of days) if (day !== undefined) seen.named.add(`${month}-${Number(day)}`)
      }
    }
  const parts = [...lower.matchAll(/\d+/g)].map((m) => ({
    text: m[0],
    start: m.index,
    end: m.index + m[0].length,
  }))
  const gap = (i: number) => lower.slice(parts[i]!.end, parts[i + 1]?.start)
  parts.forEach(({ text }, i) => {
    for (let k = 0; k + 4 <= text.length && k < 60; k++) seen.years.add(text.slice(k, k + 4))
    const next = parts[i + 1]
    if (!next || next.start - parts[i]!.end > 3) return
    const [a, b] = [Number(text.slice(-4)), Number(next.text.slice(0, 4))]
    if (next.text.length >= 4) seen.months.add(`${b}-${Number(text.slice(-2))}`)
    if (text.length >= 4) seen.months.add(`${a}-${Number(next.text.slice(0, 2))}`)
    const third = parts[i + 2]
    if (!third || !/^[-./年\s]{1,2}$/u.test(gap(i)) || !/^[-./月\s]{1,2}$/u.test(gap(i + 1))) return
    const c = Number(third.text)
    if (next.text.length > 2) return
    if (text.length >= 4 && third.text.length <= 2) seen.figures.add(`${a}-${b}-${c}`)
    if (text.length > 2 || (third.text.length !== 4 && third.text.length !== 2)) return
    // Of two figures in either order each may be the day.
    for (const [day, month] of [
      [a, b],
      [b, a],
    ])
      seen.figures.add(`${third.text.length === 2 ? `'${third.text}` : c}-${month}-${day}`)
  })
  return seen
}

/**
 * Whether a date stands on the page: in digits in any usual order, or with the month's name in the page's language or
 * English; the year may be left out beside a month's name. A date of a year, or of a year and a month, is looked for as
 * such. The text is gone through once, whatever number of dates are asked for.
 */
export function isDateSeen(page: PageFacts, value: string): boolean {
  const m = /^(\d{4})(?:-?(\d{2})(?:-?(\d{2}))?)?/.exec(value.trim())
  if (!m) return isTextSeen(page, value)
  const known = seenOn(page)
  const lang = page.lang ?? 'en'
  if (known.dates?.lang !== lang) known.dates = { lang, seen: datesIn(known.lower, lang) }
  const { seen } = known.dates
  const [, year, month, day] = m
  if (month === undefined) return seen.years.has(year!)
  if (day === undefined) return seen.months.has(`${Number(year)}-${Number(month)}`)
  const [mm, dd] = [Number(month), Number(day)]
  return (
    seen.named.has(`${mm}-${dd}`) ||
    seen.figures.has(`${Number(year)}-${mm}-${dd}`) ||
    seen.figures.has(`'${year!.slice(2)}-${mm}-${dd}`)
  )
}
