import { judgeAll } from '../../structured-data/judge.ts'
import { dataOf } from '../../structured-data/read.ts'
import { membersOf } from '../../structured-data/vocabulary.ts'
import { rule } from '../rule.ts'
import { either, replaceInData } from './data-edit.ts'
import { described } from './example.ts'

/** A value that is none of those that the property chooses from. */
export const dataEnumeration = rule({
  id: 'data-enumeration',
  family: 'data',
  severity: 'flaw',
  sign: 'order',
  name: 'Value not in the list',
  basis: 'schema.org’s enumerations and their members',
  why: 'Machines know only the values in the list.',
  mend: 'Choose one from the list.',
  needs: ['data'],
  message: ({ property, found, of, members }) =>
    `“${property}” is “${found}”; a value of ${of} is expected: ${members}.`,
  check({ page }, mark) {
    for (const { property, value, verdict } of judgeAll(dataOf(page))) {
      if (verdict.kind !== 'enumeration') continue
      const { found, of, member } = verdict
      const all = of.split(' or ').flatMap((e) => membersOf(e))
      const members =
        all.length > 6 ? `${all.slice(0, 6).join(', ')} and ${all.length - 6} more` : either(all)
      const { start, end } = value
      const repair =
        member === null
          ? undefined
          : replaceInData(
              page,
              { start, end },
              JSON.stringify(`https://schema.org/${member}`),
              `Write ${member}`,
            )
      mark({ start, end }, { property, found, of, members }, repair)
    }
  },
  examples: {
    clean: [
      described({ '@type': 'Offer', availability: 'https://schema.org/InStock' }),
      described({ '@type': 'Offer', availability: 'InStock' }),
      described({ '@type': 'Offer', availability: 'http://schema.org/OutOfStock' }),
      described({ '@type': 'Offer', availability: { '@id': 'https://schema.org/InStock' } }),
      described({ '@type': 'OpeningHoursSpecification', dayOfWeek: ['Monday', 'Tuesday'] }),
    ],
    marked: [
      {
        html: described({ '@type': 'Offer', availability: 'in stock' }),
        at: '"in stock"',
        says: /is “in stock”; a value of ItemAvailability/,
      },
      { html: described({ '@type': 'Offer', availability: 'plenty' }), says: /“plenty”/ },
      {
        html: described({ '@type': 'Event', eventStatus: 'cancelled' }),
        says: /EventStatusType is expected: EventCancelled/,
      },
      { html: described({ '@type': 'OpeningHoursSpecification', dayOfWeek: 'monday' }), says: /DayOfWeek/ },
    ],
  },
})
