import { descriptionOf } from '../../page/read/facts.ts'
import { firstWords } from '../../words/count-words.ts'
import { passageFor } from '../../wording/shown-instead.ts'
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
  check({ page, primary, placed }, mark) {
    const description = descriptionOf(page)
    if (description && description.content !== '') return
    // Where the text does not have the keyword, no paragraph does.
    const inText = placed()
    const passage = passageFor(page, inText?.matches ? primary : null, inText?.hits)
    mark(description, {
      empty: description !== null,
      shown: passage && firstWords(passage.text, 12).trim(),
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
      {
        html: '<main><h1>Rooms by the landing stage, let by the week all year</h1><p>Two rooms, one stove and the sea on three sides.</p></main>',
        says: /“Two rooms, one stove/,
      },
      { html: '<meta property="og:description" content="Take the boat">', says: /no meta description/ },
    ],
  },
})
