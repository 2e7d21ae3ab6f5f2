import { descriptionOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** A list of words for a description. */
export const descriptionList = rule({
  id: 'description-list',
  family: 'description',
  severity: 'nit',
  sign: 'order',
  name: 'List of words instead of a description',
  basis: 'common practice, no source: five fragments or more between commas, and no end of a sentence',
  why: 'Nobody reads a list of keywords, and search engines ignore it.',
  mend: 'Write a sentence that says what the page offers.',
  needs: ['description'],
  silences: ['description-unfinished'],
  message: ({ count }) => `${count} fragments separated by commas, and no sentence.`,
  check({ page }, mark) {
    const description = descriptionOf(page)
    const text = description?.content ?? ''
    const fragments = text.split(/[,、，;]/).filter((f) => f.trim() !== '')
    if (fragments.length >= 5 && !/[.!?…。！？]["”’)]*$/u.test(text))
      mark(description, { count: fragments.length })
  },
  examples: {
    clean: ['<meta name=description content="Lamps, oil, wicks, glass and brass: all that a light needs.">'],
    marked: [
      {
        html: '<meta name=description content="lamps, lanterns, oil, wicks, brass">',
        at: '<meta',
        says: /5 fragments separated by commas/,
      },
    ],
  },
})
