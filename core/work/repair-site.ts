/**
 * Certain repairs carried out over a site, one at a time: a repair is kept when its mark is gone from the page read
 * again and no blocker has come, on the page or on the site.
 */
import { addressKey } from '../addresses/addresses.ts'
import { overEdit, type Edit } from '../page/edits/draft.ts'
import { onePage, pageFrom } from '../page/read/boundary.ts'
import { lineAndColumn, lineStarts } from '../page/source/places.ts'
import type { Source } from '../page/source/source.ts'
import { resolveRepair, sourceBytes } from '../rules/resolve.ts'
import { isCertain, type Mark } from '../rules/rule.ts'
import { auditSite } from '../rules/runner.ts'
import { movesOf, type Moves, type SlugEdit } from '../site/moves.ts'
import { pathOf, type PageId, type PageIdentity } from '../site/page-identity.ts'
import { addressOnly, updateIndex } from '../site/site-index.ts'
import type { Decisions } from './decisions.ts'
import { evaluate, readDraft, type Evaluated } from './evaluate.ts'
import { judgeBytes } from './run.ts'
import { addressesFor, setMoves, slugOf, slugPath, slugsOf, type SiteSetting } from './setting.ts'

export interface RepairableSite {
  /** Its index is filled by the repairs. Without a known base no repair writes an address. */
  setting: SiteSetting
  pages: readonly PageIdentity[]
  /** All files, pages or not: id, and path from the root. */
  files: readonly (readonly [PageId, string])[]
  /** What was decided before any repair. */
  decisionsOf(id: PageId): Decisions
  read(page: PageIdentity): Uint8Array
}
export interface PageRepairs {
  path: string
  /** Lines count from 1, in the page as it stood when the repair was made; null: the page as a whole. */
  repairs: { rule: string; line: number | null; label: string }[]
  refused: { rule: string; line: number | null; why: string }[]
}
export interface Repaired {
  pages: PageRepairs[]
  /** Decisions with the repairs among them, of every page that has any. */
  decisions: Map<PageId, Decisions>
  moves: Moves
  unread: { path: string; why: string }[]
  /** Blockers that are left, on pages and on the site. */
  blockers: number
}

/** Over all pages this often at most: a repair of one page may make another's possible. */
const MOST_PASSES = 10
/** Repairs tried on one page in one pass. */
const MOST_TRIES = 2000

const blockers = (marks: readonly { severity: string }[]) =>
  marks.filter((m) => m.severity === 'blocker').length

export function repairSite(site: RepairableSite, asked: { only: ReadonlySet<string> | null }): Repaired {
  const { files, setting } = site
  const { base, baseKnown, style, date, index } = setting
  const { only } = asked
  const paths = files.map(([, path]) => path)
  for (const page of site.pages)
    updateIndex(index, page.id, addressOnly(page.id, pathOf(page), addressesFor(page, setting).url))
  const decided = new Map<PageId, Decisions>()
  for (const { id } of site.pages)
    if (Object.keys(site.decisionsOf(id)).length > 0) decided.set(id, site.decisionsOf(id))
  const decisionsOf = (id: PageId): Decisions => decided.get(id) ?? {}
  const slugs = slugsOf(site.pages, decisionsOf, setting)
  const reports = new Map<PageId, PageRepairs>()
  const unread = new Map<PageId, string>()

  const stateOf = (page: PageIdentity, source: Source, decisions: Decisions, moves: Moves): Evaluated =>
    evaluate(readDraft(page, source, decisions, { ...setting, moves }))

  /** What a repair leads to; or why it is not made. */
  function tried(
    page: PageIdentity,
    source: Source,
    now: Evaluated,
    mark: Mark,
  ): { state: Evaluated; decisions: Decisions; moves: Moves } | { why: string } {
    const before = decisionsOf(page.id)
    const repair = resolveRepair(now.proof, mark.repair!)
    if (!repair) return { why: 'It would change what the draft inserts.' }
    const { edits } = repair
    const decisions: Record<string, unknown> = { ...before }
    let moves = setting.moves
    for (const [key, edit] of Object.entries(edits)) {
      decisions[`edit:${key}`] = overEdit(before[`edit:${key}`] as Edit | undefined, edit)
      if (key !== 'slug') continue
      const path = slugPath(page, setting)
      if (!baseKnown || !index.whole || path === null)
        return { why: 'Addresses change only in a whole site, with its address given as --base-url.' }
      moves = movesOf(paths, new Map(slugs).set(path, edit as SlugEdit), base)
      const refused = moves.refused.find((r) => r.path === path)
      if (refused) return { why: refused.why }
    }
    const state = stateOf(page, source, decisions, moves)
    const [refused] = state.proof.refused.filter((r) => r.key in edits)
    if (refused) return { why: refused.why }
    const count = (marks: readonly Mark[]) => marks.filter((m) => m.rule === mark.rule).length
    if (count(state.marks) >= count(now.marks)) return { why: 'The mark would remain.' }
    if (blockers(state.marks) > blockers(now.marks)) return { why: 'It would cause a blocker.' }
    return { state, decisions, moves }
  }

  /** Takes over new addresses, of this page and of those that moved with it. */
  function adopt(moves: Moves): void {
    if (moves === setting.moves) return
    setMoves(setting, files, moves)
    for (const page of site.pages) {
      const entry = index.entries.get(page.id)
      const { url } = addressesFor(page, setting)
      if (entry && url !== entry.url) updateIndex(index, page.id, { ...entry, url })
    }
  }

  function repairPage(page: PageIdentity, source: Source): { changed: boolean; left: number } {
    const { id } = page
    const report = reports.get(id)!
    report.refused = []
    const refused = new Set<string>()
    let changed = false
    let state = stateOf(page, source, decisionsOf(id), setting.moves)
    updateIndex(index, id, state.row)
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
      const outcome = tried(page, source, now, mark)
      if ('why' in outcome) {
        refused.add(keyOf(mark, at))
        report.refused.push({ rule: mark.rule, line, why: outcome.why })
        continue
      }
      const slug = slugOf(outcome.decisions)
      const path = slugPath(page, setting)
      if (slug && path !== null) slugs.set(path, slug)
      decided.set(id, outcome.decisions)
      adopt(outcome.moves)
      state = outcome.state
      updateIndex(index, id, state.row)
      report.repairs.push({ rule: mark.rule, line, label: mark.repair!.label })
      changed = true
    }
    return { changed, left: blockers(state.marks) }
  }

  const left = new Map<PageId, number>()
  for (const page of site.pages) reports.set(page.id, { path: pathOf(page), repairs: [], refused: [] })
  // What the home page links to is known to the first rule that runs.
  const home = site.pages.find((page) => page.id === index.addresses.get(addressKey(base)))
  const first = home && judgeBytes(home, site.read(home), decisionsOf(home.id), setting)
  if (first?.ok) updateIndex(index, home!.id, first.value.row)
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    let changed = false
    for (const page of site.pages) {
      if (unread.has(page.id)) continue
      const outcome = onePage(() => {
        const { url } = addressesFor(page, setting)
        const read = pageFrom(site.read(page), { path: pathOf(page), url, main: style.main })
        return read.ok ? { ok: true, value: repairPage(page, read.value.source) } : read
      })
      if (outcome.ok) {
        changed ||= outcome.value.changed
        left.set(page.id, outcome.value.left)
      } else {
        unread.set(page.id, outcome.why)
        reports.delete(page.id)
        decided.delete(page.id)
        updateIndex(index, page.id, null)
      }
    }
    if (!changed) break
  }
  const siteBlockers = blockers(auditSite(index, style, date))
  return {
    pages: [...reports.values()],
    decisions: decided,
    moves: setting.moves,
    unread: site.pages.flatMap((page) =>
      unread.has(page.id) ? [{ path: pathOf(page), why: unread.get(page.id)! }] : [],
    ),
    blockers: [...left.values()].reduce((n, b) => n + b, 0) + siteBlockers,
  }
}
