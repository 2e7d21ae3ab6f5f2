/** Answers of outside services, kept so that they are there offline and are not asked for twice in a day. */
import { db } from './db.ts'

/** The last answer to a question; null where it was never answered. `date` is the day on which it came, YYYY-MM-DD. */
export async function answerKept<Answer>(
  service: string,
  question: object,
): Promise<{ date: string; source: string; answer: Answer } | null> {
  const record = await db.answers.get(keyOf(service, question))
  return record ? { date: record.date, source: record.source, answer: record.answer as Answer } : null
}

export async function keepAnswer(
  service: string,
  question: object,
  { date, source, answer }: { date: string; source: string; answer: unknown },
): Promise<void> {
  await db.answers.put({ key: keyOf(service, question), date, source, answer })
  const many = (await db.answers.count()) - MOST_KEPT
  if (many > 0) await db.answers.orderBy('date').limit(many).delete()
}
const MOST_KEPT = 2000

export interface AnswerKept<Question, Answer> {
  question: Question
  date: string
  source: string
  answer: Answer
}

/** All answers of a service that are kept. */
export async function answersKept<Question, Answer>(
  service: string,
): Promise<AnswerKept<Question, Answer>[]> {
  const records = await db.answers.where('key').startsWith(`${service} `).toArray()
  return records.map(({ key, date, source, answer }) => ({
    question: Object.fromEntries(
      JSON.parse(key.slice(service.length + 1)) as [string, unknown][],
    ) as Question,
    date,
    source,
    answer: answer as Answer,
  }))
}

const keyOf = (service: string, question: object) =>
  `${service} ${JSON.stringify(Object.entries(question).sort(([a], [b]) => (a < b ? -1 : 1)))}`
