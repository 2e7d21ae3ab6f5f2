/** Edits by target from a JSON file: `{ "pages": { "a.html": { "title": { "value": "…" } } } }`. */
import { existsSync, readFileSync } from 'node:fs'
import Joi from 'joi'
import { editSchema, targetKeyPattern, type Edit } from '../core/page/edits/draft.ts'
import { Problem } from './problem.ts'

const schema = Joi.object({
  pages: Joi.object()
    .pattern(
      Joi.string().max(2000),
      Joi.object().pattern(Joi.string().pattern(targetKeyPattern, 'targets'), editSchema),
    )
    .required(),
}).required()

export function readEdits(file: string): Map<string, Record<string, Edit>> {
  if (!existsSync(file)) throw new Problem(`${file}: there is no such file (the edits).`)
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(readFileSync(file)))
  } catch (error) {
    throw new Problem(`${file} is not valid JSON in UTF-8 (${(error as Error).message}).`)
  }
  const { value, error } = schema.validate(json)
  if (error) throw new Problem(`${file}: ${error.message}.`)
  return new Map(Object.entries((value as { pages: Record<string, Record<string, Edit>> }).pages))
}
