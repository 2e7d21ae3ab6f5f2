import { descriptionOf } from '../../page/facts.ts'
import { firstWords } from '../../page/words.ts'
import { rule } from '../rule.ts'

/** No meta description, or an empty one. */
export const descriptionMissing = rule({
  id: 'description-missing',
  family: 'description',
  severity: 'flaw',
  sign: 'missing',
  name: 'No meta description',
  basis: 'common practice, no source',
  why: 'Without one, results show a passage from the page that nobody chose.',
  mend: 'Write a sentence or two on what the page offers, and to whom.',
  needs: ['description'],
  message: ({ empty, shown }) =>
    `${empty ? 'The meta description is empty' : 'There is no meta description'}${shown ? `; a passage such as “${shown} …” would be shown instead` : ''}.`,
  check({ page }, mark) {
    const description = descriptionOf(page)
    if (description && description.content !== '') return
    const paragraph = page.main.text.split('\n').find((line) => line.length > 60) ?? ''
    mark(description, {
      empty: description !== null,
      shown: paragraph ? firstWords(paragraph, 12).trim() : null,
    })
  },
  examples: {
    clean: ['<meta name="description" content="Take the boat.">', '<META NAME=Description CONTENT="x">'],
    marked: [
      { html: '<title>x</title>', at: null, says: /There is no meta description\.$/ },
      { html: '<meta name="description" content="  ">', at: '<meta', says: /is empty/ },
      {
        html: '<main><p>Two rooms, one stove and the sea on three sides, let by the week from Saturday.</p></main>',
        says: /“Two rooms, one stove/,
      },
      { html: '<meta property="og:description" content="Take the boat">', says: /no meta description/ },
    ],
  },
})
