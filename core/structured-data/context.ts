/**
 * What the words of a JSON-LD document mean (JSON-LD 1.1, contexts and IRI expansion), with schema.org's own context
 * built in. Nothing is ever fetched: any other context that is named by address alone stays unknown, and is remembered
 * as such.
 */
import { resolveAddress } from '../addresses/addresses.ts'
import type { JsonValue } from '../json/json.ts'
import { isClass, isMember, isProperty, propertiesOfAddress } from './vocabulary.ts'

export type JsonObject = Extract<JsonValue, { kind: 'object' }>

/** The namespace as jsonld's expansion of schema.org's own context writes it. */
export const SCHEMA = 'http://schema.org/'

export interface TermMeaning {
  /** What it expands to; null: what stands under it means nothing. */
  iri: string | null
  reverse: boolean
  /** `@id`, `@vocab`, `@json`, `@none` or a datatype; null where plain. */
  type: string | null
  containers: readonly string[]
  /** Of a string's own; undefined where the context's counts. */
  lang: string | null | undefined
  /** Whether it may stand before a colon. */
  prefix: boolean
  /** The context for what stands under it, or for things of it where it names a type. */
  scoped: JsonValue | null
}

/** More contexts than this that are not known are no longer listed. */
const MOST_UNKNOWN = 50

/**
 * The words that contexts define, in layers: what an outer context defined lies below and is shared, never copied, so
 * that a context in every thing costs what it says itself. A layer is filled while its context is read and then left.
 */
export class Terms {
  private readonly own = new Map<string, { meaning: TermMeaning | null; at: number }>()
  private readonly below: Terms | null
  /** Definitions of schema.org's names made before this count are schema.org's own again. */
  private schemaFrom = 0
  private count = 0
  constructor(below: Terms | null = null) {
    this.below = below !== null && below.isEmpty ? null : below
  }
  get isEmpty(): boolean {
    return this.own.size === 0 && this.below === null
  }
  get(word: string): TermMeaning | undefined {
    const meaning = this.ownSays(word)
    if (meaning !== undefined) return meaning ?? undefined
    for (let layer = this.below; layer !== null; layer = layer.below) {
      const below = layer.ownSays(word)
      if (below !== undefined) return below ?? undefined
    }
    return undefined
  }
  /** What this layer by itself says of a word: null, that it means nothing of its own; undefined, nothing. */
  private ownSays(word: string): TermMeaning | null | undefined {
    const meaning = this.own.get(word)
    const hidden = this.schemaFrom > 0 && (meaning === undefined || meaning.at < this.schemaFrom)
    return hidden && isSchemaName(word) ? null : meaning?.meaning
  }
  /** Defines a word; null: what a context below says of it holds no longer. */
  set(word: string, meaning: TermMeaning | null): void {
    this.own.set(word, { meaning, at: ++this.count })
  }
  /** What was defined so far under a name of schema.org's is schema.org's now. */
  giveBackToSchema(): void {
    if (!this.isEmpty) this.schemaFrom = ++this.count
  }
}

export interface Context {
  terms: Terms
  /** Whether schema.org's own context is in force. */
  schema: boolean
  vocab: string | null
  base: string
  lang: string | null
  /** Contexts that were named by address and are not known here, the first of them. */
  unknown: readonly string[]
  /** The context to which things within return: that of a type does not reach them. */
  before: Context | null
}

export const emptyContext = (base: string): Context => ({
  terms: new Terms(),
  schema: false,
  vocab: null,
  base,
  lang: null,
  unknown: [],
  before: null,
})

const isSchemaName = (word: string): boolean => isProperty(word) || isClass(word) || isMember(word)

const keywords = new Set(
  '@base @container @context @direction @graph @id @import @included @index @json @language @list @nest @none @prefix @propagate @protected @reverse @set @type @value @version @vocab'.split(
    ' ',
  ),
)
export const isKeyword = (text: string): boolean => keywords.has(text)
const likeKeyword = /^@[a-zA-Z]+$/

const schemaAddress = /^https?:\/\/(?:www\.)?schema\.org(?:\/(?:docs\/jsonldcontext\.jsonld?)?)?$/
/** Whether a context's address is schema.org's own, with either scheme and with or without a slash. */
export const isSchemaContext = (address: string): boolean => schemaAddress.test(address.trim())

const plainTerm = (iri: string | null, more: Partial<TermMeaning> = {}): TermMeaning => ({
  iri,
  reverse: false,
  type: null,
  containers: [],
  lang: undefined,
  prefix: false,
  scoped: null,
  ...more,
})

/** Prefixes that schema.org's own context brings; from memory, those that pages use. */
const prefixes: Record<string, string> = {
  schema: SCHEMA,
  rdf: 'http://www.w3.org/1999/02/22-rdf-syntax-ns#',
  rdfs: 'http://www.w3.org/2000/01/rdf-schema#',
  xsd: 'http://www.w3.org/2001/XMLSchema#',
  owl: 'http://www.w3.org/2002/07/owl#',
  skos: 'http://www.w3.org/2004/02/skos/core#',
  dc: 'http://purl.org/dc/elements/1.1/',
  dct: 'http://purl.org/dc/terms/',
  dcterms: 'http://purl.org/dc/terms/',
  foaf: 'http://xmlns.com/foaf/0.1/',
}
const schemaTerms = new Map<string, TermMeaning>([
  ['type', plainTerm('@type')],
  ['id', plainTerm('@id')],
  ...Object.entries(prefixes).map(([name, iri]) => [name, plainTerm(iri, { prefix: true })] as const),
])

/** The meaning of a word; undefined where no context defines it. */
export function termOf(context: Context, word: string): TermMeaning | undefined {
  const declared = context.terms.get(word)
  if (declared || !context.schema) return declared
  const builtIn = schemaTerms.get(word)
  if (builtIn) return builtIn
  if (!isProperty(word)) return undefined
  const known = plainTerm(SCHEMA + word, propertiesOfAddress().has(word) ? { type: '@id' } : {})
  schemaTerms.set(word, known)
  return known
}

/** A word as the IRI or keyword it stands for; null where it means nothing. */
export function expandIri(
  value: string,
  context: Context,
  as: { vocab?: boolean; relative?: boolean },
): string | null {
  if (isKeyword(value)) return value
  if (likeKeyword.test(value)) return null
  if (as.vocab) {
    const term = termOf(context, value)
    if (term) return term.iri
  }
  const colon = value.indexOf(':')
  if (colon > 0) {
    const prefix = value.slice(0, colon)
    const suffix = value.slice(colon + 1)
    if (prefix === '_' || suffix.startsWith('//')) return value
    const term = termOf(context, prefix)
    if (term?.prefix && term.iri !== null) return term.iri + suffix
    if (/^[a-z][a-z0-9+.-]*$/i.test(prefix)) return value
  }
  if (as.vocab && context.vocab !== null) return context.vocab + value
  return as.relative ? (resolveAddress(value, context.base) ?? value) : value
}

const stringOf = (value: JsonValue | undefined): string | null =>
  value?.kind === 'string' ? value.value : null
type Members = ReadonlyMap<string, JsonValue>
/** An object's members by key; where a name stands twice, the last one counts. */
const membersOf = (object: JsonObject): Members => new Map(object.members.map((m) => [m.key, m.value]))

/** The context that is in force once another is laid over it; a type's does not reach the things within, unless it says so. */
export function withContext(context: Context, local: JsonValue, ofType = false): Context {
  const now: Context = { ...context, terms: new Terms(context.terms) }
  for (const part of local.kind === 'array' ? local.items : [local]) layOver(now, part)
  const propagate = local.kind === 'object' ? membersOf(local).get('@propagate') : undefined
  const propagates = propagate?.kind === 'literal' ? propagate.value !== false : !ofType
  now.before = propagates ? context.before : (context.before ?? context)
  return now
}

/** Lays one context over another that is being put together. */
function layOver(now: Context, part: JsonValue): void {
  if (part.kind === 'literal' && part.value === null) {
    Object.assign(now, emptyContext(now.base), { before: now.before })
    return
  }
  if (part.kind === 'string') {
    if (isSchemaContext(part.value)) {
      now.schema = true
      now.vocab = SCHEMA
      now.terms.giveBackToSchema()
    } else if (now.unknown.length < MOST_UNKNOWN) now.unknown = [...now.unknown, part.value]
    return
  }
  if (part.kind !== 'object') return
  const members = membersOf(part)
  const imported = stringOf(members.get('@import'))
  if (imported !== null) layOver(now, { kind: 'string', value: imported, start: 0, end: 0 })
  let { vocab, base, lang } = now
  for (const { key, value } of part.members) {
    if (key === '@vocab') {
      const given = stringOf(value)
      vocab = given === null ? null : (expandIri(given, now, { vocab: true }) ?? given)
      if (given === '') vocab = base
    } else if (key === '@base')
      base = value.kind === 'string' ? (resolveAddress(value.value, base) ?? base) : base
    else if (key === '@language') lang = stringOf(value)
  }
  Object.assign(now, { vocab, base, lang })
  defineAll(now, members)
}

/** The words of the same context that a definition is written with. */
function writtenWith(word: string, members: Members): string[] {
  const given = members.get(word)!
  const details = given.kind === 'object' ? membersOf(given) : null
  const values =
    given.kind === 'string'
      ? [given.value]
      : ['@reverse', '@id', '@type'].map((key) => stringOf(details?.get(key)) ?? '')
  const words: string[] = []
  for (const value of [...values, word]) {
    const colon = value.indexOf(':')
    for (const part of [value, colon > 0 ? value.slice(0, colon) : ''])
      if (part !== '' && part !== word && !part.startsWith('@') && members.has(part)) words.push(part)
  }
  return words
}

/**
 * Defines every word of a context, each after those that its definition is written with: by a list of what is open,
 * because a chain of definitions may be long. One that leads back to itself means nothing.
 */
function defineAll(now: Context, members: Members): void {
  const begun = new Set<string>()
  for (const first of members.keys()) {
    if (first.startsWith('@')) continue
    const open = [first]
    while (open.length > 0) {
      const word = open.at(-1)!
      if (!begun.has(word)) {
        begun.add(word)
        now.terms.set(word, null)
        const before = open.length
        for (const other of writtenWith(word, members)) if (!begun.has(other)) open.push(other)
        if (open.length > before) continue
      }
      open.pop()
      if (now.terms.get(word) === undefined) define(now, members.get(word)!, word)
    }
  }
}

/** Defines one word; those that its definition is written with are defined. */
function define(now: Context, given: JsonValue, word: string): void {
  const expand = (value: string) => expandIri(value, now, { vocab: true })
  const simple = given.kind === 'string'
  const details = given.kind === 'object' ? membersOf(given) : null
  const id = details?.get('@id')
  if (given.kind === 'literal' || (id?.kind === 'literal' && id.value === null)) {
    now.terms.set(word, plainTerm(null))
    return
  }
  const at = (key: string) => stringOf(details?.get(key))
  const reverse = at('@reverse')
  const written = simple ? given.value : (reverse ?? at('@id'))
  const iri = written === null || written === word ? expandOwn(word, now, expand) : expand(written)
  const container = details?.get('@container')
  const lang = details?.get('@language')
  const prefixed = details?.get('@prefix')
  const type = at('@type')
  now.terms.set(word, {
    iri,
    reverse: reverse !== null,
    type: type === null ? null : expand(type),
    containers:
      container?.kind === 'string'
        ? [container.value]
        : container?.kind === 'array'
          ? container.items.flatMap((i) => (i.kind === 'string' ? [i.value] : []))
          : [],
    lang: lang === undefined ? undefined : stringOf(lang),
    prefix:
      prefixed?.kind === 'literal'
        ? prefixed.value === true
        : simple && !word.includes(':') && iri !== null && /[:/?#[\]@]$/.test(iri),
    scoped: details?.get('@context') ?? null,
  })
}

const expandOwn = (word: string, now: Context, expand: (v: string) => string | null): string | null =>
  word.includes(':')
    ? expand(word)
    : now.vocab === null
      ? now.schema
        ? SCHEMA + word
        : null
      : now.vocab + word

/** A term of schema.org by its name alone, whatever the scheme; any other as its IRI. */
export function shortName(iri: string): string {
  // As schema.org's own context gives nearly all of them.
  if (iri.startsWith(SCHEMA)) {
    const name = iri.slice(SCHEMA.length)
    return name !== '' && !/[/?#]/.test(name) ? name : iri
  }
  const match = /^https?:\/\/(?:www\.)?schema\.org\/(?!$)([^/?#]+)$/.exec(iri)
  return match ? match[1]! : iri
}
/** Whether a name, as `shortName` gives it, is one of schema.org's namespace. */
export const isOfSchema = (name: string): boolean => !name.includes(':') && !name.startsWith('@')
