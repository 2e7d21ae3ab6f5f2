/** A page's decisions brought over to its source as it is now: nothing is lost, and nothing uncertain is done unasked. */
import type { Edit, TargetKey } from '../../page/edits/draft.ts'
import { descriptionOf, titleOf } from '../../page/read/facts.ts'
import type { Source } from '../../page/source/source.ts'
import type { PageIdentity } from '../../site/page-identity.ts'
import { hasTokens } from '../../wording/tokens.ts'
import { draftOf, stateOf, type Decisions, type LiveEdit } from '../decisions.ts'
import { readDraft } from '../evaluate.ts'
import { addressesFor, type SiteSetting } from '../setting.ts'
import { rebaseDraft, type RebasedEdit, type RebaseStatus } from './rebase.ts'

/** How a page's edits came out, counted. */
export type Counts = Record<RebaseStatus, number>

export interface RebasedPage {
  decisions: Decisions
  counts: Counts
}

/** Decisions that speak of the page's source. */
const ofSource = (key: string): boolean => /^(?:edit|stet|conflict):/.test(key)

export function rebaseDecisions(
  old: { identity: PageIdentity; source: Source; decisions: Decisions; setting: SiteSetting },
  current: { identity: PageIdentity; source: Source },
  date: string,
): RebasedPage {
  const { decisions } = old
  const counts: Counts = { 'still to do': 0, 'in place': 0, 'in conflict': 0, gone: 0 }
  if (!Object.keys(decisions).some(ofSource)) return { decisions, counts }
  const next: Record<string, unknown> = {}
  for (const [key, value] of Object.entries(decisions)) if (!ofSource(key)) next[key] = value
  const open = openConflicts(decisions)
  const { slug, ...draft } = draftOf(decisions)
  const stets = stetBytes(decisions)
  const rebase = rebaseDraft(
    old.source,
    current.source,
    { ...Object.fromEntries(open), ...draft },
    {
      filled: filledValues(old, draft),
      also: stets.map(({ at }) => at),
      isWhole: old.identity.partial === null,
    },
  )
  const live: LiveEdit[] = [...((decisions.live as LiveEdit[] | undefined) ?? [])]
  const edits = slug ? [...rebase.edits, rebasedSlug(old, current, slug)] : rebase.edits
  for (const edit of edits) {
    // What was in conflict stays so until the editor picks, unless the page says now what was wanted.
    const wasOpen = open.has(edit.target) && !(edit.target in draft)
    const known = wasOpen && edit.status === 'still to do' ? 'in conflict' : edit.status
    // Where another edit has come to the same place, this one is kept aside: neither takes the other's.
    const kind = known === 'still to do' ? 'edit' : known === 'in conflict' ? 'conflict' : null
    const status = kind !== null && `${kind}:${edit.now}` in next ? 'gone' : known
    counts[status]++
    keep(next, live, { ...edit, status }, date)
  }
  for (const { key, rule, at } of stets) {
    const place = rebase.places.get(at)
    if (place !== undefined) next[`stet:${rule}|${place}`] = decisions[key]
    else next[`aside:${key}`] = { value: decisions[key], was: '', date }
  }
  for (const [key, value] of Object.entries(decisions))
    if (key.startsWith('stet:') && !/\|\d+$/.test(key)) next[key] = value
  if (live.length > 0) next.live = live
  settleState(next, decisions, counts)
  return { decisions: next, counts }
}

function keep(next: Record<string, unknown>, live: LiveEdit[], edit: RebasedEdit, date: string): void {
  switch (edit.status) {
    case 'still to do':
      next[`edit:${edit.now}`] = edit.edit
      break
    case 'in place':
      live.push({ target: edit.now ?? edit.target, value: shortened(edit.wanted ?? ''), date })
      break
    case 'in conflict':
      next[`conflict:${edit.now}`] = {
        edit: edit.edit,
        was: shortened(edit.was ?? ''),
        wanted: shortened(edit.wanted ?? ''),
        says: shortened(edit.says ?? ''),
        date,
      }
      break
    case 'gone':
      next[`aside:edit:${edit.target}`] = { value: edit.edit, was: shortened(edit.was ?? ''), date }
  }
}

/** What is shown of a value, at most. */
const shortened = (text: string): string => (text.length > 2000 ? `${text.slice(0, 1999)}…` : text)

/** A page of which all that was drafted is live is in place; one with something to decide is drafted again. */
function settleState(next: Record<string, unknown>, before: Decisions, counts: Counts): void {
  const left = counts['still to do'] + counts['in conflict'] + counts.gone
  if (counts['in place'] > 0 && left === 0) next.state = 'in place'
  else if (counts['in conflict'] > 0 && stateOf(before) !== 'untouched') next.state = 'drafted'
}

const openConflicts = (decisions: Decisions): Map<TargetKey, Edit> =>
  new Map(
    Object.entries(decisions).flatMap(([key, value]) =>
      key.startsWith('conflict:') ? [[key.slice(9), (value as { edit: Edit }).edit] as const] : [],
    ),
  )

const stetBytes = (decisions: Decisions): { key: string; rule: string; at: number }[] =>
  Object.keys(decisions).flatMap((key) => {
    const [, rule, at] = /^stet:([^|]*)\|(\d+)$/.exec(key) ?? []
    return rule === undefined ? [] : [{ key, rule, at: Number(at) }]
  })

/** Titles and descriptions with their tokens filled, as they would have been handed off. */
function filledValues(
  { identity, source, decisions, setting }: Parameters<typeof rebaseDecisions>[0],
  draft: Readonly<Record<TargetKey, Edit>>,
): Map<TargetKey, string> {
  const filled = new Map<TargetKey, string>()
  const withTokens = (['title', 'meta:description'] as const).filter((key) =>
    hasTokens(draft[key]?.value ?? ''),
  )
  if (withTokens.length === 0) return filled
  const { page } = readDraft(identity, source, decisions, setting)
  const values = { title: titleOf(page)?.text, 'meta:description': descriptionOf(page)?.content }
  for (const key of withTokens) if (values[key] !== undefined) filled.set(key, values[key])
  return filled
}

function rebasedSlug(
  { identity, setting }: Parameters<typeof rebaseDecisions>[0],
  current: { identity: PageIdentity },
  edit: Edit,
): RebasedEdit {
  const { url, oldUrl } = addressesFor(identity, setting)
  const says = current.identity.url
  const status: RebaseStatus =
    says === url && url !== oldUrl ? 'in place' : says === oldUrl ? 'still to do' : 'in conflict'
  return { target: 'slug', now: 'slug', status, edit, was: oldUrl, wanted: url, says }
}
