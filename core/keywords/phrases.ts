/** Phrases that people search with: what is kept of one, which are questions, which fold together, which words help. */
import Joi from 'joi'
import { fold } from '../strings.ts'
import { keywordKey } from '../site/site-index.ts'
import { compileKeyword } from '../words/match.ts'
import { auxiliaries, questionWordsOf } from '../words/questions.ts'
import { languageOf, wordsOf } from '../words/stem.ts'

export const markets = ['local', 'national', 'worldwide'] as const
/** Where the people are who search. */
export type Market = (typeof markets)[number]
export const marketNames: Record<Market, string> = {
  local: 'in one place',
  national: 'in one country',
  worldwide: 'worldwide',
}

/** A phrase with its demand, as a service, a sheet or a hand gave it. */
export interface Phrase {
  phrase: string
  /** Searches a month, the mean of the last twelve; null where nobody said. */
  monthly: number | null
  /** Searches in each of the last twelve months, oldest first; null where nobody said. */
  months: number[] | null
  /** Where it comes from, in words: a service, a sheet's name, "the site itself", "typed". */
  source: string
  /** YYYY-MM or YYYY-MM-DD: of when the figures are, or when it was typed. */
  date: string
  market: Market | null
  /** Of a local market. */
  place: string | null
}

export const LONGEST_PHRASE = 200
/** So many are kept for a site: more than a person can go through. */
export const MOST_PHRASES = 5000

export const demandFields = {
  monthly: Joi.number().min(0).max(1e12).allow(null).required(),
  months: Joi.array().items(Joi.number().min(0).max(1e12)).length(12).allow(null).required(),
}
export const phraseSchema = Joi.object<Phrase>({
  phrase: Joi.string().trim().max(LONGEST_PHRASE).required(),
  ...demandFields,
  source: Joi.string().max(300).required(),
  date: Joi.string().max(40).required(),
  market: Joi.valid(...markets, null).required(),
  place: Joi.string().max(100).allow(null).required(),
})

/** A phrase as two of one wording are compared: NFC, lower case, white space folded. */
export const sameWording = (phrase: string): string =>
  fold(phrase.normalize('NFC')).toLowerCase().slice(0, LONGEST_PHRASE)

/** A key under which phrases of the same word forms meet, in any order: "knot course" and "courses in knots". */
export function wordFormsOf(phrase: string, lang: string | null): string {
  return keywordKey(compileKeyword(phrase, lang)) ?? ''
}

/** Phrases of the same word forms as one: the one in most demand, and how the others are worded. */
export interface FoldedPhrase<P extends Phrase = Phrase> {
  key: string
  phrase: P
  forms: string[]
}

/** In order of demand; those without any follow in the order in which they came. */
export function foldPhrases<P extends Phrase>(phrases: readonly P[], lang: string | null): FoldedPhrase<P>[] {
  const byKey = new Map<string, P[]>()
  for (const phrase of phrases) {
    const key = wordFormsOf(phrase.phrase, lang)
    const group = byKey.get(key)
    if (group) group.push(phrase)
    else byKey.set(key, [phrase])
  }
  const demand = (p: P) => p.monthly ?? -1
  return [...byKey]
    .map(([key, group]) => {
      const [phrase, ...rest] = [...group].sort((a, b) => demand(b) - demand(a))
      const wording = sameWording(phrase!.phrase)
      const forms = [...new Set(rest.map((p) => p.phrase))].filter((p) => sameWording(p) !== wording)
      return { key, phrase: phrase!, forms }
    })
    .sort((a, b) => demand(b.phrase) - demand(a.phrase))
}

/** A word that recurs beside the topic, with its forms folded. */
export interface HelperWord {
  /** The form that occurs most. */
  word: string
  stem: string
  /** How many of the phrases have it, and their demand together. */
  phrases: number
  monthly: number
}

/** Words that stop lists leave out and that say what somebody wants. */
const telling = new Set([
  'near',
  'without',
  'under',
  'over',
  'around',
  'between',
  'after',
  'before',
  'during',
])

/** Words that two phrases or more have beside those of the topic, the most frequent first. */
export function helperWords(phrases: readonly Phrase[], topic: string, lang: string | null): HelperWord[] {
  const language = languageOf(lang)
  const asks = questionWordsOf(lang)
  const ofTopic = new Set(wordsOf(topic).map(({ word }) => language.stem(word)))
  const known = new Map<string, HelperWord & { forms: Map<string, number> }>()
  for (const { phrase, monthly } of phrases) {
    const seen = new Set<string>()
    for (const { word } of wordsOf(phrase)) {
      const stem = language.stem(word)
      const tells = telling.has(word) || (asks.has(word) && !auxiliaries.has(word))
      const isFiller = language.isStopWord(word) && !tells
      if (isFiller || auxiliaries.has(word) || ofTopic.has(stem) || seen.has(stem)) continue
      seen.add(stem)
      let helper = known.get(stem)
      if (!helper) known.set(stem, (helper = { word, stem, phrases: 0, monthly: 0, forms: new Map() }))
      helper.phrases++
      helper.monthly += monthly ?? 0
      helper.forms.set(word, (helper.forms.get(word) ?? 0) + 1)
    }
  }
  return [...known.values()]
    .filter((helper) => helper.phrases > 1)
    .sort((a, b) => b.phrases - a.phrases || b.monthly - a.monthly || (a.word < b.word ? -1 : 1))
    .map(({ forms, ...helper }) => ({ ...helper, word: mostFrequent(forms) }))
}

const mostFrequent = (forms: ReadonlyMap<string, number>): string =>
  [...forms].reduce((most, form) => (form[1] > most[1] ? form : most))[0]

/** Whether any form of a word, given by its stem, is in a phrase. */
export function hasStem(phrase: string, stem: string, lang: string | null): boolean {
  const language = languageOf(lang)
  return wordsOf(phrase).some(({ word }) => language.stem(word) === stem)
}

export const wordsIn = (phrase: string): number => wordsOf(phrase).length
