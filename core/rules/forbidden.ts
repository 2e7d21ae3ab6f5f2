import { descriptionOf, titleOf, type PageFacts, type Place } from '../page/facts.ts'
import { forbiddenIn } from '../wording/forbidden.ts'
import { rule, type PageRule } from './rule.ts'

/** A rule against the house's forbidden words, for one of the two wordings of a result. */
export function forbiddenWords(family: 'title' | 'description', examples: PageRule['examples']): PageRule {
  const wording = (page: PageFacts): { text: string; place: Place } | null => {
    const found = family === 'title' ? titleOf(page) : descriptionOf(page)
    return found && { text: 'text' in found ? found.text : found.content, place: found }
  }
  return rule({
    id: `${family}-forbidden`,
    family,
    severity: 'nit',
    sign: 'too-much',
    name: `Word in the ${family} that the house avoids`,
    basis: 'the house’s list of forbidden words',
    why: 'The house has decided against these words.',
    mend: 'Say it in the house’s words.',
    needs: [family],
    message: ({ words }) => `The ${family} contains ${words}; the house avoids such words.`,
    check({ page, style }, mark) {
      const found = wording(page)
      const words = found ? forbiddenIn(found.text, style.forbiddenWords) : []
      if (words.length > 0) mark(found!.place, { words: words.map((w) => `“${w}”`).join(', ') })
    },
    examples,
  })
}
