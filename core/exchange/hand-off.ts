/** What leaves: every file at its new place, with what points to moved pages following, and the redirects. */
import { byteView } from '../page/encoding.ts'
import { applyDraft, type Proof } from '../page/proof.ts'
import type { Draft } from '../page/draft.ts'
import type { Source } from '../page/source.ts'
import { addressOf } from '../site/addresses.ts'
import { basesOf, carryCss, carryXml, type Carry } from '../site/carry.ts'
import type { Moves, Redirect } from '../site/moves.ts'
import { readTable, writeTable } from './csv.ts'

export const REDIRECTS = 'redirects.csv'

/** What a file at `path`, from the site's root, needs to follow the moves; null where nothing moves. */
export function carryFor(path: string, moves: Moves, base: string): Carry | null {
  if (moves.paths.size === 0) return null
  return {
    from: addressOf(path, base),
    to: addressOf(moves.paths.get(path) ?? path, base),
    addresses: moves.addresses,
  }
}

export const proofOf = (path: string, source: Source, draft: Draft, moves: Moves, base: string): Proof =>
  applyDraft(source, draft, carryFor(path, moves, base))

/** A file that is no page: style sheets and sitemaps follow the moves, everything else is as it was taken in. */
export function fileBytes(path: string, bytes: Uint8Array, moves: Moves, base: string): Uint8Array {
  const carry = carryFor(path, moves, base)
  const kind = /\.(css|xml|rss|atom)$/i.exec(path)?.[1]?.toLowerCase()
  if (!carry || !kind) return bytes
  const text = byteView(bytes)
  const now = kind === 'css' ? carryCss(text, basesOf(null, carry), carry) : carryXml(text, carry)
  return now === text ? bytes : Uint8Array.from(now, (c) => c.charCodeAt(0))
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
