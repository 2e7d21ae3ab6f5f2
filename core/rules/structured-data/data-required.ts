import { featuresOf } from '../../structured-data/features.ts'
import { dataOf } from '../../structured-data/read.ts'
import { lackInWords } from '../../structured-data/words.ts'
import { rule } from '../rule.ts'
import { opening } from './data-edit.ts'
import { described } from './example.ts'

/** What a search feature needs is missing. */
export const dataRequired = rule({
  id: 'data-required',
  family: 'data',
  severity: 'flaw',
  sign: 'missing',
  name: 'Required property missing',
  basis: 'the features’ public documentation, from memory (core/structured-data/features.json)',
  why: 'Without it results show the page like any other.',
  mend: 'Fill it in from the page, or remove the type if the page does not say it.',
  needs: ['data'],
  message: ({ feature, missing }) => `${feature}: ${missing} is missing; the feature requires it.`,
  check({ page }, mark) {
    for (const { feature, missing } of featuresOf(dataOf(page)))
      for (const { on, path } of missing)
        mark(opening(on), { feature: feature.name, missing: lackInWords(path) })
  },
  examples: {
    clean: [
      described({
        '@type': 'Event',
        name: 'x',
        startDate: '2026-12-01',
        location: { '@type': 'Place', address: 'y' },
      }),
      described({ '@type': 'Article' }),
      described({ '@type': 'Article', publisher: { '@type': 'LocalBusiness', name: 'x' } }),
      described({
        '@type': 'Product',
        name: 'x',
        aggregateRating: { '@type': 'AggregateRating', ratingValue: 4, ratingCount: 2 },
      }),
    ],
    marked: [
      {
        html: described({ '@type': 'Product', name: 'x' }),
        at: '{"@context"',
        says: /Product: offers, review, aggregate rating or has variant is missing/,
      },
      {
        html: described({ '@type': 'Product', name: 'x', offers: { '@type': 'Offer', price: 3 } }),
        at: '{"@type":"Offer"',
        says: /price currency or price specification of the offers is missing/,
      },
      {
        html: described({ '@type': 'Event', name: 'x', startDate: '2026-12-01' }),
        says: /Event: location is missing/,
      },
      {
        html: described({ '@type': 'FAQPage', mainEntity: [{ '@type': 'Question', name: 'x' }] }),
        at: '{"@type":"Question"',
        says: /accepted answer of the main entity is missing/,
      },
      {
        html: described({
          '@type': 'Review',
          author: { '@type': 'Person', name: 'x' },
          reviewRating: { '@type': 'Rating', ratingValue: 4 },
        }),
        says: /Review: item reviewed is missing/,
      },
    ],
  },
})
