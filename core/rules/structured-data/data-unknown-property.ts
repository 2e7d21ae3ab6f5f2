import { isOfSchema } from '../../structured-data/context.ts'
import { schemaTypes } from '../../structured-data/page-data.ts'
import { dataOf } from '../../structured-data/read.ts'
import { isProperty, nearestTerms, propertiesOf } from '../../structured-data/vocabulary.ts'
import { rule } from '../rule.ts'
import { either, MOST_GUESSED } from './data-edit.ts'
import { described } from './example.ts'

/** A property of an action's input or output, as schema.org annotates it: `query-input`. */
const annotated = /-(?:input|output)$/

/** A property that schema.org does not have. */
export const dataUnknownProperty = rule({
  id: 'data-unknown-property',
  family: 'data',
  severity: 'flaw',
  sign: 'order',
  name: 'Unknown property',
  basis: 'schema.org’s vocabulary, as shipped (NOTICE)',
  why: 'Machines ignore a property that they do not know, and with it what it says.',
  mend: 'Write the property that is meant, with its own capitals.',
  needs: ['data'],
  message: ({ property, near, otherCase, keyword }) =>
    keyword
      ? `“${property}” is not a keyword of JSON-LD${near ? `; did you mean ${near}?` : '.'}`
      : `schema.org has no property “${property}”${otherCase ? `: capitals count, “${near}”.` : near ? `; did you mean ${near}?` : '.'}`,
  check({ page }, mark) {
    const { things, blocks } = dataOf(page)
    const wrong = new Set<string>()
    for (const thing of things) {
      for (const { key, at } of thing.strays) {
        const near = /^@(?:context|type|id|value|language|graph|list|set|reverse)$/.test(key.toLowerCase())
          ? key.toLowerCase()
          : ''
        mark(at, { property: key, near, otherCase: false, keyword: true })
      }
      if (blocks[thing.block]!.unknown.length > 0) continue
      const owned = (name: string) => schemaTypes(thing).some((t) => propertiesOf(t).has(name))
      for (const { name, at } of thing.properties) {
        if (!isOfSchema(name) || isProperty(name)) continue
        if (annotated.test(name) && isProperty(name.replace(annotated, ''))) continue
        wrong.add(name)
        const all = wrong.size <= MOST_GUESSED ? nearestTerms(name, 'property') : []
        const otherCase = all[0]?.toLowerCase() === name.toLowerCase()
        // Those that the type has come first.
        const near = [...all].sort((a, b) => Number(owned(b)) - Number(owned(a)))
        mark(at, { property: name, near: otherCase ? all[0]! : either(near), otherCase, keyword: false })
      }
    }
  },
  examples: {
    clean: [
      described({ '@type': 'Event', name: 'x', 'schema:startDate': '2026-12-01' }),
      described({ '@type': 'SearchAction', 'query-input': 'required name=q' }),
      described({
        '@context': ['https://schema.org', { w: 'https://words.example/' }],
        '@type': 'Thing',
        'w:lumen': 3,
      }),
    ],
    marked: [
      {
        html: described({ '@type': 'Event', startdate: '2026' }),
        at: '"startdate"',
        says: /capitals count, “startDate”\.$/,
      },
      {
        html: described({ '@type': 'Article', headlin: 'x' }),
        at: '"headlin"',
        says: /did you mean headline\?/,
      },
      {
        html: described({ '@type': 'Thing', lampColour: 'x' }),
        at: '"lampColour"',
        says: /no property “lampColour”/,
      },
      {
        html: described({ '@Type': 'Event', name: 'x' }),
        at: '"@Type"',
        says: /not a keyword of JSON-LD; did you mean @type\?/,
      },
    ],
  },
})
