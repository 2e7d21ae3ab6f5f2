/** What an editor typed in a page's title or description, or what the page has. */
import type { Edit } from '../page/edits/draft.ts'
import type { Decisions } from './decisions.ts'
import type { LedgerRow } from './evaluate.ts'

/**
 * What a field holds as typed, tokens and all; else what the page has without a draft, which is true at once, also when a
 * draft is taken back and its row is not made anew yet. Where one of several elements was edited by its place, the row says
 * which of them counts.
 */
export function fieldValue(
  decisions: Decisions,
  target: 'title' | 'meta:description',
  row: Pick<LedgerRow, 'title' | 'description' | 'sourceTitle' | 'sourceDescription'>,
): string {
  const edit = decisions[`edit:${target}`] as Edit | undefined
  if (edit?.value !== undefined) return edit.value
  const byPlace =
    edit !== undefined || Object.keys(decisions).some((key) => key.startsWith(`edit:${target}@`))
  const [drafted, source] =
    target === 'title' ? [row.title, row.sourceTitle] : [row.description, row.sourceDescription]
  return (byPlace ? drafted : source) ?? ''
}
