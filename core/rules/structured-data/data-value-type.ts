import { judgeAll } from '../../structured-data/judge.ts'
import { dataOf } from '../../structured-data/read.ts'
import { rule } from '../rule.ts'
import { described } from './example.ts'

/** A value that is not what the property takes. */
export const dataValueType = rule({
  id: 'data-value-type',
  family: 'data',
  severity: 'flaw',
  sign: 'order',
  name: 'Value of the wrong kind',
  basis:
    'schema.org, rangeIncludes; ISO 8601 for dates, times and durations; ISO 4217 and ISO 3166-1; BCP 47; GS1 and ISO 2108 for check digits',
  why: 'What cannot be read as a date, a number or a thing is ignored.',
  mend: 'Write it in the form that the property takes.',
  needs: ['data'],
  weigh: ({ plain }) => (plain ? 'nit' : 'flaw'),
  message: ({ property, found, expected, plain }) =>
    plain
      ? `“${property}” is the text ${found}; a thing would say more: ${expected}.`
      : `“${property}” is ${found}; ${expected} is expected.`,
  check({ page }, mark) {
    for (const { property, value, verdict } of judgeAll(dataOf(page))) {
      if (verdict.kind !== 'type') continue
      const { found, expected, plain } = verdict
      const end = value.kind === 'thing' ? value.start + 1 : value.end
      mark({ start: value.start, end }, { property, found, expected, plain })
    }
  },
  examples: {
    clean: [
      described({
        '@type': 'Event',
        startDate: '2026-12-01T19:30',
        duration: 'PT1H30M',
        isAccessibleForFree: true,
      }),
      described({
        '@type': 'Offer',
        price: '12.50',
        priceCurrency: 'GBP',
        url: '/a',
        availability: 'InStock',
      }),
      described({ '@type': 'Book', isbn: '978-0-306-40615-7', inLanguage: 'en-GB' }),
      described({ '@type': 'LocalBusiness', openingHours: ['Mo-Fr 09:00-17:00', 'Sa 10:00-12:00'] }),
      described({
        '@type': 'Article',
        author: { '@type': 'Person', name: 'x' },
        image: 'https://site.example/a.jpg',
      }),
      described({ '@type': 'Product', gtin13: '4006381333931' }),
    ],
    marked: [
      {
        html: described({ '@type': 'Event', startDate: '1 December 2026' }),
        at: '"1 December',
        says: /“startDate” is “1 December 2026”; a date .* is expected/,
      },
      { html: described({ '@type': 'Event', startDate: '2026-02-30' }), says: /“2026-02-30”/ },
      {
        html: described({ '@type': 'Recipe', cookTime: '30 minutes' }),
        says: /a duration such as PT1H30M is expected/,
      },
      { html: described({ '@type': 'Offer', priceCurrency: '£' }), says: /a currency code of ISO 4217/ },
      {
        html: described({ '@type': 'Article', author: 'Ada Fenn' }),
        at: '"Ada Fenn"',
        says: /is the text “Ada Fenn”; a thing would say more: Organization or Person/,
      },
      {
        html: described({ '@type': 'Article', author: { '@type': 'Place', name: 'x' } }),
        at: '{"@type":"Place"',
        says: /“author” is Place; Organization or Person is expected/,
      },
      { html: described({ '@type': 'Product', gtin13: '4006381333932' }), says: /check digit/ },
      { html: described({ '@type': 'Book', isbn: '978-0-306-40615-8' }), says: /ISBN/ },
      { html: described({ '@type': 'PostalAddress', addressCountry: 'UK' }), says: /ISO 3166-1/ },
      {
        html: described({ '@type': 'AggregateRating', ratingValue: 4, reviewCount: 'many' }),
        says: /“reviewCount” is “many”; a whole number is expected/,
      },
      { html: described({ '@type': 'Event', url: 'ask at the pier' }), says: /an address is expected/ },
    ],
  },
})
