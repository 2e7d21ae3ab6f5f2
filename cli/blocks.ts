/** `quill blocks`: a page's text blocks, in document order. */
import { existsSync, readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { onePage } from '../core/page/read/boundary.ts'
import { readSource } from '../core/page/source/source.ts'
import { pageText } from '../core/page/text/page-text.ts'
import { shownOf, textOf } from '../core/page/text/shown.ts'
import { formatFrom } from './inputs.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'

export async function blocks(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { format: { type: 'string', default: 'text' } },
  })
  const format = formatFrom(values.format, ['text', 'json'])
  const [file] = positionals
  if (!file || positionals.length !== 1) throw new Problem('blocks takes one HTML file.')
  if (!existsSync(file)) throw new Problem(`${file}: there is no such file.`)
  const read = readSource(readFileSync(file))
  if (!read.ok) throw new Problem(`${file}: ${read.why}`)
  const outcome = onePage(() => ({ ok: true, value: pageText(read.source) }))
  if (!outcome.ok) throw new Problem(`${file}: ${outcome.why}`)
  const hasMain = outcome.value.blocks.some(({ block }) => block.landmark === 'main')
  const listed = outcome.value.blocks.map(({ byte, block, items }) => {
    const content = items()
    return {
      target: byte === null ? null : `text@${byte}`,
      tag: block.tag,
      start: content.ok ? (block.isStretch ? content.items.start : block.at) : block.at,
      end: content.ok
        ? block.isStretch
          ? content.items.end
          : (block.element.place?.end ?? content.items.end)
        : null,
      text: content.ok ? textOf(shownOf(content.items.items)) : block.text,
      landmark: block.landmark,
      main: hasMain ? block.landmark === 'main' : block.landmark === null,
      editable: content.ok && byte !== null,
      why: content.ok ? null : content.why,
      inline: content.ok
        ? [...new Set(content.items.items.flatMap((i) => (i.kind === 'open' ? [i.element.tagName] : [])))]
        : [],
    }
  })
  await print(
    format === 'json'
      ? `${JSON.stringify(listed, null, 2)}\n`
      : listed
          .map((b) => `${b.target ?? '-'} ${b.tag}${b.editable ? '' : ' (read-only)'}: ${b.text}\n`)
          .join(''),
  )
  return 0
}
