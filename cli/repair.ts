/** `quill repair`: certain repairs applied one at a time, each kept only if its mark goes and no blocker appears. */
import { parseArgs } from 'node:util'
import { repairSite, type PageRepairs } from '../core/work/repair-site.ts'
import { ruleIds } from '../core/rules/runner.ts'
import { dateFrom, formatFrom, styleFrom } from './inputs.ts'
import { checkOut } from './output-folder.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'
import { decide, filesOf, siteFrom } from './site.ts'
import { plural } from './words.ts'
import { writeSite } from './write-site.ts'

export async function repair(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      rules: { type: 'string' },
      style: { type: 'string' },
      'base-url': { type: 'string' },
      date: { type: 'string' },
      format: { type: 'string', default: 'text' },
    },
  })
  if (positionals.length !== 1) throw new Problem('repair takes one page, folder or ZIP archive.')
  if (!values.out) throw new Problem('Name an empty or new folder to write to: --out DIR.')
  const format = formatFrom(values.format, ['text', 'json'])
  const date = dateFrom(values.date)
  const only =
    values.rules === undefined
      ? null
      : values.rules
          .split(',')
          .map((id) => id.trim())
          .filter(Boolean)
  const unknown = (only ?? []).filter((id) => !ruleIds.has(id))
  if (unknown.length > 0)
    throw new Problem(`--rules names rules that do not exist: ${unknown.map((id) => `“${id}”`).join(', ')}.`)

  const site = siteFrom(positionals, {
    baseUrl: values['base-url'],
    date,
    style: values.style ? styleFrom(values.style) : undefined,
  })
  checkOut(values.out, positionals)
  const repaired = repairSite(
    {
      setting: site.setting,
      pages: site.inOrder,
      files: filesOf(site),
      decisionsOf: site.decisionsOf,
      read: (page) => site.bytes(page.file ?? ''),
    },
    { only: only === null ? null : new Set(only) },
  )
  decide(site, (id) => repaired.decisions.get(id) ?? {})
  await writeSite(site, values.out, { strict: true, lists: false })
  const unread = [...site.unread, ...repaired.unread]
  await print(
    format === 'json'
      ? JSON.stringify({ pages: repaired.pages, unread }, null, 2) + '\n'
      : textOf(repaired.pages, unread, values.out),
  )
  return repaired.blockers > 0 ? 1 : 0
}

function textOf(pages: readonly PageRepairs[], unread: { path: string; why: string }[], out: string): string {
  const lines: string[] = []
  let kept = 0
  let refused = 0
  for (const page of pages) {
    if (page.repairs.length === 0 && page.refused.length === 0) continue
    lines.push(page.path)
    for (const r of page.repairs)
      lines.push(`  ${r.line === null ? 'page' : `line ${r.line}`}  ${r.rule}: ${r.label}`)
    for (const r of page.refused)
      lines.push(`  ${r.line === null ? 'page' : `line ${r.line}`}  ${r.rule}: not repaired. ${r.why}`)
    lines.push('')
    kept += page.repairs.length
    refused += page.refused.length
  }
  for (const { path, why } of unread) lines.push(`not read  ${path}: ${why}`)
  lines.push(`${plural(kept, 'repair')} made, ${refused} not; the site is in ${out}`)
  return lines.join('\n') + '\n'
}
