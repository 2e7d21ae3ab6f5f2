/**
 * What the words of a JSON-LD document mean (JSON-LD 1.1, contexts and IRI expansion), with schema.org's own context
 * built in. Nothing is ever fetched: any other context that is named by address alone stays unknown, and is remembered
 * as such.
 */
import { resolveAddress } from '../site/addresses.ts'
import type { JsonValue } from './json.ts'
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

export interface Context {
  terms: ReadonlyMap<string, TermMeaning>
  /** Whether schema.org's own context is in force. */
  schema: boolean
  vocab: string | null
  base: string
  lang: string | null
  /** Contexts that were named by address and are not known here. */
  unknown: readonly string[]
  /** The context to which things within return: that of a type does not reach them. */
  before: Context | null
}

export const emptyContext = (base: string): Context => ({
  terms: new Map(),
  schema: false,
  vocab: null,
  base,
  lang: null,
  unknown: [],
  before: null,
})

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
  const own = context.terms.get(word)
  if (own || !context.schema) return own
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
const memberOf = (object: JsonObject, key: string): JsonValue | undefined =>
  object.members.findLast((m) => m.key === key)?.value

/** The context that is in force once another is laid over it; a type's does not reach the things within, unless it says so. */
export function withContext(context: Context, local: JsonValue, ofType = false): Context {
  let now: Context = context
  for (const part of local.kind === 'array' ? local.items : [local]) now = withOne(now, part)
  const said = local.kind === 'object' ? memberOf(local, '@propagate') : undefined
  const propagates = said?.kind === 'literal' ? said.value !== false : !ofType
  return { ...now, before: propagates ? context.before : (context.before ?? context) }
}

function withOne(context: Context, part: JsonValue): Context {
  if (part.kind === 'literal' && part.value === null)
    return { ...emptyContext(context.base), before: context.before }
  if (part.kind === 'string') {
    if (!isSchemaContext(part.value)) return { ...context, unknown: [...context.unknown, part.value] }
    // What was defined before under a name of schema.org's is schema.org's now.
    const kept = [...context.terms].filter(([word]) => !isProperty(word) && !isClass(word) && !isMember(word))
    return { ...context, schema: true, vocab: SCHEMA, terms: new Map(kept) }
  }
  if (part.kind !== 'object') return context
  let { vocab, base, lang, unknown } = context
  const imported = stringOf(memberOf(part, '@import'))
  const start =
    imported === null ? context : withOne(context, { kind: 'string', value: imported, start: 0, end: 0 })
  if (imported !== null) ({ vocab, unknown } = start)
  for (const { key, value } of part.members) {
    if (key === '@vocab') {
      const given = stringOf(value)
      vocab = given === null ? null : (expandIri(given, start, { vocab: true }) ?? given)
      if (given === '') vocab = base
    } else if (key === '@base')
      base = value.kind === 'string' ? (resolveAddress(value.value, base) ?? base) : base
    else if (key === '@language') lang = stringOf(value)
  }
  const next: Context = { ...start, terms: new Map(start.terms), vocab, base, lang, unknown }
  const defined = new Map<string, boolean>()
  for (const { key } of part.members) if (!key.startsWith('@')) define(next, part, key, defined)
  return next
}

/** Defines one word of a context, and first those that its definition is written with. */
function define(next: Context, local: JsonObject, word: string, defined: Map<string, boolean>): void {
  // A definition that leads back to itself means nothing.
  if (defined.has(word)) return
  defined.set(word, false)
  const terms = next.terms as Map<string, TermMeaning>
  const given = memberOf(local, word)!
  const expand = (value: string): string | null => {
    const colon = value.indexOf(':')
    for (const part of [value, colon > 0 ? value.slice(0, colon) : ''])
      if (part !== '' && part !== word && memberOf(local, part) && !part.startsWith('@'))
        define(next, local, part, defined)
    return expandIri(value, next, { vocab: true })
  }
  terms.delete(word)
  const simple = given.kind === 'string'
  const nothing = given.kind === 'literal'
  const details = given.kind === 'object' ? given : null
  const id = details ? memberOf(details, '@id') : undefined
  if (nothing || (id?.kind === 'literal' && id.value === null)) {
    terms.set(word, plainTerm(null))
    return
  }
  const at = (key: string) => (details ? stringOf(memberOf(details, key)) : null)
  const reverse = at('@reverse')
  const written = simple ? given.value : (reverse ?? at('@id'))
  const iri = written === null || written === word ? expandOwn(word, next, expand) : expand(written)
  const container = details ? memberOf(details, '@container') : undefined
  const lang = details ? memberOf(details, '@language') : undefined
  const scoped = details ? memberOf(details, '@context') : undefined
  const prefixed = details ? memberOf(details, '@prefix') : undefined
  const type = at('@type')
  terms.set(word, {
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
    scoped: scoped ?? null,
  })
  defined.set(word, true)
}

const expandOwn = (word: string, next: Context, expand: (v: string) => string | null): string | null =>
  word.includes(':')
    ? expand(word)
    : next.vocab === null
      ? (schemaTermIri(word, next) ?? null)
      : next.vocab + word
const schemaTermIri = (word: string, next: Context) => (next.schema ? SCHEMA + word : null)

/** A term of schema.org by its name alone, whatever the scheme; any other as its IRI. */
export function shortName(iri: string): string {
  // As schema.org's own context gives nearly all of them.
  if (iri.startsWith(SCHEMA)) {
    const name = iri.slice(SCHEMA.length)
    return name !== '' && !/[/?#]/.test(name) ? name : iri
  }
  const found = /^https?:\/\/(?:www\.)?schema\.org\/(?!$)([^/?#]+)$/.exec(iri)
  return found ? found[1]! : iri
}
/** Whether a name, as `shortName` gives it, is one of schema.org's namespace. */
export const isOfSchema = (name: string): boolean => !name.includes(':') && !name.startsWith('@')
