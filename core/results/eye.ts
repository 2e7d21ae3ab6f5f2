/**
 * A model of where a reader's eye lands in a list of results. It rests on what is commonly said of reading result lists (from
 * memory, no source): the higher the more, the first line more than the second, the beginning of a line more than its
 * end, bold words and numbers more than others, and what all neighbours say less. It measures nobody.
 */
import { eachWord, languageOf } from '../words/stem.ts'

/** How much each term weighs; a house style may say otherwise. */
export interface EyeWeights {
  /** What is left of the weight from one place to the next below. */
  place: number
  /** The description's share of what the title gets. */
  description: number
  /** What is left of the weight from one line to the next. */
  line: number
  /** What is left at the end of a line of what its beginning gets. */
  along: number
  /** How many times as much a bold word, or a number, gets. */
  bold: number
  number: number
  /** What is left of a word that both neighbours have too. */
  common: number
}
export const defaultEye: EyeWeights = {
  place: 0.8,
  description: 0.35,
  line: 0.7,
  along: 0.4,
  bold: 1.6,
  number: 1.5,
  common: 0.6,
}

/** What each weight is, in words, and between what it can lie: it stays a model in which higher and earlier is more. */
export const eyeExplained: { key: keyof EyeWeights; name: string; least: number; most: number }[] = [
  { key: 'place', name: 'Of what one place gets, the next below gets', least: 0.01, most: 1 },
  { key: 'description', name: 'Of what a title gets, its description gets', least: 0.01, most: 1 },
  { key: 'line', name: 'Of what one line gets, the next gets', least: 0.01, most: 1 },
  { key: 'along', name: 'Of what a line’s beginning gets, its end gets', least: 0.01, most: 1 },
  { key: 'bold', name: 'Of what another word gets, a bold word gets', least: 1, most: 10 },
  { key: 'number', name: 'Of what another word gets, a number gets', least: 1, most: 10 },
  {
    key: 'common',
    name: 'Of what another word gets, one that both neighbours have gets',
    least: 0.01,
    most: 1,
  },
]

export interface EyeLine {
  text: string
  role: 'title' | 'description'
  /** Places of words in bold, UTF-16 units of the line. */
  bold: readonly { start: number; end: number }[]
}
export interface EyeWord {
  start: number
  end: number
  /** Its share of all that is looked at; the shares of all words of all results sum to 1. */
  share: number
}

/** For each result, each of its lines, each word. `lang` folds the words of neighbours. */
export function whereTheEyeLands(
  results: readonly (readonly EyeLine[])[],
  lang: string | null,
  weights: EyeWeights = defaultEye,
): EyeWord[][][] {
  const { stemAsWritten } = languageOf(lang)
  const stems = results.map((lines) => {
    const stemsHere = new Set<string>()
    for (const { text } of lines)
      eachWord(text, (start, end) => stemsHere.add(stemAsWritten(text.slice(start, end))))
    return stemsHere
  })
  const all = results.map((lines, place) =>
    lines.map(({ text, role, bold }, index) => {
      const words: EyeWord[] = []
      const first = lines.findIndex((line) => line.role === role)
      const ofLine =
        weights.place ** place *
        (role === 'description' ? weights.description : 1) *
        weights.line ** (index - first)
      eachWord(text, (start, end) => {
        const word = text.slice(start, end)
        const stem = stemAsWritten(word)
        const neighbours = [stems[place - 1], stems[place + 1]].filter((s) => s !== undefined)
        const isCommon = neighbours.length > 0 && neighbours.every((s) => s.has(stem))
        const isBold = bold.some((b) => b.start < end && start < b.end)
        const along = 1 - ((1 - weights.along) * start) / Math.max(1, text.length)
        words.push({
          start,
          end,
          share:
            ofLine *
            along *
            (isBold ? weights.bold : 1) *
            (/\p{N}/u.test(word) ? weights.number : 1) *
            (isCommon ? weights.common : 1),
        })
      })
      return words
    }),
  )
  let sum = 0
  for (const result of all) for (const line of result) for (const word of line) sum += word.share
  if (sum > 0) for (const result of all) for (const line of result) for (const word of line) word.share /= sum
  return all
}
