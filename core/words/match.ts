/**
 * Where a keyword stands in a text: NFC, lower case, stemmed in the page's language, stop words dropped; all stems
 * of the keyword within n + 3 consecutive words, in any order (common practice, no source).
 */
import { eachWord, foldWord, languageOf, wordsOf } from './stem.ts'

export interface Keyword {
  text: string
  stems: string[]
  lang: string | null
}

/** A keyword ready for matching. One made of stop words only keeps them all. */
export function compileKeyword(text: string, lang: string | null): Keyword {
  const language = languageOf(lang)
  const words = wordsOf(text).map((w) => w.word)
  const content = words.filter((w) => !language.isStopWord(w))
  return {
    text,
    lang,
    stems: [...new Set((content.length > 0 ? content : words).map((w) => language.stem(w)))],
  }
}

/** A match, in UTF-16 units of the text; `words` are the places of the words that matched. */
export interface Match {
  start: number
  end: number
  words: { start: number; end: number }[]
}

/** The letters that words with these stems begin with, ASCII in lower case; a stem may have lost its accents. */
function firstLetters(stems: string[]): Set<number> | null {
  const letters = new Set<number>()
  for (const stem of stems) {
    const unit = stem.normalize('NFD').charCodeAt(0) | 32
    if (unit >= 128) return null
    letters.add(unit)
  }
  return letters
}

/** Matches that do not overlap, in order. An empty keyword has none. */
export function findKeyword(text: string, keyword: Keyword): Match[] {
  const n = keyword.stems.length
  if (n === 0 || text === '') return []
  const language = languageOf(keyword.lang)
  const wanted = new Set(keyword.stems)
  const firsts = language.keepsFirst ? firstLetters(keyword.stems) : null
  const hits: { stem: string; index: number; start: number; end: number }[] = []
  let index = 0
  eachWord(text, (start, end) => {
    const at = index++
    const unit = text.charCodeAt(start)
    // Most words are told apart by their first letter, without being looked at further.
    if (firsts && unit < 128 && !firsts.has(unit | 32)) return
    const stem = language.stem(foldWord(text.slice(start, end)))
    if (wanted.has(stem)) hits.push({ stem, index: at, start, end })
  })
  const matches: Match[] = []
  let i = 0
  while (i < hits.length) {
    const found = new Map<string, (typeof hits)[number]>()
    for (let j = i; j < hits.length && hits[j]!.index < hits[i]!.index + n + 3 && found.size < n; j++)
      if (!found.has(hits[j]!.stem)) found.set(hits[j]!.stem, hits[j]!)
    if (found.size < n) {
      i++
      continue
    }
    const inOrder = [...found.values()].sort((a, b) => a.index - b.index)
    const places = inOrder.map(({ start, end }) => ({ start, end }))
    matches.push({ start: places[0]!.start, end: places.at(-1)!.end, words: places })
    while (i < hits.length && hits[i]!.index <= inOrder.at(-1)!.index) i++
  }
  return matches
}

export const hasKeyword = (text: string, keyword: Keyword): boolean => findKeyword(text, keyword).length > 0

/** What a page should be found for. */
export interface Keywords {
  primary: string
  secondary: string[]
}
