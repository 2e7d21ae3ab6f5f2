import { titleOf } from '../../page/facts.ts'
import { forbiddenIn } from '../../wording/forbidden.ts'
import { rule } from '../rule.ts'

/** A word that the house does not use. */
export const titleForbidden = rule({
  id: 'title-forbidden',
  family: 'title',
  severity: 'nit',
  sign: 'too-much',
  name: 'A word that the house does not use',
  basis: 'the house’s list of forbidden words',
  why: 'The house has decided against it.',
  mend: 'Say it in the house’s words.',
  needs: ['title'],
  message: ({ words }) => `The house does not write titles with ${words}.`,
  check({ page, style }, mark) {
    const found = titleOf(page)
    const words = found ? forbiddenIn(found.text, style.forbiddenWords) : []
    if (words.length > 0) mark(found, { words: words.map((w) => `“${w}”`).join(', ') })
  },
  examples: {
    clean: [
      '<title>A cheap lamp</title>',
      { html: '<title>Cheapness</title>', style: { forbiddenWords: ['cheap'] } },
    ],
    marked: [
      {
        html: '<title>Cheap lamps, click here</title>',
        style: { forbiddenWords: ['cheap', 'click here'] },
        says: /“cheap”, “click here”/,
      },
    ],
  },
})
