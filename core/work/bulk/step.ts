/** One change of many pages, as an editor asks for it. */
import type { KeywordRole } from '../../keywords/keyword-map.ts'
import type { Casing } from '../../wording/casing.ts'
import type { Replacing } from '../../wording/replace.ts'
import type { Decisions } from '../decisions.ts'
import type { PageId } from '../../site/page-identity.ts'

export const replaceable = ['title', 'description', 'heading', 'alternative'] as const
export type Replaceable = (typeof replaceable)[number]

export type BulkStep =
  | ({ kind: 'replace'; in: Replaceable[] } & Replacing)
  | { kind: 'casing'; casing: Casing }
  /** Titles in a pattern such as `{page} | {site}`: the page's own words and what stands around them. */
  | { kind: 'pattern'; pattern: string }
  /** Fills what is empty, from the page's H1, from its first sentences, or from a pattern of tokens. */
  | { kind: 'fill'; field: 'title' | 'description'; from: 'h1' | 'sentences' | 'pattern'; pattern: string }
  | { kind: 'robots'; index: boolean }
  /** Certain repairs of these rules. */
  | { kind: 'repair'; rules: string[] }
  | { kind: 'keyword'; phrase: string; role: KeywordRole }
  | { kind: 'state'; state: 'drafted' | 'approved' | 'handed off' }
  /** Lets what a rule marks stand, for one reason. */
  | { kind: 'stet'; rule: string; reason: string }

/** What of a page would change, in words as they are shown. */
export interface ProposedChange {
  /** Such as "Title", or "H2". */
  name: string
  /** What is measured as a result's; null for what is not drawn there. */
  role: 'title' | 'description' | null
  before: string
  after: string
}
export interface PageProposal {
  id: PageId
  path: string
  changes: ProposedChange[]
  /** Decisions that carry the changes, by their keys; undefined takes one back. */
  decisions: { key: string; after: unknown }[]
  /** Why nothing can be changed, where something should be; null otherwise. */
  why: string | null
}

/** A page's decisions as a proposal would leave them. */
export function proposed(
  decisions: Decisions,
  { decisions: changes }: Pick<PageProposal, 'decisions'>,
): Decisions {
  const next: Record<string, unknown> = { ...decisions }
  for (const { key, after } of changes)
    if (after === undefined) delete next[key]
    else next[key] = after
  return next
}
