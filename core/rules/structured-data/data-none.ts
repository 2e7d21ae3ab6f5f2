import { isIndexable } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'
import { described } from './example.ts'

/** A page that may be found and describes nothing. */
export const dataNone = rule({
  id: 'data-none',
  family: 'data',
  severity: 'nit',
  sign: 'missing',
  name: 'No structured data',
  basis: 'common practice, no source',
  why: 'Structured data tells machines what the page is about; results can then show a date, a price or a breadcrumb.',
  mend: 'Pick what the page is about, on the Data sheet.',
  needs: ['data', 'head'],
  message: () => 'The page has no structured data; at least what it is about should be described.',
  check({ page }, mark) {
    if (isIndexable(page) && page.data.length === 0 && !page.inline.microdata && !page.inline.rdfa)
      mark(null, {})
  },
  examples: {
    clean: [
      described({ '@type': 'Thing', name: 'x' }),
      '<meta name=robots content=noindex><p>x</p>',
      '<div itemscope itemtype="https://schema.org/Event"><b itemprop=name>x</b></div>',
      '<div vocab="https://schema.org/" typeof="Event"><b property=name>x</b></div>',
    ],
    marked: [
      { html: '<title>x</title><p>y</p>', at: null, says: /has no structured data/ },
      { html: '<script>{"@type":"Event"}</script>', says: /has no structured data/ },
      { html: '<meta property="og:type" content="article">', says: /has no structured data/ },
    ],
  },
})
