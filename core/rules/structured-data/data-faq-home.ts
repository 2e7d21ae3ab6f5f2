import { sameAddress } from '../../addresses/addresses.ts'
import { schemaTypes } from '../../structured-data/page-data.ts'
import { dataOf } from '../../structured-data/read.ts'
import { isA } from '../../structured-data/vocabulary.ts'
import { rule } from '../rule.ts'
import { opening } from './data-edit.ts'
import { described } from './example.ts'

/** Frequent questions described on the home page. */
export const dataFaqHome = rule({
  id: 'data-faq-home',
  family: 'data',
  severity: 'nit',
  sign: 'order',
  name: 'Frequent questions on the home page',
  basis: 'common practice, no source',
  why: 'Questions help an inner page that already ranks for its keyword; the home page is about the site as a whole.',
  mend: 'Move the questions, and the data that describes them, to the page they are about.',
  needs: ['data'],
  message: () =>
    'The home page describes frequent questions; an inner page that already ranks is the place for them.',
  check({ page, site }, mark) {
    if (page.data.length === 0 || !sameAddress(page.url, site.base)) return
    const thing = dataOf(page).things.find((t) => schemaTypes(t).some((type) => isA(type, 'FAQPage')))
    if (thing) mark(opening(thing), {})
  },
  examples: {
    clean: [
      described({ '@type': 'FAQPage' }),
      { html: described({ '@type': 'WebSite', name: 'x' }), path: 'index.html' },
    ],
    marked: [
      {
        html: described({ '@type': 'FAQPage' }),
        path: 'index.html',
        at: '{"@context"',
        says: /The home page describes frequent questions/,
      },
    ],
  },
})
