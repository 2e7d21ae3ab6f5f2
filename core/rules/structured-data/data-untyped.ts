import { isOfSchema } from '../../structured-data/context.ts'
import { dataOf } from '../../structured-data/read.ts'
import { thingRanges } from '../../structured-data/judge.ts'
import { rule } from '../rule.ts'
import { either, opening } from './data-edit.ts'
import { described } from './example.ts'

/** An object that describes something without saying what. */
export const dataUntyped = rule({
  id: 'data-untyped',
  family: 'data',
  severity: 'flaw',
  sign: 'missing',
  name: 'Thing without a type',
  basis: 'schema.org, "Getting started": every item has a type',
  why: 'Without "@type" a machine knows some values, but not what they describe.',
  mend: 'Say what it is.',
  needs: ['data'],
  message: ({ under, expected }) =>
    `${under === null ? 'A thing' : `The value of “${under}”`} has no "@type"${expected ? `; ${expected} is expected` : ''}.`,
  check({ page }, mark) {
    const { things, byId } = dataOf(page)
    for (const thing of things) {
      if (thing.types.length > 0 || !thing.properties.some((p) => isOfSchema(p.name))) continue
      if (thing.id !== null && byId.get(thing.id)?.some((t) => t.types.length > 0)) continue
      if (thing.strays.some((s) => s.key.toLowerCase() === '@type')) continue
      const under = thing.within?.property.name ?? null
      mark(opening(thing), { under, expected: under === null ? '' : either(thingRanges(under)) })
    }
  },
  examples: {
    clean: [
      described({ '@type': 'Event', location: { '@type': 'Place', name: 'x' } }),
      described({ '@type': 'Event', location: { '@id': '#here' } }),
      described({
        '@graph': [
          { '@type': 'Event', '@id': '#e' },
          { '@id': '#e', name: 'x' },
        ],
      }),
      described({ '@type': 'Event', name: { '@value': 'x', '@language': 'en' } }),
    ],
    marked: [
      {
        html: described({ '@type': 'Event', location: { name: 'x' } }),
        at: '{"name"',
        says: /The value of “location” has no "@type"; Place, PostalAddress or VirtualLocation/,
      },
      { html: described({ name: 'x' }), at: '{"@context"', says: /^A thing has no "@type"\.$/ },
      { html: described({ '@graph': [{ name: 'x' }] }), at: '{"name"', says: /A thing has no/ },
    ],
  },
})
