/** Word forms: words of a text, their stems in the page's language (Snowball), and the language's stop words. */
import { stopwords as da } from '@orama/stopwords/danish'
import { stopwords as nl } from '@orama/stopwords/dutch'
import { stopwords as en } from '@orama/stopwords/english'
import { stopwords as fi } from '@orama/stopwords/finnish'
import { stopwords as fr } from '@orama/stopwords/french'
import { stopwords as de } from '@orama/stopwords/german'
import { stopwords as it } from '@orama/stopwords/italian'
import { stopwords as nb } from '@orama/stopwords/norwegian'
import { stopwords as pt } from '@orama/stopwords/portuguese'
import { stopwords as ru } from '@orama/stopwords/russian'
import { stopwords as es } from '@orama/stopwords/spanish'
import { stopwords as sv } from '@orama/stopwords/swedish'
import snowball, { type Stemmer } from 'snowball-stemmers'

const algorithms: Record<string, string> = {
  ar: 'arabic',
  ca: 'catalan',
  cs: 'czech',
  da: 'danish',
  de: 'german',
  en: 'english',
  es: 'spanish',
  eu: 'basque',
  fi: 'finnish',
  fr: 'french',
  ga: 'irish',
  hu: 'hungarian',
  hy: 'armenian',
  it: 'italian',
  nb: 'norwegian',
  nl: 'dutch',
  nn: 'norwegian',
  no: 'norwegian',
  pt: 'portuguese',
  ro: 'romanian',
  ru: 'russian',
  sl: 'slovene',
  sv: 'swedish',
  ta: 'tamil',
  tr: 'turkish',
}
const stopLists: Record<string, readonly string[]> = {
  da,
  de,
  en,
  es,
  fi,
  fr,
  it,
  nb,
  nl,
  nn: nb,
  no: nb,
  pt,
  ru,
  sv,
}

/** The part of a language tag that chooses a stemmer: `en-GB` → `en`; English for a page that names none. */
export const primaryLanguage = (lang: string | null): string =>
  /^[a-z]{2,3}/i.exec(lang ?? '')?.[0].toLowerCase() ?? 'en'

interface Language {
  stem(word: string): string
  isStopWord(word: string): boolean
}
const languages = new Map<string, Language>()

/** The stemmer and stop words of a language; words of a language without a stemmer are their own stems. */
export function languageOf(lang: string | null): Language {
  const tag = primaryLanguage(lang)
  const known = languages.get(tag)
  if (known) return known
  const algorithm = algorithms[tag]
  const stemmer: Stemmer | null = algorithm ? snowball.newStemmer(algorithm) : null
  const stops = new Set(stopLists[tag] ?? [])
  const memo = new Map<string, string>()
  const language: Language = {
    stem(word) {
      let stem = memo.get(word)
      if (stem === undefined) {
        stem = stemmer ? stemmer.stem(word) : word
        if (memo.size > 100_000) memo.clear()
        memo.set(word, stem)
      }
      return stem
    },
    // The lists leave single letters out: “a”, “y”, “à”.
    isStopWord: (word) => stops.has(word) || (stops.size > 0 && /^\p{L}$/u.test(word)),
  }
  languages.set(tag, language)
  return language
}

/** A word of a text with its place in it, in UTF-16 units; `word` is in NFC and lower case. */
export interface Word {
  word: string
  start: number
  end: number
}

const wordPattern = /[\p{L}\p{N}\p{M}]+(?:['’][\p{L}\p{M}]+)*/gu

/** Words of a text: runs of letters and digits, an apostrophe within a word kept. */
export function wordsOf(text: string): Word[] {
  const words: Word[] = []
  for (const m of text.matchAll(wordPattern))
    words.push({
      word: m[0].normalize('NFC').toLowerCase().replace(/’/g, "'").replace(/'s$/, ''),
      start: m.index,
      end: m.index + m[0].length,
    })
  return words
}
