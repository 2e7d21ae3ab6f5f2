import { schemaTypes } from '../../structured-data/page-data.ts'
import { dataOf } from '../../structured-data/read.ts'
import { isA } from '../../structured-data/vocabulary.ts'
import { isDate, isDateTime } from '../../structured-data/formats.ts'
import { rule } from '../rule.ts'
import { described } from './example.ts'

const ends = new Set([
  'endDate',
  'validThrough',
  'priceValidUntil',
  'applicationDeadline',
  'availabilityEnds',
  'offerExpires',
  'expires',
])
/** Times of year that come round again, and what lies in the past by its nature. */
const past = ['OpeningHoursSpecification', 'Role', 'Schedule']

/** Something that ended before the audit's date. */
export const dataExpired = rule({
  id: 'data-expired',
  family: 'data',
  severity: 'nit',
  sign: 'alike',
  name: 'The data describes something that has ended',
  basis: 'common practice, no source',
  why: 'Results do not show an event, an offer or a job that has ended.',
  mend: 'Give the next date, or remove it.',
  needs: ['data'],
  message: ({ property, value, date }) => `“${property}” is ${value}, which is before ${date}.`,
  check({ page, date }, mark) {
    for (const thing of dataOf(page).things) {
      for (const { name, values } of thing.properties) {
        if (!ends.has(name) || schemaTypes(thing).some((t) => past.some((p) => isA(t, p)))) continue
        for (const v of values) {
          const text = v.kind === 'literal' ? String(v.value).trim() : ''
          if ((!isDate(text) && !isDateTime(text)) || !/^\d{4}-\d{2}/.test(text)) continue
          // A month ends with its last day.
          const day = text.length === 7 ? `${text}-31` : text.slice(0, 10)
          if (day < date) mark({ start: v.start, end: v.end }, { property: name, value: text, date })
        }
      }
    }
  },
  examples: {
    clean: [
      { html: described({ '@type': 'Event', endDate: '2026-11-23' }), date: '2026-11-23' },
      { html: described({ '@type': 'Event', startDate: '2020-01-01' }), date: '2026-11-23' },
      {
        html: described({ '@type': 'OpeningHoursSpecification', validThrough: '2020-01-01' }),
        date: '2026-11-23',
      },
      { html: described({ '@type': 'Offer', priceValidUntil: '2026-11' }), date: '2026-11-23' },
    ],
    marked: [
      {
        html: described({ '@type': 'Event', endDate: '2026-11-22T21:00' }),
        date: '2026-11-23',
        at: '"2026-11-22',
        says: /“endDate” is 2026-11-22T21:00, which is before 2026-11-23/,
      },
      {
        html: described({ '@type': 'Product', offers: { '@type': 'Offer', priceValidUntil: '2026-01-31' } }),
        date: '2026-11-23',
        says: /priceValidUntil/,
      },
      {
        html: described({ '@type': 'JobPosting', validThrough: '2025-12-31' }),
        date: '2026-11-23',
        says: /validThrough/,
      },
    ],
  },
})
