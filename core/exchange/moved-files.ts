/** Files of a site that are no pages: style sheets, sitemaps and feeds, whose addresses follow the pages that moved. */
import { basesOf, cssAddresses, xmlAddresses, type Replacement } from '../addresses/page-moves.ts'
import { bomOf, byteView, encode, encodingOfLabel, isUtf8 } from '../page/source/encoding.ts'
import { toBytePlaces } from '../page/source/places.ts'
import { sourceOf, type Source } from '../page/source/source.ts'
import type { Moves } from '../site/moves.ts'
import { pageMovesFor } from '../work/page-proof.ts'

/** Kinds of files in which addresses follow. */
export const hasAddresses = (path: string): boolean => /\.(?:css|xml|rss|atom)$/i.test(path)

/** A file that is no page: style sheets and sitemaps follow the moves, everything else is as it was taken in. */
export function movedFileBytes(path: string, bytes: Uint8Array, moves: Moves, base: string): Uint8Array {
  const pageMoves = pageMovesFor(path, moves, base)
  const kind = /\.(css|xml|rss|atom)$/i.exec(path)?.[1]?.toLowerCase()
  if (!pageMoves || !kind) return bytes
  const source = sourceOfText(bytes)
  const replacements =
    kind === 'css'
      ? cssAddresses(source.text, basesOf(null, pageMoves), pageMoves)
      : xmlAddresses(source.text, pageMoves)
  return replaceInBytes(source, replacements)
}

/** A file with just some stretches of its text replaced, as `find` names them. */
export function replacedInFile(
  bytes: Uint8Array,
  find: (text: string) => readonly Replacement[],
): Uint8Array {
  const source = sourceOfText(bytes)
  return replaceInBytes(source, find(source.text))
}

/** A style sheet or XML file as text: by its BOM, what it declares, else UTF-8 where its bytes are valid, else windows-1252. */
function sourceOfText(bytes: Uint8Array): Source {
  const bom = bomOf(bytes)
  if (bom) return sourceOf(bytes, bom.encoding, 'bom', bom.length)
  const head = byteView(bytes.subarray(0, 200))
  const declared = /^@charset "([^"]+)"|^<\?xml[^>]*?\sencoding\s*=\s*["']([^"']+)["']/.exec(head)
  const encoding = declared && encodingOfLabel((declared[1] ?? declared[2])!)
  if (encoding && encoding !== 'replacement') return sourceOf(bytes, encoding, 'xml', 0)
  return isUtf8(bytes)
    ? sourceOf(bytes, 'utf-8', 'valid-utf-8', 0)
    : sourceOf(bytes, 'windows-1252', 'fall-back', 0)
}

/** Bytes with just those of some stretches of their text replaced; the very same bytes where nothing is. Addresses are ASCII. */
function replaceInBytes(source: Source, replacements: readonly Replacement[]): Uint8Array {
  if (replacements.length === 0) return source.bytes
  const places = toBytePlaces(
    source,
    replacements.flatMap(({ start, end }) => [start, end]),
  )
  const parts: Uint8Array[] = []
  let at = 0
  replacements.forEach(({ text }, i) => {
    parts.push(source.bytes.subarray(at, places[2 * i]!), encode(text, source.encoding, encodeURIComponent))
    at = places[2 * i + 1]!
  })
  parts.push(source.bytes.subarray(at))
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0))
  let to = 0
  for (const part of parts) {
    out.set(part, to)
    to += part.length
  }
  return out
}
