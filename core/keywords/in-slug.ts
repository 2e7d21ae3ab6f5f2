/** Whether an address says something of a phrase. */
import { languageOf, wordsOf } from '../words/stem.ts'
import type { Keyword } from '../words/match.ts'
import { plainWords } from '../wording/slug.ts'

/** Whether a form of any word of the phrase is in any segment, as it is written or without its accents. */
export function isInSegments(segments: readonly string[], keyword: Keyword): boolean {
  const { lang, stems } = keyword
  const language = languageOf(lang)
  const stemsOf = (text: string) => wordsOf(text.replace(/[_.+]/g, ' ')).map((w) => language.stem(w.word))
  const wanted = new Set([...stems, ...stemsOf(plainWords(stems.join(' '), lang))])
  const path = segments.join(' ')
  return [...stemsOf(path), ...stemsOf(plainWords(path, lang))].some((stem) => wanted.has(stem))
}
