/** What a results service is asked: a phrase, where its readers are, and on which screen. */
import Joi from 'joi'
import { markets, type Market } from './phrases.ts'

export interface ResultsQuestion {
  phrase: string
  market: Market
  /** Of a local market; "" otherwise. */
  place: string
  screen: 'wide' | 'narrow'
  language: string
}
/** A phrase is looked up in small letters: nobody searches otherwise, and an answer is found again. */
export const resultsQuestion = (
  phrase: string,
  { market, place, language }: Pick<ResultsQuestion, 'market' | 'place' | 'language'>,
): ResultsQuestion => ({
  phrase: phrase.trim().toLowerCase(),
  market,
  place: market === 'local' ? place.trim() : '',
  screen: 'wide',
  language,
})

export const resultsQuestionSchema = Joi.object<ResultsQuestion>({
  phrase: Joi.string().trim().max(200).required().messages({ 'string.empty': 'Type the phrase to look up.' }),
  market: Joi.valid(...markets).required(),
  place: Joi.string().allow('').max(100).required(),
  screen: Joi.valid('wide', 'narrow').required(),
  language: Joi.string().max(35).required(),
})
