import { parseArgs } from 'node:util'
import { measure, type SlotResult } from '../core/measure/snippet.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'

async function stdinLines(): Promise<string[]> {
  let text = ''
  for await (const chunk of process.stdin.setEncoding('utf8')) text += chunk
  const lines = text.split(/\r?\n/)
  return lines.at(-1) === '' ? lines.slice(0, -1) : lines
}

const slot = ({ shown, cut, state }: SlotResult) => ({ shown, cut, state })

/** One JSON object a line for each text; widths in px to 2 decimals, unrounded sums apart. */
export async function measureCommand(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { as: { type: 'string', default: 'title' } },
  })
  const role = values.as
  if (role !== 'title' && role !== 'description')
    throw new Problem(`--as “${role}”: title or description is expected.`)
  const lines = (positionals.length > 0 ? positionals : await stdinLines()).map((text) => {
    const { graphemes, px, estimatedPx, wide, narrow } = measure(text, role)
    const estimated = estimatedPx > 0 ? { estimatedPx: Math.round(estimatedPx * 100) / 100 } : {}
    return JSON.stringify({
      text,
      graphemes,
      px: Math.round(px * 100) / 100,
      ...estimated,
      wide: slot(wide),
      narrow: slot(narrow),
    })
  })
  await print(lines.map((l) => l + '\n').join(''))
  return 0
}
