/** From places in a proof's text to keys of the draft: a repair found in the proof becomes edits of the source. */
import type { Draft, Edit } from '../page/draft.ts'
import { toBytePlaces } from '../page/places.ts'
import { toSourceByte, type Proof } from '../page/proof.ts'
import type { Repair, ResolvedRepair } from './rule.ts'

/** Source bytes of places in the proof's text, in the order given. */
export function sourceBytes(proof: Proof, places: number[]): number[] {
  const order = [...places.keys()].sort((a, b) => places[a]! - places[b]!)
  const bytes = toBytePlaces(
    proof.source,
    order.map((i) => places[i]!),
  )
  const out = new Array<number>(places.length)
  order.forEach((i, k) => (out[i] = toSourceByte(proof.changes, bytes[k]!)))
  return out
}

/** The draft's key for the JSON-LD block whose start tag stands at a place in the proof: one of the source's, or one that the draft put in. */
export function blockKey(proof: Proof, start: number): string {
  const [byte] = toBytePlaces(proof.source, [start])
  const own = proof.changes.find((c) => c.key.startsWith('data:') && byte! >= c.at && byte! < c.until)
  return own ? own.key : `jsonld@${toSourceByte(proof.changes, byte!)}`
}

/** A repair's edits with the keys of the draft. */
export function resolveRepair(proof: Proof, repair: Repair): ResolvedRepair {
  const edits: Record<string, Edit> = {}
  for (const { target, at, edit, merges, above } of repair.edits) {
    const key =
      at === undefined
        ? target
        : target === 'jsonld'
          ? blockKey(proof, at)
          : `${target}@${sourceBytes(proof, [at])[0]}`
    edits[key] = {
      ...edits[key],
      ...edit,
      ...(merges ? { merge: sourceBytes(proof, merges) } : {}),
      ...(above === undefined ? {} : { hgroup: sourceBytes(proof, [above])[0]! }),
    }
  }
  return { label: repair.label, edits: edits as Draft, judgement: repair.judgement ?? false }
}
