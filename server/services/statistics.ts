/** How a site does in results: the service that a team names, or the stand-in. */
import Joi from 'joi'
import { statisticsSchema, type StatisticsAnswer } from '../../core/progress/statistics.ts'
import { askService, type Asked, type Service } from './ask.ts'

export interface StatisticsQuestion {
  /** The address of the site's root. */
  site: string
}
export const statisticsQuestionSchema = Joi.object<StatisticsQuestion>({
  site: Joi.string()
    .max(2000)
    .pattern(/^https?:\/\//i)
    .required(),
})

export const statisticsService: Service = {
  name: 'The statistics service',
  variable: 'KEEN_QUILL_STATISTICS',
  standIn: '/stand-ins/statistics',
}

/** Half a year: a season's swing can be seen, and an answer stays within bounds. */
const DAYS = 182
/** Statistics are the largest of all answers: a row for each page, phrase and day. */
const limits = { time: 60_000, bytes: 64 * 1024 * 1024 }

export function askStatistics(
  { site }: StatisticsQuestion,
  now: Date,
  signal?: AbortSignal,
): Promise<Asked<StatisticsAnswer>> {
  const day = (back: number) => new Date(now.getTime() - back * 86_400_000).toISOString().slice(0, 10)
  return askService(
    statisticsService,
    { site, from: day(DAYS), to: day(0) },
    statisticsSchema,
    signal,
    limits,
  )
}
