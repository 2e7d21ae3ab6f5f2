/** What leaves: every file at its new place, with what points to moved pages following, and the redirects. */
import { bomOf, byteView, encode, encodingOfLabel, isUtf8 } from '../page/source/encoding.ts'
import { toBytePlaces } from '../page/source/places.ts'
import { applyDraft, type Proof } from '../page/proof.ts'
import type { Draft } from '../page/edits/draft.ts'
import { sourceOf, type Source } from '../page/source/source.ts'
import { addressOf } from '../addresses/addresses.ts'
import {
  basesOf,
  cssAddresses,
  xmlAddresses,
  type PageMoves,
  type Replacement,
} from '../addresses/page-moves.ts'
import type { Moves, Redirect } from '../site/moves.ts'
import { readTable, writeTable } from './csv.ts'

export const REDIRECTS = 'redirects.csv'

/** What a file at `path`, from the site's root, needs to follow the moves; null where nothing moves. */
export function pageMovesFor(path: string, moves: Moves, base: string): PageMoves | null {
  if (moves.paths.size === 0) return null
  return {
    from: addressOf(path, base),
    to: addressOf(moves.paths.get(path) ?? path, base),
    addresses: moves.addresses,
  }
}

export const proofOf = (path: string, source: Source, draft: Draft, moves: Moves, base: string): Proof =>
  applyDraft(source, draft, pageMovesFor(path, moves, base))

/** A file that is no page: style sheets and sitemaps follow the moves, everything else is as it was taken in. */
export function fileBytes(path: string, bytes: Uint8Array, moves: Moves, base: string): Uint8Array {
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

/** The redirects that a site brought along, from an earlier hand-off; none where the sheet is of another kind. */
export function readRedirects(csv: string): Redirect[] {
  const table = readTable(csv)
  if (!table.ok || !table.columns.includes('from') || !table.columns.includes('to')) return []
  return table.rows
    .map(({ cells }) => ({
      from: cells.from!.trim(),
      to: cells.to!.trim(),
      status: cells.status?.trim() || '301',
    }))
    .filter((r) => r.from !== '' && r.to !== '')
}

export const writeRedirects = (redirects: readonly Redirect[]): string =>
  writeTable(
    ['from', 'to', 'status'],
    redirects.map((r) => [r.from, r.to, r.status]),
  )
