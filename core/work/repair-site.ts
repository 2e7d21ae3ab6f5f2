/**
 * Certain repairs carried out over a site, one at a time: a repair is kept when its mark is gone from the page read
 * again and no blocker has come, on the page or on the site.
 */
import { pageMovesFor } from '../exchange/hand-off.ts'
import { onePage, pageFrom } from '../page/read/boundary.ts'
import { overEdit, type Draft, type Edit } from '../page/edits/draft.ts'
import type { PageFacts } from '../page/read/facts.ts'
import { lineAndColumn, lineStarts } from '../page/source/places.ts'
import { applyDraft, type Proof } from '../page/proof.ts'
import { readPage } from '../page/read/read-page.ts'
import type { Source } from '../page/source/source.ts'
import { addressBook, addressOf } from '../addresses/addresses.ts'
import { movesOf, noMoves, type Moves, type SlugEdit } from '../site/moves.ts'
import {
  addressOnly,
  emptyIndex,
  entryOf,
  updateIndex,
  type PageId,
  type SiteIndex,
} from '../site/site-index.ts'
import type { HouseStyle } from '../rules/house-style.ts'
import { resolveRepair, sourceBytes } from '../rules/resolve.ts'
import { isCertain, type Mark } from '../rules/rule.ts'
import { auditPage, auditSite } from '../rules/runner.ts'

export interface RepairableSite {
  pages: readonly PageId[]
  /** All files, pages or not: id, and path from the root. */
  files: readonly (readonly [PageId, string])[]
  whole: boolean
  base: string
  /** Whether the site's address is known: without it no repair writes an address. */
  baseKnown: boolean
  read(id: PageId): Uint8Array
  addressOf(id: PageId): string
}
export interface PageRepairs {
  path: string
  /** Lines count from 1, in the page as it stood when the repair was made; null: the page as a whole. */
  repairs: { rule: string; line: number | null; label: string }[]
  refused: { rule: string; line: number | null; why: string }[]
}
export interface Repaired {
  pages: PageRepairs[]
  drafts: Map<PageId, Draft>
  moves: Moves
  unread: { path: string; why: string }[]
  /** Blockers that are left, on pages and on the site. */
  blockers: number
}

/** Over all pages this often at most: a repair of one page may make another's possible. */
const MOST_PASSES = 10
/** Repairs tried on one page in one pass. */
const MOST_TRIES = 2000

interface State {
  proof: Proof
  page: PageFacts
  marks: Mark[]
}
const blockers = (marks: readonly { severity: string }[]) =>
  marks.filter((m) => m.severity === 'blocker').length

export function repairSite(
  site: RepairableSite,
  asked: { style: HouseStyle; date: string; only: ReadonlySet<string> | null },
): Repaired {
  const { base, baseKnown, files } = site
  const { style, date, only } = asked
  const pathOf = new Map(files)
  const index: SiteIndex = emptyIndex(base, site.whole, files)
  for (const id of site.pages) updateIndex(index, id, addressOnly(id, site.addressOf(id)))
  const drafts = new Map<PageId, Draft>()
  const slugs = new Map<string, SlugEdit>()
  const reports = new Map<PageId, PageRepairs>()
  const unread = new Map<PageId, string>()
  let moves: Moves = noMoves

  const movesWith = (path: string, slug: SlugEdit): Moves =>
    movesOf(
      files.map(([, p]) => p),
      new Map(slugs).set(path, slug),
      base,
    )
  const urlUnder = (id: PageId, m: Moves): string => {
    const path = pathOf.get(id)!
    return m.paths.size === 0 ? site.addressOf(id) : addressOf(m.paths.get(path) ?? path, base)
  }

  function stateOf(id: PageId, source: Source, draft: Draft, m: Moves): State {
    const proof = applyDraft(source, draft, pageMovesFor(pathOf.get(id)!, m, base))
    const page = readPage(proof.source, { path: id, url: urlUnder(id, m), main: style.main })
    return { proof, page, marks: auditPage(page, index, style, { date, baseKnown }) }
  }

  /** What a repair leads to; or why it is not made. */
  function tried(
    id: PageId,
    source: Source,
    now: State,
    mark: Mark,
  ): { state: State; draft: Draft; moves: Moves } | { why: string } {
    const own = drafts.get(id) ?? {}
    const { edits } = resolveRepair(now.proof, mark.repair!)
    const draft: Record<string, Edit> = { ...own }
    let after = moves
    for (const [key, edit] of Object.entries(edits)) {
      if (key !== 'slug') draft[key] = overEdit(own[key], edit)
      else {
        if (!baseKnown || !site.whole)
          return { why: 'Addresses change only in a whole site, with its address given as --base-url.' }
        const path = pathOf.get(id)!
        after = movesWith(path, edit as SlugEdit)
        const refused = after.refused.find((r) => r.path === path)
        if (refused) return { why: refused.why }
      }
    }
    const state = stateOf(id, source, draft, after)
    const [refused] = state.proof.refused.filter((r) => r.key in edits)
    if (refused) return { why: refused.why }
    const count = (marks: readonly Mark[]) => marks.filter((m) => m.rule === mark.rule).length
    if (count(state.marks) >= count(now.marks)) return { why: 'The mark would remain.' }
    if (blockers(state.marks) > blockers(now.marks)) return { why: 'It would cause a blocker.' }
    return { state, draft, moves: after }
  }

  /** Takes over new addresses, of this page and of those that moved with it. */
  function adopt(after: Moves): void {
    if (after === moves) return
    moves = after
    index.addresses = addressBook(
      base,
      files.map(([id, path]) => [id, moves.paths.get(path) ?? path] as const),
    )
    for (const [id, entry] of index.entries) {
      const url = urlUnder(id, moves)
      if (url !== entry.url) updateIndex(index, id, { ...entry, url })
    }
  }

  function repairPage(id: PageId, source: Source): { changed: boolean; left: number } {
    const report = reports.get(id)!
    report.refused = []
    const refused = new Set<string>()
    let changed = false
    let state = stateOf(id, source, drafts.get(id) ?? {}, moves)
    updateIndex(index, id, entryOf(id, state.page, index))
    for (let tries = 0; tries < MOST_TRIES; tries++) {
      const now = state
      const open = now.marks.filter((m) => isCertain(m.repair) && (only === null || only.has(m.rule)))
      const bytes = sourceBytes(
        now.proof,
        open.map((m) => m.start ?? 0),
      )
      const keyOf = (m: Mark, i: number) => `${m.rule} ${m.start === null ? 'page' : bytes[i]} ${m.message}`
      const at = open.findIndex((m, i) => !refused.has(keyOf(m, i)))
      const mark = open[at]
      if (!mark) break
      const line =
        mark.start === null ? null : lineAndColumn(lineStarts(now.proof.source.text), mark.start).line
      const outcome = tried(id, source, now, mark)
      if ('why' in outcome) {
        refused.add(keyOf(mark, at))
        report.refused.push({ rule: mark.rule, line, why: outcome.why })
        continue
      }
      const { edits } = resolveRepair(now.proof, mark.repair!)
      if (edits.slug) slugs.set(pathOf.get(id)!, edits.slug as SlugEdit)
      drafts.set(id, outcome.draft)
      adopt(outcome.moves)
      state = outcome.state
      updateIndex(index, id, entryOf(id, state.page, index))
      report.repairs.push({ rule: mark.rule, line, label: mark.repair!.label })
      changed = true
    }
    return { changed, left: blockers(state.marks) }
  }

  const left = new Map<PageId, number>()
  for (const path of site.pages) reports.set(path, { path, repairs: [], refused: [] })
  // What the home page links to is known to the first rule that runs.
  const home = index.addresses.get(base)
  const first =
    home === undefined
      ? null
      : onePage(() => pageFrom(site.read(home), { path: home, url: site.addressOf(home), main: style.main }))
  if (first?.ok) updateIndex(index, home!, entryOf(home!, first.value.page, index))
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    let changed = false
    for (const id of site.pages) {
      if (unread.has(id)) continue
      const outcome = onePage(() => {
        const read = pageFrom(site.read(id), { path: id, url: site.addressOf(id), main: style.main })
        return read.ok ? { ok: true, value: repairPage(id, read.value.source) } : read
      })
      if (outcome.ok) {
        changed ||= outcome.value.changed
        left.set(id, outcome.value.left)
      } else {
        unread.set(id, outcome.why)
        reports.delete(id)
        drafts.delete(id)
        updateIndex(index, id, null)
      }
    }
    if (!changed) break
  }
  const siteBlockers = blockers(auditSite(index, style, date))
  return {
    pages: [...reports.values()],
    drafts,
    moves,
    unread: [...unread].map(([path, why]) => ({ path, why })),
    blockers: [...left.values()].reduce((n, b) => n + b, 0) + siteBlockers,
  }
}
