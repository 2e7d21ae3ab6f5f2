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

/** Languages whose stemmers change how a word begins, or leave nothing of a short one. */
const PREFIXED = new Set(['ar', 'cs', 'ga', 'ta'])

/** The part of a language tag that chooses a stemmer: `en-GB` → `en`; English for a page that names none. */
export const primaryLanguage = (lang: string | null): string =>
  /^[a-z]{2,3}/i.exec(lang ?? '')?.[0].toLowerCase() ?? 'en'

interface Language {
  stem(word: string): string
  /** The same of a word as it stands in a text, before it is folded. */
  stemAsWritten(word: string): string
  isStopWord(word: string): boolean
  /** Whether a word and its stem begin with the same letter, accents aside; not where prefixes are taken off. */
  keepsFirst: boolean
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
  const stem = remembered((word) => (stemmer ? stemmer.stem(word) : word))
  const language: Language = {
    keepsFirst: !PREFIXED.has(tag),
    stem,
    stemAsWritten: remembered((word) => stem(foldWord(word))),
    // The lists leave single letters out: “a”, “y”, “à”.
    isStopWord: (word) => stops.has(word) || (stops.size > 0 && /^\p{L}$/u.test(word)),
  }
  languages.set(tag, language)
  return language
}

const MOST_REMEMBERED = 100_000
/** Stems of words, each found once. */
function remembered(stemOf: (word: string) => string): (word: string) => string {
  const stems = new Map<string, string>()
  return (word) => {
    let stem = stems.get(word)
    if (stem === undefined) {
      stem = stemOf(word)
      if (stems.size > MOST_REMEMBERED) stems.clear()
      stems.set(word, stem)
    }
    return stem
  }
}

/** A word of a text with its place in it, in UTF-16 units; `word` is in NFC and lower case. */
export interface Word {
  word: string
  start: number
  end: number
}

const OTHER = 0
const LETTER = 1
const DIGIT = 2
/** What each UTF-16 unit is: letters and marks, digits and other numbers; 255 where it was not asked yet. */
const classes = new Uint8Array(65_536).fill(255)
function classOf(text: string, i: number): number {
  const unit = text.charCodeAt(i)
  // Half of a pair: asked with its other half.
  if (unit >= 0xd800 && unit <= 0xdfff) {
    const pair =
      unit < 0xdc00
        ? text.slice(i, i + 2)
        : /^[\ud800-\udbff]$/.test(text[i - 1] ?? '')
          ? text.slice(i - 1, i + 1)
          : ''
    return /^[\p{L}\p{M}]$/u.test(pair) ? LETTER : /^\p{N}$/u.test(pair) ? DIGIT : OTHER
  }
  let known = classes[unit]!
  if (known === 255) {
    const c = text[i]!
    known = classes[unit] = /[\p{L}\p{M}]/u.test(c) ? LETTER : /\p{N}/u.test(c) ? DIGIT : OTHER
  }
  return known
}

/**
 * Calls back with the place of each word: runs of letters and digits, an apostrophe within a word kept. Nothing is
 * allocated, so that a whole page can be looked through at every keystroke.
 */
export function eachWord(text: string, call: (start: number, end: number) => void): void {
  let i = 0
  while (i < text.length) {
    if (classIn(text, i) === OTHER) {
      i++
      continue
    }
    const end = wordEnd(text, i)
    call(i, end)
    i = end
  }
}

/**
 * The same of the words that begin with an ASCII character whose place in `firsts` is 1, or beyond ASCII. Others are
 * told apart by that character alone.
 */
export function eachWordThatBegins(
  firsts: Uint8Array,
  text: string,
  call: (start: number, end: number) => void,
): void {
  /** Where the last word that was looked at ended. */
  let from = 0
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i)
    if (unit < 128 ? firsts[unit] === 0 : classIn(text, i) === OTHER) continue
    // No word begins with a letter that stands behind a letter or a digit: most that are met do.
    if (i > from && isLetter(unit) && isLetterOrDigit(text.charCodeAt(i - 1))) continue
    // It may stand within a word: back to where that begins.
    let start = i
    while (start > from && continuesWord(text, start - 1)) start--
    while (start <= i) {
      if (classIn(text, start) === OTHER) {
        start++
        continue
      }
      const end = wordEnd(text, start)
      const first = text.charCodeAt(start)
      if (first >= 128 || firsts[first] === 1) call(start, end)
      start = end
    }
    from = start
    i = start - 1
  }
}

const isLetter = (unit: number) => (unit | 32) >= 97 && (unit | 32) <= 122
const isLetterOrDigit = (unit: number) => isLetter(unit) || (unit >= 48 && unit <= 57)

/** How many words stand between the end of one and the beginning of another, at most `most`. */
export function wordsBetween(text: string, from: number, to: number, most: number): number {
  let count = 0
  for (let i = from; i < to && count < most;)
    if (classIn(text, i) === OTHER) i++
    else {
      count++
      i = wordEnd(text, i)
    }
  return count
}

/** Where the word that begins at a place ends. */
function wordEnd(text: string, start: number): number {
  const { length } = text
  let i = start + 1
  while (i < length && classIn(text, i) !== OTHER) i++
  // An apostrophe goes on with letters alone.
  while (i + 1 < length && isApostrophe(text.charCodeAt(i)) && classIn(text, i + 1) === LETTER) {
    i += 2
    while (i < length && classIn(text, i) === LETTER) i++
  }
  return i
}
const continuesWord = (text: string, i: number): boolean =>
  classIn(text, i) !== OTHER || isApostrophe(text.charCodeAt(i))
function classIn(text: string, i: number): number {
  const known = classes[text.charCodeAt(i)]!
  return known === 255 ? classOf(text, i) : known
}
const isApostrophe = (unit: number) => unit === 0x27 || unit === 0x2019

/** A word as it is compared: NFC, lower case, no English genitive. */
export const foldWord = (word: string): string =>
  word.normalize('NFC').toLowerCase().replace(/’/g, "'").replace(/'s$/, '')

/** Words of a text with their places. */
export function wordsOf(text: string): Word[] {
  const words: Word[] = []
  eachWord(text, (start, end) => words.push({ word: foldWord(text.slice(start, end)), start, end }))
  return words
}
