import { isOfSchema } from '../../structured-data/context.ts'
import { judgeValue } from '../../structured-data/judge.ts'
import { schemaTypes } from '../../structured-data/page-data.ts'
import { dataOf } from '../../structured-data/read.ts'
import { isClass, propertiesOf, replacementOf } from '../../structured-data/vocabulary.ts'
import { rule } from '../rule.ts'
import { replaceInData } from './data-edit.ts'
import { described } from './example.ts'

/** A term that schema.org has replaced. */
export const dataSuperseded = rule({
  id: 'data-superseded',
  family: 'data',
  severity: 'nit',
  sign: 'alike',
  name: 'Superseded term',
  basis: 'schema.org, supersededBy',
  why: 'It is still understood today, but machines are built for the newer term.',
  mend: 'Write the newer term.',
  needs: ['data'],
  message: ({ term, by }) => `“${term}” has been replaced by “${by}”.`,
  check({ page }, mark) {
    const data = dataOf(page)
    for (const thing of data.things) {
      for (const { name, written, start, end } of thing.types) {
        const by = isOfSchema(name) && isClass(name) ? replacementOf(name) : null
        if (by === null) continue
        const same = written === name && isClass(by)
        mark(
          { start, end },
          { term: name, by },
          same ? replaceInData(page, { start, end }, JSON.stringify(by), `Write ${by}`) : undefined,
        )
      }
      const types = schemaTypes(thing)
      for (const { name, known, key, at, values } of thing.properties) {
        const by = known ? replacementOf(name) : null
        if (by === null) continue
        // Certain where the newer one is free, belongs to the type and takes the same values.
        const fits =
          key === name &&
          !thing.properties.some((p) => p.name === by) &&
          types.some((t) => propertiesOf(t).has(by)) &&
          values.every((v) => judgeValue(by, v, data) === null)
        mark(
          at,
          { term: name, by },
          fits ? replaceInData(page, at, JSON.stringify(by), `Write ${by}`) : undefined,
        )
      }
    }
  },
  examples: {
    clean: [
      described({ '@type': 'Organization', member: { '@type': 'Person' } }),
      described({ '@type': 'Article', image: '/a.jpg' }),
      described({ '@type': 'Event', performer: { '@type': 'Person', name: 'x' } }),
    ],
    marked: [
      {
        html: described({ '@type': 'Organization', members: { '@type': 'Person' } }),
        at: '"members"',
        says: /“members” has been replaced by “member”/,
      },
      {
        html: described({ '@type': 'Event', performers: { '@type': 'Person', name: 'x' } }),
        says: /“performer”/,
      },
      {
        html: described({ '@type': 'Place', map: 'https://site.example/map' }),
        says: /“map” has been replaced by “hasMap”/,
      },
    ],
  },
})
