/** What an editor typed in a page's title or description, or what the page has. */
import type { Decisions } from './decisions.ts'
import type { LedgerRow } from './evaluate.ts'

/** What a field holds as typed, tokens and all; else what the page has. */
export const fieldValue = (
  decisions: Decisions,
  target: 'title' | 'meta:description',
  row: Pick<LedgerRow, 'title' | 'description'>,
): string =>
  (decisions[`edit:${target}`] as { value?: string } | undefined)?.value ??
  (target === 'title' ? row.title : row.description) ??
  ''
