/** The stand-in for the demand service: invented topics with their phrases, seasons and markets. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { chanceOf } from './competitors.ts'
import { demandQuestionSchema, type DemandAnswer, type DemandQuestion } from '../../core/keywords/demand.ts'
import { isQuestion } from '../../core/words/questions.ts'
import { compileKeyword } from '../../core/words/match.ts'
import { primaryLanguage } from '../../core/words/stem.ts'

interface Invented {
  asOf: string
  /** What part of the country's demand a place has, and how many times as much the world has. */
  localShare: number
  worldwideFactor: number
  /** How much of a year's demand each month has, January first. */
  seasons: Record<string, number[]>
  /** How the phrases of a kind of topic are worded, the most frequent first. */
  kinds: Record<string, string[]>
  topics: { topic: string; kind: string; monthly: number; season: string; language?: string }[]
}
let invented: Invented | null = null
const read = (): Invented =>
  (invented ??= JSON.parse(
    readFileSync(join(import.meta.dirname, '../../stand-ins/demand.json'), 'utf8'),
  ) as Invented)

/** Answers a question as the contract says (docs/services.md); a question that does not keep to it gets a reason. */
export function standInDemand(parameters: URLSearchParams): { status: number; body: object } {
  const { value, error } = demandQuestionSchema.validate(
    {
      topic: parameters.get('topic') ?? '',
      market: parameters.get('market') ?? '',
      place: parameters.get('place') ?? '',
      language: parameters.get('language') ?? 'en',
      limit: parameters.get('limit') ?? 200,
    },
    { convert: true },
  )
  return error
    ? { status: 400, body: { why: error.message } }
    : { status: 200, body: demandFor(value, read()) }
}

function demandFor({ topic, market, place, language, limit }: DemandQuestion, data: Invented): DemandAnswer {
  const lang = primaryLanguage(language)
  const factor = market === 'local' ? data.localShare : market === 'worldwide' ? data.worldwideFactor : 1
  const phrases = topicsAbout(topic, lang, data).flatMap(({ topic: name, kind, monthly, season }) =>
    data.kinds[kind]!.map((wording, rank) => {
      const national = wording.replace('{t}', name)
      const phrase = market === 'local' ? `${national} ${place.toLowerCase()}` : national
      // The further down its list, the less it is searched for; no two alike.
      const share = rank === 0 ? 1 : (0.55 / rank ** 0.8) * (0.7 + 0.6 * chanceOf(phrase))
      const mean = Math.max(1, Math.round(monthly * factor * share))
      const months = monthsOf(mean, data.seasons[season]!, data.asOf, phrase)
      return {
        phrase,
        monthly: Math.round(months.reduce((sum, n) => sum + n, 0) / 12),
        months,
        question: isQuestion(national, lang),
      }
    }),
  )
  return {
    market,
    place: market === 'local' ? place : null,
    asOf: data.asOf,
    phrases: phrases.sort((a, b) => b.monthly - a.monthly).slice(0, limit),
  }
}

/** Topics that have all words of what is asked for; where none has, those that have the first, which matters more. */
function topicsAbout(topic: string, lang: string, { topics }: Invented): Invented['topics'] {
  const ofLanguage = topics.filter((t) => (t.language ?? 'en') === lang)
  const stemsOf = (text: string) => compileKeyword(text, lang).stems
  const wanted = stemsOf(topic)
  const having = (stems: string[]) =>
    ofLanguage.filter((t) => {
      const topicStems = new Set(stemsOf(t.topic))
      return stems.length > 0 && stems.every((stem) => topicStems.has(stem))
    })
  const whole = having(wanted)
  return whole.length > 0 ? whole : having(wanted.slice(0, 1))
}

/** The twelve months up to that of the figures, oldest first, with the season's shape and some noise. */
function monthsOf(mean: number, season: readonly number[], asOf: string, phrase: string): number[] {
  const last = Number(asOf.slice(5, 7)) - 1
  const usual = season.reduce((sum, n) => sum + n, 0) / 12
  return Array.from({ length: 12 }, (_, i) => {
    const month = (last + 1 + i) % 12
    const noise = 0.92 + 0.16 * chanceOf(`${phrase} ${month}`)
    return Math.round((mean * season[month]! * noise) / usual)
  })
}
