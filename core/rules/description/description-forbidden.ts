import { descriptionOf } from '../../page/facts.ts'
import { forbiddenIn } from '../../wording/forbidden.ts'
import { rule } from '../rule.ts'

/** A word that the house does not use. */
export const descriptionForbidden = rule({
  id: 'description-forbidden',
  family: 'description',
  severity: 'nit',
  sign: 'too-much',
  name: 'A word that the house does not use',
  basis: 'the house’s list of forbidden words',
  why: 'The house has decided against it.',
  mend: 'Say it in the house’s words.',
  needs: ['description'],
  message: ({ words }) => `The house does not write descriptions with ${words}.`,
  check({ page, style }, mark) {
    const found = descriptionOf(page)
    const words = found ? forbiddenIn(found.content, style.forbiddenWords) : []
    if (words.length > 0) mark(found, { words: words.map((w) => `“${w}”`).join(', ') })
  },
  examples: {
    clean: [
      '<meta name=description content="A cheap lamp.">',
      { html: '<meta name=description content="Cheapness.">', style: { forbiddenWords: ['cheap'] } },
    ],
    marked: [
      {
        html: '<meta name=description content="Cheap lamps, click here.">',
        style: { forbiddenWords: ['cheap', 'click here'] },
        says: /“cheap”, “click here”/,
      },
    ],
  },
})
