/**
 * Two people's work on one site as one: what only one of them decided is taken as it is, lists are joined, and what both
 * decided differently is for an editor to settle. Whose work is called ours makes no difference to what comes out.
 */
import type { PageId } from '../site/page-identity.ts'
import { stateOf, type Decisions, type PageState } from './decisions.ts'

export interface Merged {
  /** What is to be decided here, so that all that is not in dispute is in place. */
  taken: { page: PageId; key: string; after: unknown }[]
  /** Each by page and decision, once. */
  disputes: Dispute[]
}
export interface Dispute {
  page: PageId
  key: string
  ours: unknown
  theirs: unknown
}

/** Decisions that are lists to which both may have added. */
const joinedLists = new Set([
  'takes:title',
  'takes:description',
  'keyword:secondary',
  'follow',
  'hand-offs',
  'views',
  'live',
])
/** How far a page has come; of two states of the same draft the further one holds. */
const ranks: PageState[] = ['untouched', 'drafted', 'approved', 'handed off', 'in place']

/** An object's members in one order, so that two that say the same are the same text. */
const canonical = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    part !== null && typeof part === 'object' && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  )
const isSame = (a: unknown, b: unknown) => canonical(a) === canonical(b)
const isEdit = (key: string) => key.startsWith('edit:') || key === 'follow'

export function mergeWork(
  ours: ReadonlyMap<PageId, Decisions>,
  theirs: ReadonlyMap<PageId, Decisions>,
): Merged {
  const merged: Merged = { taken: [], disputes: [] }
  for (const [page, their] of theirs) {
    const our = ours.get(page) ?? {}
    const before = merged.taken.length
    for (const [key, value] of Object.entries(their)) {
      if (key === 'state' || isSame(our[key], value)) continue
      if (our[key] === undefined) merged.taken.push({ page, key, after: value })
      else if (joinedLists.has(key)) {
        const both = joined(our[key] as unknown[], value as unknown[])
        if (!isSame(both, our[key])) merged.taken.push({ page, key, after: both })
      } else merged.disputes.push({ page, key, ours: our[key], theirs: value })
    }
    if (page === '') continue
    const state = mergedState(our, their)
    // An edit that is taken makes a page a draft again: what it is in the end is said behind it, where that is more.
    const isEdited = merged.taken.slice(before).some(({ key }) => isEdit(key))
    const isDraft = (of: unknown) => of === undefined || of === 'drafted'
    // Where there are edits, a page is a draft whether it is said or not.
    const hasEdits = [...Object.keys(our), ...Object.keys(their)].some(isEdit)
    if (isDraft(state) && isDraft(our.state) && (hasEdits || state === our.state)) continue
    if (state !== our.state || isEdited) merged.taken.push({ page, key: 'state', after: state })
  }
  return merged
}

/** All that is in either list, once, in the order of their texts, which hangs on neither side. */
function joined(a: readonly unknown[], b: readonly unknown[]): unknown[] {
  const all = new Map([...a, ...b].map((item) => [canonical(item), item]))
  return [...all].sort(([x], [y]) => (x < y ? -1 : 1)).map(([, item]) => item)
}

/**
 * The state of the draft that comes out: that of whoever wrote all of it, the further one where both did; a draft that
 * neither of them had is approved by neither. Undefined where nothing was decided.
 */
function mergedState(our: Decisions, their: Decisions): unknown {
  const hasAllOf = (one: Decisions, other: Decisions) =>
    Object.entries(other).every(([key, value]) => !isEdit(key) || isSame(one[key], value))
  const [ourHasAll, theirHasAll] = [hasAllOf(our, their), hasAllOf(their, our)]
  if (ourHasAll && theirHasAll)
    return ranks.indexOf(stateOf(our)) >= ranks.indexOf(stateOf(their)) ? our.state : their.state
  if (ourHasAll) return our.state
  return theirHasAll ? their.state : 'drafted'
}

/** What is decided once each dispute is settled. */
export const settledWork = (
  { taken, disputes }: Merged,
  isTheirs: (dispute: Dispute) => boolean,
): Merged['taken'] => [
  ...taken,
  ...disputes.filter(isTheirs).map(({ page, key, theirs }) => ({ page, key, after: theirs })),
]
