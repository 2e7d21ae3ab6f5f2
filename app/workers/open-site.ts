/** The site that is open in this worker: what every question about it starts from. */
import type { SiteAtHand } from '../../core/exchange/hand-off.ts'
import type { OutlineItem } from '../../core/headings/template-rules.ts'
import { sourceOf, type Source } from '../../core/page/source/source.ts'
import type { SiteMark } from '../../core/rules/rule.ts'
import type { SlugEdit } from '../../core/site/moves.ts'
import type { PageId, PageIdentity } from '../../core/site/page-identity.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import { readDraft, type LedgerRow, type Reading } from '../../core/work/evaluate.ts'
import { itemsOf } from '../../core/work/page-proof.ts'
import type { SiteSetting } from '../../core/work/setting.ts'
import { db, type PageRecord, type SiteRecord } from '../store/db.ts'

export interface Open {
  site: SiteRecord
  setting: SiteSetting
  pages: Map<PageId, PageIdentity>
  /** Paths of the files that are no pages. */
  otherFiles: string[]
  /** All files by id and by path from the root. */
  files: (readonly [PageId, string])[]
  /** Slugs that were decided, by path from the root. */
  slugs: Map<string, SlugEdit>
  rows: Map<PageId, LedgerRow>
  /** Sources of the pages last looked at. */
  sources: Map<PageId, Source>
  /** Outlines of sources by page, once rules for many pages were asked for. */
  outlines?: Map<PageId, OutlineItem[]>
  siteMarks: SiteMark[]
  /** Counts what changed around a page: other pages, the house style, the moves. */
  edition: number
  /** The page on the desk as it was last read, with what it was read for. */
  reading?: { of: string; reading: Reading }
}
export let current: Open | null = null
export const setCurrent = (open: Open): void => void (current = open)

const KEPT_SOURCES = 12

export const sourceOfRecord = ({ bytes, encoding, encodingBy, bom, served }: PageRecord): Source =>
  sourceOf(bytes, encoding, encodingBy, bom, served)

/** A page's source from the store; the last few stay at hand. Null for what is no page of the site. */
export async function sourceFor(open: Open, id: PageId): Promise<Source | null> {
  const kept = open.sources.get(id)
  if (kept) {
    open.sources.delete(id)
    open.sources.set(id, kept)
    return kept
  }
  const record = await db.pages.get([open.site.id, id])
  if (!record) return null
  const source = sourceOfRecord(record)
  open.sources.set(id, source)
  if (open.sources.size > KEPT_SOURCES) open.sources.delete(open.sources.keys().next().value!)
  return source
}

/** A page read for one set of decisions: once, however many sheets ask. Null for what is no page of the site. */
export async function readingFor(id: PageId, decisions: Decisions): Promise<Reading | null> {
  const open = current
  const page = open?.pages.get(id)
  const source = open && page && (await sourceFor(open, id))
  if (!source) return null
  const of = JSON.stringify([id, open.edition, decisions])
  if (open.reading?.of !== of)
    open.reading = { of, reading: readDraft(page, source, decisions, open.setting) }
  return open.reading.reading
}

/** The open site as the hand-off takes it, with the decisions that the store holds. */
export async function siteAtHand(open: Open): Promise<SiteAtHand> {
  const { site, setting } = open
  const decided = new Map(
    (await db.decisions.where('site').equals(site.id).toArray()).map((w) => [w.page, w.decisions]),
  )
  const idOfFile = new Map([...open.pages.values()].map(({ id, file }) => [file, id]))
  return {
    setting,
    pages: open.pages,
    otherFiles: open.otherFiles,
    decisionsOf: (id) => decided.get(id) ?? {},
    async sourceOf({ id }) {
      const source = await sourceFor(open, id)
      return source ? { ok: true, value: source } : { ok: false, why: 'It is no longer in the store.' }
    },
    async bytesOf(path) {
      const id = idOfFile.get(path)
      const record = await (id === undefined ? db.files.get([site.id, path]) : db.pages.get([site.id, id]))
      return record?.bytes ?? null
    },
    async itemsOf(page) {
      const known = open.outlines?.get(page.id)
      const source = known ? null : await sourceFor(open, page.id)
      return known ?? (source ? itemsOf(page, source, setting) : [])
    },
  }
}
