/** Results for a phrase: the service that a team names, or the stand-in. */
import Joi from 'joi'
import { markets, type Market } from '../../core/keywords/phrases.ts'
import { resultsAnswerSchema, type ResultsAnswer } from '../../core/results/line-up.ts'
import { askService, type Asked, type Service } from './ask.ts'

export interface ResultsQuestion {
  phrase: string
  market: Market
  /** Of a local market; "" otherwise. */
  place: string
  screen: 'wide' | 'narrow'
  language: string
}
export const resultsQuestionSchema = Joi.object<ResultsQuestion>({
  phrase: Joi.string().trim().max(200).required().messages({ 'string.empty': 'Type the phrase to look up.' }),
  market: Joi.valid(...markets).required(),
  place: Joi.string().allow('').max(100).required(),
  screen: Joi.valid('wide', 'narrow').required(),
  language: Joi.string().max(35).required(),
})

export const resultsService: Service = {
  name: 'The results service',
  variable: 'KEEN_QUILL_RESULTS',
  standIn: '/stand-ins/results',
}

export const askResults = (question: ResultsQuestion, signal?: AbortSignal): Promise<Asked<ResultsAnswer>> =>
  askService(resultsService, { ...question }, resultsAnswerSchema, signal)
