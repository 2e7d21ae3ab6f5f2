/**
 * Where a keyword stands in a text: NFC, lower case, stemmed in the page's language, stop words dropped; all stems
 * of the keyword within n + 3 consecutive words, in any order (common practice, no source).
 */
import { eachWord, eachWordThatBegins, languageOf, wordsBetween, wordsOf } from './stem.ts'

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

/** A word of a text with one of a keyword's stems, and where it is, in UTF-16 units. */
export interface Hit {
  stem: string
  /** Its number among the words of the text: of those between hits that are far apart, only as many are counted as say so. */
  index: number
  start: number
  end: number
}

/** So many consecutive words all of a keyword's stand in. */
const windowOf = (keyword: Keyword) => keyword.stems.length + 3

/** All words of a text that are forms of one of a keyword's words, in order. An empty keyword has none. */
export function hitsOf(text: string, keyword: Keyword): Hit[] {
  if (keyword.stems.length === 0 || text === '') return []
  const language = languageOf(keyword.lang)
  const wanted = new Set(keyword.stems)
  const firsts = language.keepsFirst ? firstLetters(keyword.stems) : null
  const hits: Hit[] = []
  const look = (start: number, end: number) => {
    const stem = language.stemAsWritten(text.slice(start, end))
    if (!wanted.has(stem)) return
    const before = hits.at(-1)
    const index = before ? before.index + 1 + wordsBetween(text, before.end, start, windowOf(keyword)) : 0
    hits.push({ stem, index, start, end })
  }
  if (firsts) eachWordThatBegins(firsts, text, look)
  else eachWord(text, look)
  return hits
}

/** Matches among hits in one text, that do not overlap, in order. */
export function matchesAmong(hits: readonly Hit[], keyword: Keyword): Match[] {
  const n = keyword.stems.length
  const matches: Match[] = []
  let i = 0
  while (i < hits.length) {
    const inWindow = new Map<string, Hit>()
    for (
      let j = i;
      j < hits.length && hits[j]!.index < hits[i]!.index + windowOf(keyword) && inWindow.size < n;
      j++
    )
      if (!inWindow.has(hits[j]!.stem)) inWindow.set(hits[j]!.stem, hits[j]!)
    if (inWindow.size < n) {
      i++
      continue
    }
    const inOrder = [...inWindow.values()].sort((a, b) => a.index - b.index)
    const places = inOrder.map(({ start, end }) => ({ start, end }))
    matches.push({ start: places[0]!.start, end: places.at(-1)!.end, words: places })
    while (i < hits.length && hits[i]!.index <= inOrder.at(-1)!.index) i++
  }
  return matches
}

/** Matches in a text that do not overlap, in order. An empty keyword has none. */
export const findKeyword = (text: string, keyword: Keyword): Match[] =>
  matchesAmong(hitsOf(text, keyword), keyword)

export const hasKeyword = (text: string, keyword: Keyword): boolean => findKeyword(text, keyword).length > 0

/** What a page should be found for. */
export interface Keywords {
  primary: string
  secondary: string[]
}
