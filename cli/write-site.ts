/** A whole site with drafts applied: its files at their places, with what points to moved pages following. */
import { fileBytes, proofOf, readRedirects, REDIRECTS, writeRedirects } from '../core/exchange/hand-off.ts'
import { decodeSheet } from '../core/exchange/csv.ts'
import { onePage } from '../core/page/read/boundary.ts'
import type { Draft } from '../core/page/edits/draft.ts'
import { readSource } from '../core/page/source/source.ts'
import { isPagePath } from '../core/addresses/addresses.ts'
import { redirectsOf, type Moves } from '../core/site/moves.ts'
import { namesThatClash, writeFolder } from './output-folder.ts'
import { Problem } from './problem.ts'
import type { SiteFiles } from './site-files.ts'

/**
 * Applies the drafts in memory and writes the site, or nothing: whatever cannot be carried out is named, all of it.
 * Returns how many files there are and how many of them changed.
 */
export function writeSite(
  site: SiteFiles,
  drafts: ReadonlyMap<string, Draft>,
  moves: Moves,
  base: string,
  out: string,
  problems: readonly string[] = [],
): { files: number; changed: number; moved: number } {
  const wrong = [...problems, ...moves.refused.map((r) => `${r.path}: ${r.why}`)]
  const proofs = new Map<string, Uint8Array>()
  for (const path of moves.paths.size > 0 ? site.paths : drafts.keys()) {
    const draft = drafts.get(path)
    const outcome = onePage(() => {
      const bytes = site.read(path)
      const result = isPagePath(path) || draft ? readSource(bytes) : null
      if (!result?.ok)
        return result && draft
          ? result
          : {
              ok: true,
              value: { bytes, now: fileBytes(site.addressPath(path), bytes, moves, base), refused: [] },
            }
      const proof = proofOf(site.addressPath(path), result.source, draft ?? {}, moves, base)
      return {
        ok: true,
        value: {
          bytes,
          now: proof.changes.length > 0 ? proof.source.bytes : bytes,
          refused: proof.refused.map((r) => `${path}, ${r.key}: ${r.why}`),
        },
      }
    })
    if (!outcome.ok) wrong.push(`${path}: ${outcome.why}`)
    else {
      for (const why of outcome.value.refused) wrong.push(why)
      if (outcome.value.now !== outcome.value.bytes) proofs.set(path, outcome.value.now)
    }
  }
  const targetOf = (path: string) => {
    const given = site.addressPath(path)
    return moves.paths.get(given) ?? (site.whole ? path : given)
  }
  const extra = moves.paths.size > 0 ? [REDIRECTS] : []
  const kept = site.paths.filter((path) => !extra.includes(targetOf(path)))
  for (const clash of namesThatClash([...kept.map(targetOf), ...extra], out)) wrong.push(clash)
  if (wrong.length > 0) throw new Problem(`nothing was written. ${wrong.join('; ')}`)

  function* files(): Generator<[string, Uint8Array | string]> {
    for (const path of kept) yield [targetOf(path), proofs.get(path) ?? site.read(path)]
    if (extra.length === 0) return
    const sheet = site.paths.includes(REDIRECTS) ? decodeSheet(site.read(REDIRECTS)) : null
    const earlier = sheet?.ok ? readRedirects(sheet.text) : []
    yield [REDIRECTS, writeRedirects(redirectsOf(moves, site.paths.map(site.addressPath), base, earlier))]
  }
  writeFolder(out, files())
  return { files: site.paths.length, changed: proofs.size, moved: moves.paths.size }
}
