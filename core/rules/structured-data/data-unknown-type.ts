import { isOfSchema } from '../../structured-data/context.ts'
import { dataOf } from '../../structured-data/read.ts'
import { isClass, isMember, isProperty, nearestTerms } from '../../structured-data/vocabulary.ts'
import { rule } from '../rule.ts'
import { either, MOST_GUESSED } from './data-edit.ts'
import { described } from './example.ts'

/** A type that schema.org does not have. */
export const dataUnknownType = rule({
  id: 'data-unknown-type',
  family: 'data',
  severity: 'blocker',
  sign: 'order',
  name: 'Unknown type',
  basis: 'schema.org’s vocabulary, as shipped (NOTICE)',
  why: 'Machines ignore a thing whose type they do not know.',
  mend: 'Write the type that is meant, with its own capitals.',
  needs: ['data'],
  message: ({ type, near, otherCase, is }) =>
    `schema.org has no type “${type}”${
      is
        ? `: that is a ${is}`
        : otherCase
          ? `: capitals count, “${near}”`
          : near
            ? `; did you mean ${near}?`
            : ''
    }${is || otherCase || !near ? '.' : ''}`,
  check({ page }, mark) {
    const { things, blocks } = dataOf(page)
    const wrong = new Set<string>()
    for (const thing of things) {
      if (blocks[thing.block]!.unknown.length > 0) continue
      for (const { name, start, end } of thing.types) {
        if (!isOfSchema(name) || isClass(name)) continue
        wrong.add(name)
        const near = wrong.size <= MOST_GUESSED ? nearestTerms(name, 'class') : []
        const otherCase = near[0]?.toLowerCase() === name.toLowerCase()
        mark(
          { start, end },
          {
            type: name,
            near: otherCase ? near[0]! : either(near),
            otherCase,
            is: otherCase ? null : isProperty(name) ? 'property' : isMember(name) ? 'value' : null,
          },
        )
      }
    }
  },
  examples: {
    clean: [
      described({ '@type': ['Product', 'Book'] }),
      described({ '@type': 'https://schema.org/Event' }),
      described({ '@context': ['https://schema.org', { w: 'https://words.example/' }], '@type': 'w:Lamp' }),
      described({ '@context': ['https://schema.org', 'https://words.example/context'], '@type': 'Lamp' }),
    ],
    marked: [
      {
        html: described({ '@type': 'Artcle' }),
        at: '"Artcle"',
        says: /no type “Artcle”; did you mean Article\?/,
      },
      { html: described({ '@type': 'event' }), at: '"event"', says: /capitals count, “Event”/ },
      {
        html: described({ '@type': ['Event', 'Lampenabend'] }),
        at: '"Lampenabend"',
        says: /“Lampenabend”\.$/,
      },
      { html: described({ '@type': 'headline' }), says: /that is a property\.$/ },
    ],
  },
})
