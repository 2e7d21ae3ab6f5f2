import { featuresOf, type Lack } from '../../structured-data/features.ts'
import type { Thing } from '../../structured-data/page-data.ts'
import { dataOf } from '../../structured-data/read.ts'
import { lackInWords } from '../../structured-data/words.ts'
import { rule } from '../rule.ts'
import { opening } from './data-edit.ts'
import { described } from './example.ts'

/** What a search feature would like to have is missing: one mark for each thing. */
export const dataRecommended = rule({
  id: 'data-recommended',
  family: 'data',
  severity: 'nit',
  sign: 'missing',
  name: 'Recommended property missing',
  basis: 'the features’ public documentation, from memory (core/structured-data/features.json)',
  why: 'The more a result can say about the page, the more likely it is to be shown in full.',
  mend: 'Fill in what the page says, and leave out what it does not.',
  needs: ['data'],
  message: ({ feature, missing }) => `${feature}: recommended but missing: ${missing}.`,
  check({ page }, mark) {
    for (const { feature, recommended } of featuresOf(dataOf(page))) {
      const byThing = new Map<Thing, Lack[]>()
      for (const lack of recommended) byThing.set(lack.on, [...(byThing.get(lack.on) ?? []), lack])
      for (const [thing, lacks] of byThing)
        mark(opening(thing), {
          feature: feature.name,
          missing: lacks.map((l) => lackInWords(l.path)).join('; '),
        })
    }
  },
  examples: {
    clean: [
      described({ '@type': 'WebSite', name: 'x', url: 'https://site.example/' }),
      described({
        '@type': 'FAQPage',
        mainEntity: { '@type': 'Question', name: 'x', acceptedAnswer: { '@type': 'Answer', text: 'y' } },
      }),
      described({ '@type': 'Thing', name: 'x' }),
    ],
    marked: [
      {
        html: described({ '@type': 'Course', name: 'x', description: 'y' }),
        at: '{"@context"',
        says: /Course: recommended but missing: provider\./,
      },
      {
        html: described({ '@type': 'VideoObject', name: 'x', thumbnailUrl: '/a', uploadDate: '2026-01-01' }),
        says: /description; content URL or embed URL; duration\./,
      },
      {
        html: described({
          '@type': 'Article',
          headline: 'x',
          image: '/a',
          datePublished: '2026',
          dateModified: '2026',
          author: { '@type': 'Person', name: 'y' },
        }),
        at: '{"@type":"Person"',
        says: /URL of the author\./,
      },
    ],
  },
})
