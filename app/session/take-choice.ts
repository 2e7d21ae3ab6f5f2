/** A wording put in a page's result in place of another. */
import type { Role } from '../../core/measure/snippet.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { takesOf, type Decisions } from '../../core/work/decisions.ts'
import type { Decision } from '../store/work-log.ts'

/** Puts a wording in the result; what stood there, `present`, is kept among the takes, so that it is not lost. */
export function takeChosen(
  page: PageId,
  decisions: Decisions,
  role: Role,
  text: string,
  { present, source }: { present: string; source: string | null | undefined },
): Decision[] {
  const key = role === 'title' ? 'edit:title' : 'edit:meta:description'
  const takes = takesOf(decisions, role)
  const isKept = present.trim() === '' || takes.some((t) => t.text === present)
  return [
    { page, key, after: text === source ? undefined : { value: text } },
    ...(isKept ? [] : [{ page, key: `takes:${role}`, after: [...takes, { text: present, from: '' }] }]),
  ]
}
