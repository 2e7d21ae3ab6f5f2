/** What commands are given beside the site: addresses, dates, sheets, a house style; each checked once, here. */
import { existsSync, readFileSync, statSync } from 'node:fs'
import { decodeSheet, readTable, type Table } from '../core/exchange/csv.ts'
import { readHouseStyle, type HouseStyle } from '../core/rules/house-style.ts'
import { unknownRules } from '../core/rules/runner.ts'
import { isDate } from '../core/structured-data/formats.ts'
import { normaliseBase } from '../core/addresses/addresses.ts'
import { Problem } from './problem.ts'

export const DEFAULT_BASE = 'https://site.example/'

export function baseFrom(given: string | undefined): string {
  if (given === undefined) return DEFAULT_BASE
  const base = normaliseBase(given)
  if (!base) throw new Problem(`--base-url “${given}” is not an http or https address.`)
  return base
}

/** The audit's date, today unless it is given. */
export function dateFrom(given: string | undefined): string {
  const date = given ?? new Date().toISOString().slice(0, 10)
  if (!/^\d{4}-\d{2}-\d{2}$/.test(date) || !isDate(date))
    throw new Problem(`--date “${date}” is not a calendar date; write it as YYYY-MM-DD.`)
  return date
}

export function formatFrom<F extends string>(given: string, formats: readonly F[]): F {
  const format = formats.find((f) => f === given)
  if (!format)
    throw new Problem(
      `--format “${given}”: ${formats.slice(0, -1).join(', ')} or ${formats.at(-1)} is expected.`,
    )
  return format
}

function fileBytes(path: string, what: string): Uint8Array {
  if (!existsSync(path)) throw new Problem(`${path}: there is no such file (${what}).`)
  if (!statSync(path).isFile()) throw new Problem(`${path} is a folder; a file is expected (${what}).`)
  return readFileSync(path)
}

/** A sheet's rows, whatever its encoding and separator. */
export function sheetFrom(path: string, what: string): Extract<Table, { ok: true }> {
  const sheet = decodeSheet(fileBytes(path, what))
  const table = sheet.ok ? readTable(sheet.text) : sheet
  if (!table.ok) throw new Problem(`${path}: ${table.why}`)
  return table
}

export function styleFrom(file: string): HouseStyle {
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(fileBytes(file, 'the house style')))
  } catch (error) {
    if (error instanceof Problem) throw error
    throw new Problem(`${file} is not valid JSON in UTF-8 (${(error as Error).message}).`)
  }
  const result = readHouseStyle(json)
  if (!result.ok) throw new Problem(`${file}: ${result.why}`)
  const unknown = unknownRules(result.style)
  if (unknown.length > 0)
    throw new Problem(`${file} names rules that do not exist: ${unknown.map((id) => `“${id}”`).join(', ')}.`)
  return result.style
}
