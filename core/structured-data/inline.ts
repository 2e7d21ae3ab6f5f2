/**
 * Things that a page describes in its markup: microdata and RDFa, read by their reference stream parsers into
 * statements, and put together as the things that JSON-LD would describe. Loaded when a page has such markup.
 */
import { MicrodataRdfParser } from 'microdata-rdf-streaming-parser'
import { RdfaParser } from 'rdfa-streaming-parser'
import { shortName } from './context.ts'

/** A thing nested deeper than this is pointed at, not written out; no page's means as much. From memory. */
const DEEPEST = 100

interface Node {
  termType: string
  value: string
}
interface Quad {
  subject: Node
  predicate: Node
  object: Node & { language?: string; datatype?: Node }
}
interface StreamParser {
  on(event: string, listener: (value: never) => void): unknown
  write(chunk: string): unknown
  end(): unknown
}

const TYPE = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#type'
const ITEM = 'http://www.w3.org/ns/md#item'
const FIRST = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#first'
const REST = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#rest'

function statements(parser: StreamParser, html: string): Promise<Quad[]> {
  return new Promise((resolve, reject) => {
    const quads: Quad[] = []
    parser.on('data', ((quad: Quad) => quads.push(quad)) as never)
    parser.on('error', reject as never)
    parser.on('end', (() => resolve(quads)) as never)
    parser.write(html)
    parser.end()
  })
}

/** Statements as JSON-LD with schema.org's context: a document of things that stand at the top. Of other vocabularies nothing. */
function asDocument(quads: Quad[]): Record<string, unknown>[] {
  const isSchema = (iri: string) => /^https?:\/\/schema\.org\//.test(iri)
  const bySubject = new Map<string, Quad[]>()
  for (const quad of quads) {
    const same = bySubject.get(quad.subject.value)
    if (same) same.push(quad)
    else bySubject.set(quad.subject.value, [quad])
  }
  const isThing = (id: string) =>
    bySubject.get(id)?.some((q) => q.predicate.value === TYPE || isSchema(q.predicate.value)) ?? false
  const pointedTo = new Set(
    quads
      .filter((q) => q.predicate.value !== TYPE && q.predicate.value !== ITEM && isSchema(q.predicate.value))
      .map((q) => q.object.value),
  )
  const written = new Set<string>()
  const list = (id: string): Quad['object'][] => {
    const items: Quad['object'][] = []
    const passed = new Set<string>()
    for (let at: string | undefined = id; at !== undefined && !passed.has(at);) {
      passed.add(at)
      const cell: Quad[] = bySubject.get(at) ?? []
      const first = cell.find((q) => q.predicate.value === FIRST)?.object
      if (!first) break
      items.push(first)
      at = cell.find((q) => q.predicate.value === REST)?.object.value
    }
    return items
  }
  const write = (id: string, blank: boolean, depth = 0): Record<string, unknown> => {
    written.add(id)
    const out = Object.create(null) as Record<string, unknown>
    const types = (bySubject.get(id) ?? [])
      .filter((q) => q.predicate.value === TYPE)
      .map((q) => shortName(q.object.value))
    if (types.length > 0) out['@type'] = types.length === 1 ? types[0] : types
    if (!blank) out['@id'] = id
    const add = (name: string, value: unknown) => {
      const now = out[name]
      if (Array.isArray(now)) now.push(value)
      else out[name] = now === undefined ? value : [now, value]
    }
    for (const { predicate, object } of bySubject.get(id) ?? []) {
      if (!isSchema(predicate.value)) continue
      const name = shortName(predicate.value)
      const items = object.termType === 'BlankNode' ? list(object.value) : []
      for (const item of items.length > 0 ? items : [object])
        if (item.termType === 'Literal') add(name, item.value)
        else if (isThing(item.value)) {
          if (written.has(item.value) || depth === DEEPEST) add(name, { '@id': item.value })
          else add(name, write(item.value, item.termType === 'BlankNode', depth + 1))
        } else if (item.termType !== 'BlankNode') add(name, item.value)
    }
    return out
  }
  const tops = [...bySubject.keys()].filter((id) => isThing(id) && !pointedTo.has(id))
  const subjectOf = (id: string) => bySubject.get(id)![0]!.subject
  return tops
    .map((id) => write(id, subjectOf(id).termType === 'BlankNode'))
    .filter((t) => Object.keys(t).some((k) => !k.startsWith('@')))
}

/** The things of a page's own markup, each as a JSON-LD object without context. Rejects where the markup cannot be read. */
export async function inlineThings(
  html: string,
  url: string,
  has: { microdata: boolean; rdfa: boolean },
): Promise<{ microdata: Record<string, unknown>[]; rdfa: Record<string, unknown>[] }> {
  return {
    microdata: has.microdata
      ? asDocument(
          await statements(new MicrodataRdfParser({ baseIRI: url }) as unknown as StreamParser, html),
        )
      : [],
    rdfa: has.rdfa
      ? asDocument(
          await statements(
            new RdfaParser({ baseIRI: url, contentType: 'text/html' }) as unknown as StreamParser,
            html,
          ),
        )
      : [],
  }
}
