/** Whether a value is one that a schema.org property takes (rangeIncludes), and what it should be where it is not. */
import { rememberLast } from '../remember.ts'
import { shortName } from './context.ts'
import {
  expectedForm,
  hasForm,
  isAddress,
  isBoolean,
  isDate,
  isDateTime,
  isDuration,
  isInteger,
  isNumber,
  isRelativeAddress,
  isTime,
} from './formats.ts'
import { schemaTypes, type Literal, type PageData, type Value } from './page-data.ts'
import { isA, isClass, isMember, isProperty, lineage, membersOf, rangesOf, termOf } from './vocabulary.ts'

export type Verdict =
  /** `plain`: text where a thing would say more. */
  | { kind: 'type'; plain: boolean; found: string; expected: string }
  /** `member`: the one that was surely meant, null where none was. */
  | { kind: 'enumeration'; found: string; of: string; member: string | null }

const isText = (range: string) => range === 'Text' || (range !== 'URL' && isA(range, 'Text'))
const isData = (range: string) =>
  isText(range) ||
  ['URL', 'Date', 'DateTime', 'Time', 'Number', 'Integer', 'Float', 'Boolean', 'Duration'].includes(range)
/** A class whose members the vocabulary lists. */
export const isEnumeration = (range: string) => isA(range, 'Enumeration') && membersOf(range).length > 0

const words: Record<string, string> = {
  Text: 'text',
  URL: 'an address',
  Date: 'a date such as 2026-11-25',
  DateTime: 'a date and time such as 2026-11-25T19:30',
  Time: 'a time such as 19:30',
  Duration: 'a duration such as PT1H30M',
  Number: 'a number',
  Float: 'a number',
  Integer: 'a whole number',
  Boolean: 'true or false',
}
/** The ranges of a property in words: “a number or text”, “Person or Organization”. */
export function expectedOf(property: string): string {
  const all = [...new Set(rangesOf(property).map((r) => words[r] ?? r))]
  return all.length < 2 ? (all[0] ?? 'nothing') : `${all.slice(0, -1).join(', ')} or ${all.at(-1)}`
}

/** The member of an enumeration that a text names: by name, or by schema.org's address for it. */
export function memberNamed(text: string): string {
  const name = shortName(text.trim())
  return name.startsWith('schema:') ? name.slice(7) : name
}
const folded = (text: string) =>
  memberNamed(text)
    .toLowerCase()
    .replace(/[\s_-]/g, '')

const fits: Record<string, (text: string, value: Literal['value']) => boolean> = {
  URL: (t, v) => typeof v === 'string' && (isAddress(t) || isRelativeAddress(t)),
  Date: (t, v) => (typeof v === 'string' || Number.isInteger(v)) && (isDate(t) || isDateTime(t)),
  DateTime: (t, v) => typeof v === 'string' && (isDateTime(t) || isDate(t)),
  Time: (t, v) => typeof v === 'string' && (isTime(t) || isDateTime(t)),
  Duration: (t, v) => typeof v === 'string' && isDuration(t),
  Number: (t, v) => typeof v === 'number' || (typeof v === 'string' && isNumber(t)),
  Float: (t, v) => typeof v === 'number' || (typeof v === 'string' && isNumber(t)),
  Integer: (t, v) => typeof v !== 'boolean' && isInteger(t),
  Boolean: (t, v) => typeof v === 'boolean' || isBoolean(t),
}

const takeText = new Map<string, boolean>()
/** Whether a property takes any text at all. */
function takesText(property: string): boolean {
  let takes = takeText.get(property)
  if (takes === undefined) takeText.set(property, (takes = rangesOf(property).some(isText)))
  return takes
}

function literalVerdict(property: string, { value, datatype }: Literal): Verdict | null {
  const ranges = rangesOf(property)
  if (ranges.length === 0 || datatype === '@json') return null
  if (typeof value !== 'boolean' && takesText(property) && !hasForm(property)) return null
  const text = String(value).trim()
  const quoted = typeof value === 'string' ? `“${text.length > 60 ? text.slice(0, 60) + '…' : text}”` : text
  const form = expectedForm(property, text)
  if (form !== null) return { kind: 'type', plain: false, found: quoted, expected: form }
  if (typeof value !== 'boolean' && takesText(property)) return null
  // Nothing at all is no value: what is required says so.
  if (text === '') return null
  if (ranges.some((r) => fits[r]?.(text, value))) return null
  const enumerations = ranges.filter(isEnumeration)
  if (typeof value === 'string') {
    const name = memberNamed(text)
    if (enumerations.some((e) => membersOf(e).includes(name))) return null
    // Members of other vocabularies, as schema.org itself names for payments and units.
    if (ranges.some((r) => isA(r, 'Enumeration')) && name.includes(':') && isAddress(text)) return null
    if (ranges.some((r) => isA(r, 'Enumeration') && membersOf(r).length === 0)) return null
    // A quantity in words, as schema.org writes distances, masses and energies: "12 km".
    if (ranges.some((r) => isA(r, 'Quantity') && r !== 'Duration') && /^[\d.,]+\s*\S/.test(text)) return null
  }
  if (enumerations.length > 0 && !ranges.some(isData) && typeof value === 'string') {
    const near = [...new Set(enumerations.flatMap(membersOf))].filter((m) => folded(m) === folded(text))
    return {
      kind: 'enumeration',
      found: text,
      of: enumerations.join(' or '),
      member: near.length === 1 ? near[0]! : null,
    }
  }
  const things = ranges.filter((r) => !isData(r))
  // The address of a thing names it, as the item of a breadcrumb's entry is named.
  if (typeof value === 'string' && things.length > 0 && isAddress(text)) return null
  const plain =
    typeof value === 'string' && things.length > 0 && ranges.every((r) => !isData(r) || r === 'URL')
  return { kind: 'type', plain, found: quoted, expected: expectedOf(property) }
}

/** A thing of these classes, where a property is to lead to one; null where it may, or where that cannot be told. */
function thingVerdict(property: string, types: string[]): Verdict | null {
  const ranges = rangesOf(property)
  const known = types.filter(isClass)
  if (ranges.length === 0 || known.length === 0) return null
  // Any property may lead to a Role, which carries the same property on (schema.org, "Introducing Role").
  if (known.some((t) => isA(t, 'Role'))) return null
  if (known.some((t) => lineage(t).some((up) => ranges.includes(up)))) return null
  return { kind: 'type', plain: false, found: known.join(' and '), expected: expectedOf(property) }
}

/** What is wrong with one value of a property; null where nothing is, or where it cannot be told. */
export function judgeValue(property: string, value: Value, data: PageData): Verdict | null {
  if (!isProperty(property)) return null
  if (value.kind === 'literal') return literalVerdict(property, value)
  const types = (value.kind === 'thing' ? [value.thing] : (data.byId.get(value.id) ?? [])).flatMap(
    schemaTypes,
  )
  if (value.kind === 'reference') {
    // A member of an enumeration is an address too.
    const name = memberNamed(value.id)
    if (isMember(name) || types.length === 0) return null
  }
  return thingVerdict(property, types)
}

export interface Judged {
  property: string
  value: Value
  verdict: Verdict
}
/** Every value of a page's things with which something is wrong, found once for the rules that speak of it. */
export const judgeAll = rememberLast((data: PageData): Judged[] => {
  const judged: Judged[] = []
  for (const thing of data.things)
    for (const { name, known, reverse, values } of thing.properties) {
      if (!known || reverse) continue
      for (const value of values) {
        const verdict = judgeValue(name, value, data)
        if (verdict) judged.push({ property: name, value, verdict })
      }
    }
  return judged
})

/** The classes of things that a property leads to; data types and enumerations left out. */
export const thingRanges = (property: string): string[] =>
  rangesOf(property).filter((r) => !isData(r) && !isEnumeration(r) && termOf(r)?.kind === 'class')
