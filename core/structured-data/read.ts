/**
 * A page's JSON-LD as the things that it describes: expansion by JSON-LD 1.1, keeping the place of everything in the
 * page's text, so that a mark can point at its line. Names of schema.org stand without their namespace.
 */
import type { DataBlock, PageFacts } from '../page/read/facts.ts'
import { rememberLast } from '../remember.ts'
import {
  emptyContext,
  expandIri,
  isKeyword,
  isSchemaContext,
  SCHEMA,
  shortName,
  termOf,
  withContext,
  type Context,
  type JsonObject,
  type TermMeaning,
} from './context.ts'
import { parseJson, type JsonValue } from '../json/json.ts'
import type { Span, Literal, Value, Property, Thing, PageData } from './page-data.ts'
import { distance, isProperty } from './vocabulary.ts'

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
export const dataOf = rememberLast((page: PageFacts): PageData =>
  readBlocks(page.data, page.base === null ? page.url : resolved(page.base, page.url)),
)
const resolved = (href: string, url: string) => expandIri(href, emptyContext(url), { relative: true }) ?? url

/** Things of one id that a reference to it is followed to: a page that describes one thing more often repeats itself. */
const MOST_ALIKE = 20

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
      if (!same) byId.set(thing.id, [thing])
      else if (same.length < MOST_ALIKE) same.push(thing)
    }
  return data
}

/** What a key means in a context. */
interface Word {
  /** The IRI or keyword that it stands for; null where it means nothing. */
  means: string | null
  term: TermMeaning | undefined
  /** As a property's name, and whether schema.org has such a property. */
  name: string
  known: boolean
}
/** A member of an object with what its key means. */
interface Meant {
  key: string
  keyStart: number
  keyEnd: number
  value: JsonValue
  word: Word
}
const under = (members: Meant[], keyword: string): JsonValue | undefined =>
  members.findLast((m) => m.word.means === keyword)?.value
const itemsOf = (value: JsonValue): readonly JsonValue[] => (value.kind === 'array' ? value.items : [value])
/** The types that an object names, as written. */
const typeWords = (members: Meant[]): string[] =>
  members
    .filter((m) => m.word.means === '@type')
    .flatMap(({ value }) => itemsOf(value))
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

  private span(start: number, end: number): Span {
    return { start: start + this.offset, end: end + this.offset }
  }

  document(value: JsonValue, context: Context): void {
    for (const item of itemsOf(value))
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
    const read: Value[] = []
    this.object(object, context, null, read)
    return read.flatMap((value) => (value.kind === 'thing' ? [value.thing] : []))
  }

  /** Adds what an object is: a thing, a reference, a literal, or the things of a list, a set or a graph. */
  private object(
    object: JsonObject,
    given: Context,
    within: Thing['within'],
    into: Value[],
    scoped?: JsonValue | null,
    key: string | null = null,
  ): void {
    let context = given
    let keyed = withMeanings(object, context)
    const first = context
    if (context.before) {
      const onlyId = keyed.length === 1 && keyed[0]!.word.means === '@id'
      if (!onlyId && !keyed.some((m) => m.word.means === '@value')) context = context.before
    }
    if (scoped) context = withContext(context, scoped)
    const localContext = object.members.findLast((m) => m.key === '@context')?.value
    if (localContext) {
      const said = localContext.kind === 'string' && isMeantForSchema(localContext.value) && context.schema
      if (!said) context = withContext(context, localContext)
      this.unknown = context.unknown.length > this.unknown.length ? context.unknown : this.unknown
    }
    const outer = context
    if (context !== first) keyed = withMeanings(object, context)
    if (!context.terms.isEmpty) {
      for (const type of typeWords(keyed).sort()) {
        const local = termOf(outer, type)?.scoped
        if (local) context = withContext(context, local, true)
      }
      if (context !== outer) keyed = withMeanings(object, context)
    }

    const value = under(keyed, '@value')
    if (value) {
      this.valueObject(value, object, under(keyed, '@type'), under(keyed, '@language'), context, into)
      return
    }
    const list = under(keyed, '@list') ?? under(keyed, '@set')
    if (list) {
      this.values(list, context, within, key, key === null ? undefined : wordOf(key, context).term, into)
      return
    }

    const { start, end } = this.span(object.start, object.end)
    const { block } = this
    const thing: Thing = {
      types: [],
      id: null,
      idAt: null,
      properties: [],
      strays: [],
      block,
      within,
      start,
      end,
    }
    const place = this.things.push(thing) - 1
    const inside: Thing[] = []
    const named = this.members(keyed, thing, context, outer, inside)
    const empty = thing.types.length === 0 && thing.properties.length === 0
    if (empty && thing.id !== null && inside.length === 0 && named) {
      // A pointer to a thing, and no thing.
      this.things.splice(place, 1)
      if (within !== null) into.push({ kind: 'reference', id: thing.id, start, end })
      return
    }
    if (inside.length > 0 && empty) this.things.splice(place, 1)
    else into.push({ kind: 'thing', thing, start, end })
    for (const t of inside) into.push({ kind: 'thing', thing: t, start: t.start, end: t.end })
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
    for (const member of keyed) {
      const { key, value, word } = member
      const { means } = word
      if (means === null && /^@[a-zA-Z]+$/.test(key))
        thing.strays.push({ key, at: this.span(member.keyStart, member.keyEnd) })
      if (means === null || key === '@context') continue
      if (means !== '@id') onlyId = false
      switch (means) {
        case '@type':
          for (const item of itemsOf(value))
            if (item.kind === 'string') {
              const iri = expandIri(item.value, typeContext, { vocab: true, relative: true })
              if (iri !== null)
                thing.types.push({
                  name: shortName(iri),
                  written: item.value,
                  ...this.span(item.start, item.end),
                })
            }
          break
        case '@id':
          if (value.kind === 'string') {
            thing.id = expandIri(value.value, context, { relative: true })
            thing.idAt = this.span(value.start, value.end)
          }
          break
        case '@graph':
        case '@included':
          for (const item of itemsOf(value))
            if (item.kind === 'object') for (const t of this.top(item, context)) inside.push(t)
          break
        case '@nest':
          for (const item of itemsOf(value))
            if (item.kind === 'object')
              this.members(withMeanings(item, context), thing, context, typeContext, inside)
          break
        case '@reverse':
          if (value.kind === 'object')
            for (const m of withMeanings(value, context))
              if (m.word.means !== null && !isKeyword(m.word.means)) this.property(thing, m, context, true)
          break
        default:
          if (!isKeyword(means)) this.property(thing, member, context, word.term?.reverse ?? false)
      }
    }
    return onlyId
  }

  private property(
    thing: Thing,
    { key, keyStart, keyEnd, value, word }: Meant,
    context: Context,
    reverse: boolean,
  ): void {
    const property: Property = {
      name: word.name,
      known: word.known,
      key,
      reverse,
      values: [],
      at: this.span(keyStart, keyEnd),
      under: this.span(value.start, value.end),
    }
    thing.properties.push(property)
    this.values(value, context, { thing, property }, key, word.term, property.values)
  }

  /** Adds what stands under a key, by its container. */
  private values(
    value: JsonValue,
    context: Context,
    within: Thing['within'],
    key: string | null,
    term: TermMeaning | undefined,
    into: Value[],
  ): void {
    if (term?.type === '@json') {
      const literal = this.literal(value, '@json')
      if (literal) into.push(literal)
      return
    }
    if (value.kind === 'array') {
      for (const item of value.items) this.values(item, context, within, key, term, into)
      return
    }
    if (value.kind === 'object') {
      if (term?.containers.some((c) => mapContainers.has(c))) this.mapped(value, context, within, term, into)
      else this.object(value, context, within, into, term?.scoped, key)
      return
    }
    const literal = this.literal(value, null)
    if (!literal) return
    if (typeof literal.value === 'string') {
      const type = term?.type ?? null
      if (type === '@id') literal.iri = expandIri(literal.value, context, { relative: true })
      else if (type === '@vocab')
        literal.iri = expandIri(literal.value, context, { vocab: true, relative: true })
      else if (type !== null && type !== '@none') literal.datatype = type
      else literal.lang = term?.lang !== undefined ? term.lang : context.lang
    } else if (term?.type && !term.type.startsWith('@')) literal.datatype = term.type
    into.push(literal)
  }

  /** Maps by language, index, id or type. */
  private mapped(
    map: JsonObject,
    context: Context,
    within: Thing['within'],
    { containers, scoped }: TermMeaning,
    into: Value[],
  ): void {
    const has = (container: string) => containers.includes(container)
    const isMap = has('@language') || has('@index') || has('@id') || has('@type')
    if (!isMap) {
      for (const t of this.top(map, context))
        into.push({ kind: 'thing', thing: t, start: t.start, end: t.end })
      return
    }
    for (const { key, keyStart, keyEnd, value } of map.members)
      for (const item of itemsOf(value)) {
        if (item.kind === 'object') {
          const read: Value[] = []
          this.object(item, context, within, read, scoped)
          for (const v of read) {
            if (v.kind === 'thing' && has('@id') && v.thing.id === null && key !== '@none') {
              v.thing.id = expandIri(key, context, { relative: true })
              v.thing.idAt = this.span(keyStart, keyEnd)
            }
            if (v.kind === 'thing' && has('@type') && key !== '@none') {
              const iri = expandIri(key, context, { vocab: true, relative: true })
              if (iri !== null)
                v.thing.types.unshift({ name: shortName(iri), written: key, ...this.span(keyStart, keyEnd) })
            }
            into.push(v)
          }
        } else {
          const literal = this.literal(item, null)
          if (literal && has('@language') && key !== '@none') literal.lang = key
          if (literal) into.push(literal)
        }
      }
  }

  private valueObject(
    value: JsonValue,
    object: JsonObject,
    type: JsonValue | undefined,
    language: JsonValue | undefined,
    context: Context,
    into: Value[],
  ): void {
    const literal = this.literal(value, null)
    if (!literal) return
    if (type?.kind === 'string')
      literal.datatype = expandIri(type.value, context, { vocab: true, relative: true })
    if (language?.kind === 'string') literal.lang = language.value
    into.push({ ...literal, ...this.span(object.start, object.end) })
  }

  private literal(value: JsonValue, datatype: string | null): Literal | null {
    let said: Literal['value'] = ''
    if (value.kind === 'string' || value.kind === 'number') said = value.value
    else if (value.kind === 'literal' && value.value !== null) said = value.value
    else if (datatype !== '@json') return null
    const { start, end } = this.span(value.start, value.end)
    return { kind: 'literal', value: said, datatype, lang: null, iri: null, start, end }
  }
}
const mapContainers = new Set(['@language', '@index', '@id', '@type', '@graph'])

/** Words of schema.org's context alone, where a word means the same in every document; the first few thousand. */
const plainWords = new Map<string, Word>()
function wordOf(key: string, context: Context): Word {
  const plain = context.schema && context.terms.isEmpty && context.vocab === SCHEMA
  const kept = plain ? plainWords.get(key) : undefined
  if (kept) return kept
  const iri = expandIri(key, context, { vocab: true })
  // Without a vocabulary a plain word means nothing.
  const means = iri === null || isKeyword(iri) || iri.includes(':') ? iri : null
  const name = means === null ? '' : shortName(means)
  const word = { means, term: termOf(context, key), name, known: isProperty(name) }
  if (plain && plainWords.size < 5000) plainWords.set(key, word)
  return word
}

const withMeanings = (object: JsonObject, context: Context): Meant[] =>
  object.members.map(({ key, keyStart, keyEnd, value }) => ({
    key,
    keyStart,
    keyEnd,
    value,
    word: wordOf(key, context),
  }))

const schemaContext = (context: Context): Context => ({ ...context, schema: true, vocab: SCHEMA })
