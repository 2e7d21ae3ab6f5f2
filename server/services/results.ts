/** Results for a phrase: the service that a team names, or the stand-in. */
import type { ResultsQuestion } from '../../core/keywords/results-question.ts'
import { resultsAnswerSchema, type ResultsAnswer } from '../../core/results/line-up.ts'
import { askService, type Asked, type Service } from './ask.ts'

export const resultsService: Service = {
  name: 'The results service',
  variable: 'KEEN_QUILL_RESULTS',
  standIn: '/stand-ins/results',
}

export const askResults = (question: ResultsQuestion, signal?: AbortSignal): Promise<Asked<ResultsAnswer>> =>
  askService(resultsService, { ...question }, resultsAnswerSchema, signal)
