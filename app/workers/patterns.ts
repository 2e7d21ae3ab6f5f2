/** What a title pattern would make of many pages, before it is applied. */
import { wideTitleFit, type Fit } from '../../core/measure/snippet.ts'
import { matchesAddress } from '../../core/addresses/match-address.ts'
import { styleFor, type HouseStyle } from '../../core/rules/house-style.ts'
import { decodedPath } from '../../core/addresses/addresses.ts'
import type { SiteIndex } from '../../core/site/site-index.ts'
import { valuesFrom } from '../../core/site/page-tokens.ts'
import { titleInPattern } from '../../core/work/bulk/title-pattern.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'

export interface PatternChange {
  id: PageId
  path: string
  before: string
  after: string
  /** As it is kept: the page's words written out, other tokens left to be filled. */
  value: string
  fitBefore: Fit
  fitAfter: Fit
}
export interface PatternPreview {
  changes: PatternChange[]
  /** Pages that the pattern is for. */
  pages: number
  /** Of those, the ones it leaves alone because they have neither a title nor an H1, or lack what a token asks for. */
  skipped: { path: string; why: string }[]
}

/**
 * Titles of all pages that a pattern is for, as it would make them. `match` is an address pattern, null for all pages.
 * `typed` holds titles with their tokens, by page, for pages whose title was edited.
 */
export function previewPattern(
  rows: Iterable<LedgerRow>,
  typed: ReadonlyMap<string, string>,
  asked: { pattern: string; match: string | null; before: HouseStyle; after: HouseStyle; date: string },
  site: SiteIndex,
): PatternPreview {
  const { pattern, match, before, after, date } = asked
  const preview: PatternPreview = { changes: [], pages: 0, skipped: [] }
  for (const row of rows) {
    if (match !== null && !matchesAddress(match, decodedPath(row.url))) continue
    preview.pages++
    const style = styleFor(after, row.url)
    const values = valuesFrom(row, { site, style, date })
    const old = styleFor(before, row.url)
    const raw = typed.get(row.id) ?? row.title ?? ''
    const title = titleInPattern(pattern, { typed: raw, h1: row.h1 }, values, old)
    if (!title.ok) {
      preview.skipped.push({ path: row.path, why: title.why })
      continue
    }
    const { value, text } = title
    if (text === (row.title ?? '')) continue
    preview.changes.push({
      id: row.id,
      path: row.path,
      before: row.title ?? '',
      after: text,
      value,
      fitBefore: row.titleFit,
      fitAfter: wideTitleFit(text, style.slots),
    })
  }
  return preview
}
