/**
 * Where a keyword stands in a text: NFC, lower case, stemmed in the page's language, stop words dropped; all stems
 * of the keyword within n + 3 consecutive words, in any order (common practice, no source).
 */
import { eachWord, languageOf, wordsOf } from './stem.ts'

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

/** The ASCII characters that words with these stems begin with, each 1; null where it cannot be told. */
function firstLetters(stems: string[]): Uint8Array | null {
  const firsts = new Uint8Array(128)
  for (const stem of stems) {
    // A stem may have lost its accents.
    const first = stem.normalize('NFD')[0]!
    if (first >= '\x80') return null
    for (const letter of [first.toLowerCase(), first.toUpperCase()]) firsts[letter.charCodeAt(0)] = 1
  }
  return firsts
}

/** Matches that do not overlap, in order. An empty keyword has none. */
export function findKeyword(text: string, keyword: Keyword): Match[] {
  const n = keyword.stems.length
  if (n === 0 || text === '') return []
  const language = languageOf(keyword.lang)
  const wanted = new Set(keyword.stems)
  const firsts = language.keepsFirst ? firstLetters(keyword.stems) : null
  const hits: { stem: string; index: number; start: number; end: number }[] = []
  const look = (start: number, end: number, index: number) => {
    const stem = language.stemAsWritten(text.slice(start, end))
    if (wanted.has(stem)) hits.push({ stem, index, start, end })
  }
  // Most words are told apart by their first letter, without being looked at further.
  eachWord(text, look, firsts)
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
