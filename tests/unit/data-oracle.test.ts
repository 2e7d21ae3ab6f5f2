/**
 * Verdicts on whole documents against a second oracle: the TypeScript compiler with schema-dts 2.1.0, whose types are
 * made from schema.org's vocabulary independently of ours. What it can judge is the vocabulary alone: not features,
 * forms of dates, pointers or what stands on the page. Where the two differ, the reason stands here.
 */
import { join } from 'node:path'
import ts from 'typescript'
import { expect, test } from 'vitest'
import { dataFileOfDocument, dataReports } from '../../core/exchange/data-report.ts'
import { defaultStyle } from '../../core/rules/house-style.ts'
import { isClass } from '../../core/structured-data/vocabulary.ts'
import { invalidDocuments, validDocuments } from '../fixtures/data-documents.ts'

const ofVocabulary = new Set([
  'data-context',
  'data-untyped',
  'data-unknown-type',
  'data-unknown-property',
  'data-wrong-domain',
  'data-value-type',
  'data-enumeration',
])
/** Documents that we mark and it does not: its types take any string where a date, a number or a code is meant. */
const looser: Record<string, string> = {
  ...Object.fromEntries(
    [
      'a date in words',
      'a date of another order',
      'a day that there is not',
      'a date with slashes',
      'a time with a point',
    ].map((name) => [name, 'its Date and Time are any string']),
  ),
  'a duration in words': 'its Duration is any string',
  'a duration without its T': 'its Duration is any string',
  'half a person': 'its Integer is any number',
  'no address': 'its URL is any string',
  'a name for a person': 'its things may be given as text; ours is a nit',
  'a sign for a currency': 'it knows no ISO 4217',
  'a currency in small letters': 'it knows no ISO 4217',
  'a country code that there is not': 'it knows no ISO 3166-1',
  'a language in words': 'it knows no BCP 47',
  'a wrong check digit': 'it knows no check digits',
  'a wrong ISBN': 'it knows no check digits',
  'opening hours in words': 'its openingHours is any string',
}
/** Documents that it refuses and we do not. */
const stricter: Record<string, string> = {}

const documents = new Map<string, object>([
  ...Object.entries(validDocuments),
  ...Object.entries(invalidDocuments).flatMap(([name, { data }]) =>
    typeof data === 'string' ? [] : [[name, data] as const],
  ),
])

function oursMarks(data: object): string[] {
  const bytes = new TextEncoder().encode(JSON.stringify(data))
  const file = dataFileOfDocument('a.jsonld', 'https://a.example/a.jsonld', bytes)
  const {
    files: [report],
  } = dataReports(
    [{ path: file.path, read: () => ({ ok: true, value: file }) }],
    defaultStyle,
    '2026-11-25',
    'https://a.example/',
    false,
  )
  return report!.blocks.flatMap((b) => b.marks.map((m) => m.rule)).filter((r) => ofVocabulary.has(r))
}

/** The documents that the compiler refuses, by name. */
function refused(): Set<string> {
  const names = [...documents.keys()]
  const file = join(import.meta.dirname, 'data-oracle.generated.ts')
  // A document's own type where there is one: the union of all is slow to judge by.
  const typeOf = (data: object) => {
    const type = '@type' in data && typeof data['@type'] === 'string' ? data['@type'] : 'Thing'
    return isClass(type) ? type : 'Thing'
  }
  const lines = [
    `import type { Graph, WithContext, ${[...new Set([...documents.values()].map(typeOf))].join(', ')} } from 'schema-dts'`,
    ...names.map((name, i) => {
      const data = documents.get(name)!
      const type = '@graph' in data ? 'Graph' : `WithContext<${typeOf(data)}>`
      return `export const d${i}: ${type} = ${JSON.stringify(data)}`
    }),
  ]
  const text = lines.join('\n')
  const options: ts.CompilerOptions = {
    strict: true,
    noEmit: true,
    skipLibCheck: true,
    target: ts.ScriptTarget.ES2022,
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    types: [],
  }
  const host = ts.createCompilerHost(options)
  const read = host.getSourceFile.bind(host)
  host.getSourceFile = (path, version) =>
    path === file ? ts.createSourceFile(path, text, version) : read(path, version)
  const exists = host.fileExists.bind(host)
  host.fileExists = (path) => path === file || exists(path)
  const program = ts.createProgram([file], options, host)
  const source = program.getSourceFile(file)!
  return new Set(
    program
      .getSemanticDiagnostics(source)
      .map((d) => names[source.getLineAndCharacterOfPosition(d.start!).line - 1]!),
  )
}

test('the compiler and the rules of the vocabulary agree, but for what is explained', () => {
  const theirs = refused()
  const differences: { looser: string[]; stricter: string[] } = { looser: [], stricter: [] }
  let agreed = 0
  for (const [name, data] of documents) {
    const ours = oursMarks(data).length > 0
    if (ours === theirs.has(name)) agreed++
    else (ours ? differences.looser : differences.stricter).push(name)
  }
  expect(differences).toEqual({ looser: Object.keys(looser), stricter: Object.keys(stricter) })

  expect(agreed).toBeGreaterThan(90)
}, 120_000)
