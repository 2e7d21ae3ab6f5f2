/** What a page's own words say in figures: dates, times, durations, prices, opening hours, as data writes them. */
import { monthsOf } from './visible.ts'
import { isDate } from './formats.ts'

const pad = (n: number | string) => String(n).padStart(2, '0')
const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

const patterns = new Map<string, RegExp>()
function datePattern(lang: string): RegExp {
  let pattern = patterns.get(lang)
  if (!pattern) {
    const names = monthsOf(lang)
      .flat()
      .map(escaped)
      .sort((a, b) => b.length - a.length)
      .join('|')
    pattern = new RegExp(
      `(?<iso>\\d{4}-\\d{2}-\\d{2})|(?<!\\d)(?<d1>\\d{1,2})(?:st|nd|rd|th|\\.)?\\s+(?:of\\s+|de\\s+)?(?<m1>${names})(?!\\p{L})\\.?,?\\s+(?:de\\s+)?(?<y1>\\d{4})|(?<!\\p{L})(?<m2>${names})(?!\\p{L})\\.?\\s+(?<d2>\\d{1,2})(?:st|nd|rd|th)?,?\\s+(?<y2>\\d{4})`,
      'iu',
    )
    if (patterns.size > 200) patterns.clear()
    patterns.set(lang, pattern)
  }
  return pattern
}
/** The first date in a text that is whole, as ISO 8601; days and months in figures alone are not told apart, so they are no date. */
export function dateIn(text: string, lang: string): string | null {
  const g = datePattern(lang).exec(text)?.groups
  if (!g) return null
  if (g.iso) return isDate(g.iso) ? g.iso : null
  const name = (g.m1 ?? g.m2)!.toLowerCase()
  const month = monthsOf(lang).findIndex((names) => names.includes(name)) + 1
  const date = `${g.y1 ?? g.y2}-${pad(month)}-${pad((g.d1 ?? g.d2)!)}`
  return month > 0 && isDate(date) ? date : null
}

/** Times of day in a text, as hh:mm: 17:00, 5 pm, 7.30 p.m.; of “17.30” only where no other figures make it a price. */
export function timesIn(text: string): string[] {
  const times: string[] = []
  for (const m of text.matchAll(
    /(?<![\d£€$.,])(\d{1,2})(?:[:.](\d{2}))?\s?(a\.?m\.?|p\.?m\.?)?(?![\d%])/gi,
  )) {
    const [, h, min, half] = m
    if (min === undefined && half === undefined) continue
    let hour = Number(h)
    if (half) {
      if (hour < 1 || hour > 12) continue
      hour = (hour % 12) + (half.toLowerCase().startsWith('p') ? 12 : 0)
    }
    if (hour > 24 || Number(min ?? 0) > 59) continue
    times.push(`${pad(hour)}:${min ?? '00'}`)
  }
  return times
}

const units: [RegExp, 'D' | 'H' | 'M'][] = [
  [/^(?:days?|dage?|tage?)$/i, 'D'],
  [/^(?:hours?|hrs?|h|timer?|stunden?|std)$/i, 'H'],
  [/^(?:minutes?|mins?|min|minutter|minuten)$/i, 'M'],
]
const amounts = new Map([
  ['a', 1],
  ['an', 1],
  ['one', 1],
  ['en', 1],
  ['et', 1],
  ['half', 0.5],
  ['half an', 0.5],
  ['half a', 0.5],
  ['en halv', 0.5],
  ['two', 2],
  ['three', 3],
  ['four', 4],
  ['five', 5],
  ['ten', 10],
  ['fifteen', 15],
  ['twenty', 20],
  ['thirty', 30],
  ['forty', 40],
  ['fifty', 50],
])
/** The duration that a text names, as ISO 8601; null where it names none. */
export function durationIn(text: string): string | null {
  let minutes = 0
  let any = false
  for (const m of text.matchAll(
    /(?<![\p{L}\d])(half an?|en halv|\d+(?:[.,]\d+)?(?:\s?[½¼¾])?|[½¼¾]|\p{L}+)\s*(?=(\p{L}+))/giu,
  )) {
    const unit = units.find(([p]) => p.test(m[2]!))?.[1]
    if (!unit) continue
    const word = m[1]!.toLowerCase()
    const fraction = word.includes('½') ? 0.5 : word.includes('¼') ? 0.25 : word.includes('¾') ? 0.75 : 0
    const number = amounts.get(word) ?? Number(word.replace(/[½¼¾\s]/g, '').replace(',', '.') || 0) + fraction
    if (!Number.isFinite(number) || number <= 0) continue
    minutes += number * { D: 1440, H: 60, M: 1 }[unit]
    any = true
  }
  if (!any) return null
  const whole = Math.round(minutes)
  const [days, hours, rest] = [Math.floor(whole / 1440), Math.floor((whole % 1440) / 60), whole % 60]
  const time = `${hours ? `${hours}H` : ''}${rest ? `${rest}M` : ''}`
  return `P${days ? `${days}D` : ''}${time ? `T${time}` : ''}`
}

const signs = new Map([
  ['£', 'GBP'],
  ['€', 'EUR'],
  ['$', 'USD'],
])
const crowns = new Map([
  ['da', 'DKK'],
  ['sv', 'SEK'],
  ['nb', 'NOK'],
  ['nn', 'NOK'],
  ['no', 'NOK'],
])
/** An amount: no more figures than money has, so that a long row of them is gone through once. */
const amount = '\\d{1,3}(?:[,.\\u00a0 ]\\d{3}){1,4}(?:[.,]\\d{2})?(?!\\d)|\\d{1,12}(?:[.,]\\d{1,2})?(?!\\d)'
const priced = new RegExp(
  `([£€$]|\\b(?:GBP|EUR|USD|DKK|SEK|NOK|CHF)|\\bkr\\.?)\\s?(${amount})|(?<!\\d)(${amount})\\s?(€|£|\\b(?:GBP|EUR|USD|DKK|SEK|NOK|CHF)\\b|\\bkr\\b\\.?)`,
  'g',
)
export interface Money {
  amount: string
  currency: string
}
/** Prices in a text, in order: amount with a point before the decimals, and the currency's code. */
export function pricesIn(text: string, lang: string): Money[] {
  const moneyFound: Money[] = []
  for (const [, before, a, b, after] of text.matchAll(priced)) {
    const sign = (before ?? after)!.replace('.', '')
    const currency = signs.get(sign) ?? (/^kr$/i.test(sign) ? crowns.get(lang.slice(0, 2)) : sign)
    const written = (a ?? b)!.replace(/[\u00a0 ]/g, '')
    const decimals = /[.,](\d{1,2})$/.exec(written)
    const whole = (decimals ? written.slice(0, -decimals[0].length) : written).replace(/[.,]/g, '')
    if (currency)
      moneyFound.push({ amount: decimals ? `${whole}.${decimals[1]!.padEnd(2, '0')}` : whole, currency })
  }
  return moneyFound
}

/** Names of the days, Monday first, each with the short forms that are no word of their own; from memory. */
const dayNames = new Map([
  [
    'en',
    'monday mondays mon|tuesday tuesdays tue tues|wednesday wednesdays wed|thursday thursdays thu thur thurs|friday fridays fri|saturday saturdays sat|sunday sundays sun',
  ],
  [
    'da',
    'mandag mandage|tirsdag tirsdage tirs|onsdag onsdage ons|torsdag torsdage tors|fredag fredage fre|lørdag lørdage lør|søndag søndage søn',
  ],
  [
    'de',
    'montag montags mo|dienstag dienstags di|mittwoch mittwochs mi|donnerstag donnerstags do|freitag freitags fr|samstag samstags sonnabend sa|sonntag sonntags so',
  ],
])
const dayMembers = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']

const daysByLanguage = new Map<string, ReadonlyMap<string, number>>()
/** The number of each day, from 0, by its name and its short forms; English ones in every language. */
function daysOf(lang: string): ReadonlyMap<string, number> {
  const language = lang.slice(0, 2)
  let days = daysByLanguage.get(language)
  if (!days) {
    const numbers = new Map<string, number>()
    for (const names of [dayNames.get('en')!, dayNames.get(language) ?? ''])
      names.split('|').forEach((day, i) => {
        for (const name of day.split(' ')) if (name !== '') numbers.set(name, i)
      })
    daysByLanguage.set(language, (days = numbers))
  }
  return days
}
export interface Hours {
  days: string[]
  opens: string
  closes: string
}
/** A line of opening hours is no longer than this; common practice, no source. */
const LONGEST_HOURS = 300
/** Opening hours on one line: “Monday to Friday 9.00–17.00”, “Mon, Wed 10 am – 4 pm”, “Daily 9:00–16:00”. */
export function hoursIn(line: string, lang: string): Hours | null {
  if (line.length > LONGEST_HOURS) return null
  const times = timesIn(line)
  if (times.length !== 2) return null
  const known = daysOf(lang)
  const named: { day: number; at: number; end: number }[] = []
  for (const m of line.matchAll(/\p{L}+/gu)) {
    const day = known.get(m[0].toLowerCase())
    // Short forms of two letters are words as well: with a capital they are days.
    if (day === undefined || (m[0].length === 2 && m[0] === m[0].toLowerCase())) continue
    named.push({ day, at: m.index, end: m.index + m[0].length })
  }
  if (named.length === 0)
    return /(?<!\p{L})(?:daily|every day|dagligt|täglich)(?!\p{L})/iu.test(line)
      ? { days: dayMembers, opens: times[0]!, closes: times[1]! }
      : null
  const days = new Set<number>()
  named.forEach((from, i) => {
    days.add(from.day)
    const to = named[i + 1]
    if (to && /^\.?\s*(?:–|—|-|to|til|bis)\s*$/i.test(line.slice(from.end, to.at)))
      for (let step = 1; step < 7 && (from.day + step) % 7 !== to.day; step++) days.add((from.day + step) % 7)
  })
  return { days: [...days].sort().map((d) => dayMembers[d]!), opens: times[0]!, closes: times[1]! }
}
