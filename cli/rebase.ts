/** `quill rebase`: what becomes of a page's edits when the page is taken in again. */
import { existsSync, readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import Joi from 'joi'
import { editSchema, targetKeyPattern, type Edit } from '../core/page/edits/draft.ts'
import { onePage } from '../core/page/read/boundary.ts'
import { readSource, type Source } from '../core/page/source/source.ts'
import { rebaseDraft } from '../core/work/again/rebase.ts'
import { formatFrom } from './inputs.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'

const editsSchema = Joi.object().pattern(Joi.string().pattern(targetKeyPattern), editSchema).required()

export async function rebase(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { edits: { type: 'string' }, format: { type: 'string', default: 'text' } },
  })
  const format = formatFrom(values.format, ['text', 'json'])
  const [oldFile, newFile] = positionals
  if (positionals.length !== 2 || !oldFile || !newFile)
    throw new Problem('rebase takes two files: the page as it was, and as it is now.')
  if (!values.edits) throw new Problem('Name the edits: --edits FILE.json.')
  const edits = editsFrom(values.edits)
  const outcome = onePage(() => ({
    ok: true,
    value: rebaseDraft(sourceFrom(oldFile), sourceFrom(newFile), edits).edits,
  }))
  if (!outcome.ok) throw new Problem(outcome.why)
  const rows = outcome.value.map(({ target, now, status }) => ({ target, now, status }))
  await print(
    format === 'json'
      ? `${JSON.stringify(rows, null, 2)}\n`
      : rows.map(({ target, now, status }) => `${target} → ${now ?? 'nowhere'}: ${status}\n`).join(''),
  )
  return 0
}

function bytesFrom(file: string): Uint8Array {
  if (!existsSync(file)) throw new Problem(`${file}: there is no such file.`)
  return readFileSync(file)
}

function sourceFrom(file: string): Source {
  const read = readSource(bytesFrom(file))
  if (!read.ok) throw new Problem(`${file}: ${read.why}`)
  return read.source
}

/** Edits by target; those of the first page, where the file holds them page by page. */
function editsFrom(file: string): Record<string, Edit> {
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytesFrom(file)))
  } catch (error) {
    if (error instanceof Problem) throw error
    throw new Problem(`${file} is not valid JSON in UTF-8 (${(error as Error).message}).`)
  }
  const { pages } = Object(json) as { pages?: unknown }
  const edits = pages === undefined ? json : Object.values(Object(pages) as object)[0]
  const { value, error } = editsSchema.validate(edits)
  if (error) throw new Problem(`${file}: ${error.message}.`)
  return value as Record<string, Edit>
}
