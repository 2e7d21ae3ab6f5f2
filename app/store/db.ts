/** The browser's store: three tables for each site's pages (slim rows, decisions, sources), the log, and the shelf. */
import Dexie, { type EntityTable, type Table } from 'dexie'
import type { OutlineItem } from '../../core/headings/template-rules.ts'
import type { Decisions, LogEntry } from '../../core/work/decisions.ts'
import type { Encoding, DeclaredBy } from '../../core/page/source/encoding.ts'
import type { PageThings } from '../../core/structured-data/site-things.ts'
import type { Fit } from '../../core/measure/snippet.ts'

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
}

/** What the ledger shows of a page, and what the site's index is built from. */
export interface LedgerRow {
  site: string
  path: string
  url: string
  title: string | null
  titlePx: number
  titleFit: Fit
  titleFitNarrow: Fit
  description: string | null
  descriptionFit: Fit
  h1: string | null
  h1Count: number
  words: number
  lang: string | null
  indexable: boolean
  /** What its own data gives for tokens. */
  author: string | null
  price: string | null
  /** Files of the site that it refers to, those it links to in its content first, then by other links; and how many those are. */
  targets: string[]
  inText: number
  linked: number
  /** Its primary keyword as word forms fold; null where none is assigned. */
  keyword: string | null
  /** Its primary keyword as it was assigned. */
  phrase?: string | null
  /** What its data describes, as far as other pages have to do with it. */
  things: PageThings | null
  /** Rule ids of the marks left, most serious first, stetted ones aside; and how many of each severity. */
  rules: string[]
  blocker: number
  flaw: number
  nit: number
  /** What the row was made from: another audit or other decisions ask for a new row. */
  basis: string
}

export interface SourceRecord {
  site: string
  path: string
  bytes: Uint8Array
  encoding: Encoding
  encodingBy: DeclaredBy
  bom: number
}
/** The headings of a page's source, for rules over many pages; made when it is first asked for. */
export interface OutlineRecord {
  site: string
  path: string
  items: OutlineItem[]
}
export interface FileRecord {
  site: string
  path: string
  bytes: Uint8Array
}
export interface WorkRecord {
  site: string
  /** "" holds what is decided for the site as a whole. */
  path: string
  decisions: Decisions
}
export interface LogRecord extends LogEntry {
  id: number
  site: string
}

export class Store extends Dexie {
  declare sites: EntityTable<SiteRecord, 'id'>
  declare rows: Table<LedgerRow, [string, string]>
  declare sources: Table<SourceRecord, [string, string]>
  declare files: Table<FileRecord, [string, string]>
  declare work: Table<WorkRecord, [string, string]>
  declare log: EntityTable<LogRecord, 'id'>
  declare outlines: Table<OutlineRecord, [string, string]>
  declare settings: Table<{ key: string; value: unknown }, string>

  constructor(name = 'keen-quill') {
    super(name)
    this.version(1).stores({
      sites: 'id',
      rows: '[site+path], site',
      sources: '[site+path], site',
      files: '[site+path], site',
      work: '[site+path], site',
      log: '++id, site',
      settings: 'key',
    })
    this.version(2).stores({ outlines: '[site+path], site' })
  }
}

export const db = new Store()

/** Takes a site off the shelf with everything that belongs to it. */
export async function removeSite(id: string, store: Store = db): Promise<void> {
  await store.transaction(
    'rw',
    [store.sites, store.rows, store.sources, store.outlines, store.files, store.work, store.log],
    async () => {
      await store.sites.delete(id)
      for (const table of [store.rows, store.sources, store.outlines, store.files, store.work, store.log])
        await table.where('site').equals(id).delete()
    },
  )
}
