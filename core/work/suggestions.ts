/** Answers to a consultant's suggestions, as changes of a page's decisions. */
import type { PageId } from '../site/page-identity.ts'
import {
  suggestedFields,
  takesOf,
  type Decisions,
  type SuggestedField,
  type Suggestion,
  type Take,
} from './decisions.ts'

export interface Change {
  page: PageId
  key: string
  after: unknown
}

export const suggestionOf = (decisions: Decisions): Suggestion | null =>
  (decisions.suggested as Suggestion | undefined) ?? null

/** Fields that are suggested and not answered yet. */
export const openFields = ({ fields, answers }: Suggestion): SuggestedField[] =>
  suggestedFields.filter((field) => (fields[field] ?? '') !== '' && answers[field] === undefined)

/** Where a take comes from that a sheet suggested. */
export const takeFrom = ({ sheet, date }: Suggestion): string => `${sheet}, ${date}`

/** What a suggested value decides. */
function decided(page: PageId, field: SuggestedField, value: string): Change {
  switch (field) {
    case 'title':
      return { page, key: 'edit:title', after: { value } }
    case 'description':
      return { page, key: 'edit:meta:description', after: { value } }
    case 'slug':
      return { page, key: 'edit:slug', after: { value } }
    case 'keyword':
      return { page, key: 'keyword:primary', after: value }
    case 'secondary':
      return {
        page,
        key: 'keyword:secondary',
        after: value
          .split(';')
          .map((p) => p.trim())
          .filter(Boolean),
      }
  }
}

/**
 * Takes some fields, as they are suggested or as they were edited (`wanted`), and declines the other open ones with a
 * word; a title or description that is not taken stays as a take.
 */
export function answered(
  page: PageId,
  decisions: Decisions,
  taken: ReadonlySet<SuggestedField>,
  { wanted = {}, why = '' }: { wanted?: Partial<Record<SuggestedField, string>>; why?: string } = {},
): Change[] {
  const suggestion = suggestionOf(decisions)
  if (!suggestion) return []
  const answers: Suggestion['answers'] = { ...suggestion.answers }
  const changes: Change[] = []
  for (const field of openFields(suggestion)) {
    const offered = suggestion.fields[field]!
    if (taken.has(field)) {
      const value = wanted[field] ?? offered
      answers[field] = { answer: value === offered ? 'taken' : 'edited', why: '' }
      changes.push(decided(page, field, value))
      if (value === offered) continue
    } else answers[field] = { answer: 'declined', why }
    if (field === 'title' || field === 'description') {
      const takes = takesOf(decisions, field)
      if (!takes.some((take) => take.text === offered))
        changes.push({
          page,
          key: `takes:${field}`,
          after: [...takes, { text: offered, from: takeFrom(suggestion) } satisfies Take],
        })
    }
  }
  return [...changes, { page, key: 'suggested', after: { ...suggestion, answers } satisfies Suggestion }]
}

/** The answers as a sheet for whoever made the suggestions. `said` gives a field as it stands now. */
export function answerRows(
  pages: readonly { url: string; suggestion: Suggestion; said(field: SuggestedField): string }[],
): (string | number)[][] {
  const rows: (string | number)[][] = [
    ['row', 'address', 'field', 'suggested', 'answer', 'wording now', 'why'],
  ]
  for (const { url, suggestion, said } of pages)
    for (const field of suggestedFields) {
      const offered = suggestion.fields[field] ?? ''
      if (offered === '') continue
      const { answer, why } = suggestion.answers[field] ?? { answer: 'open', why: '' }
      rows.push([suggestion.row, url, field, offered, answer, answer === 'open' ? '' : said(field), why])
    }
  return rows
}
