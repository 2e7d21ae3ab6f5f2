/** The results that people see for a phrase, and how ours compares with the others: figures and words, no judgement. */
import Joi from 'joi'
import { measure, type Fit, type Slots } from '../measure/snippet.ts'
import { findKeyword, type Keyword } from '../words/match.ts'
import { isQuestion } from '../words/questions.ts'
import { languageOf, wordsOf } from '../words/stem.ts'

export interface Result {
  /** From 1. */
  position: number
  url: string
  title: string
  description: string
  /** The address as the results show it, part by part. */
  trail: string[]
  /** As shown; null for none. */
  date: string | null
  rating: { value: number; count: number } | null
  price: string | null
}
export interface ResultsAnswer {
  phrase: string
  market: string
  /** YYYY-MM-DD */
  asOf: string
  results: Result[]
  /** What people ask around the phrase. */
  questions: string[]
}

const text = (most: number) => Joi.string().allow('').max(most)
export const resultsAnswerSchema = Joi.object<ResultsAnswer>({
  phrase: text(200).required(),
  market: text(100).default(''),
  asOf: Joi.string()
    .pattern(/^\d{4}-\d{2}(?:-\d{2})?$/)
    .required(),
  results: Joi.array()
    .max(100)
    .items(
      Joi.object({
        position: Joi.number().integer().min(1).max(1000).required(),
        url: Joi.string()
          .max(2000)
          .pattern(/^https?:\/\//i)
          .required(),
        title: text(2000).required(),
        description: text(4000).default(''),
        trail: Joi.array().items(text(300)).max(20).default([]),
        date: text(60).allow(null).default(null),
        rating: Joi.object({
          value: Joi.number().min(0).max(100).required(),
          count: Joi.number().integer().min(0).required(),
        })
          .unknown(true)
          .allow(null)
          .default(null),
        price: text(60).allow(null).default(null),
      }).unknown(true),
    )
    .required(),
  questions: Joi.array().items(text(300)).max(100).default([]),
}).unknown(true)

/** Where in a title the phrase stands: at its beginning, later, or not at all. */
export type PhrasePlace = 'first' | 'later' | 'absent'

export interface ResultFigures {
  position: number | null
  url: string
  /** Numbers in the title as they are written, years aside. */
  numbers: string[]
  year: number | null
  question: boolean
  /** Round or square brackets. */
  brackets: boolean
  phrase: PhrasePlace
  titlePx: number
  titleState: Fit
  descriptionPx: number
  descriptionState: Fit
}

const YEAR = /^(?:19|20)\d\d$/
const NUMBER = /\d+(?:[.,\u00a0\u202f'’ ]\d{3}(?!\d))*(?:[.,]\d+)?/g

/** Numbers of a text as they are written, and the first that is a year: four digits from 1900 to 2099 that stand alone. */
export function numbersIn(written: string): { numbers: string[]; year: number | null } {
  const all = [...written.matchAll(NUMBER)].map(([number]) => number)
  const years = all.filter((number) => YEAR.test(number))
  return {
    numbers: all.filter((number) => !YEAR.test(number)),
    year: years.length > 0 ? Number(years[0]) : null,
  }
}

/** Whether a phrase stands at the beginning of a title: only words without weight, or nothing, before it. */
export function phrasePlace(title: string, phrase: Keyword): PhrasePlace {
  const [first] = findKeyword(title, phrase)
  if (!first) return 'absent'
  const { isStopWord } = languageOf(phrase.lang)
  return wordsOf(title.slice(0, first.start)).every(({ word }) => isStopWord(word)) ? 'first' : 'later'
}

export function figuresOf(
  {
    position,
    url,
    title,
    description,
  }: Pick<Result, 'url' | 'title' | 'description'> & { position: number | null },
  phrase: Keyword,
  slots: Slots,
): ResultFigures {
  const measured = {
    title: measure(title, 'title', slots),
    description: measure(description, 'description', slots),
  }
  return {
    position,
    url,
    ...numbersIn(title),
    question: isQuestion(title, phrase.lang),
    brackets: /[([].*[)\]]/.test(title),
    phrase: phrasePlace(title, phrase),
    titlePx: measured.title.px,
    titleState: measured.title.wide.state,
    descriptionPx: measured.description.px,
    descriptionState: measured.description.wide.state,
  }
}

/** A word that recurs among the others, its forms folded. */
export interface SharedWord {
  /** The form that occurs most. */
  word: string
  /** How many of the others have it in title or description. */
  results: number
  ours: boolean
}
export interface LineUpComparison {
  results: ResultFigures[]
  ours: ResultFigures
  /** Words that two of the others or more have, the most frequent first; those of the phrase aside. */
  words: SharedWord[]
  /** Words that ours alone has. */
  oursAlone: string[]
  /** The word that most titles begin with, and how many do; null where no two begin alike. */
  first: { word: string; results: number } | null
}

export interface Ours {
  title: string
  description: string
  url: string
  position: number | null
}

export function compareLineUp(
  others: readonly Result[],
  ours: Ours,
  phrase: Keyword,
  slots: Slots,
): LineUpComparison {
  const contentOf = contentWords(phrase)
  const ourWords = contentOf(`${ours.title} ${ours.description}`)
  const counts = new Map<string, { forms: Map<string, number>; results: number }>()
  for (const { title, description } of others)
    for (const [stem, form] of contentOf(`${title} ${description}`)) {
      let entry = counts.get(stem)
      if (!entry) counts.set(stem, (entry = { forms: new Map(), results: 0 }))
      entry.results++
      entry.forms.set(form, (entry.forms.get(form) ?? 0) + 1)
    }
  const mostUsed = (forms: ReadonlyMap<string, number>) =>
    [...forms].reduce((most, form) => (form[1] > most[1] ? form : most))[0]
  const words = [...counts]
    .filter(([, { results }]) => results > 1)
    .map(([stem, { forms, results }]) => ({ word: mostUsed(forms), results, ours: ourWords.has(stem) }))
    .sort((a, b) => b.results - a.results || (a.word < b.word ? -1 : 1))
  return {
    results: others.map((result) => figuresOf(result, phrase, slots)),
    ours: figuresOf(ours, phrase, slots),
    words,
    oursAlone: [...ourWords].filter(([stem]) => !counts.has(stem)).map(([, form]) => form),
    first: firstWord(others, phrase),
  }
}

/** The content words of a text by their stems, each with its first form; those of the phrase, and numbers, aside. */
function contentWords({ lang, stems }: Keyword): (written: string) => Map<string, string> {
  const language = languageOf(lang)
  const ofPhrase = new Set(stems)
  return (written) => {
    const forms = new Map<string, string>()
    for (const { word } of wordsOf(written)) {
      const stem = language.stem(word)
      if (!/\p{L}/u.test(word) || language.isStopWord(word) || ofPhrase.has(stem) || forms.has(stem)) continue
      forms.set(stem, word)
    }
    return forms
  }
}

function firstWord(others: readonly Result[], { lang }: Keyword): LineUpComparison['first'] {
  const { isStopWord, stem } = languageOf(lang)
  const counts = new Map<string, { word: string; results: number }>()
  for (const { title } of others) {
    const first = wordsOf(title).find(({ word }) => !isStopWord(word))
    if (!first) continue
    const entry = counts.get(stem(first.word))
    if (entry) entry.results++
    else counts.set(stem(first.word), { word: first.word, results: 1 })
  }
  const [most] = [...counts.values()].sort((a, b) => b.results - a.results)
  return most && most.results > 1 ? most : null
}

/** How many results are looked at. */
export const LINE_UP = 10

/** The others in their order, without ours, and the place that ours has among them today; null where it has none. */
export function withoutOurs(
  results: readonly Result[],
  isOurs: (url: string) => boolean,
): { others: Result[]; ours: Result | null } {
  const inOrder = [...results].sort((a, b) => a.position - b.position)
  const ours = inOrder.find(({ url }) => isOurs(url)) ?? null
  return { others: inOrder.filter((result) => result !== ours).slice(0, LINE_UP), ours }
}
