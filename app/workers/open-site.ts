/** The site that is open in this worker: what every question about it starts from. */
import type { OutlineItem } from '../../core/headings/template-rules.ts'
import { sourceOf, type Source } from '../../core/page/source/source.ts'
import type { SiteMark } from '../../core/rules/rule.ts'
import type { SlugEdit } from '../../core/site/moves.ts'
import { db, type LedgerRow, type SiteRecord } from '../store/db.ts'
import type { AuditSetting } from './evaluate.ts'

export interface Open {
  site: SiteRecord
  setting: AuditSetting
  /** All files by id and by path from the root. */
  files: (readonly [string, string])[]
  /** Slugs that were decided, by path from the root. */
  slugs: Map<string, SlugEdit>
  rows: Map<string, LedgerRow>
  /** Sources of the pages last looked at. */
  sources: Map<string, Source>
  /** Outlines of sources by page, once rules for many pages were asked for. */
  outlines?: Map<string, OutlineItem[]>
  siteMarks: SiteMark[]
  siteMarksJson: string
}
export let current: Open | null = null
export const setCurrent = (open: Open): void => void (current = open)

const KEPT_SOURCES = 12

/** A page's source from the store; the last few stay at hand. Null for what is no page of the site. */
export async function sourceFor(open: Open, path: string): Promise<Source | null> {
  const kept = open.sources.get(path)
  if (kept) {
    open.sources.delete(path)
    open.sources.set(path, kept)
    return kept
  }
  const record = await db.sources.get([open.site.id, path])
  if (!record) return null
  const source = sourceOf(record.bytes, record.encoding, record.encodingBy, record.bom)
  open.sources.set(path, source)
  if (open.sources.size > KEPT_SOURCES) open.sources.delete(open.sources.keys().next().value!)
  return source
}
