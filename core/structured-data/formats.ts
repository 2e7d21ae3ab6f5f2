/** Whether a text is what a schema.org property asks for: dates, durations, numbers, codes with a list or a check digit. */
import isoCurrencies from 'currency-codes/data.js'
import { getAlpha2Codes } from 'i18n-iso-countries/index.js'
import { languagePattern } from '../words/language.ts'

const inRange = (n: number, from: number, to: number) => n >= from && n <= to
const daysIn = (year: number, month: number) =>
  month === 2
    ? year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0)
      ? 29
      : 28
    : [4, 6, 9, 11].includes(month)
      ? 30
      : 31

/** A calendar date of ISO 8601: year, year and month, or a day; or by week or by day of the year. */
export function isDate(text: string): boolean {
  const m = /^(\d{4})(?:-(\d{2})(?:-(\d{2}))?)?$/.exec(text)
  if (m) {
    const [year, month, day] = [Number(m[1]), Number(m[2] ?? 1), Number(m[3] ?? 1)]
    return inRange(month, 1, 12) && inRange(day, 1, daysIn(year, month))
  }
  const basic = /^(\d{4})(\d{2})(\d{2})$/.exec(text)
  if (basic) return isDate(`${basic[1]}-${basic[2]}-${basic[3]}`)
  const week = /^\d{4}-W(\d{2})(?:-([1-7]))?$/.exec(text)
  if (week) return inRange(Number(week[1]), 1, 53)
  const ordinal = /^\d{4}-(\d{3})$/.exec(text)
  return ordinal !== null && inRange(Number(ordinal[1]), 1, 366)
}
/** A time of ISO 8601, with or without seconds and zone. */
export function isTime(text: string): boolean {
  const m = /^(\d{2}):?(\d{2})(?::?(\d{2})(?:[.,]\d+)?)?(?:Z|[+-](\d{2})(?::?(\d{2}))?)?$/.exec(text)
  if (!m) return false
  const [hour, minute, second] = [Number(m[1]), Number(m[2]), Number(m[3] ?? 0)]
  const day = inRange(hour, 0, 23) || (hour === 24 && minute === 0 && second === 0)
  return (
    day &&
    inRange(minute, 0, 59) &&
    inRange(second, 0, 60) &&
    inRange(Number(m[4] ?? 0), 0, 23) &&
    inRange(Number(m[5] ?? 0), 0, 59)
  )
}
/** A date and a time of ISO 8601. RFC 3339 allows a space for the T; a results page need not, and ISO does not. */
export function isDateTime(text: string): boolean {
  const at = text.indexOf('T')
  return (
    at > 0 &&
    /^\d{4}-?\d{2}-?\d{2}$/.test(text.slice(0, at)) &&
    isDate(text.slice(0, at)) &&
    isTime(text.slice(at + 1))
  )
}
/** A duration of ISO 8601, such as PT1H30M. */
export const isDuration = (text: string): boolean =>
  /^[+-]?P(?!$)(?:\d+(?:[.,]\d+)?Y)?(?:\d+(?:[.,]\d+)?M)?(?:\d+(?:[.,]\d+)?W)?(?:\d+(?:[.,]\d+)?D)?(?:T(?=\d)(?:\d+(?:[.,]\d+)?H)?(?:\d+(?:[.,]\d+)?M)?(?:\d+(?:[.,]\d+)?S)?)?$/.test(
    text,
  )
export const isNumber = (text: string): boolean =>
  /^[+-]?(?:\d+(?:\.\d+)?|\.\d+)(?:[eE][+-]?\d+)?$/.test(text)
export const isInteger = (text: string): boolean => /^[+-]?\d+$/.test(text)
export const isBoolean = (text: string): boolean =>
  /^(?:true|false|True|False|https?:\/\/schema\.org\/(?:True|False))$/.test(text)
/** An address with a scheme, such as an absolute URL. */
export function isAddress(text: string): boolean {
  if (/\s/.test(text.trim()) || !/^[a-z][a-z0-9+.-]*:/i.test(text)) return false
  try {
    new URL(text.trim())
    return true
  } catch {
    return false
  }
}
/** What can be nothing but a relative address: a path, a file, a fragment, a query. */
export function isRelativeAddress(text: string): boolean {
  if (/\s/.test(text.trim())) return false
  if (/^(?:\/|\.{1,2}\/|[?#])/.test(text)) return true
  const path = text.split(/[?#]/, 1)[0]!
  const plain = path.split(':', 1)[0]!
  return plain.indexOf('/') > 0 || (plain === path && /[^.]\.[a-z0-9]{2,5}$/i.test(path))
}

/**
 * Codes of ISO 4217 in use: list one as the package currency-codes has it (June 2024), without metals and the codes for
 * tests and for no currency, which stand for no country. XCG came with amendment 176 (from memory); schema.org names BTC
 * beside them.
 */
const currencies = new Set([
  ...isoCurrencies.filter(({ countries }) => !countries.some((c) => /^zz/i.test(c))).map(({ code }) => code),
  'XCG',
  'BTC',
])
export const isCurrency = (text: string): boolean => currencies.has(text)
export const currencyCodes: readonly string[] = [...currencies]

/** Codes of ISO 3166-1 with two letters, as the package i18n-iso-countries has them, and Kosovo's XK. */
const countries = new Set(Object.keys(getAlpha2Codes()))
export const isCountry = (text: string): boolean => countries.has(text)

/** The check digit of a GTIN: weights 3 and 1 from the right (GS1 General Specifications 7.9). */
export function isGtin(text: string, lengths: readonly number[] = [8, 12, 13, 14]): boolean {
  if (!/^\d+$/.test(text) || !lengths.includes(text.length)) return false
  const digits = Array.from(text, Number)
  const sum = digits
    .slice(0, -1)
    .reduceRight((s, d, i) => s + d * ((digits.length - 2 - i) % 2 === 0 ? 3 : 1), 0)
  return (10 - (sum % 10)) % 10 === digits.at(-1)
}
/** ISBN-10 or ISBN-13 with its check digit (ISO 2108), hyphens and spaces apart. */
export function isIsbn(text: string): boolean {
  const plain = text.replace(/[-\s]/g, '').replace(/^(?:urn:isbn:|isbn:?)/i, '')
  if (/^\d{9}[\dXx]$/.test(plain)) {
    const sum = Array.from(plain).reduce(
      (s, c, i) => s + (10 - i) * (c === 'X' || c === 'x' ? 10 : Number(c)),
      0,
    )
    return sum % 11 === 0
  }
  return /^97[89]\d{10}$/.test(plain) && isGtin(plain)
}
/** Opening hours as schema.org writes them: days with two letters, ranges and lists, then times: Mo-Fr 09:00-17:00. */
export const isOpeningHours = (text: string): boolean => {
  const day = '(?:Mo|Tu|We|Th|Fr|Sa|Su)'
  const days = `${day}(?:-${day})?(?:,\\s*${day}(?:-${day})?)*`
  const hour = '(?:[01]\\d|2[0-4]):[0-5]\\d'
  const hours = `${hour}-${hour}(?:,\\s*${hour}-${hour})*`
  return new RegExp(`^(?:${days}(?:\\s+${hours})?|${hours})$`).test(text.trim())
}

interface Special {
  ok(text: string): boolean
  expected: string
}
const gtin = (length: number): Special => ({
  ok: (t) => isGtin(t, [length]),
  expected: `${length} digits of which the last is the right check digit`,
})
const currency: Special = { ok: isCurrency, expected: 'a currency code of ISO 4217, such as GBP' }
/** Properties whose text has a form of its own beyond its type. */
const special: Readonly<Record<string, Special>> = {
  priceCurrency: currency,
  currency,
  addressCountry: {
    ok: (t) => isCountry(t) || (!/^[A-Za-z]{2}$/.test(t) && t !== ''),
    expected: 'a country’s name, or its code of ISO 3166-1, such as GB',
  },
  inLanguage: { ok: (t) => languagePattern.test(t), expected: 'a language tag of BCP 47, such as en or da' },
  gtin: {
    ok: (t) => isGtin(t),
    expected: '8, 12, 13 or 14 digits of which the last is the right check digit',
  },
  gtin8: gtin(8),
  gtin12: gtin(12),
  gtin13: gtin(13),
  gtin14: gtin(14),
  isbn: { ok: isIsbn, expected: 'an ISBN of 10 or 13 digits with the right check digit' },
  openingHours: { ok: isOpeningHours, expected: 'days and times such as Mo-Fr 09:00-17:00' },
}
/** Whether a property's text has a form of its own. */
export const hasForm = (property: string): boolean => Object.hasOwn(special, property)
/** What a property's text should have been, where it has a form of its own that this text is not in; else null. */
export function expectedForm(property: string, text: string): string | null {
  const form = Object.hasOwn(special, property) ? special[property]! : null
  return form === null || form.ok(text.trim()) ? null : form.expected
}
