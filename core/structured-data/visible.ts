/** Whether what the data says stands on the page too: formatting of dates, prices, numbers and entities allowed for. */
import type { PageFacts } from '../page/facts.ts'

const named: Record<string, string> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: ' ',
  ndash: '–',
  mdash: '—',
  rsquo: '’',
  lsquo: '‘',
  ldquo: '“',
  rdquo: '”',
  hellip: '…',
  shy: '',
}
/** Text of a value that may hold mark-up, as an answer or a job's description may: tags out, references decoded. */
export const textOfMarkup = (value: string): string =>
  value
    .replace(/<[^<>]*>/g, ' ')
    .replace(
      /&(?:#(\d+)|#x([0-9a-f]+)|([a-z]+));/gi,
      (all: string, dec?: string, hex?: string, name?: string) => {
        const code = dec ? Number(dec) : hex ? parseInt(hex, 16) : null
        if (code !== null) return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : all
        return named[name!.toLowerCase()] ?? all
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
  numbers: ReadonlySet<number> | null
  lower: string
}
const cache = new WeakMap<PageFacts, Seen>()
function seenOn(page: PageFacts): Seen {
  let seen = cache.get(page)
  if (!seen) {
    seen = { text: folded(page.text), numbers: null, lower: page.text.normalize('NFKC').toLowerCase() }
    cache.set(page, seen)
  }
  return seen
}

/** Whether the words of a text stand on the page, in their order. */
export const isTextSeen = (page: PageFacts, value: string): boolean => {
  const text = folded(textOfMarkup(value))
  return text.trim() === '' || seenOn(page).text.includes(text)
}

/** Every number that a text can be read to hold: with points or commas before the decimals, spaces or either between thousands. */
function numbersIn(text: string): Set<number> {
  const found = new Set<number>()
  for (const [token] of text.matchAll(/\d(?:[\d.,'’\u00a0\u202f\u2009 ]*\d)?/g)) {
    const pieces = token.split(/[\u00a0\u202f\u2009 ]/)
    for (const piece of [...pieces, pieces.join('')]) {
      const plain = piece.replace(/['’]/g, '')
      const last = Math.max(plain.lastIndexOf('.'), plain.lastIndexOf(','))
      found.add(Number(plain.replace(/[.,]/g, '')))
      if (last > 0) found.add(Number(`${plain.slice(0, last).replace(/[.,]/g, '')}.${plain.slice(last + 1)}`))
    }
  }
  return found
}
/** Said instead of a price of nothing; common practice, no source. */
const free = /\b(?:free|gratis|kostenlos|gratuit|gratuito|fri entré|no charge)\b/u
/** Whether a number stands on the page, however it is written. */
export function isNumberSeen(page: PageFacts, value: string): boolean {
  const number = Number(value.replace(/\s/g, ''))
  if (!Number.isFinite(number)) return isTextSeen(page, value)
  const seen = seenOn(page)
  seen.numbers ??= numbersIn(seen.lower)
  return seen.numbers.has(number) || (number === 0 && free.test(seen.lower))
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
  monthNames.set(lang, months)
  return months
}
const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/**
 * Whether a date stands on the page: in digits in any usual order, or with the month's name in the page's language or
 * English; the year may be left out beside a month's name. A date of a year, or of a year and a month, is looked for as such.
 */
export function isDateSeen(page: PageFacts, value: string): boolean {
  const m = /^(\d{4})(?:-?(\d{2})(?:-?(\d{2}))?)?/.exec(value.trim())
  if (!m) return isTextSeen(page, value)
  const { lower } = seenOn(page)
  const [, year, month, day] = m
  if (month === undefined) return lower.includes(year!)
  const names = (monthsOf(page.lang ?? 'en')[Number(month) - 1] ?? []).map(escaped).join('|')
  const mm = `0?${Number(month)}`
  const yy = `(?:${year}|['’]?${year!.slice(2)})`
  if (day === undefined)
    return new RegExp(`(?:${names})\\.?\\D{0,4}${year}|${mm}\\D{1,3}${year}|${year}\\D{1,3}${mm}`, 'u').test(
      lower,
    )
  const dd = `(?<!\\d)0?${Number(day)}(?!\\d)`
  const gap = '[^\\d\\n]{0,6}?'
  const range = '(?:\\s?[–-]\\s?\\d{1,2}(?:st|nd|rd|th|\\.)?)?'
  const patterns = [
    `${dd}(?:st|nd|rd|th|er|º|\\.)?${range}${gap}(?<!\\p{L})(?:${names})(?!\\p{L})`,
    `(?<!\\p{L})(?:${names})(?!\\p{L})${gap}${dd}`,
    `(?<!\\p{L})(?:${names})(?!\\p{L})[^\\d\\n]{0,3}\\d{1,2}(?:st|nd|rd|th)?\\s?[–-]\\s?${dd}`,
    `\\d{1,2}(?:st|nd|rd|th|\\.)?\\s?[–-]\\s?${dd}(?:st|nd|rd|th|\\.)?${gap}(?<!\\p{L})(?:${names})(?!\\p{L})`,
    `${year}[-./年\\s]{1,2}${mm}[-./月\\s]{1,2}${dd}`,
    `${dd}[-./\\s]{1,2}${mm}[-./\\s]{1,2}${yy}(?!\\d)`,
    `(?<!\\d)${mm}[-./\\s]{1,2}${dd}[-./\\s]{1,2}${yy}(?!\\d)`,
  ]
  return patterns.some((p) => new RegExp(p, 'u').test(lower))
}
