import { parseArgs } from 'node:util'
import { nearestTerms, termOf, type TermInfo } from '../core/structured-data/vocabulary.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'

const kinds = ['class', 'property', 'member'] as const

/** What the shipped schema.org table knows of a type, a property or a member. */
export async function vocabularyCommand(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { format: { type: 'string', default: 'text' } },
  })
  const { format } = values
  if (format !== 'text' && format !== 'json')
    throw new Problem(`--format “${format}”: text or json is expected.`)
  const [given] = positionals
  if (given === undefined || positionals.length > 1)
    throw new Problem(
      'One name is expected: quill vocabulary TYPE|PROPERTY, such as Article or datePublished.',
    )
  const name = given.replace(/^(?:https?:\/\/schema\.org\/|schema:)/, '')
  const term = termOf(name)
  if (!term) {
    const near = [...new Set(kinds.flatMap((kind) => nearestTerms(name, kind)))].slice(0, 3)
    throw new Problem(
      `schema.org has no “${name}”${near.length > 0 ? `; did you mean ${near.join(', ')}?` : '. Names keep their case.'}`,
    )
  }
  await print(format === 'json' ? JSON.stringify(term, null, 2) + '\n' : asText(term))
  return 0
}

function asText(t: TermInfo): string {
  const lines = [
    `${t.id}  ${t.kind}${t.layer ? `, ${t.layer}` : ''}${t.supersededBy ? `, superseded by ${t.supersededBy}` : ''}`,
    ...(
      [
        [t.kind === 'member' ? 'member of' : 'comes from', t.parents],
        ['belongs to', t.domains],
        ['takes', t.ranges],
        ['members', t.members],
        ['properties', t.properties],
      ] as const
    ).flatMap(([name, list]) => (list.length > 0 ? [`  ${name}: ${list.join(', ')}`] : [])),
  ]
  return lines.join('\n') + '\n'
}
