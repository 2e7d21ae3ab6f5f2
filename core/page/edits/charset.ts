/** What declares the page's encoding: written, or kept within the bytes in which a browser looks for it. */
import { ASCII, encode, prescan } from '../source/encoding.ts'
import type { Source } from '../source/source.ts'
import { toBytes, type ByteSplice } from '../splice/bytes.ts'
import type { Locations } from '../splice/locate.ts'
import { removal, voidEnd, type Splices } from '../splice/splice.ts'

export function charsetSplices(places: Locations): Splices {
  const at = places.head?.place.startEnd ?? places.html?.place.startEnd ?? places.doctypeEnd
  const text = `<meta charset="utf-8"${voidEnd(places)}`
  return [{ start: at, end: at, text: at === 0 ? text + places.eol : places.eol + text }]
}

/** What declares an encoding must end within so many bytes (WHATWG HTML 4.2.5.4). */
const DECLARED_WITHIN = 1024

/**
 * Where edits push the meta that declares the encoding too far down, it goes to the top of the head: the splices that
 * move it, none where it stays in time; `beyond` where there is no place for it.
 */
export function declarationMovedOn(
  source: Source,
  places: Locations,
  accepted: readonly ByteSplice[],
): ByteSplice[] | 'beyond' {
  const declared = source.encodingBy === 'meta' ? prescan(source.bytes) : null
  if (declared?.by !== 'meta') return []
  const { start, end } = declared
  const grown = (until: number) =>
    accepted.reduce((n, s) => (s.to <= until ? n + s.bytes.length - (s.to - s.from) : n), 0)
  if (end + grown(start) <= DECLARED_WITHIN) return []
  const at = places.head?.place.startEnd ?? places.html?.place.startEnd ?? places.doctypeEnd
  const element = places.byStart.get(start)
  if (!element || accepted.some((s) => s.from < end && s.to > start)) return 'beyond'
  if (at + grown(at) + (end - start) + places.eol.length > DECLARED_WITHIN) return 'beyond'
  const key = 'charset'
  const gone = removal(places.view, element)
  if ('why' in gone) return 'beyond'
  const tag = source.bytes.subarray(start, end)
  const eol = encode(places.eol, ASCII, () => '')
  const bytes = new Uint8Array(eol.length + tag.length)
  bytes.set(at === 0 ? tag : eol)
  bytes.set(at === 0 ? eol : tag, at === 0 ? tag.length : eol.length)
  return [{ key, from: at, to: at, bytes }, ...gone.map((s) => toBytes(source, places, key, s, ASCII))]
}
