/** Writes docs/rules.md from the rules themselves: each rule's file is its documentation. Run with `npm run docs`. */
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { catalogue } from '../core/rules/catalogue.ts'
import { runExample } from '../core/rules/examples.ts'
import type { Rule } from '../core/rules/rule.ts'

const families: Record<Rule['family'], string> = {
  title: 'Title',
  description: 'Meta description',
  address: 'Address',
  headings: 'Headings',
  text: 'Text and keywords',
  images: 'Images',
  shell: "The page's shell",
  data: 'Structured data',
}

function section(rule: Rule): string {
  const example = rule.examples.marked[0]!
  const run = runExample(example, rule)
  const found = [...run.marks, ...run.siteMarks][0]!
  const repair = run.marks.find((m) => m.repair)?.repair
  const html = example.html.length > 300 ? `${example.html.slice(0, 300)} …` : example.html
  return [
    `### ${rule.id}`,
    '',
    `**${rule.name}.** A ${rule.severity}${rule.scope === 'site' ? ', of the site as a whole' : ''}. ${rule.why}`,
    '',
    `- To mend it: ${rule.mend}`,
    `- Basis: ${rule.basis}.`,
    ...(repair ? [`- Certain repair: “${repair.label}”.`] : []),
    ...(rule.silences ? [`- Speaks instead of: ${rule.silences.join(', ')}.`] : []),
    `- Says, for instance: ${found.message}`,
    ...(html.trim() ? ['', '```html', html, '```'] : []),
    '',
  ].join('\n')
}

export function rulesReference(): string {
  const parts = [
    '# The rules',
    '',
    'Generated from `core/rules/` by `npm run docs`; do not edit. Limits are the house style’s to change.',
    '',
  ]
  for (const [family, name] of Object.entries(families)) {
    const rules = catalogue.filter((r) => r.family === family)
    if (rules.length > 0) parts.push(`## ${name}`, '', ...rules.map(section))
  }
  return parts.join('\n')
}

if (process.argv[1] === import.meta.filename)
  writeFileSync(join(import.meta.dirname, '../docs/rules.md'), rulesReference())
