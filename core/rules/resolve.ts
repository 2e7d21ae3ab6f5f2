/** From places in a proof's text to keys of the draft: a repair found in the proof becomes edits of the source. */
import type { Draft, Edit } from '../page/edits/draft.ts'
import { toBytePlaces } from '../page/source/places.ts'
import { newBlockAt, type Proof } from '../page/proof.ts'
import type { Repair, ResolvedRepair } from './rule.ts'

/** Source bytes of places in the proof's text, in the order given. */
export const sourceBytes = (proof: Proof, places: number[]): number[] =>
  bothBytes(proof, places).map((b) => b.source)

/** Proof and source bytes of places in the proof's text, in the order given. */
function bothBytes(proof: Proof, places: number[]): { proof: number; source: number }[] {
  const order = [...places.keys()].sort((a, b) => places[a]! - places[b]!)
  const bytes = toBytePlaces(
    proof.source,
    order.map((i) => places[i]!),
  )
  const out = new Array<{ proof: number; source: number }>(places.length)
  // Places and changes both go up: one pass over the changes is enough.
  const { changes } = proof
  let next = 0
  let shift = 0
  order.forEach((i, k) => {
    const byte = bytes[k]!
    for (; next < changes.length && changes[next]!.until <= byte; next++)
      shift = changes[next]!.to - changes[next]!.until
    const within = next < changes.length && byte >= changes[next]!.at
    out[i] = { proof: byte, source: within ? changes[next]!.from : byte + shift }
  })
  return out
}

/**
 * The draft's keys for JSON-LD blocks whose start tags stand at places in the proof: blocks of the source's, or ones that
 * the draft put in.
 */
export function blockKeys(proof: Proof, starts: number[]): string[] {
  const added = proof.changes.filter((c) => c.key.startsWith('data:'))
  return bothBytes(proof, starts).map(({ proof: byte, source }) => {
    const addedBlock = added.find((c) => byte >= c.at && byte < c.until)
    return addedBlock ? addedBlock.key : `jsonld@${source}`
  })
}

/** The same for one block. */
export const blockKey = (proof: Proof, start: number): string => blockKeys(proof, [start])[0]!

/** How data that follows the page's text names a place of it: `812`, or `812+a1` within a new block. */
export function placeName(proof: Proof, start: number): string {
  const [{ proof: byte, source }] = bothBytes(proof, [start]) as [{ proof: number; source: number }]
  return newBlockAt(proof.changes, byte)?.replace('after@', '') ?? String(source)
}

/**
 * A repair's edits with the keys of the draft; null where it would change a block that the draft puts in, whose words are
 * an edit already. All of its places are looked up at once: it can have thousands.
 */
export function resolveRepair(proof: Proof, repair: Repair): ResolvedRepair | null {
  const places = new Set<number>()
  for (const { at, merges, above } of repair.edits) {
    if (at !== undefined) places.add(at)
    for (const merge of merges ?? []) places.add(merge)
    if (above !== undefined) places.add(above)
  }
  const all = [...places]
  const both = bothBytes(proof, all)
  if (
    proof.changes.some((c) => c.part !== undefined) &&
    both.some((b) => newBlockAt(proof.changes, b.proof) !== null)
  )
    return null
  const bytes = both.map((b) => b.source)
  const byteOf = new Map(all.map((place, i) => [place, bytes[i]!]))
  const edits: Record<string, Edit> = {}
  for (const { target, at, edit, merges, above } of repair.edits) {
    const key =
      at === undefined ? target : target === 'jsonld' ? blockKey(proof, at) : `${target}@${byteOf.get(at)}`
    edits[key] = {
      ...edits[key],
      ...edit,
      ...(merges ? { merge: merges.map((m) => byteOf.get(m)!) } : {}),
      ...(above === undefined ? {} : { hgroup: byteOf.get(above)! }),
    }
  }
  return { label: repair.label, edits: edits as Draft, judgement: repair.judgement ?? false }
}
