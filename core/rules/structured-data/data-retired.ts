import { featuresOf } from '../../structured-data/features.ts'
import { dataOf } from '../../structured-data/read.ts'
import { rule } from '../rule.ts'
import { opening } from './data-edit.ts'
import { described } from './example.ts'

/** Data for a feature that results show no longer, or for few sites. */
export const dataRetired = rule({
  id: 'data-retired',
  family: 'data',
  severity: 'nit',
  sign: 'too-much',
  name: 'Feature no longer shown',
  basis: 'the features’ public documentation, from memory (core/structured-data/features.json)',
  why: 'It does no harm and changes nothing in results, but it must be kept in step with the page.',
  mend: 'Keep it if something else reads it; otherwise remove it when you next change the page.',
  needs: ['data'],
  message: ({ feature, since, now }) => `${feature}: ${now} (since ${since})`,
  check({ page }, mark) {
    for (const { feature, thing } of featuresOf(dataOf(page)))
      if (feature.retired)
        mark(opening(thing), {
          feature: feature.name,
          since: feature.retired.since,
          now: feature.retired.now,
        })
  },
  examples: {
    clean: [
      described({ '@type': 'Event', name: 'x' }),
      described({ '@type': 'Recipe', name: 'x' }),
      described({ '@type': 'WebPage' }),
    ],
    marked: [
      {
        html: described({ '@type': 'FAQPage' }),
        at: '{"@context"',
        says: /Frequent questions: Shown for well-known government and health sites alone\. \(since 2023-08\)/,
      },
      { html: described({ '@type': 'HowTo', name: 'x' }), says: /How-to: No longer shown/ },
      {
        html: described({ '@type': 'WebSite', potentialAction: { '@type': 'SearchAction' } }),
        at: '{"@type":"SearchAction"',
        says: /Search box/,
      },
    ],
  },
})
