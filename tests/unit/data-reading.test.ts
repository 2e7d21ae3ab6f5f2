/** Reading against the reference processor of JSON-LD 1.1 (jsonld 9.0.0): the same types, ids, properties and values. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { contextDocuments } from '../fixtures/contexts.ts'
import { BASE, ourThings, referenceThings } from '../fixtures/expansion.ts'
import { readBlocks } from '../../core/structured-data/read.ts'
import { isClass, propertiesOf, rangesOf } from '../../core/structured-data/vocabulary.ts'

describe('what JSON-LD 1.1 allows', () => {
  test.each(Object.entries(contextDocuments))('%s', async (_, document) => {
    const json = JSON.stringify(document, null, 2)
    expect(ourThings(json)).toEqual(await referenceThings(json))
  })
})

describe('hostile documents', () => {
  const block = (json: string) => [{ json, jsonStart: 0, start: 0, end: json.length }]
  test('of any text are read without an exception', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: 'binary' }),
          fc.json(),
          fc
            .json()
            .map(
              (j) =>
                `{"@context":"https://schema.org","@graph":[${j},{"@type":${j},"@id":${j},"name":${j}}]}`,
            ),
        ),
        (json) => {
          expect(() => readBlocks(block(json), BASE)).not.toThrow()
        },
      ),
    )
  })
  test('with 300,000 things, with one id for all of them, and nested to the limit', () => {
    const many = (n: number) =>
      `{"@context":"https://schema.org","@graph":[${Array.from({ length: n }, () => '{"@type":"Thing","@id":"#a"}').join(',')}]}`
    const { things, byId } = readBlocks(block(many(300_000)), BASE)
    expect(things).toHaveLength(300_000)
    // Of things with one id the first are at hand by it.
    expect([...byId.values()][0]).toHaveLength(20)
    const deep = (n: number) => '{"@context":"https://schema.org","about":'.repeat(n) + '1' + '}'.repeat(n)
    expect(readBlocks(block(deep(400)), BASE).things).toHaveLength(400)
    expect(readBlocks(block(deep(100_000)), BASE).blocks[0]!.error!.message).toMatch(/nested more than/)
  })
  test('whose contexts define each other in a circle, or without end', () => {
    const circle = JSON.stringify({
      '@context': { a: 'b:x', b: 'c:x', c: 'a:x' },
      '@type': 'a',
      'b:y': 1,
      c: 2,
    })
    expect(() => readBlocks(block(circle), BASE)).not.toThrow()
    expect(() =>
      readBlocks(
        block(
          '{"@context":{"__proto__":"https://schema.org/name","constructor":null},"constructor":1,"__proto__":2}',
        ),
        BASE,
      ),
    ).not.toThrow()
  })
})

describe('generated documents', () => {
  const classes = [
    'Event',
    'Product',
    'Article',
    'Person',
    'Organization',
    'Recipe',
    'Offer',
    'FAQPage',
    'Place',
  ]
  const word = fc.constantFrom(
    'Lamp',
    'https://a.example/x',
    '/a',
    '#b',
    'InStock',
    '2026-11-25',
    'a:b',
    '@type',
    '_:x',
    '',
  )
  const scalar = fc.oneof(
    word,
    fc.string({ maxLength: 12 }).map((s) => `t${s.replace(/\s/g, '')}`),
    fc.integer(),
    fc.boolean(),
    fc.constant(null),
  )
  const keyOf = (type: string) =>
    fc.oneof(
      fc.constantFrom(...[...propertiesOf(type)].filter((p) => rangesOf(p).length > 0)),
      fc.constantFrom('schema:name', 'https://schema.org/url', 'dct:title', 'invented', 'x:y'),
    )
  const { thing } = fc.letrec<{ thing: Record<string, unknown>; value: unknown }>((tie) => ({
    value: fc.oneof(
      { depthSize: 'small', withCrossShrink: true },
      scalar,
      fc.record({ '@id': word }),
      fc.record({ '@value': fc.string({ maxLength: 8 }), '@language': fc.constantFrom('en', 'da') }),
      fc.record({ '@list': fc.array(scalar, { maxLength: 3 }) }),
      fc.array(
        tie('value').filter((v) => !Array.isArray(v)),
        { maxLength: 3 },
      ),
      tie('thing'),
    ),
    thing: fc.constantFrom(...classes).chain((type) =>
      fc
        .tuple(
          fc.constantFrom<unknown>(type, [type, 'Thing'], `schema:${type}`, `http://schema.org/${type}`),
          fc.option(fc.constantFrom('#a', 'https://a.example/#b', '/c'), { nil: undefined }),
          fc.dictionary(keyOf(type), tie('value'), { maxKeys: 4 }),
        )
        .map(([t, id, members]) => ({
          '@type': t,
          ...(id === undefined ? {} : { '@id': id }),
          ...members,
        })),
    ) as fc.Arbitrary<Record<string, unknown>>,
  }))
  const contexts = fc.constantFrom<unknown>(
    'https://schema.org',
    'http://schema.org/',
    { '@vocab': 'https://schema.org/', schema: 'https://schema.org/' },
    ['https://schema.org', { x: 'https://words.example/', '@language': 'en' }],
  )

  test('are read as the reference reads them', async () => {
    expect(classes.every(isClass)).toBe(true)
    await fc.assert(
      fc.asyncProperty(contexts, fc.array(thing, { minLength: 1, maxLength: 3 }), async (context, things) => {
        const json = JSON.stringify({ '@context': context, '@graph': things })
        expect(ourThings(json)).toEqual(await referenceThings(json))
      }),
      { numRuns: 300 },
    )
  })
})
