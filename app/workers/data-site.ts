/** Structured data of the whole site: one kind of it for every page, previewed; who describes what, who points to whom. */
import { draftOf, type Decisions } from '../../core/work/decisions.ts'
import type { Edit, TargetKey } from '../../core/page/edits/draft.ts'
import type { PageFacts } from '../../core/page/read/facts.ts'
import { applyDraft } from '../../core/page/proof.ts'
import { placeName } from '../../core/rules/resolve.ts'
import { catalogue } from '../../core/rules/catalogue.ts'
import { auditPage, ruleOf } from '../../core/rules/runner.ts'
import { build, type BuildKind } from '../../core/structured-data/build.ts'
import { pretty } from '../../core/json/edit-json.ts'
import { linksOf } from '../../core/structured-data/follow.ts'
import { schemaTypes } from '../../core/structured-data/page-data.ts'
import { dataOf } from '../../core/structured-data/read.ts'
import { isA } from '../../core/structured-data/vocabulary.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import { pathOf, type PageId } from '../../core/site/page-identity.ts'
import { readDraft, type Reading } from '../../core/work/evaluate.ts'
import { languageOf, sideOf } from './data.ts'
import { current, sourceFor } from './open-site.ts'

/** A block that is put into many pages, previewed: what each would describe, and the marks that it would bring. */
export interface DataStepPage {
  id: PageId
  path: string
  name: string
  json: string
  /** The same in words. */
  says: string
  /** Names of marks that the page's data would have and has not now. */
  marks: string[]
  /** Why the page is passed over; null where it is not. */
  skipped: string | null
  edit: Edit | null
}
/** What can be said of every page in one step: its breadcrumb; or who publishes it, the organisation being described on the home page. */
export type DataStep = 'breadcrumb' | 'organisation'
const only = new Set(catalogue.filter((r) => r.family === 'data').map((r) => r.id))
export const dataStepKey = (kind: DataStep): TargetKey => `data:${kind}`

/** What one kind of data for every page would be, for some of the pages. `decisionsOf` holds what was decided, by page. */
export async function dataStepPreview(
  kind: DataStep,
  decisionsOf: Record<PageId, Decisions>,
  ids: PageId[],
): Promise<DataStepPage[]> {
  const open = current
  if (!open) return []
  const previews: DataStepPage[] = []
  for (const id of ids) {
    const identity = open.pages.get(id)
    const source = identity && (await sourceFor(open, id))
    if (!source) continue
    const row = open.rows.get(id)
    const named = { id, path: pathOf(identity), name: row?.h1 ?? row?.title ?? pathOf(identity) }
    const skip = (why: string): DataStepPage => ({
      ...named,
      json: '',
      says: '',
      marks: [],
      skipped: why,
      edit: null,
    })
    const preview = onePage(() => {
      const reading = readDraft(identity, source, decisionsOf[id] ?? {}, open.setting)
      return { ok: true, value: spreadOn(reading, kind, named, skip) }
    })
    previews.push(preview.ok ? preview.value : skip('It could not be checked.'))
  }
  return previews
}

/** What one kind of data would be on one page. */
function spreadOn(
  reading: Reading,
  kind: DataStep,
  named: Pick<DataStepPage, 'id' | 'path' | 'name'>,
  skip: (why: string) => DataStepPage,
): DataStepPage {
  const { page, proof, source, decisions, setting } = reading
  const { things } = dataOf(page)
  const { name } = named
  const side = sideOf(reading)
  const isHome = page.url === side.base
  const has = (type: string) => things.some((t) => schemaTypes(t).some((n) => isA(n, type)))
  if (kind === 'breadcrumb' && has('BreadcrumbList')) return skip('It has a breadcrumb.')
  if (kind === 'breadcrumb' && side.trail.length < 2) return skip('It is the home page.')
  if (kind === 'organisation' && things.some((t) => t.properties.some((p) => p.name === 'publisher')))
    return skip('It says who publishes it.')
  if (kind === 'organisation' && isHome && side.organisation !== null)
    return skip('It describes the organisation.')
  const type: BuildKind = kind === 'breadcrumb' ? 'BreadcrumbList' : isHome ? 'Organization' : 'WebPage'
  // The home page is given the organisation in the same step.
  const given = { ...side, organisation: side.organisation ?? `${side.base}#organisation` }
  const built = build(type, page, proof.source.text, given, languageOf(reading))
  const edit: Edit = {
    value: pretty(built.data),
    built: linksOf(built, (start) => placeName(proof, start)),
  }
  const key = dataStepKey(kind)
  const refused = applyDraft(source, { ...draftOf(decisions), [key]: edit }).refused.find(
    (r) => r.key === key,
  )
  if (refused) return skip(refused.why)
  // All that these rules look at is what the page says, which stays, and its data, which is one block more.
  const judged = { ...page, data: [...page.data, { json: edit.value!, jsonStart: 0, start: 0, end: 0 }] }
  const rulesOf = (p: PageFacts) =>
    auditPage(p, setting.index, setting.style, { date: setting.date, only }).map((m) => m.rule)
  const more = rulesOf(judged)
  for (const rule of rulesOf(page)) if (more.includes(rule)) more.splice(more.indexOf(rule), 1)
  return {
    ...named,
    json: edit.value!,
    says:
      kind === 'breadcrumb'
        ? side.trail.map((t) => t.name).join(' › ')
        : isHome
          ? `${name}: the organisation itself`
          : `${name}: published by ${side.name ?? 'the organisation'}`,
    marks: [...new Set(more)].map((r) => ruleOf(r).name),
    skipped: null,
    edit,
  }
}

/** Everything that the site's pages describe, for the table and the graph. */
export interface SiteDataView {
  pages: { id: PageId; path: string; name: string; types: string[]; none: boolean }[]
  things: { id: string; name: string | null; types: string[]; pages: PageId[]; conflicts: boolean }[]
  /** Between things by `@id`; `to` may be described nowhere. */
  links: { from: string; property: string; to: string; pages: number; dangling: boolean }[]
}
export async function siteData(): Promise<SiteDataView> {
  const open = current
  if (!open) return { pages: [], things: [], links: [] }
  const { index } = open.setting
  const things = new Map<string, SiteDataView['things'][number]>()
  const links = new Map<string, SiteDataView['links'][number]>()
  const conflicts = new Set(
    open.siteMarks.filter((m) => m.rule === 'data-conflict').map((m) => String(m.values.what)),
  )
  const dangling = new Set(
    open.siteMarks.filter((m) => m.rule === 'data-dangling').map((m) => String(m.values.id)),
  )
  const label = (id: PageId) =>
    open.rows.get(id)?.h1 ?? open.rows.get(id)?.title ?? index.entries.get(id)!.path
  const pages: SiteDataView['pages'] = []
  const inOrder = [...index.entries.values()].sort((a, b) => (a.path < b.path ? -1 : 1))
  for (const { id: pageId, path, things: described } of inOrder) {
    const pageThings = described?.things ?? []
    pages.push({
      id: pageId,
      path,
      name: label(pageId),
      types: [...new Set(pageThings.flatMap((t) => t.types))],
      none: pageThings.length === 0,
    })
    const nodeOf = (i: number) => pageThings[i]!.id ?? `page:${pageId} ${i}`
    pageThings.forEach((t, i) => {
      const id = nodeOf(i)
      const before = things.get(id)
      if (before) {
        if (before.pages.at(-1) !== pageId) before.pages.push(pageId)
        before.name ??= t.name
        for (const type of t.types) if (!before.types.includes(type)) before.types.push(type)
      } else
        things.set(id, {
          id,
          name: t.name ?? (t.id === null ? label(pageId) : null),
          types: [...t.types],
          pages: [pageId],
          conflicts: conflicts.has(t.id ?? ''),
        })
    })
    for (const { from, property, to } of described?.links ?? []) {
      const target = typeof to === 'number' ? nodeOf(to) : to
      const source = nodeOf(from)
      if (source === target) continue
      const key = `${source} ${property} ${target}`
      const link = links.get(key)
      if (link) link.pages++
      else links.set(key, { from: source, property, to: target, pages: 1, dangling: dangling.has(target) })
    }
  }
  return { pages, things: [...things.values()], links: [...links.values()] }
}
