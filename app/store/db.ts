/** The browser's store: for each site's pages their rows, decisions and sources, by page; other files; the log; the shelf. */
import Dexie, { type EntityTable, type Table } from 'dexie'
import type { OutlineItem } from '../../core/headings/template-rules.ts'
import type { Decisions, LogEntry, PageState } from '../../core/work/decisions.ts'
import type { Encoding, DeclaredBy } from '../../core/page/source/encoding.ts'
import type { FileSize } from '../../core/site/file-sizes.ts'
import type { PageId, PageIdentity } from '../../core/site/page-identity.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { declareVersions } from './migrations.ts'

export interface SiteRecord {
  id: string
  name: string
  base: string
  whole: boolean
  /** The folder within the archive that is the site's root, such as `site/`; "" where it is the top. */
  root: string
  /**
   * Only `ready` sites are shown. One that was cut off while it was taken in is swept away at the next start; one that was
   * taken in again waits as `before` until the next time, so that the step can be undone, and then the new one as `undone`.
   */
  status: 'taking in' | 'ready' | 'before' | 'undone'
  /** What all states of one site share: the id of the first; left out where that is its own. */
  first?: string
  takenIn: string
  pages: number
  otherFiles: number
  unread: { path: string; why: string }[]
  demo: boolean
  /** How many bytes its pages and files are; left out for what was taken in before this was kept. */
  bytes?: number
  /** Where its pages come from and when; left out for what was taken in before this was kept. */
  from?: SiteSource
}

/** Where a site's pages were taken from, so that they can be taken in again in the same way. */
export type SiteSource =
  | { by: 'files' | 'sheet' | 'page' }
  | {
      by: 'address'
      start: string
      how: 'page' | 'sitemap' | 'links'
      leftOut: string[]
      most: number
      path: string
      queries: boolean
    }

/** A page's row in the ledger. */
export interface RowRecord extends LedgerRow {
  site: string
}
/** A page as it was taken in: what it is known by, and its bytes with their encoding. */
export interface PageRecord extends PageIdentity {
  site: string
  bytes: Uint8Array
  encoding: Encoding
  encodingBy: DeclaredBy
  bom: number
}
/** The headings of a page's source, for rules over many pages; made when it is first asked for. */
export interface OutlineRecord {
  site: string
  id: PageId
  items: OutlineItem[]
}
/** A file that is no page. */
export interface FileRecord {
  site: string
  path: string
  bytes: Uint8Array
}
/** How large a file is that is no page: apart from its bytes, so that a site opens without them. */
export interface FileSizeRecord extends FileSize {
  site: string
  path: string
}
/** What is known of a site's addresses beside its pages': what its sitemap lists, and what is there and no page. */
export interface AddressesRecord {
  site: string
  sitemap: string[] | null
  files: string[]
}
/** What came of taking a site in again: pages that are new, gone or moved. What became of edits stands with the decisions. */
export interface AgainRecord {
  site: string
  /** The site as it was before. */
  before: string
  /** YYYY-MM-DD */
  date: string
  new: PageId[]
  /** With what was decided for them. */
  gone: { id: PageId; url: string; title: string | null; decisions: Decisions }[]
  moved: { id: PageId; from: string; to: string }[]
  /** How many of the pages that are still there say something else than before. */
  changed: number
}
/** What a site's pages were like at a time, kept for looking back. */
export interface SnapshotRecord {
  id: number
  /** The first state of the site. */
  site: string
  /** YYYY-MM-DD */
  date: string
  pages: {
    id: PageId
    url: string
    title: string | null
    description: string | null
    state: PageState
    rules: string[]
  }[]
}
/** What an outside service answered to a question. */
export interface AnswerRecord {
  /** The service and the question. */
  key: string
  /** The day on which it came, YYYY-MM-DD. */
  date: string
  source: string
  answer: unknown
}
export interface WorkRecord {
  site: string
  /** "" holds what is decided for the site as a whole. */
  page: PageId
  decisions: Decisions
}
export interface LogRecord extends LogEntry {
  id: number
  site: string
}

export class Store extends Dexie {
  declare sites: EntityTable<SiteRecord, 'id'>
  declare ledger: Table<RowRecord, [string, PageId]>
  declare pages: Table<PageRecord, [string, PageId]>
  declare files: Table<FileRecord, [string, string]>
  declare fileSizes: Table<FileSizeRecord, [string, string]>
  declare decisions: Table<WorkRecord, [string, PageId]>
  declare log: EntityTable<LogRecord, 'id'>
  declare pageOutlines: Table<OutlineRecord, [string, PageId]>
  declare addresses: EntityTable<AddressesRecord, 'site'>
  declare again: EntityTable<AgainRecord, 'site'>
  declare snapshots: EntityTable<SnapshotRecord, 'id'>
  declare answers: EntityTable<AnswerRecord, 'key'>
  declare settings: Table<{ key: string; value: unknown }, string>

  constructor(name = 'keen-quill') {
    super(name)
    declareVersions(this)
  }
}

export const db = new Store()

/** The id that all states of a site share. */
export const firstOf = ({ id, first }: Pick<SiteRecord, 'id' | 'first'>): string => first ?? id

/** Takes one state of a site out of the store with everything that belongs to it. */
export async function removeSite(id: string, store: Store = db): Promise<void> {
  const { ledger, pages, pageOutlines, files, fileSizes, decisions, log, addresses, again, snapshots } = store
  const ofSite = [
    ledger,
    pages,
    pageOutlines,
    files,
    fileSizes,
    decisions,
    log,
    addresses,
    again,
    snapshots,
  ] as Table[]
  await store.transaction('rw', [store.sites, ...ofSite], async () => {
    await store.sites.delete(id)
    for (const table of ofSite) await table.where('site').equals(id).delete()
  })
}

/** The state of a site that stands on the shelf, whichever of its states is asked for; null where none does. */
export async function readyState(id: string): Promise<string | null> {
  const site = await db.sites.get(id)
  if (!site) return null
  if (site.status === 'ready') return id
  const first = firstOf(site)
  return (await db.sites.filter((s) => s.status === 'ready' && firstOf(s) === first).first())?.id ?? null
}

/** Takes a site off the shelf with all its states. */
export async function removeWholeSite(id: string): Promise<void> {
  const site = await db.sites.get(id)
  if (!site) return
  const first = firstOf(site)
  for (const state of await db.sites.filter((s) => firstOf(s) === first).toArray()) await removeSite(state.id)
}
