/** The answers to an approval file, as the file saved them. */
import Joi from 'joi'
import { ANSWERS } from './approval.ts'

export interface GivenAnswer {
  path: string
  of: string
  answer: 'yes' | 'no' | null
  note: string
  /** Takes that were chosen in place of the draft, by their hashes. */
  takes: { title?: string; description?: string }
}
export interface Answers {
  site: string
  made: string
  by: string
  answers: GivenAnswer[]
}

const schema = Joi.object({
  format: Joi.valid(ANSWERS).required(),
  version: Joi.valid(1).required(),
  site: Joi.string().allow('').max(500).required(),
  made: Joi.string().allow('').max(40).required(),
  by: Joi.string().allow('').max(200).required(),
  answers: Joi.array()
    .items(
      Joi.object({
        path: Joi.string().max(2000).required(),
        of: Joi.string().max(40).required(),
        answer: Joi.valid('yes', 'no', null).required(),
        note: Joi.string().allow('').max(2000).required(),
        takes: Joi.object({ title: Joi.string().max(40), description: Joi.string().max(40) }).default({}),
      }),
    )
    .max(5000)
    .required(),
})

/** An answer file as the approval file saved it; or why it is none. */
export function readAnswers(text: string): { ok: true; answers: Answers } | { ok: false; why: string } {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return {
      ok: false,
      why: 'The file is not an answer file: it is not valid JSON. Ask for answers.json as it was saved.',
    }
  }
  const { value, error } = schema.validate(json)
  if (error) return { ok: false, why: `The file is not an answer file, or is damaged: ${error.message}.` }
  const { site, made, by, answers } = value as Answers
  return { ok: true, answers: { site, made, by, answers } }
}
