/**
 * Where a keyword stands in a text: NFC, lower case, stemmed in the page's language, stop words dropped; all stems
 * of the keyword within n + 3 consecutive words, in any order (shared/rules.md, "Terms").
 */
import { languageOf, wordsOf } from './stem.ts'

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

/** Matches that do not overlap, in order. An empty keyword has none. */
export function findKeyword(text: string, keyword: Keyword): Match[] {
  const n = keyword.stems.length
  if (n === 0 || text === '') return []
  const language = languageOf(keyword.lang)
  const wanted = new Set(keyword.stems)
  const words = wordsOf(text)
  const hits: { stem: string; index: number }[] = []
  words.forEach((w, index) => {
    const stem = language.stem(w.word)
    if (wanted.has(stem)) hits.push({ stem, index })
  })
  const matches: Match[] = []
  let i = 0
  while (i < hits.length) {
    const found = new Map<string, number>()
    for (let j = i; j < hits.length && hits[j]!.index < hits[i]!.index + n + 3 && found.size < n; j++)
      if (!found.has(hits[j]!.stem)) found.set(hits[j]!.stem, hits[j]!.index)
    if (found.size < n) {
      i++
      continue
    }
    const indexes = [...found.values()].sort((a, b) => a - b)
    const places = indexes.map((k) => ({ start: words[k]!.start, end: words[k]!.end }))
    matches.push({ start: places[0]!.start, end: places.at(-1)!.end, words: places })
    while (i < hits.length && hits[i]!.index <= indexes.at(-1)!) i++
  }
  return matches
}

export const hasKeyword = (text: string, keyword: Keyword): boolean => findKeyword(text, keyword).length > 0

/** What a page should be found for. */
export interface Keywords {
  primary: string
  secondary: string[]
}
