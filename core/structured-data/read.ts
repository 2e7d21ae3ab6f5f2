/**
 * A page's JSON-LD as the things that it describes: expansion by JSON-LD 1.1, keeping the place of everything in the
 * page's text, so that a mark can point at its line. Names of schema.org stand without their namespace.
 */
import type { DataBlock, PageFacts } from '../page/facts.ts'
import { kept } from '../page/kept.ts'
import {
  emptyContext,
  expandIri,
  isKeyword,
  isOfSchema,
  isSchemaContext,
  SCHEMA,
  shortName,
  termOf,
  withContext,
  type Context,
  type JsonObject,
} from './context.ts'
import { parseJson, type JsonValue } from './json.ts'
import { distance, isProperty } from './vocabulary.ts'

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
  /** Those that say something, by `@id`. */
  byId: ReadonlyMap<string, Thing[]>
}

/** A misspelling of schema.org's address, rather than another vocabulary's: its host but for a letter, or another ending. */
export function isMeantForSchema(address: string): boolean {
  if (isSchemaContext(address)) return false
  const [, host = '', path = ''] =
    /^\s*(?:[a-z]+:\/*)?(?:www\.)?([^/\s#?]+)([/#?]\S*)?\s*$/i.exec(address.toLowerCase()) ?? []
  const near =
    distance(host.replace(',', '.'), 'schema.org', 1) <= 1 || /^schemas?\.(?:org\.)?com$/.test(host)
  return near && /^(?:\/?|#|\/?docs\/?.*)$/.test(path)
}

/** The things of a page's blocks, read once; places are UTF-16 units of the page's text. */
export const dataOf = kept(
  (page: PageFacts): PageData =>
    readBlocks(page.data, page.base === null ? page.url : resolved(page.base, page.url)),
)
const resolved = (href: string, url: string) => expandIri(href, emptyContext(url), { relative: true }) ?? url

/** Reads blocks of one page. Never throws, on any text. */
export function readBlocks(blocks: readonly DataBlock[], base: string): PageData {
  const data: PageData = { blocks: [], things: [], roots: [], byId: new Map() }
  blocks.forEach(({ json, jsonStart }, block) => {
    const parsed = parseJson(json)
    if (!parsed.ok) {
      data.blocks.push({
        error: { at: jsonStart + parsed.at, message: parsed.message },
        json: null,
        roots: [],
        unknown: [],
      })
      return
    }
    const reader = new Reader(block, jsonStart)
    reader.document(parsed.value, emptyContext(base))
    data.blocks.push({ error: null, json: parsed.value, roots: reader.roots, unknown: reader.unknown })
    // One by one: a block can hold more things than a call takes arguments.
    for (const thing of reader.roots) data.roots.push(thing)
    for (const thing of reader.things) data.things.push(thing)
  })
  const byId = data.byId as Map<string, Thing[]>
  for (const thing of data.things)
    if (thing.id !== null && (thing.types.length > 0 || thing.properties.length > 0)) {
      const same = byId.get(thing.id)
      if (same) same.push(thing)
      else byId.set(thing.id, [thing])
    }
  return data
}

type Meant = JsonObject['members'][number] & { means: string | null }
const under = (members: Meant[], keyword: string): JsonValue | undefined =>
  members.findLast((m) => m.means === keyword)?.value
/** The types that an object names, as written. */
const typeWords = (members: Meant[]): string[] =>
  members
    .filter((m) => m.means === '@type')
    .flatMap(({ value }) => (value.kind === 'array' ? value.items : [value]))
    .flatMap((item) => (item.kind === 'string' ? [item.value] : []))

class Reader {
  readonly roots: Thing[] = []
  readonly things: Thing[] = []
  unknown: readonly string[] = []
  private readonly block: number
  private readonly offset: number
  constructor(block: number, offset: number) {
    this.block = block
    this.offset = offset
  }

  private span({ start, end }: Span): Span {
    return { start: start + this.offset, end: end + this.offset }
  }

  document(value: JsonValue, context: Context): void {
    for (const item of value.kind === 'array' ? value.items : [value])
      if (item.kind === 'object') {
        // Without its context, or with it misspelt, a block is read as it was meant; data-context says what is wrong.
        const given = item.members.findLast((m) => m.key === '@context')?.value
        const meant = given === undefined || (given.kind === 'string' && isMeantForSchema(given.value))
        const start = meant ? schemaContext(context) : context
        for (const thing of this.top(item, start)) this.roots.push(thing)
      }
  }

  /** The things of an object that stands at the top, a `@graph` opened. */
  private top(object: JsonObject, context: Context): Thing[] {
    const read = this.object(object, context, null)
    return read.flatMap((value) => (value.kind === 'thing' ? [value.thing] : []))
  }

  /** What an object is: a thing, a reference, a literal, or the things of a list, a set or a graph. */
  private object(
    object: JsonObject,
    given: Context,
    within: Thing['within'],
    scoped?: JsonValue,
    key: string | null = null,
  ): Value[] {
    let context = given
    let keyed = this.withMeanings(object, context)
    const first = context
    if (context.before) {
      const onlyId = keyed.length === 1 && keyed[0]!.means === '@id'
      if (!onlyId && !keyed.some((m) => m.means === '@value')) context = context.before
    }
    if (scoped) context = withContext(context, scoped)
    const own = object.members.findLast((m) => m.key === '@context')?.value
    if (own) {
      const said = own.kind === 'string' && isMeantForSchema(own.value) && context.schema
      if (!said) context = withContext(context, own)
      this.unknown = context.unknown.length > this.unknown.length ? context.unknown : this.unknown
    }
    const outer = context
    if (context !== first) keyed = this.withMeanings(object, context)
    if (context.terms.size > 0) {
      for (const type of typeWords(keyed).sort()) {
        const local = termOf(outer, type)?.scoped
        if (local) context = withContext(context, local, true)
      }
      if (context !== outer) keyed = this.withMeanings(object, context)
    }

    const value = under(keyed, '@value')
    if (value)
      return this.valueObject(value, object, under(keyed, '@type'), under(keyed, '@language'), context)
    const list = under(keyed, '@list') ?? under(keyed, '@set')
    if (list) return this.values(list, context, within, key)

    const thing: Thing = {
      types: [],
      id: null,
      idAt: null,
      properties: [],
      strays: [],
      block: this.block,
      within,
      ...this.span(object),
    }
    const place = this.things.push(thing) - 1
    const inside: Thing[] = []
    const named = this.members(keyed, thing, context, outer, inside)
    const empty = thing.types.length === 0 && thing.properties.length === 0
    if (empty && thing.id !== null && inside.length === 0 && named) {
      // A pointer to a thing, and no thing.
      this.things.splice(place, 1)
      return within === null ? [] : [{ kind: 'reference', id: thing.id, ...this.span(object) }]
    }
    if (inside.length > 0 && empty) {
      this.things.splice(place, 1)
      return inside.map((t) => ({ kind: 'thing', thing: t, start: t.start, end: t.end }))
    }
    const all: Value[] = [{ kind: 'thing', thing, ...this.span(object) }]
    for (const t of inside) all.push({ kind: 'thing', thing: t, start: t.start, end: t.end })
    return all
  }

  /** Puts an object's members into a thing; what stands in its graph comes into `inside`. Whether only its id is named. */
  private members(
    keyed: Meant[],
    thing: Thing,
    context: Context,
    typeContext: Context,
    inside: Thing[],
  ): boolean {
    let onlyId = true
    for (const { key, keyStart, keyEnd, value, means } of keyed) {
      if (means === null && /^@[a-zA-Z]+$/.test(key))
        thing.strays.push({ key, at: this.span({ start: keyStart, end: keyEnd }) })
      if (means === null || key === '@context') continue
      if (means !== '@id') onlyId = false
      const term = termOf(context, key)
      switch (means) {
        case '@type':
          for (const item of value.kind === 'array' ? value.items : [value])
            if (item.kind === 'string') {
              const iri = expandIri(item.value, typeContext, { vocab: true, relative: true })
              if (iri !== null)
                thing.types.push({ name: shortName(iri), written: item.value, ...this.span(item) })
            }
          break
        case '@id':
          if (value.kind === 'string') {
            thing.id = expandIri(value.value, context, { relative: true })
            thing.idAt = this.span(value)
          }
          break
        case '@graph':
        case '@included':
          for (const item of value.kind === 'array' ? value.items : [value])
            if (item.kind === 'object') for (const t of this.top(item, context)) inside.push(t)
          break
        case '@nest':
          for (const item of value.kind === 'array' ? value.items : [value])
            if (item.kind === 'object') {
              const nested = item.members.map((m) => ({ ...m, means: this.meaning(m.key, context) }))
              this.members(nested, thing, context, typeContext, inside)
            }
          break
        case '@reverse':
          if (value.kind === 'object')
            for (const m of value.members) {
              const iri = this.meaning(m.key, context)
              if (iri !== null && !isKeyword(iri)) this.property(thing, { ...m, iri, reverse: true }, context)
            }
          break
        default:
          if (!isKeyword(means))
            this.property(
              thing,
              { key, keyStart, keyEnd, value, iri: means, reverse: term?.reverse ?? false },
              context,
            )
      }
    }
    return onlyId
  }

  private property(
    thing: Thing,
    m: { key: string; keyStart: number; keyEnd: number; value: JsonValue; iri: string; reverse: boolean },
    context: Context,
  ): void {
    const property: Property = {
      name: shortName(m.iri),
      known: isProperty(shortName(m.iri)),
      key: m.key,
      reverse: m.reverse,
      values: [],
      at: this.span({ start: m.keyStart, end: m.keyEnd }),
      under: this.span(m.value),
    }
    thing.properties.push(property)
    property.values = this.values(m.value, context, { thing, property }, m.key)
  }

  /** What stands under a key, by its container. */
  private values(value: JsonValue, context: Context, within: Thing['within'], key: string | null): Value[] {
    const term = key === null ? undefined : termOf(context, key)
    const scoped = term?.scoped ?? undefined
    if (term?.type === '@json') return [this.literal(value, '@json')].flatMap((l) => l ?? [])
    const has = (container: string) => term?.containers.includes(container) ?? false
    if (
      value.kind === 'object' &&
      (has('@language') || has('@index') || has('@id') || has('@type') || has('@graph'))
    )
      return this.mapped(value, context, within, has, scoped)
    if (value.kind === 'array') return value.items.flatMap((item) => this.values(item, context, within, key))
    if (value.kind === 'object') return this.object(value, context, within, scoped, key)
    if (value.kind === 'literal' && value.value === null) return []
    const literal = this.literal(value, null)!
    if (typeof literal.value === 'string') {
      const type = term?.type ?? null
      if (type === '@id') literal.iri = expandIri(literal.value, context, { relative: true })
      else if (type === '@vocab')
        literal.iri = expandIri(literal.value, context, { vocab: true, relative: true })
      else if (type !== null && type !== '@none') literal.datatype = type
      else literal.lang = term?.lang !== undefined ? term.lang : context.lang
    } else if (term?.type && !term.type.startsWith('@')) literal.datatype = term.type
    return [literal]
  }

  /** Maps by language, index, id or type. */
  private mapped(
    map: JsonObject,
    context: Context,
    within: Thing['within'],
    has: (container: string) => boolean,
    scoped: JsonValue | undefined,
  ): Value[] {
    const isMap = has('@language') || has('@index') || has('@id') || has('@type')
    if (!isMap)
      return this.top(map, context).map((t) => ({ kind: 'thing', thing: t, start: t.start, end: t.end }))
    const out: Value[] = []
    for (const { key, keyStart, keyEnd, value } of map.members)
      for (const item of value.kind === 'array' ? value.items : [value]) {
        if (item.kind === 'object') {
          for (const v of this.object(item, context, within, scoped)) {
            if (v.kind === 'thing' && has('@id') && v.thing.id === null && key !== '@none') {
              v.thing.id = expandIri(key, context, { relative: true })
              v.thing.idAt = this.span({ start: keyStart, end: keyEnd })
            }
            if (v.kind === 'thing' && has('@type') && key !== '@none') {
              const iri = expandIri(key, context, { vocab: true, relative: true })
              if (iri !== null)
                v.thing.types.unshift({
                  name: shortName(iri),
                  written: key,
                  ...this.span({ start: keyStart, end: keyEnd }),
                })
            }
            out.push(v)
          }
        } else {
          const literal = this.literal(item, null)
          if (literal && has('@language') && key !== '@none') literal.lang = key
          if (literal) out.push(literal)
        }
      }
    return out
  }

  private valueObject(
    value: JsonValue,
    object: JsonObject,
    type: JsonValue | undefined,
    language: JsonValue | undefined,
    context: Context,
  ): Value[] {
    const literal = this.literal(value, null)
    if (!literal) return []
    if (type?.kind === 'string')
      literal.datatype = expandIri(type.value, context, { vocab: true, relative: true })
    if (language?.kind === 'string') literal.lang = language.value
    return [{ ...literal, ...this.span(object) }]
  }

  private literal(value: JsonValue, datatype: string | null): Literal | null {
    const at = { datatype, lang: null, iri: null, ...this.span(value) }
    if (value.kind === 'string' || value.kind === 'number')
      return { kind: 'literal', value: value.value, ...at }
    if (value.kind === 'literal' && value.value !== null)
      return { kind: 'literal', value: value.value, ...at }
    return datatype === '@json' ? { kind: 'literal', value: '', ...at } : null
  }

  private meaning(key: string, context: Context): string | null {
    // In schema.org's context alone a word means the same in every document.
    const plain = context.schema && context.terms.size === 0 && context.vocab === SCHEMA
    if (plain) {
      const known = plainMeanings.get(key)
      if (known !== undefined) return known
    }
    const iri = expandIri(key, context, { vocab: true })
    // Without a vocabulary a plain word means nothing.
    const means = iri === null || isKeyword(iri) || iri.includes(':') ? iri : null
    if (plain && plainMeanings.size < 5000) plainMeanings.set(key, means)
    return means
  }

  private withMeanings(object: JsonObject, context: Context): Meant[] {
    return object.members.map((m) => ({
      key: m.key,
      keyStart: m.keyStart,
      keyEnd: m.keyEnd,
      value: m.value,
      means: this.meaning(m.key, context),
    }))
  }
}

const plainMeanings = new Map<string, string | null>()
const schemaContext = (context: Context): Context => ({ ...context, schema: true, vocab: SCHEMA })

/** The classes of schema.org that a thing is written to be of, whether there are such classes or not. */
export const schemaTypes = (thing: Thing): string[] => thing.types.map((t) => t.name).filter(isOfSchema)

/** All values of a thing's property, in order; of a reverse property none. */
export function valuesOf(thing: Thing, name: string): Value[] {
  let found: Value[] | null = null
  for (const p of thing.properties)
    if (p.name === name && !p.reverse) found = found === null ? p.values : [...found, ...p.values]
  return found ?? none
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
  if (!thing) return null
  return thing === undefined ? null : textOf(thing, 'name')
}
/** The things that a property leads to, references within the page followed. */
export function thingsUnder(thing: Thing, name: string, data: PageData): Thing[] {
  const out: Thing[] = []
  for (const v of valuesOf(thing, name))
    if (v.kind === 'thing') out.push(v.thing)
    else if (v.kind === 'reference') out.push(...(data.byId.get(v.id) ?? []))
  return out
}
