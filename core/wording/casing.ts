/**
 * Casing styles of titles in English. AP: The Associated Press Stylebook, "composition titles"; Chicago: The Chicago
 * Manual of Style, 17th edition, 8.158 (sentence style), 8.159 and 8.161 (headline style, hyphens). All from memory.
 * Which words are adverbs and infinitives is judged by lists and neighbours: a style by its rules, not a grammarian.
 */
import { placesOfPhrase } from '../strings.ts'
import {
  alsoConjunctions,
  alwaysCapital,
  articles,
  commonVerbs,
  coordinating,
  determiners,
  isPhrasal,
  latin,
  nameParticles,
  objects,
  particles,
  prefixes,
  prepositions,
  shortConjunctions,
  shortPrepositions,
  subjects,
} from './small-words.ts'

export type Casing = 'as typed' | 'sentence' | 'ap' | 'chicago'
export const casings: Casing[] = ['as typed', 'sentence', 'ap', 'chicago']

export interface CasingOptions {
  /** Words and phrases with the house's own capitals, kept as written here wherever they stand. */
  protectedWords?: readonly string[]
  /** Words, in lower case, that are names by the page's own running text. */
  names?: ReadonlySet<string>
}

interface Token {
  /** As typed. */
  text: string
  lower: string
  start: number
  first: boolean
  last: boolean
  /** Punctuation that ends a clause stands right behind it. */
  paused: boolean
}

const wordPattern = /[\p{L}\p{N}][\p{L}\p{N}\p{M}'’.&]*(?<![.'’])|[\p{L}\p{N}]/gu
/** What stands between two titles in one: a colon or a closing mark before a space, or a separator between spaces. */
const partEnd = /[:?!]["”’)]?\s|\s[|·•–—-]\s|—/u

const capital = (word: string) => {
  const [first = ''] = word
  return first.toUpperCase() + word.slice(first.length)
}
const isCapital = (c: string | undefined) => c !== undefined && c !== c.toLowerCase()
/** Capitals within the word, or no small letter in a word of two letters or more: a name or an abbreviation. */
function isOwn(word: string): boolean {
  let letters = 0
  for (const c of word) {
    if (letters > 0 && /\p{Lu}/u.test(c)) return true
    if (/\p{L}/u.test(c)) letters++
  }
  return /^\p{Lu}\.$/u.test(word)
}

function tokens(text: string): Token[] {
  const tokenList = [...text.matchAll(wordPattern)].map((m): Token => ({
    text: m[0],
    lower: m[0].toLowerCase().replace(/’/g, "'"),
    start: m.index,
    first: false,
    last: false,
    paused: false,
  }))
  tokenList.forEach((token, i) => {
    const before =
      i === 0 ? null : text.slice(tokenList[i - 1]!.start + tokenList[i - 1]!.text.length, token.start)
    const after = text.slice(token.start + token.text.length, tokenList[i + 1]?.start)
    token.first = before === null || partEnd.test(before)
    token.last = i === tokenList.length - 1 || partEnd.test(after)
    token.paused = /^[,;:.!?)]/.test(after)
  })
  return tokenList
}

/** Whether most words are in capitals, so that capitals tell nothing about names. */
const shouts = (list: Token[]) => {
  const long = list.filter((t) => t.text.replace(/[^\p{L}]/gu, '').length > 1)
  const loud = long.filter((t) => t.text === t.text.toUpperCase()).length
  return loud > 1 && loud / long.length > 0.7
}

function isInfinitive(list: Token[], i: number): boolean {
  const next = list[i + 1]
  return next !== undefined && commonVerbs.has(next.lower) && !isCapitalName(list, i + 1)
}
const isCapitalName = (list: Token[], i: number) => isOwn(list[i]!.text)

/** A preposition that is none here: a particle of its verb, a noun, or a conjunction before its subject. */
function servesOtherwise(list: Token[], i: number, text: string): boolean {
  const { lower, paused } = list[i]!
  const previous = list[i - 1]
  const next = list[i + 1]
  if (previous && /^(?:a|an|the)$/.test(previous.lower) && next && !determiners.has(next.lower)) return true
  if (alsoConjunctions.has(lower) && next && subjects.has(next.lower)) return true
  if (!particles.has(lower) || !previous) return false
  const joined = text.slice(previous.start + previous.text.length, list[i]!.start) === ' '
  if (paused && joined) return true
  if (joined && isPhrasal(previous.lower, lower)) return true
  const verb = list[i - 2]
  return verb !== undefined && objects.has(previous.lower) && isPhrasal(verb.lower, lower)
}

const isFunctionWord = (lower: string) =>
  articles.has(lower) || coordinating.has(lower) || prepositions.has(lower) || shortConjunctions.has(lower)

function isSmall(list: Token[], i: number, style: 'ap' | 'chicago', text: string): boolean {
  const token = list[i]!
  const { lower, first, last } = token
  const next = list[i + 1]
  const beforeName = next !== undefined && isCapital(next.text[0]) && !isFunctionWord(next.lower)
  if (nameParticles.has(lower) && !first && !isCapital(token.text[0]) && beforeName) return true
  if (first || last) return false
  const pair = (a: string, b: string) =>
    (lower === a && list[i + 1]?.lower === b) || (lower === b && list[i - 1]?.lower === a)
  if (latin.some(([a, b]) => pair(a, b))) return false
  if (articles.has(lower)) return true
  if (style === 'chicago') {
    if (coordinating.has(lower) || lower === 'as') return true
    if (lower === 'to') return !servesOtherwise(list, i, text)
    return prepositions.has(lower) && !servesOtherwise(list, i, text)
  }
  if (shortConjunctions.has(lower) && lower !== 'for') return true
  if (lower === 'to') return !isInfinitive(list, i)
  if (
    lower === 'for' &&
    i > 0 &&
    list[i + 1] &&
    /^(?:look|ask|care|search|wait|pay|go)$/.test(list[i - 1]!.lower)
  )
    return false
  return shortPrepositions.has(lower) && !servesOtherwise(list, i, text)
}

/** Parts of a hyphenated word, which the word pattern gives one by one: whether this one follows a hyphen, and what. */
function afterHyphen(text: string, list: Token[], i: number): Token | null {
  const before = list[i - 1]
  return before && text.slice(before.start + before.text.length, list[i]!.start) === '-' ? before : null
}

/** A text with the house's own writing of its protected words in it; of those that overlap, the longest. */
function withProtected(text: string, words: readonly string[]): string {
  const taken: { start: number; end: number; word: string }[] = []
  for (const word of [...words].filter(Boolean).sort((a, b) => b.length - a.length))
    for (const place of placesOfPhrase(text, word)) taken.push({ ...place, word })
  // Longest first at one place: the sort is stable.
  taken.sort((a, b) => a.start - b.start)
  let out = ''
  let at = 0
  for (const { start, end, word } of taken) {
    if (start < at) continue
    out += text.slice(at, start) + word
    at = end
  }
  return out + text.slice(at)
}

/**
 * A title in a casing style. Only letters' case changes, never their number. Abbreviations and words with capitals of
 * their own stay; of a title in capitals throughout, all but protected words are set anew. Never fails.
 */
export function toCasing(text: string, style: Casing, options: CasingOptions = {}): string {
  if (style === 'as typed') return text
  const list = tokens(text)
  const loud = shouts(list)
  const names = options.names ?? new Set<string>()
  let out = ''
  let at = 0
  list.forEach((token, i) => {
    out += text.slice(at, token.start)
    at = token.start + token.text.length
    out += cased(token, i)
  })
  return withProtected(out + text.slice(at), options.protectedWords ?? [])

  function cased(token: Token, i: number): string {
    const word = loud ? token.text.toLowerCase() : token.text
    const plain = word.toLowerCase()
    if (!loud && isOwn(word)) return word
    if (/^i(?:['’]|$)/.test(plain)) return capital(plain)
    if (!loud && token.text.length === 1 && isCapital(token.text) && plain !== 'a') return word
    const known =
      names.has(token.lower.replace(/'s$/, '')) || alwaysCapital.has(token.lower.replace(/'s$/, ''))
    const hyphenated = afterHyphen(text, list, i)
    if (style === 'sentence') {
      if (known) return capital(plain)
      return token.first && !hyphenated ? capital(plain) : plain
    }
    if (hyphenated) {
      if (known) return capital(plain)
      if (prefixes.has(hyphenated.lower) && !isCapital(token.text[0])) return plain
      if (/^[a-g]$/.test(hyphenated.lower) && /^(?:flat|sharp)$/.test(plain)) return plain
      const small = articles.has(plain) || coordinating.has(plain) || prepositions.has(plain)
      return small && hasNextPart(i) ? plain : capital(plain)
    }
    if (hasNextPart(i)) return capital(plain)
    if (isSmall(list, i, style as 'ap' | 'chicago', text)) return plain
    return capital(plain)
  }
  /** Whether another part of the same hyphenated word follows. */
  function hasNextPart(i: number): boolean {
    return list[i + 1] !== undefined && afterHyphen(text, list, i + 1) !== null
  }
}

/** Names by a page's running text: words that stand with a capital within sentences and never small, in lower case. */
export function namesIn(text: string): Set<string> {
  const capitals = new Set<string>()
  const small = new Set<string>()
  for (const line of text.split('\n')) {
    const known = casesIn(line)
    for (const word of known.capitals) capitals.add(word)
    for (const word of known.small) small.add(word)
  }
  for (const word of small) capitals.delete(word)
  return capitals
}

interface Cases {
  capitals: string[]
  small: string[]
}
const MOST_LINES = 20_000
const LONGEST_LINE = 4000
const linesKnown = new Map<string, Cases>()
/** The words of a line by how they are written; kept, for with every key in a text all its other lines stay. */
function casesIn(line: string): Cases {
  const known = linesKnown.get(line)
  if (known) return known
  const capitals = new Set<string>()
  const small = new Set<string>()
  for (const m of line.matchAll(/(^\s*|[.!?:]["”’)]?\s+)?(["“‘(]?)([\p{L}][\p{L}\p{M}'’-]*)/gu)) {
    const word = m[3]!
    const lower = word.toLowerCase().replace(/['’]s$/, '')
    if (!isCapital(word[0])) small.add(lower)
    else if (m[1] === undefined && m[2] === '') capitals.add(lower)
  }
  const cases = { capitals: [...capitals], small: [...small] }
  if (line.length > LONGEST_LINE) return cases
  if (linesKnown.size > MOST_LINES) linesKnown.clear()
  linesKnown.set(line, cases)
  return cases
}
