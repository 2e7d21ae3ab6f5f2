/** Every version of the store that a browser may hold, and how one becomes the next. Never edit one that was shipped. */
import type Dexie from 'dexie'
import type { Transaction } from 'dexie'
import { fileSizeOf } from '../../core/site/file-sizes.ts'
import { addressOf } from '../../core/addresses/addresses.ts'
import { filePage } from '../../core/site/page-identity.ts'

/** Records brought over in one go: some are whole pages. */
const AT_ONCE = 50

/** Declares the versions, oldest first. */
export function declareVersions(store: Dexie): void {
  store.version(1).stores({
    sites: 'id',
    rows: '[site+path], site',
    sources: '[site+path], site',
    files: '[site+path], site',
    work: '[site+path], site',
    log: '++id, site',
    settings: 'key',
  })
  store.version(2).stores({ outlines: '[site+path], site' })
  // Pages are known by an id of their own; those of before keep their path as theirs.
  store
    .version(3)
    .stores({
      ledger: '[site+id], site',
      pages: '[site+id], site',
      decisions: '[site+page], site',
      pageOutlines: '[site+id], site',
    })
    .upgrade(pathsToIds)
  store.version(4).stores({ rows: null, sources: null, work: null, outlines: null })
  // Pages come by their address as well, and are taken in again.
  store
    .version(5)
    .stores({ addresses: 'site', snapshots: '++id, site', again: 'site' })
    .upgrade((transaction) =>
      transaction
        .table('ledger')
        .toCollection()
        .modify((row: Record<string, unknown>) => {
          row.redirected = []
          for (const key of ['unindexed', 'served', 'partial']) row[key] = null
        }),
    )
  store.version(6).stores({ answers: 'key, date' })
  store.version(7).stores({ fileSizes: '[site+path], site' }).upgrade(measureFiles)
}

/** Sizes of the files that were taken in before they were kept, and how much room each site takes. */
async function measureFiles(transaction: Transaction): Promise<void> {
  const total = new Map<string, number>()
  const count = (site: string, bytes: number) => void total.set(site, (total.get(site) ?? 0) + bytes)
  await inTurn(transaction, 'files', async (records) => {
    const sizes = records.map(({ site, path, bytes }) => {
      count(site, (bytes as Uint8Array).length)
      return { site, path, ...fileSizeOf(path, bytes as Uint8Array) }
    })
    await transaction.table('fileSizes').bulkAdd(sizes)
  })
  await inTurn(transaction, 'pages', async (records) => {
    for (const { site, bytes } of records) count(site, (bytes as Uint8Array).length)
  })
  await transaction
    .table('sites')
    .toCollection()
    .modify((site: { id: string; bytes?: number }) => void (site.bytes ??= total.get(site.id) ?? 0))
}

/** Does something with every record of a table, a few at a time. */
async function inTurn(
  transaction: Transaction,
  table: string,
  work: (records: Stored[]) => Promise<void>,
): Promise<void> {
  const keys = await transaction.table(table).toCollection().primaryKeys()
  for (let i = 0; i < keys.length; i += AT_ONCE) {
    const records = (await transaction.table(table).bulkGet(keys.slice(i, i + AT_ONCE))) as (
      Stored | undefined
    )[]
    await work(records.filter((record) => record !== undefined))
  }
}

type Stored = Record<string, unknown> & { site: string; path: string }

async function pathsToIds(transaction: Transaction): Promise<void> {
  const sites = new Map<string, { base: string; root: string }>()
  await transaction.table('sites').each((site: { id: string; base: string; root?: string }) => {
    sites.set(site.id, { base: site.base, root: site.root ?? '' })
  })
  const urlOf = ({ site, path }: Stored) => {
    const { base, root } = sites.get(site) ?? { base: 'https://site.example/', root: '' }
    return addressOf(path.startsWith(root) ? path.slice(root.length) : path, base)
  }
  await bringOver(transaction, 'rows', 'ledger', (row) => ({ ...row, id: row.path, file: row.path }))
  await bringOver(transaction, 'sources', 'pages', ({ path, ...source }) => ({
    ...source,
    ...filePage(path, path, urlOf({ ...source, path })),
  }))
  await bringOver(transaction, 'work', 'decisions', ({ path, ...work }) => ({ ...work, page: path }))
  await bringOver(transaction, 'outlines', 'pageOutlines', ({ path, ...outline }) => ({
    ...outline,
    id: path,
  }))
  await transaction
    .table('log')
    .toCollection()
    .modify((entry: { changes: { path?: string; page?: string }[] }) => {
      for (const change of entry.changes) {
        change.page = change.path ?? ''
        delete change.path
      }
    })
}

/** Writes every record of one table into another as it is now, a few at a time. */
async function bringOver(
  transaction: Transaction,
  from: string,
  to: string,
  asNow: (record: Stored) => Record<string, unknown>,
): Promise<void> {
  await inTurn(transaction, from, async (records) => {
    await transaction.table(to).bulkAdd(records.map(asNow))
  })
}
