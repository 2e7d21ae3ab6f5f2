/**
 * An audit in parts: each part judges every nth page and keeps what the others' marks need of it; merged, the parts give
 * the report of one run, byte for byte. A part is lines of JSON: a head, a page a line in their order, an end.
 */
import { closeSync, createReadStream, openSync, writeSync } from 'node:fs'
import { createInterface } from 'node:readline'
import type { Readable } from 'node:stream'
import type { PageReport, Report } from '../core/exchange/audit-report.ts'
import type { HouseStyle } from '../core/rules/house-style.ts'
import type { PageId, PageIdentity } from '../core/site/page-identity.ts'
import { emptyIndex, type IndexEntry, type SiteIndex } from '../core/site/site-index.ts'
import { print } from './output.ts'
import { Problem } from './problem.ts'

const FORMAT = 'keen-quill-part'
const VERSION = 1

/** What all parts of one run share: what the marks on the site are found from beside the pages themselves. */
export interface PartHead {
  shard: number
  shards: number
  /** All pages of the site, in every part. */
  pages: number
  base: string
  date: string
  style: HouseStyle
  whole: boolean
  /** Pages and files by their addresses, as they are compared. */
  addresses: [string, PageId][]
  identities: Pick<PageIdentity, 'id' | 'url' | 'served'>[]
  sitemap: string[] | null
  otherAddresses: string[]
  marksMentions: boolean
  /** Addresses by path, as they are after any move. */
  urls: [string, string][]
  /** Files that could not be opened at all. */
  unread: Report['unread']
}
export interface PartPage {
  /** Its place among all pages. */
  at: number
  /** Null where it could not be judged. */
  report: PageReport | null
  entry: IndexEntry | null
  unread: { path: string; why: string } | null
}

/** Writes a part as it comes, to a file, or where none is named to where reports go. */
export function partWriter(
  file: string | null,
  head: PartHead,
): { page(page: PartPage): Promise<void>; end(): Promise<void> } {
  const out = file === null ? null : openSync(file, 'w')
  const line = async (value: object) => {
    const text = `${JSON.stringify(value)}\n`
    if (out === null) await print(text)
    else writeSync(out, text)
  }
  const begun = line({ format: FORMAT, version: VERSION, ...head })
  return {
    async page(page) {
      await begun
      await line({
        at: page.at,
        report: page.report,
        entry: page.entry && pick(page.entry),
        unread: page.unread,
      })
    },
    async end() {
      await line({ end: true })
      if (out !== null) closeSync(out)
    },
  }
}

/** What the index needs of a page, and no more: a row has much else. */
const pick = (entry: IndexEntry) => Object.fromEntries(entryKeys.map((key) => [key, entry[key]]))
const entryKeys = [
  'id',
  'path',
  'url',
  'title',
  'description',
  'indexable',
  'unindexed',
  'h1',
  'targets',
  'inText',
  'linked',
  'redirected',
  'keyword',
  'phrase',
  'things',
] as const satisfies (keyof IndexEntry)[]

/** A part to be merged: what it is called, and where it comes from; it may still be on its way. */
export interface PartSource {
  file: string
  stream: Readable
}
export const partFile = (file: string): PartSource => ({ file, stream: createReadStream(file, 'utf8') })

/** Opens parts for merging: the head that they share, and the pages in order. */
export async function openParts(
  parts: readonly PartSource[],
): Promise<{ head: PartHead; pages: AsyncGenerator<PartPage> }> {
  const files = parts.map(({ file }) => file)
  const readers = parts.map(({ file, stream }) => {
    const lines = createInterface({ input: stream, crlfDelay: Infinity })
    return { file, lines: lines[Symbol.asyncIterator]() }
  })
  const heads: PartHead[] = []
  for (const { file, lines } of readers) heads.push(headFrom(file, await nextLine(file, lines)))
  const [first] = heads
  if (!first) throw new Problem('merge takes the parts of one audit: quill merge PART…')
  const seen = new Set(heads.map((head) => head.shard))
  const same = (head: PartHead) =>
    JSON.stringify({ ...head, shard: 0 }) === JSON.stringify({ ...first, shard: 0 })
  const stranger = heads.findIndex((head) => !same(head))
  if (stranger > 0)
    throw new Problem(
      `${files[stranger]} is of another audit than ${files[0]}: site, style, date or number of parts differ.`,
    )
  const lacking = Array.from({ length: first.shards }, (_, i) => i + 1).filter((shard) => !seen.has(shard))
  if (lacking.length > 0) throw new Problem(`Part ${lacking.join(', ')} of ${first.shards} is missing.`)
  if (heads.length > first.shards) throw new Problem('A part was given twice.')
  const inOrder = [...readers.keys()]
    .sort((a, b) => heads[a]!.shard - heads[b]!.shard)
    .map((i) => readers[i]!)
  return { head: first, pages: pagesInOrder(inOrder, first) }
}

async function* pagesInOrder(
  readers: { file: string; lines: AsyncIterator<string> }[],
  { pages, shards }: PartHead,
): AsyncGenerator<PartPage> {
  for (let at = 0; at < pages; at++) {
    const { file, lines } = readers[at % shards]!
    const page = (await nextLine(file, lines)) as PartPage
    if (page.at !== at) throw new Problem(`${file} is damaged: page ${at + 1} is missing. Make it anew.`)
    yield page
  }
  for (const { file, lines } of readers)
    if (!('end' in (await nextLine(file, lines))))
      throw new Problem(`${file} is damaged: it has no end. Make it anew.`)
}

async function nextLine(file: string, lines: AsyncIterator<string>): Promise<object> {
  try {
    const { value, done } = await lines.next()
    if (!done) return JSON.parse(value) as object
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') throw new Problem(`There is no file ${file}.`)
    if (!(error instanceof SyntaxError)) throw error
  }
  throw new Problem(`${file} ends too early or is no part of an audit. Make it anew with --shard.`)
}

function headFrom(file: string, line: object): PartHead {
  const { format, version, ...head } = line as { format?: unknown; version?: unknown } & PartHead
  if (format !== FORMAT)
    throw new Problem(`${file} is no part of an audit. Make one with quill audit --shard.`)
  if (version !== VERSION) throw new Problem(`${file} was made by another version. Make it anew.`)
  return head
}

/** The index that the marks on the site are found in, before any page is in it. */
export function indexFor(head: PartHead): SiteIndex {
  const index = emptyIndex(head.base, head.whole, [], {
    pages: head.identities as PageIdentity[],
    sitemap: head.sitemap,
    files: head.otherAddresses,
    marksMentions: head.marksMentions,
  })
  index.addresses = new Map(head.addresses)
  return index
}
