/** What a page describes: its things, their properties and values, each with its place in the page's text; and how they are asked. */
import { isOfSchema } from './context.ts'
import type { JsonValue } from '../json/json.ts'

export interface Span {
  start: number
  end: number
}
/** A type as it is meant (`Event`, or the IRI of another vocabulary's) and as it is written. */
export interface TypeName extends Span {
  name: string
  written: string
}
export interface Literal extends Span {
  kind: 'literal'
  value: string | number | boolean
  /** The datatype's IRI or `@json`, where the document gives one. */
  datatype: string | null
  lang: string | null
  /** Where the context makes an address of the string: that address, resolved. */
  iri: string | null
}
/** A thing that is only pointed to. */
export interface Reference extends Span {
  kind: 'reference'
  id: string
}
export interface ThingValue extends Span {
  kind: 'thing'
  thing: Thing
}
export type Value = Literal | Reference | ThingValue

export interface Property {
  /** Name of schema.org, or the IRI of another vocabulary's. */
  name: string
  /** Whether it is a property that schema.org has. */
  known: boolean
  /** As written; the same property may stand under several keys. */
  key: string
  /** What the values are of this thing, rather than this thing's values. */
  reverse: boolean
  values: Value[]
  /** The key, quotes included. */
  at: Span
  /** Everything that stands under the key. */
  under: Span
}
export interface Thing extends Span {
  types: TypeName[]
  id: string | null
  /** The value of `@id` as it stands. */
  idAt: Span | null
  properties: Property[]
  /** Keys that begin as JSON-LD's own words do and are none of them. */
  strays: { key: string; at: Span }[]
  block: number
  /** Through which property of which thing it is reached; null for one that stands at the top. */
  within: { thing: Thing; property: Property } | null
}

export interface BlockData {
  /** Why nothing could be read; null where it was. */
  error: { at: number; message: string } | null
  json: JsonValue | null
  /** Things at the top, `@graph` opened. */
  roots: Thing[]
  /** Named by address and not known: what its words mean is not all known. */
  unknown: readonly string[]
}
export interface PageData {
  blocks: BlockData[]
  /** All things, outer ones before those within them. */
  things: Thing[]
  roots: Thing[]
  /** Those that say something, by `@id`; of very many with one id, the first. */
  byId: ReadonlyMap<string, Thing[]>
}

/** The classes of schema.org that a thing is written to be of, whether there are such classes or not. */
export const schemaTypes = (thing: Thing): string[] => thing.types.map((t) => t.name).filter(isOfSchema)

/** All values of a thing's property, in order; of a reverse property none. */
export function valuesOf(thing: Thing, name: string): Value[] {
  let first: Value[] | null = null
  let all: Value[] | null = null
  for (const p of thing.properties) {
    if (p.name !== name || p.reverse) continue
    if (first === null) first = p.values
    else {
      all ??= [...first]
      for (const value of p.values) all.push(value)
    }
  }
  return all ?? first ?? none
}
const none: Value[] = []

/** The first value of a property as text: a literal, or the name of a thing; null where there is none. */
export function textOf(thing: Thing, name: string, data?: PageData): string | null {
  for (const value of valuesOf(thing, name)) {
    const text = valueText(value, data)
    if (text) return text
  }
  return null
}
export function valueText(value: Value, data?: PageData): string | null {
  if (value.kind === 'literal') return String(value.value).trim() || null
  const thing = value.kind === 'thing' ? value.thing : data?.byId.get(value.id)?.[0]
  return thing === undefined ? null : textOf(thing, 'name')
}
/** The things that a property leads to, references within the page followed. */
export function thingsUnder(thing: Thing, name: string, data: PageData): Thing[] {
  const out: Thing[] = []
  for (const v of valuesOf(thing, name))
    if (v.kind === 'thing') out.push(v.thing)
    else if (v.kind === 'reference') for (const named of data.byId.get(v.id) ?? []) out.push(named)
  return out
}
