/** A thing as a form shows it: its fields with their controls and pointers, what is asked for, what it is begun with. */
import { askedOf } from '../../core/structured-data/features.ts'
import { isEnumeration, thingRanges } from '../../core/structured-data/judge.ts'
import {
  schemaTypes,
  textOf,
  valueText,
  type PageData,
  type Thing,
  type Value,
} from '../../core/structured-data/page-data.ts'
import { isA, isClass, membersOf, rangesOf } from '../../core/structured-data/vocabulary.ts'

/** With what a field is filled in. */
export type Control =
  | 'text'
  | 'long'
  | 'number'
  | 'yes-no'
  | 'date'
  | 'time'
  | 'duration'
  | 'address'
  | 'image'
  | 'currency'
  | 'choice'
  | 'thing'
export interface FieldKind {
  name: string
  control: Control
  /** Members of an enumeration. */
  choices: string[]
  /** Classes of things that it leads to. */
  things: string[]
  /** Whether text will do where things are taken as well. */
  text: boolean
}
export interface ValueView {
  pointer: string
  kind: Value['kind']
  text: string
  /** The literal is a number or true or false, and stays one. */
  json: 'string' | 'number' | 'boolean'
  thing: ThingView | null
  /** Where on the page it was found, in words; and whether it follows. */
  found: { what: string; start: number | null; line: number | null } | null
}
export interface FieldView extends FieldKind {
  pointer: string
  key: string
  reverse: boolean
  values: ValueView[]
  asked: 'required' | 'recommended' | null
  list: boolean
}
export interface ThingView {
  pointer: string
  start: number
  types: string[]
  id: string | null
  name: string | null
  fields: FieldView[]
  /** What a thing that says nothing yet is begun with. */
  begin: FieldKind[]
  /** Asked for by a feature and not there. */
  missing: (FieldKind & { asked: 'required' | 'recommended'; or: string[] })[]
}

const long = new Set([
  'description',
  'text',
  'articleBody',
  'reviewBody',
  'abstract',
  'disambiguatingDescription',
  'recipeInstructions',
  'responsibilities',
  'qualifications',
])

/** With what a property is filled in, by what it takes. */
export function fieldKind(name: string): FieldKind {
  const ranges = rangesOf(name)
  const has = (r: string) => ranges.includes(r)
  const enumerations = ranges.filter(isEnumeration)
  const things = thingRanges(name).filter((t) => t !== 'Role')
  const text = ranges.length === 0 || ranges.some((r) => isA(r, 'Text') && r !== 'URL')
  const control: Control =
    name === 'priceCurrency' || name === 'currency'
      ? 'currency'
      : enumerations.length > 0
        ? 'choice'
        : has('Duration')
          ? 'duration'
          : has('Date') || has('DateTime')
            ? 'date'
            : has('Time')
              ? 'time'
              : has('Boolean')
                ? 'yes-no'
                : things.includes('ImageObject')
                  ? 'image'
                  : has('Number') || has('Integer') || has('Float')
                    ? 'number'
                    : has('URL')
                      ? things.length > 0 && !text && !has('URL')
                        ? 'thing'
                        : 'address'
                      : things.length > 0 && !text
                        ? 'thing'
                        : things.length > 0 &&
                            [
                              'address',
                              'location',
                              'offers',
                              'author',
                              'mainEntity',
                              'acceptedAnswer',
                              'recipeInstructions',
                            ].includes(name)
                          ? 'thing'
                          : long.has(name)
                            ? 'long'
                            : 'text'
  return {
    name,
    control,
    choices: enumerations.flatMap((e) => [...membersOf(e)]),
    things: sortThings(things),
    text: text || has('URL'),
  }
}
/** The classes that a page most likely means come first. */
const likely = [
  'Person',
  'Organization',
  'Place',
  'PostalAddress',
  'Offer',
  'Brand',
  'Question',
  'Answer',
  'HowToStep',
  'ListItem',
  'ImageObject',
]
const sortThings = (things: string[]) =>
  [...things].sort((a, b) => ((likely.indexOf(a) + 99) % 99) - ((likely.indexOf(b) + 99) % 99))

/** What is said first of a thing, where it is not its name. */
const first: [string, string[]][] = [
  ['Answer', ['text']],
  ['HowToStep', ['text']],
  ['Offer', ['price', 'priceCurrency', 'availability']],
  ['PostalAddress', ['streetAddress', 'addressLocality', 'postalCode', 'addressCountry']],
  ['GeoCoordinates', ['latitude', 'longitude']],
  ['MonetaryAmount', ['value', 'currency']],
  ['QuantitativeValue', ['value', 'unitText']],
  ['AggregateRating', ['ratingValue', 'ratingCount']],
  ['Rating', ['ratingValue']],
  ['OpeningHoursSpecification', ['dayOfWeek', 'opens', 'closes']],
  ['ImageObject', ['url']],
  ['ListItem', ['position', 'name', 'item']],
]
const beginWith = (types: string[]): string[] =>
  first.find(([type]) => types.some((t) => isA(t, type)))?.[1] ?? ['name']

export type FoundAt = (pointer: string) => ValueView['found']

/** A thing, and those within it, as fields. `pointer` gives a place in the block as a JSON pointer. */
export function thingView(
  thing: Thing,
  data: PageData,
  pointer: (start: number) => string,
  foundAt: FoundAt,
  above: Set<Thing>,
): ThingView {
  const types = thing.types.map((t) => t.name)
  const asked = askedOf(
    schemaTypes(thing).filter(isClass),
    thing.within && { property: thing.within.property.name, types: schemaTypes(thing.within.thing) },
  )
  const kindOf = (name: string) => {
    const of = asked.filter((a) => a.anyOf.includes(name))
    return of.some((a) => a.kind === 'required') ? 'required' : of.length > 0 ? 'recommended' : null
  }
  const within = new Set([...above, thing])
  const at = pointer(thing.start)
  const fields = thing.properties.map((property): FieldView => {
    const under = pointer(property.at.start)
    return {
      ...fieldKind(property.name),
      pointer: under,
      key: property.key,
      reverse: property.reverse,
      asked: kindOf(property.name),
      list:
        property.values.length > 1 ||
        pointer(property.under.start) !==
          (property.values[0] ? pointer(property.values[0].start) : pointer(property.under.start)),
      values: property.values.map((value): ValueView => {
        const valuePointer = pointer(value.start)
        return {
          pointer: valuePointer,
          kind: value.kind,
          text:
            value.kind === 'reference'
              ? value.id
              : value.kind === 'literal'
                ? String(value.value)
                : (valueText(value, data) ?? ''),
          json:
            value.kind === 'literal' && typeof value.value !== 'string'
              ? (typeof value.value as 'number' | 'boolean')
              : 'string',
          thing:
            value.kind === 'thing' && !within.has(value.thing) && within.size < 12
              ? thingView(value.thing, data, pointer, foundAt, within)
              : null,
          found: foundAt(valuePointer),
        }
      }),
    }
  })
  const used = new Set(thing.properties.map((p) => p.name))
  // Of several that will do, the first is asked for, and the others named beside it.
  const missing = asked
    .filter((a) => !a.anyOf.some((name) => used.has(name)))
    .map(({ kind, anyOf: [name, ...or] }) => ({ ...fieldKind(name!), asked: kind, or }))
    .filter((m, i, all) => all.findIndex((o) => o.name === m.name) === i)
  return {
    pointer: at,
    start: thing.start,
    types,
    id: thing.id,
    name: textOf(thing, 'name', data) ?? textOf(thing, 'headline', data) ?? textOf(thing, 'title', data),
    fields,
    begin: fields.length > 0 ? [] : beginWith(types).map(fieldKind),
    missing,
  }
}
