/** Demand for phrases, as a service answers: docs/services.md has the contract. */
import Joi from 'joi'
import { demandFields, LONGEST_PHRASE, MOST_PHRASES, markets, type Market, type Phrase } from './phrases.ts'

export interface DemandQuestion {
  /** One or two words, the more important first. */
  topic: string
  market: Market
  /** Of a local market; "" otherwise. */
  place: string
  /** A language tag. */
  language: string
  /** The most phrases wanted. */
  limit: number
}
export interface DemandAnswer {
  market: Market
  place: string | null
  /** YYYY-MM */
  asOf: string
  phrases: { phrase: string; monthly: number | null; months: number[] | null; question: boolean }[]
}

export const demandQuestionSchema = Joi.object<DemandQuestion>({
  topic: Joi.string().trim().max(LONGEST_PHRASE).required().messages({
    'string.empty': 'Type one or two words for the topic.',
  }),
  market: Joi.valid(...markets).required(),
  place: Joi.when('market', {
    is: 'local',
    then: Joi.string()
      .trim()
      .max(100)
      .required()
      .messages({ 'string.empty': 'Say which place it is about.' }),
    otherwise: Joi.string().allow('').max(100).required(),
  }),
  language: Joi.string().max(35).required(),
  limit: Joi.number().integer().min(1).max(MOST_PHRASES).required(),
})
export const demandAnswerSchema = Joi.object<DemandAnswer>({
  market: Joi.valid(...markets).required(),
  place: Joi.string().max(100).allow(null, '').default(null),
  asOf: Joi.string()
    .pattern(/^\d{4}-\d{2}(?:-\d{2})?$/)
    .required(),
  phrases: Joi.array()
    .max(MOST_PHRASES)
    .items(
      Joi.object({
        phrase: Joi.string().trim().max(LONGEST_PHRASE).required(),
        monthly: demandFields.monthly.optional().default(null),
        months: demandFields.months.optional().default(null),
        question: Joi.boolean().default(false),
      }).unknown(true),
    )
    .required(),
}).unknown(true)

/** The phrases of an answer as they are kept. */
export const phrasesOfAnswer = (answer: DemandAnswer, source: string): Phrase[] =>
  answer.phrases.map(({ phrase, monthly, months }) => ({
    phrase,
    monthly: monthly ?? (months ? Math.round(months.reduce((sum, n) => sum + n, 0) / months.length) : null),
    months,
    source,
    date: answer.asOf,
    market: answer.market,
    place: answer.place,
  }))
