/** Which rules mark some pages, and of which a certain repair may be made. */
import type { RuleChoice } from '../bulk/step-form.tsx'
import type { RuleName } from '../workers/desk.ts'
import type { LedgerLine } from './columns.tsx'

export function rulesOn(
  lines: readonly LedgerLine[],
  rules: readonly RuleName[],
): { marked: RuleChoice[]; repairable: RuleChoice[] } {
  const pages = new Map<string, number>()
  const marks = new Map<string, number>()
  for (const { row, siteMarks } of lines) {
    for (const rule of row.rules) marks.set(rule, (marks.get(rule) ?? 0) + 1)
    for (const rule of new Set([...row.rules, ...(siteMarks?.rules ?? [])]))
      pages.set(rule, (pages.get(rule) ?? 0) + 1)
  }
  const choices = (of: ReadonlyMap<string, number>) =>
    rules
      .filter((rule) => of.has(rule.id))
      .map(({ id, name }) => ({ id, name, pages: of.get(id)! }))
      .sort((a, b) => b.pages - a.pages)
  return { marked: choices(pages), repairable: choices(marks) }
}
