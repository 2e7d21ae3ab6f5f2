/** What a decision is called on a screen, and what it says. */
import { targetName, wishOf } from '../ui/target-names.ts'
import type { Edit } from '../../core/page/edits/draft.ts'

const names: Record<string, string> = {
  'keyword:primary': 'Primary keyword',
  note: 'Sent back',
  answer: 'Answer in the review',
  suggested: 'Suggestion',
  style: 'House style',
  templates: 'Rules for what recurs',
  base: 'Address of the site',
  name: 'Name of the site',
  mentions: 'Mentions without a link',
  columns: 'Columns of the ledger',
}

export function decisionName(key: string): string {
  const [kind = '', rest = ''] = [key.slice(0, key.indexOf(':')), key.slice(key.indexOf(':') + 1)]
  if (kind === 'edit') return targetName(rest)
  if (kind === 'phrase') return `Phrase “${rest}”`
  if (kind === 'stet') return 'Stet'
  if (kind === 'conflict') return `In conflict: ${targetName(rest)}`
  if (kind === 'aside') return 'Kept aside'
  return names[key] ?? key
}

const MOST = 400
/** What was decided, in its own words where it has any. */
export function decisionSays(key: string, value: unknown): string {
  if (typeof value === 'string') return value
  if (key.startsWith('edit:')) return wishOf(value as Edit)
  if (key.startsWith('stet:')) return (value as { reason?: string }).reason || 'without a reason'
  if (key === 'answer') {
    const { answer, note, by } = value as { answer: string; note?: string; by?: string }
    return [answer, note, by && `(${by})`].filter(Boolean).join(' ')
  }
  return JSON.stringify(value).slice(0, MOST)
}
