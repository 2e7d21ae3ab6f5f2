/** Splices as bytes in the source's encoding, and which of them overlap. */
import { encode, type Encoding } from '../source/encoding.ts'
import { toBytePlaces } from '../source/places.ts'
import type { Source } from '../source/source.ts'
import type { Locations } from './locate.ts'
import type { Splice } from './splice.ts'

const missing = {
  markup: (c: string) => `&#${c.codePointAt(0)};`,
  json: (c: string) =>
    Array.from({ length: c.length }, (_, i) => `\\u${c.charCodeAt(i).toString(16).padStart(4, '0')}`).join(
      '',
    ),
}

export interface ByteSplice {
  key: string
  from: number
  to: number
  bytes: Uint8Array
  /** Which new block of its edit it puts in. */
  part?: string
}

export function toBytes(
  source: Source,
  places: Locations,
  key: string,
  splice: Splice,
  encoding: Encoding,
): ByteSplice {
  const from = places.bom + splice.start * places.unit
  const to = places.bom + splice.end * places.unit
  return asBytes(source, key, splice, from, to, encoding)
}

/** Splices of the source's decoded text, in order, as bytes. */
export function ofText(
  source: Source,
  splices: readonly Splice[],
  key: string,
  encoding: Encoding,
): ByteSplice[] {
  const places = toBytePlaces(
    source,
    splices.flatMap(({ start, end }) => [start, end]),
  )
  return splices.map((splice, i) =>
    asBytes(source, key, splice, places[2 * i]!, places[2 * i + 1]!, encoding),
  )
}

/** A splice as bytes in the source's encoding, those that stay at its two ends left out. */
function asBytes(
  source: Source,
  key: string,
  splice: Splice,
  start: number,
  end: number,
  encoding: Encoding,
): ByteSplice {
  let from = start
  let to = end
  let bytes = encode(splice.text, encoding, missing[splice.as ?? 'markup'])
  let same = 0
  while (same < bytes.length && from + same < to && bytes[same] === source.bytes[from + same]) same++
  from += same
  bytes = bytes.subarray(same)
  let tail = 0
  while (
    tail < bytes.length &&
    to - tail > from &&
    bytes[bytes.length - 1 - tail] === source.bytes[to - 1 - tail]
  )
    tail++
  to -= tail
  const kept = { key, from, to, bytes: bytes.subarray(0, bytes.length - tail) }
  return splice.part === undefined ? kept : { ...kept, part: splice.part }
}

/** The place in a list of splices, in their order, behind those that begin before one or with it. */
export function behind({ from, to }: Pick<ByteSplice, 'from' | 'to'>, sorted: readonly ByteSplice[]): number {
  let low = 0
  let high = sorted.length
  while (low < high) {
    const middle = (low + high) >> 1
    const at = sorted[middle]!
    if (at.from < from || (at.from === from && at.to <= to)) low = middle + 1
    else high = middle
  }
  return low
}
/** Whether a splice overlaps one of those in the list, none of which overlap each other. */
export function meetsAny({ from, to }: ByteSplice, sorted: readonly ByteSplice[]): boolean {
  // The last that begins before this one's end: those before it end no later.
  const last = sorted[behind({ from: to, to: -1 }, sorted) - 1]
  return last !== undefined && last.to > from
}

export const keysOf = (splices: readonly ByteSplice[]): string[] => [...new Set(splices.map((s) => s.key))]
