/**
 * source + draft → proof: the source with just the edited bytes changed. Nothing is serialised anew, so every byte
 * outside an edit is as it was, whatever the encoding, the line ends and the quoting.
 */
import { addressAfterMoves, basesOf, type PageMoves } from '../addresses/page-moves.ts'
import { declarationMovedOn } from './edits/charset.ts'
import { parseKey, type Draft, type Edit, type TargetKey } from './edits/draft.ts'
import { splicesFor } from './edits/every-edit.ts'
import { baseOf, followedJson, followedSplices } from './edits/followed-addresses.ts'
import { ASCII, type Encoding } from './source/encoding.ts'
import { declaresEncoding, sourceOf, whyUnpatchable, type Source } from './source/source.ts'
import { behind, keysOf, meetsAny, ofText, toBytes, type ByteSplice } from './splice/bytes.ts'
import { locate, type Locations } from './splice/locate.ts'

/** What an edit changed: bytes `[from, to)` of the source stand as `[at, until)` in the proof. */
export interface Change {
  key: TargetKey
  from: number
  to: number
  at: number
  until: number
  /** Of an edit that puts in new blocks: the id of the block. */
  part?: string
}

export interface Proof {
  source: Source
  changes: Change[]
  /** Edits that could not be applied, with the reason; the others stand. */
  refused: { key: TargetKey; why: string }[]
}

/** The key of changes that no edit of the page made: addresses that followed pages which moved. */
export const FOLLOWED = 'followed'

/** A draft whose own addresses follow the moves: a canonical, a block or a link may have been written before a slug changed. */
function followedDraft(source: Source, draft: Draft, pageMoves: PageMoves): Draft {
  const base = baseOf(source)
  const next: Record<TargetKey, Edit> = { ...draft }
  for (const [key, edit] of Object.entries(draft)) {
    const { kind } = parseKey(key)
    if (edit.links)
      next[key] = {
        ...edit,
        links: edit.links.map((link) => ({
          ...link,
          href: addressAfterMoves(link.href, basesOf(base, pageMoves), pageMoves) ?? link.href,
        })),
      }
    if (edit.value === undefined) continue
    if (kind === 'canonical')
      next[key] = {
        ...edit,
        value: addressAfterMoves(edit.value, basesOf(base, pageMoves), pageMoves) ?? edit.value,
      }
    else if (kind === 'jsonld' || kind === 'data')
      next[key] = { ...edit, value: followedJson(edit.value, base, pageMoves) }
  }
  return next
}

/**
 * Applies a draft, and with `pageMoves` lets every address in the page follow the pages that moved. An edit that would
 * change nothing touches nothing; one that cannot be applied, or that overlaps another, is refused with a reason and the
 * others stand. `applyDraft(source, {})` is the source itself.
 */
export function applyDraft(source: Source, given: Draft, pageMoves: PageMoves | null = null): Proof {
  const draft = pageMoves ? followedDraft(source, given, pageMoves) : given
  // A slug moves the file; what stands in it follows through `pageMoves`.
  const keys = Object.keys(draft).filter((key) => key !== 'slug')
  if (keys.length === 0 && !pageMoves) return { source, changes: [], refused: [] }
  const refuse = (refusedKeys: readonly string[], why: string): Proof => ({
    source,
    changes: [],
    refused: refusedKeys.map((key) => ({ key, why })),
  })
  const unpatchable = whyUnpatchable(source)
  // Whether anything in it would have had to follow is not known either.
  if (unpatchable) return refuse(pageMoves ? [...keys, FOLLOWED] : keys, unpatchable)
  const places = locate(source)
  if (places.doctypeEnd > 0 && places.view[places.doctypeEnd - 1] !== '>')
    return refuse(keys, 'The doctype is never closed in the source. Close it there first: >.')
  // What nothing declares is written so that no reader can take it for something else.
  const encoding = 'charset' in draft ? 'utf-8' : declaresEncoding(source) ? source.encoding : ASCII
  const { accepted, refused } = acceptEdits(source, places, draft, keys, encoding)
  if (pageMoves) acceptFollowers(source, pageMoves, accepted, encoding)
  const moved = declarationMovedOn(source, places, accepted)
  if (moved === 'beyond') {
    const why =
      'It would push what declares the page’s encoding beyond its first 1024 bytes, where it comes too late. Move that to the top of the head first.'
    return { source, changes: [], refused: [...refused, ...keysOf(accepted).map((key) => ({ key, why }))] }
  }
  for (const splice of moved) accepted.splice(behind(splice, accepted), 0, splice)
  if (accepted.length === 0) return { source, changes: [], refused }
  const { bytes, changes } = written(source.bytes, accepted)
  // A charset that the draft declares is the encoding the bytes were found to have: it is offered only for UTF-8.
  const by = 'charset' in draft ? 'meta' : source.encodingBy
  return {
    source: sourceOf(bytes, 'charset' in draft ? 'utf-8' : source.encoding, by, source.bom, source.served),
    changes,
    refused,
  }
}

/** The edits that can be applied, as splices in the order of the source's bytes, so that what a splice may meet is found at once. */
function acceptEdits(
  source: Source,
  places: Locations,
  draft: Draft,
  keys: readonly TargetKey[],
  encoding: Encoding,
): { accepted: ByteSplice[]; refused: Proof['refused'] } {
  const refused: Proof['refused'] = []
  const accepted: ByteSplice[] = []
  for (const key of keys) {
    const splices = splicesFor(source, places, key, draft[key]!)
    if ('why' in splices) {
      refused.push({ key, why: splices.why })
      continue
    }
    const ofEdit = splices
      .map((splice) => toBytes(source, places, key, splice, encoding))
      .filter((splice) => splice.from < splice.to || splice.bytes.length > 0)
    if (ofEdit.some((splice) => meetsAny(splice, accepted)))
      refused.push({ key, why: 'It changes the same place as another edit of this page.' })
    else for (const splice of ofEdit) accepted.splice(behind(splice, accepted), 0, splice)
  }
  return { accepted, refused }
}

/** Adds the addresses that follow the moves; what an edit replaces or takes out has nothing left to follow. */
function acceptFollowers(
  source: Source,
  pageMoves: PageMoves,
  accepted: ByteSplice[],
  encoding: Encoding,
): void {
  const edits = [...accepted]
  const followers = ofText(source, followedSplices(source, pageMoves), FOLLOWED, encoding).sort(
    (a, b) => a.from - b.from,
  )
  let until = -1
  for (const splice of followers) {
    // Misnested formatting elements stand more than once in the tree, and once in the source.
    const again = splice.from < until
    until = Math.max(until, splice.to)
    if (!again && !meetsAny(splice, edits)) accepted.push(splice)
  }
}

/** At one place the html tag comes before what stands in it, the charset before what it speaks of; else the draft's order. */
const FIRST_AT_A_PLACE = ['doctype', 'lang', 'charset']
const rankAtAPlace = ({ key }: ByteSplice) =>
  (FIRST_AT_A_PLACE.indexOf(key) + FIRST_AT_A_PLACE.length + 1) % (FIRST_AT_A_PLACE.length + 1)

/** The bytes with the splices in place, and where each of them stands now. */
function written(
  sourceBytes: Uint8Array,
  splices: readonly ByteSplice[],
): { bytes: Uint8Array<ArrayBuffer>; changes: Change[] } {
  const inOrder = [...splices].sort(
    (a, b) => a.from - b.from || a.to - b.to || rankAtAPlace(a) - rankAtAPlace(b),
  )
  const bytes = new Uint8Array(
    inOrder.reduce((n, s) => n + s.bytes.length - (s.to - s.from), sourceBytes.length),
  )
  const changes: Change[] = []
  let read = 0
  let write = 0
  for (const { key, from, to, bytes: now, part } of inOrder) {
    bytes.set(sourceBytes.subarray(read, from), write)
    write += from - read
    bytes.set(now, write)
    const change = { key, from, to, at: write, until: write + now.length }
    changes.push(part === undefined ? change : { ...change, part })
    write += now.length
    read = to
  }
  bytes.set(sourceBytes.subarray(read), write)
  return { bytes, changes }
}

/** A byte of the proof to the byte of the source that it came from; within an edit, the edit's start. */
export function toSourceByte(changes: Change[], at: number): number {
  let shift = 0
  for (const change of changes) {
    if (at < change.at) break
    if (at < change.until) return change.from
    shift = change.to - change.until
  }
  return at + shift
}

/** The new block that a byte of the proof stands in, as `after@812+a1`; null for what was in the source. */
export function newBlockAt(changes: Change[], at: number): string | null {
  const change = changes.find((c) => c.part !== undefined && c.at <= at && at < c.until)
  return change ? `${change.key}+${change.part}` : null
}

/** A byte of the source to the byte of the proof where it stands now; within an edit, the edit's start. */
export function toProofByte(changes: Change[], at: number): number {
  let shift = 0
  for (const change of changes) {
    if (at < change.from) break
    if (at < change.to) return change.at
    shift = change.until - change.to
  }
  return at + shift
}
