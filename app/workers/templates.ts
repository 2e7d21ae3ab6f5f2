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
import { sourceOf, type Source } from '../../core/page/source/source.ts'
import { db } from '../store/db.ts'
import { itemsOf } from './evaluate.ts'
import { current, type Open } from './open-site.ts'

/** Pages read in one go while outlines are made for the first time; a keystroke's question gets in between. */
const AT_ONCE = 50

/** Outlines of all sources; made from the sources where they are not kept yet, and kept from then on. */
async function outlinesOf(open: Open): Promise<Map<string, OutlineItem[]>> {
  if (open.outlines) return open.outlines
  const site = open.site.id
  const kept = new Map(
    (await db.outlines.where('site').equals(site).toArray()).map((o) => [o.path, o.items] as const),
  )
  const missing = [...open.setting.index.entries.keys()].filter((path) => !kept.has(path))
  for (let i = 0; i < missing.length; i += AT_ONCE) {
    const some = missing.slice(i, i + AT_ONCE)
    const records = await db.sources.bulkGet(some.map((path) => [site, path] as [string, string]))
    const made = records.flatMap((r) =>
      r
        ? [
            {
              site,
              path: r.path,
              items: itemsOrNone(r.path, sourceOf(r.bytes, r.encoding, r.encodingBy, r.bom), open),
            },
          ]
        : [],
    )
    await db.outlines.bulkPut(made)
    for (const { path, items } of made) kept.set(path, items)
  }
  // In the order of the addresses, as everywhere.
  open.outlines = new Map([...kept].sort(([a], [b]) => (a < b ? -1 : 1)))
  return open.outlines
}

/** A page whose outline cannot be read has nothing that recurs. */
function itemsOrNone(path: string, source: Source, open: Open): OutlineItem[] {
  const items = onePage(() => ({ ok: true, value: itemsOf(path, source, open.setting) }))
  return items.ok ? items.value : []
}

async function ownDrafts(open: Open): Promise<Map<string, Draft>> {
  const drafts = new Map<string, Draft>()
  await db.work
    .where('site')
    .equals(open.site.id)
    .each(({ path, decisions }) => void drafts.set(path, draftOf(decisions)))
  return drafts
}

export async function templateSuggestions(): Promise<Suggestion[]> {
  const open = current
  return open ? suggestRules(await outlinesOf(open), open.setting.templates) : []
}

/** What a rule would change on every page; the site's other rules stay as they are. */
export async function templatePreview(rule: TemplateRule): Promise<TemplatePreview | null> {
  const open = current
  if (!open) return null
  const others = open.setting.templates.filter((r) => r.id !== rule.id)
  return previewRule(await outlinesOf(open), rule, others, await ownDrafts(open))
}

/** Pages in which the site's rules change something. */
export async function pagesWithRules(open: Open): Promise<Set<string>> {
  const { templates } = open.setting
  if (templates.length === 0) return new Set()
  const changed = new Set<string>()
  for (const [path, items] of await outlinesOf(open))
    if (Object.keys(templateDraft(items, templates, path)).length > 0) changed.add(path)
  return changed
}

/** How many pages each of the site's rules changes. */
export async function templateReach(): Promise<Record<string, number>> {
  const open = current
  if (!open) return {}
  const outlines = await outlinesOf(open)
  return Object.fromEntries(
    open.setting.templates.map((rule) => [
      rule.id,
      [...outlines].filter(([path, items]) => Object.keys(templateDraft(items, [rule], path)).length > 0)
        .length,
    ]),
  )
}
