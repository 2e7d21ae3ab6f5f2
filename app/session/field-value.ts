import type { Decisions } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'

/** What a field holds as typed, tokens and all; else what the page has. */
export const fieldValue = (
  decisions: Decisions,
  target: 'title' | 'meta:description',
  row: LedgerRow,
): string =>
  (decisions[`edit:${target}`] as { value?: string } | undefined)?.value ??
  (target === 'title' ? row.title : row.description) ??
  ''
