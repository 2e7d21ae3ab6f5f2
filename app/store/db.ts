/** The browser's store: for each site's pages their rows, decisions and sources, by page; other files; the log; the shelf. */
import Dexie, { type EntityTable, type Table } from 'dexie'
import type { OutlineItem } from '../../core/headings/template-rules.ts'
import type { Decisions, LogEntry } from '../../core/work/decisions.ts'
import type { Encoding, DeclaredBy } from '../../core/page/source/encoding.ts'
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
  /** Only `ready` sites are shown; one that was cut off while it was taken in is swept away at the next start. */
  status: 'taking in' | 'ready'
  takenIn: string
  pages: number
  otherFiles: number
  unread: { path: string; why: string }[]
  demo: boolean
  /** Where its pages come from and when; left out for what was taken in before this was kept. */
  from?: SiteSource
}

/** Where a site's pages were taken from, so that they can be taken in again in the same way. */
export type SiteSource =
  | { by: 'files' | 'sheet' | 'page' }
  | { by: 'address'; start: string; how: 'page' | 'sitemap' | 'links'; leftOut: string[]; most: number; path: string; queries: boolean }


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
/** What is known of a site's addresses beside its pages': what its sitemap lists, and what is there and no page. */
export interface AddressesRecord {
  site: string
  sitemap: string[] | null
  files: string[]
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
  declare decisions: Table<WorkRecord, [string, PageId]>
  declare log: EntityTable<LogRecord, 'id'>
  declare pageOutlines: Table<OutlineRecord, [string, PageId]>
  declare addresses: EntityTable<AddressesRecord, 'site'>
  declare settings: Table<{ key: string; value: unknown }, string>

  constructor(name = 'keen-quill') {
    super(name)
    declareVersions(this)
  }
}

export const db = new Store()

/** Takes a site off the shelf with everything that belongs to it. */
export async function removeSite(id: string, store: Store = db): Promise<void> {
  const { ledger, pages, pageOutlines, files, decisions, log, addresses } = store
  const ofSite = [ledger, pages, pageOutlines, files, decisions, log, addresses] as Table[]
  await store.transaction('rw', [store.sites, ...ofSite], async () => {
    await store.sites.delete(id)
    for (const table of ofSite) await table.where('site').equals(id).delete()
  })
}
