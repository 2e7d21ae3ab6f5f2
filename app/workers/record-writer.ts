/** What is taken in, written into the store a batch at a time. */
import type { PageIdentity } from '../../core/site/page-identity.ts'
import type { Evaluated } from '../../core/work/evaluate.ts'
import { fileSizeOf, type FileSize } from '../../core/site/file-sizes.ts'
import {
  db,
  type FileRecord,
  type FileSizeRecord,
  type PageRecord,
  type RowRecord,
  type SiteRecord,
} from '../store/db.ts'

/** Pages and files written in one go. */
const BATCH = 50

/** Writes what is taken in into the store, a batch at a time, and counts it. */
export function recordWriter(site: SiteRecord) {
  const rows: RowRecord[] = []
  const pages: PageRecord[] = []
  const files: FileRecord[] = []
  const sizes: FileSizeRecord[] = []
  async function flush(): Promise<void> {
    const [someRows, somePages, someFiles] = [rows.splice(0), pages.splice(0), files.splice(0)]
    const someSizes = sizes.splice(0)
    await db.transaction('rw', [db.ledger, db.pages, db.files, db.fileSizes], async () => {
      await db.ledger.bulkAdd(someRows)
      await db.pages.bulkAdd(somePages)
      await db.files.bulkAdd(someFiles)
      await db.fileSizes.bulkAdd(someSizes)
    })
    // Lets a cancellation in between two batches.
    await new Promise((resolve) => setTimeout(resolve, 0))
  }
  const flushFull = async () => {
    if (pages.length + files.length >= BATCH) await flush()
  }
  return {
    async page(identity: PageIdentity, { row, source }: Evaluated): Promise<void> {
      const { bytes, encoding, encodingBy, bom } = source
      rows.push({ ...row, site: site.id })
      pages.push({ ...identity, site: site.id, bytes, encoding, encodingBy, bom })
      site.pages++
      site.bytes = (site.bytes ?? 0) + bytes.byteLength
      await flushFull()
    },
    async file(path: string, bytes: Uint8Array): Promise<FileSize> {
      const size = fileSizeOf(path, bytes)
      files.push({ site: site.id, path, bytes })
      sizes.push({ site: site.id, path, ...size })
      site.otherFiles++
      site.bytes = (site.bytes ?? 0) + bytes.byteLength
      await flushFull()
      return size
    },
    end: flush,
  }
}
