import { descriptionOf, titleOf, type PageFacts, type Place } from '../page/read/facts.ts'
import { forbiddenIn } from '../wording/forbidden.ts'
import { rule, type PageRule } from './rule.ts'

/** A rule against the house's forbidden words, for one of the two wordings of a result. */
export function forbiddenWords(family: 'title' | 'description', examples: PageRule['examples']): PageRule {
  const wording = (page: PageFacts): { text: string; place: Place } | null => {
    const field = family === 'title' ? titleOf(page) : descriptionOf(page)
    return field && { text: 'text' in field ? field.text : field.content, place: field }
  }
  return rule({
    id: `${family}-forbidden`,
    family,
    severity: 'nit',
    sign: 'too-much',
    name: `Forbidden word in the ${family}`,
    basis: 'the house style’s list of forbidden words',
    why: 'The house style rules these words out.',
    mend: 'Use other words.',
    needs: [family],
    message: ({ words }) => `The ${family} contains ${words}, which the house style forbids.`,
    check({ page, style }, mark) {
      const field = wording(page)
      const words = field ? forbiddenIn(field.text, style.forbiddenWords) : []
      if (words.length > 0) mark(field!.place, { words: words.map((w) => `“${w}”`).join(', ') })
    },
    examples,
  })
}
