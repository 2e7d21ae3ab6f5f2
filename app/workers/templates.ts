/** Rules for what recurs on pages built alike: suggested, previewed on every page, listed. */
import {
  previewRule,
  suggestRules,
  templateDraft,
  type OutlineItem,
  type Suggestion,
  type TemplatePreview,
  type TemplateRule,
} from '../../core/headings/template-rules.ts'
import { draftOf } from '../../core/work/decisions.ts'
import type { Draft } from '../../core/page/edits/draft.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import type { Source } from '../../core/page/source/source.ts'
import { db } from '../store/db.ts'
import { itemsOf } from '../../core/work/page-proof.ts'
import type { PageId, PageIdentity } from '../../core/site/page-identity.ts'
import { current, sourceOfRecord, type Open } from './open-site.ts'

/** Pages read in one go while outlines are made for the first time; a keystroke's question gets in between. */
const AT_ONCE = 50

/** Outlines of all sources; made from the sources where they are not kept yet, and kept from then on. */
export async function outlinesOf(open: Open): Promise<Map<PageId, OutlineItem[]>> {
  if (open.outlines) return open.outlines
  const site = open.site.id
  const kept = new Map(
    (await db.pageOutlines.where('site').equals(site).toArray()).map((o) => [o.id, o.items] as const),
  )
  const missing = [...open.setting.index.entries.keys()].filter((id) => !kept.has(id))
  for (let i = 0; i < missing.length; i += AT_ONCE) {
    const some = missing.slice(i, i + AT_ONCE)
    const records = await db.pages.bulkGet(some.map((id) => [site, id] as [string, PageId]))
    const made = records.flatMap((r) =>
      r ? [{ site, id: r.id, items: itemsOrNone(r, sourceOfRecord(r), open) }] : [],
    )
    await db.pageOutlines.bulkPut(made)
    for (const { id, items } of made) kept.set(id, items)
  }
  // In the order of the addresses, as everywhere.
  const pathAt = (id: PageId) => open.setting.index.entries.get(id)?.path ?? id
  open.outlines = new Map([...kept].sort(([a], [b]) => (pathAt(a) < pathAt(b) ? -1 : 1)))
  return open.outlines
}

/** A page whose outline cannot be read has nothing that recurs. */
function itemsOrNone(page: PageIdentity, source: Source, open: Open): OutlineItem[] {
  const items = onePage(() => ({ ok: true, value: itemsOf(page, source, open.setting) }))
  return items.ok ? items.value : []
}

async function ownDrafts(open: Open): Promise<Map<PageId, Draft>> {
  const drafts = new Map<PageId, Draft>()
  await db.decisions
    .where('site')
    .equals(open.site.id)
    .each(({ page, decisions }) => void drafts.set(page, draftOf(decisions)))
  return drafts
}

export async function templateSuggestions(): Promise<Suggestion[]> {
  const open = current
  return open ? suggestRules(await outlinesOf(open), open.setting.templates) : []
}

export interface RulePreview {
  rule: TemplateRule
  pages: (TemplatePreview['pages'][number] & { path: string })[]
}

/** What a rule would change on every page; the site's other rules stay as they are. */
export async function templatePreview(rule: TemplateRule): Promise<RulePreview | null> {
  const open = current
  if (!open) return null
  const others = open.setting.templates.filter((r) => r.id !== rule.id)
  const preview = previewRule(await outlinesOf(open), rule, others, await ownDrafts(open))
  const pathOf = (id: PageId) => open.setting.index.entries.get(id)?.path ?? id
  return { rule, pages: preview.pages.map((p) => ({ ...p, path: pathOf(p.page) })) }
}

/** How many pages each of the site's rules changes. */
export async function templateReach(): Promise<Record<string, number>> {
  const open = current
  if (!open) return {}
  const outlines = await outlinesOf(open)
  return Object.fromEntries(
    open.setting.templates.map((rule) => [
      rule.id,
      [...outlines].filter(([id, items]) => Object.keys(templateDraft(items, [rule], id)).length > 0).length,
    ]),
  )
}
