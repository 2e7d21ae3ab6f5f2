import { descriptionOf } from '../../page/read/facts.ts'
import { hasKeyword } from '../../words/match.ts'
import { rule } from '../rule.ts'

/** The keyword is not in the description. */
export const descriptionKeyword = rule({
  id: 'description-keyword',
  family: 'description',
  severity: 'flaw',
  sign: 'missing',
  name: 'The keyword is not in the description',
  basis: 'common practice, no source: any word form, any order within 3 words more than the keyword has',
  why: 'Results show the words that were searched in bold: without them nothing stands out.',
  mend: 'Work the words in where they read naturally.',
  needs: ['description'],
  message: ({ keyword }) => `“${keyword}” is not in the description, in any of its word forms.`,
  check({ page, primary }, mark) {
    const description = descriptionOf(page)
    if (!primary || !description?.content || hasKeyword(description.content, primary)) return
    mark(description, { keyword: primary.text })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en>' + '<meta name=description content="We light the lamps every evening.">',
        keywords: { primary: 'lamp lighting', secondary: [] },
      },
      '<meta name=description content="No keyword.">',
    ],
    marked: [
      {
        html: '<html lang=en>' + '<meta name=description content="Climb the tower.">',
        keywords: { primary: 'lamp lighting', secondary: [] },
        at: '<meta',
        says: /“lamp lighting” is not in the description/,
      },
    ],
  },
})
