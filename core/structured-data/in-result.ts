/** What a page's eligible data could add to its result; engines decide whether they show any of it. */
import type { PageFacts } from '../page/read/facts.ts'
import { featuresOf, type Addition } from './features.ts'
import { textOf, thingsUnder } from './page-data.ts'
import { dataOf } from './read.ts'
import { textOfMarkup } from './visible.ts'
import { lackInWords } from './words.ts'

export interface InResult {
  /** By what the data has that a feature may show: whether it can now, or what is missing first. */
  adds: Partial<
    Record<Addition, { eligible: boolean; feature: string; missing: string[]; note: string | null }>
  >
  /** Questions with their answers as plain text, the first few. */
  questions: { question: string; answer: string }[]
}
/** So many are shown at most; from memory. */
const MOST_QUESTIONS = 3

export function inResult(page: PageFacts): InResult {
  const out: InResult = { adds: {}, questions: [] }
  if (page.data.length === 0) return out
  const data = dataOf(page)
  for (const { feature, thing, eligible, missing } of featuresOf(data)) {
    if (feature.retired?.scope === 'gone') continue
    for (const addition of feature.adds) {
      const before = out.adds[addition]
      if (before?.eligible) continue
      out.adds[addition] = {
        eligible,
        feature: feature.name,
        missing: missing.map((l) => lackInWords(l.path)),
        note: feature.retired?.now ?? null,
      }
    }
    if (eligible && feature.adds.includes('questions'))
      for (const question of thingsUnder(thing, 'mainEntity', data)) {
        const asked = textOf(question, 'name', data)
        const [answer] = [
          ...thingsUnder(question, 'acceptedAnswer', data),
          ...thingsUnder(question, 'suggestedAnswer', data),
        ]
        const said = answer && textOf(answer, 'text', data)
        if (asked && said && out.questions.length < MOST_QUESTIONS)
          out.questions.push({ question: asked, answer: textOfMarkup(said).replace(/\s+/g, ' ').trim() })
      }
  }
  return out
}
