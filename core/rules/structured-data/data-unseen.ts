import { toBeSeen } from '../../structured-data/about.ts'
import { dataOf } from '../../structured-data/read.ts'
import { schemaTypes } from '../../structured-data/page-data.ts'
import { isDateSeen, isNumberSeen, isTextSeen } from '../../structured-data/visible.ts'
import { inWords } from '../../structured-data/words.ts'
import { rule } from '../rule.ts'
import { described } from './example.ts'

/** The data says something that the page does not. */
export const dataUnseen = rule({
  id: 'data-unseen',
  family: 'data',
  severity: 'flaw',
  sign: 'alike',
  name: 'The data says what the page does not',
  basis: 'the general guidelines for structured data, from memory',
  why: 'Data must say what readers can see. If it says more, all of the page’s data may be ignored.',
  mend: 'Say it on the page, or remove it from the data.',
  needs: ['data', 'text'],
  message: ({ property, of, value }) =>
    `“${property}”${of ? ` of the ${of}` : ''} is “${value}”, which the page’s visible text does not say.`,
  check({ page }, mark) {
    if (page.data.length === 0) return
    for (const { thing, property, as, value, start, end } of toBeSeen(dataOf(page))) {
      const seen =
        as === 'date'
          ? isDateSeen(page, value)
          : as === 'number'
            ? isNumberSeen(page, value)
            : isTextSeen(page, value)
      if (!seen)
        mark(
          { start, end },
          {
            property: property.name,
            // Where it is not the page's own thing: whose.
            of: thing.within ? inWords(schemaTypes(thing)[0] ?? '') : null,
            value: value.length > 80 ? value.slice(0, 80) + '…' : value,
          },
        )
    }
  },
  examples: {
    clean: [
      described(
        { '@type': 'Event', name: 'Lamp lighting', startDate: '2026-12-01T19:30' },
        '<h1>Lamp&nbsp;lighting</h1><p>Tuesday, 1st December</p>',
      ),
      described(
        { '@type': 'Product', name: 'Lamp', offers: { '@type': 'Offer', price: '1250.00' } },
        '<h1>Lamp</h1><p>£1,250',
      ),
      described(
        {
          '@type': 'FAQPage',
          mainEntity: {
            '@type': 'Question',
            name: 'When?',
            acceptedAnswer: { '@type': 'Answer', text: '<p>At <b>noon</b> &amp; six.</p>' },
          },
        },
        '<h2>When?</h2><p>At noon &amp; six.',
      ),
      described(
        { '@type': 'Article', headline: 'Lenses', author: { '@type': 'Person', name: 'Nobody here' } },
        '<h1>Lenses</h1>',
      ),
      described({ '@type': 'Article', datePublished: '2026-03-12' }, '<p>12/03/2026'),
    ],
    marked: [
      {
        html: described({ '@type': 'Event', name: 'Lamp lighting' }, '<h1>Storm watch</h1>'),
        at: '"Lamp lighting"',
        says: /“name” is “Lamp lighting”, which the page/,
      },
      {
        html: described(
          { '@type': 'Product', name: 'Lamp', offers: { '@type': 'Offer', price: 12 } },
          '<h1>Lamp</h1><p>£120',
        ),
        at: '12}',
        says: /“price” of the offer is “12”/,
      },
      {
        html: described({ '@type': 'Article', datePublished: '2026-03-12' }, '<p>13 March 2026'),
        says: /“datePublished”/,
      },
      {
        html: described(
          {
            '@type': 'FAQPage',
            mainEntity: {
              '@type': 'Question',
              name: 'When?',
              acceptedAnswer: { '@type': 'Answer', text: 'Never.' },
            },
          },
          '<h2>When?</h2>',
        ),
        at: '"Never."',
        says: /“text” of the answer is “Never\.”/,
      },
      {
        html: described(
          {
            '@type': 'Recipe',
            name: 'Cake',
            aggregateRating: { '@type': 'AggregateRating', ratingValue: 4.8 },
          },
          '<h1>Cake</h1><p hidden>4.8',
        ),
        says: /“ratingValue” of the aggregate rating is “4\.8”/,
      },
    ],
  },
})
