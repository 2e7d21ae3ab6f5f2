/** `quill line-up`: how a title and a description compare with the results that people see for a phrase. */
import { existsSync, readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { defaultSlots } from '../core/measure/snippet.ts'
import {
  compareLineUp,
  resultsAnswerSchema,
  withoutOurs,
  type ResultFigures,
  type ResultsAnswer,
} from '../core/results/line-up.ts'
import { sameAddress } from '../core/addresses/addresses.ts'
import { compileKeyword } from '../core/words/match.ts'
import { formatFrom } from './inputs.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'

export async function lineUp(args: string[]): Promise<number> {
  const { values } = parseArgs({
    args,
    options: {
      results: { type: 'string' },
      title: { type: 'string' },
      description: { type: 'string', default: '' },
      url: { type: 'string' },
      position: { type: 'string' },
      phrase: { type: 'string' },
      language: { type: 'string', default: 'en' },
      format: { type: 'string', default: 'json' },
    },
  })
  formatFrom(values.format, ['json'])
  if (!values.results || values.title === undefined || !values.url)
    throw new Problem('--results FILE.json, --title and --url are needed.')
  const position = values.position === undefined ? null : Number(values.position)
  if (position !== null && !(Number.isInteger(position) && position >= 1 && position <= 100))
    throw new Problem(`--position “${values.position}”: a place from 1 to 100 is expected.`)
  const answer = answerFrom(values.results)
  const url = values.url
  const { others, ours } = withoutOurs(answer.results, (address) => sameAddress(address, url))
  const comparison = compareLineUp(
    others,
    {
      title: values.title,
      description: values.description,
      url,
      position: position ?? ours?.position ?? null,
    },
    compileKeyword(values.phrase ?? answer.phrase, values.language),
    defaultSlots,
  )
  const shape = ({ phrase, ...figures }: ResultFigures) => ({
    ...figures,
    phraseFirst: phrase === 'absent' ? null : phrase === 'first',
    titlePx: Math.round(figures.titlePx * 100) / 100,
    descriptionPx: Math.round(figures.descriptionPx * 100) / 100,
  })
  await print(
    `${JSON.stringify({ ...comparison, results: comparison.results.map(shape), ours: shape(comparison.ours) }, null, 2)}\n`,
  )
  return 0
}

function answerFrom(file: string): ResultsAnswer {
  if (!existsSync(file)) throw new Problem(`${file}: there is no such file (the results).`)
  let json: unknown
  try {
    json = JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    throw new Problem(`${file}: it is not valid JSON.`)
  }
  const { value, error } = resultsAnswerSchema.validate(json)
  if (error) throw new Problem(`${file}: ${error.message}. docs/services.md has the shape.`)
  return value as ResultsAnswer
}
