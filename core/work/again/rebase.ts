/** What becomes of what was decided for a page when the page is taken in again. */
import { headOf, type Head } from './head-values.ts'
import { applyDraft } from '../../page/proof.ts'
import { parseKey, type Edit, type TargetKey } from '../../page/edits/draft.ts'
import { attribute } from '../../page/read/parse.ts'
import type { Source } from '../../page/source/source.ts'
import { pageText } from '../../page/text/page-text.ts'
import { comparableJson, pairPages, sideOf, type PagePair, type Side } from './page-pair.ts'
import { evened } from './similarity.ts'

/**
 * in place: the page says now what was wanted. still to do: it says what it said before. in conflict: both changed, or it
 * is not certain that it is the same. gone: there is no such thing any more.
 */
export type RebaseStatus = 'still to do' | 'in place' | 'in conflict' | 'gone'

export interface RebasedEdit {
  target: TargetKey
  /** The target in the new source; null where it is gone. */
  now: TargetKey | null
  status: RebaseStatus
  /** The edit with the places in it brought over; as it was where it is gone. */
  edit: Edit
  /** What the page said, what was wanted, and what it says now, each as one line; null for nothing. */
  was: string | null
  wanted: string | null
  says: string | null
}

export interface Rebase {
  edits: RebasedEdit[]
  /** Of other bytes that were asked for, where they are now; one that is gone is not in it. */
  places: ReadonlyMap<number, number>
}

export interface RebaseOptions {
  /** Wanted values by target where they are others than the edit's own: tokens filled. */
  filled?: ReadonlyMap<TargetKey, string>
  /** Further bytes of the old source to be found again. */
  also?: Iterable<number>
  /** Whether the old source says all there is: what a sheet's row does not say is not known. */
  isWhole?: boolean
}

/** Brings edits of an old source over to a new one. */
export function rebaseDraft(
  old: Source,
  current: Source,
  draft: Readonly<Record<TargetKey, Edit>>,
  { filled = new Map(), also = [], isWhole = true }: RebaseOptions = {},
): Rebase {
  const [before, now] = [sideOf(old), sideOf(current)]
  const wanted = new Map<number, string>()
  const asked = new Set<number>(also)
  for (const [key, edit] of Object.entries(draft)) {
    const { kind, at } = parseKey(key)
    for (const byte of placesIn(edit)) asked.add(byte)
    if (at === null) continue
    asked.add(at)
    if (edit.value !== undefined && (kind === 'heading' || kind === 'block' || kind === 'text'))
      wanted.set(at, edit.value)
  }
  const pair = pairPages(before, now, wanted, asked)
  const heads = { before: headOf(before), now: headOf(now) }
  const edits = Object.entries(draft).map(([target, edit]) =>
    parseKey(target).at === null
      ? ofHead(target, edit, pair, heads, filled.get(target), isWhole)
      : ofElement(target, edit, pair),
  )
  const places = new Map<number, number>()
  for (const byte of also) {
    const place = pair.placeOf(byte)
    if (place?.sure) places.set(byte, place.at)
  }
  return { edits, places }
}

/** Bytes that an edit speaks of beside its own target's. */
const placesIn = (edit: Edit): number[] => [
  ...(edit.merge ?? []),
  ...(edit.hgroup === undefined ? [] : [edit.hgroup]),
  ...(edit.unlink ?? []),
  ...Object.values(edit.built?.links ?? {}).flatMap((link) => {
    const at = placeOfLink(link)
    return at === null ? [] : [at]
  }),
]

/** The byte in the name of a place that data follows: `question@812`, `question@812+a1`; null where there is none. */
function placeOfLink(link: string): number | null {
  const at = /@(\d+)(?:\+[a-z0-9]+)?$/.exec(link)?.[1]
  return at === undefined ? null : Number(at)
}

/** The edit with the places in it as they are now; null where one that it cannot do without is gone. */
function broughtOver(edit: Edit, pair: PagePair): Edit | null {
  const placeOf = (at: number) => {
    const place = pair.placeOf(at)
    return place?.sure ? place.at : null
  }
  const next: Edit = { ...edit }
  if (edit.merge) {
    const merge = edit.merge.map(placeOf)
    if (merge.includes(null)) return null
    next.merge = merge as number[]
  }
  // A link that is gone is taken away already.
  if (edit.unlink) next.unlink = edit.unlink.map(placeOf).filter((at) => at !== null)
  if (edit.hgroup !== undefined) {
    const hgroup = placeOf(edit.hgroup)
    if (hgroup === null) return null
    next.hgroup = hgroup
  }
  if (edit.built) {
    // A value that no longer has its text to follow stays as it was built.
    const links: Record<string, string> = Object.create(null) as Record<string, string>
    for (const [pointer, link] of Object.entries(edit.built.links)) {
      const at = placeOfLink(link)
      const to = at === null ? null : placeOf(at)
      if (at === null) links[pointer] = link
      else if (to !== null) links[pointer] = link.replace(/@\d+/, `@${to}`)
    }
    next.built = { ...edit.built, links }
  }
  return next
}

/** Whether a source has all that an edit asks for: applying it would change nothing. */
function isInPlace(source: Source, target: TargetKey, edit: Edit): boolean {
  const { changes, refused } = applyDraft(source, { [target]: edit })
  return changes.length === 0 && refused.length === 0
}

const same = (a: string | null, b: string | null): boolean =>
  a === null || b === null ? a === b : evened(a) === evened(b)

function statusOf(was: string | null, wanted: string | null, says: string | null): RebaseStatus {
  if (same(says, wanted)) return 'in place'
  return same(says, was) ? 'still to do' : 'in conflict'
}

/** New blocks behind a block: in place where the page says just that behind it, or a little further down. */
function ofNewBlocks(target: TargetKey, edit: Edit, pair: PagePair): RebasedEdit {
  const texts = (edit.blocks ?? []).flatMap(({ text, answer }) =>
    answer === undefined ? [text] : [text, answer],
  )
  const wanted = texts.join(' · ')
  const told = { target, edit, was: null, wanted }
  const place = pair.placeOf(parseKey(target).at!)
  if (place === null) return { ...told, now: null, status: 'gone', says: null }
  const now = `after@${place.at}`
  const { blocks, byByte } = pageText(pair.now.source)
  const block = byByte.get(place.at)
  const first = block ? blocks.indexOf(block) + 1 : blocks.length
  const behind = blocks.slice(first, first + texts.length + NEAR).map(({ block: { text } }) => evened(text))
  const isThere = behind.some((_, i) => texts.every((text, k) => behind[i + k] === evened(text)))
  if (isThere) return { ...told, now, status: 'in place', says: wanted }
  return { ...told, now, status: place.sure ? 'still to do' : 'in conflict', says: null }
}
/** So many blocks may stand between a block and what was to stand behind it. */
const NEAR = 3

function ofElement(target: TargetKey, edit: Edit, pair: PagePair): RebasedEdit {
  const { kind, name, at } = parseKey(target)
  if (kind === 'after') return ofNewBlocks(target, edit, pair)
  const was = describe(pair.before, kind, at!)
  const wanted = edit.remove ? null : wantedOf(was, kind, edit)
  const place = pair.placeOf(at!)
  const gone = { target, now: null, edit, was, wanted, says: null }
  if (place === null) return { ...gone, status: edit.remove ? 'in place' : 'gone' }
  const now = `${kind}${name === '' ? '' : `:${name}`}@${place.at}`
  const says = describe(pair.now, kind, place.at)
  const next = broughtOver(edit, pair)
  if (next === null) return { target, now, status: 'in conflict', edit, was, wanted, says }
  const told = (status: RebaseStatus): RebasedEdit => ({ target, now, status, edit: next, was, wanted, says })
  // A likeness by its neighbours alone is a suggestion.
  if (!place.sure) return told('in conflict')
  // Joined headings, a subtitle: the words alone do not tell what was wanted from what was there.
  if (!edit.remove && same(was, wanted) && same(says, was))
    return told(isInPlace(pair.now.source, now, next) ? 'in place' : 'still to do')
  return told(statusOf(was, wanted, says))
}

/** What stands at a byte, as one line that tells all that an edit of its kind may change. */
function describe(side: Side, kind: string, at: number): string | null {
  if (kind === 'comment') return side.comments.find((c) => c.at === at)?.text ?? null
  const element = side.byByte.get(at)
  if (!element) return null
  const textInside = () =>
    element.childNodes.map((n) => ('value' in n ? (n as { value: string }).value : '')).join('')
  switch (kind) {
    case 'heading':
    case 'block':
    case 'text':
      return `${element.tagName} ${side.textOf.get(element) ?? ''}`
    case 'alt':
    case 'id':
      return attribute(element, kind)
    case 'link':
    case 'canonical':
      return attribute(element, 'href')
    case 'meta':
      return attribute(element, 'content')
    case 'title':
      return textInside().trim()
    case 'jsonld':
      return comparableJson(textInside()) ?? textInside().trim()
    default:
      return null
  }
}

/** What was wanted there, in the same form. */
function wantedOf(was: string | null, kind: string, edit: Edit): string | null {
  if (kind === 'heading' || kind === 'block' || kind === 'text') {
    const [, tag = '', text = ''] = /^(\S+) ?(.*)$/s.exec(was ?? '') ?? []
    const became =
      edit.level !== undefined
        ? `h${edit.level}`
        : edit.tag !== undefined || edit.hgroup !== undefined
          ? 'p'
          : tag
    return `${became} ${edit.value ?? text}`
  }
  if (edit.value === undefined) return was
  return kind === 'jsonld' ? (comparableJson(edit.value) ?? edit.value.trim()) : edit.value
}

function ofHead(
  target: TargetKey,
  edit: Edit,
  pair: PagePair,
  heads: { before: Head; now: Head },
  filled: string | undefined,
  isWhole: boolean,
): RebasedEdit {
  const { kind, name } = parseKey(target)
  const was = heads.before.value(kind, name)
  const says = heads.now.value(kind, name)
  const wanted = edit.remove ? null : (filled ?? edit.value ?? null)
  const next = broughtOver(edit, pair) ?? edit
  const result = (status: RebaseStatus): RebasedEdit => ({
    target,
    now: target,
    status,
    edit: next,
    was,
    wanted,
    says,
  })
  if (kind === 'data') {
    const json = comparableJson(edit.value ?? '')
    return result(json !== null && heads.now.hasData(json) ? 'in place' : 'still to do')
  }
  if (kind === 'new' || kind === 'skip' || kind === 'doctype' || kind === 'charset') {
    const isThere = kind === 'new' ? heads.now.hasMarkup(edit.value ?? '') : heads.now.has(kind)
    return result(isThere ? 'in place' : 'still to do')
  }
  if (was === null && !isWhole && !same(says, wanted)) return result('still to do')
  return result(statusOf(was, wanted, says))
}
