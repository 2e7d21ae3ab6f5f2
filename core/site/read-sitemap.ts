/** Sitemaps: the addresses that a site names, from XML, from an index of others, or from plain text. Source: sitemaps.org. */
import { SaxesParser } from 'saxes'

/** One sitemap names at most so many addresses, and has at most so many bytes when it is unpacked. Source: sitemaps.org. */
export const MOST_ADDRESSES = 50_000
export const MOST_SITEMAP_BYTES = 52_428_800

export interface SitemapEntry {
  /** As it is written, without the white space around it. */
  address: string
  /** When it was changed last, as it is written; null where that is not said. */
  changed: string | null
}
export type SitemapRead =
  | {
      ok: true
      /** Whether its entries are pages, or other sitemaps. */
      of: 'pages' | 'sitemaps'
      entries: SitemapEntry[]
      /** What is wrong with it although it could be read, as a sentence; null for nothing. */
      problem: string | null
    }
  | { ok: false; why: string }

/** Longer than this is no address. From memory: what browsers take. */
const LONGEST_ADDRESS = 2048

/**
 * Reads a sitemap from its text, given in pieces as it comes. Ends at the first error. A document type is refused, so
 * that no entity is ever expanded.
 */
export function readSitemap(pieces: Iterable<string>): SitemapRead {
  const iterator = pieces[Symbol.iterator]()
  let head = ''
  while (head.trimStart().length < 16) {
    const next = iterator.next()
    if (next.done) break
    head += next.value
  }
  const rest = { [Symbol.iterator]: () => iterator }
  if (head.trim() === '')
    return { ok: false, why: 'The sitemap is empty. Ask whoever runs the site for another.' }
  const begins = head.replace(/^\ufeff/, '').trimStart()
  if (/^<(?:!doctype\s+html|html)\b/i.test(begins))
    return { ok: false, why: 'This address gives a web page, not a sitemap. Check the address.' }
  return begins.startsWith('<') ? fromXml(begins, rest) : fromText(begins, rest)
}

/** Ends the reading; its message says why. */
class NoSitemap extends Error {}

function fromXml(head: string, rest: Iterable<string>): SitemapRead {
  const reader = new XmlReader()
  try {
    reader.write(head)
    for (const piece of rest) if (!reader.isFull) reader.write(piece)
    if (!reader.isFull) reader.end()
  } catch (error) {
    if (!(error instanceof NoSitemap)) throw error
    return { ok: false, why: error.message }
  }
  return { ok: true, of: reader.of!, entries: reader.entries, problem: reader.problem }
}

class XmlReader {
  of: 'pages' | 'sitemaps' | null = null
  readonly entries: SitemapEntry[] = []
  problem: string | null = null
  isFull = false
  private readonly parser = new SaxesParser({ xmlns: false })
  private readonly open: string[] = []
  private entry: { address: string; changed: string } | null = null

  constructor() {
    const { parser } = this
    parser.on('error', (error) => {
      throw new NoSitemap(
        `The sitemap is no proper XML: ${error.message.replace(/^\d+:\d+: /, '').replace(/\.$/, '')}, in line ${parser.line}. Mend it there, or take the pages in another way.`,
      )
    })
    parser.on('doctype', () => {
      throw new NoSitemap(
        'The sitemap has a document type, which no sitemap needs. Take the <!DOCTYPE …> out of it, or take the pages in another way.',
      )
    })
    parser.on('opentag', ({ name }) => this.enter(localName(name)))
    parser.on('text', (text) => this.text(text))
    parser.on('cdata', (text) => this.text(text))
    parser.on('closetag', () => this.leave())
  }

  write(piece: string): void {
    this.parser.write(piece)
  }
  end(): void {
    this.parser.close()
  }

  private enter(name: string): void {
    if (this.open.length === 0) {
      if (name !== 'urlset' && name !== 'sitemapindex')
        throw new NoSitemap(
          `This is no sitemap: it begins with <${name.slice(0, 40)}>, not with <urlset> or <sitemapindex>. Check the address.`,
        )
      this.of = name === 'urlset' ? 'pages' : 'sitemaps'
    }
    this.open.push(name)
    if (this.open.length === 2 && (name === 'url' || name === 'sitemap'))
      this.entry = { address: '', changed: '' }
  }
  private text(text: string): void {
    if (this.entry === null || this.open.length !== 3) return
    const field = this.open[2] === 'loc' ? 'address' : this.open[2] === 'lastmod' ? 'changed' : null
    if (field && this.entry[field].length <= LONGEST_ADDRESS) this.entry[field] += text
  }
  private leave(): void {
    if (this.open.length === 2 && this.entry) {
      this.add(this.entry.address.trim(), this.entry.changed.trim())
      this.entry = null
    }
    this.open.pop()
  }
  private add(address: string, changed: string): void {
    if (this.isFull || address === '' || address.length > LONGEST_ADDRESS) {
      if (!this.isFull) this.problem ??= 'Some entries have no address that can be used; they are left out.'
      return
    }
    if (this.entries.length === MOST_ADDRESSES) {
      this.isFull = true
      this.problem = tooMany
      return
    }
    this.entries.push({ address, changed: changed === '' ? null : changed.slice(0, 40) })
  }
}
const tooMany = `It names more than ${MOST_ADDRESSES.toLocaleString('en')} addresses, which is all that one sitemap may; the rest is left out.`
const localName = (name: string): string => name.slice(name.indexOf(':') + 1)

/** One address a line. */
function fromText(head: string, rest: Iterable<string>): SitemapRead {
  const entries: SitemapEntry[] = []
  let problem: string | null = null
  let line = ''
  const take = (written: string) => {
    const address = written.trim()
    if (address === '') return
    if (!/^https?:\/\//i.test(address) || address.length > LONGEST_ADDRESS)
      problem ??= 'Some lines hold no address; they are left out.'
    else if (entries.length === MOST_ADDRESSES) problem = tooMany
    else entries.push({ address, changed: null })
  }
  const takeLines = (piece: string) => {
    const lines = (line + piece).split(/\r\n?|\n/)
    line = lines.pop()!.slice(0, LONGEST_ADDRESS + 1)
    lines.forEach(take)
  }
  takeLines(head)
  for (const piece of rest) takeLines(piece)
  take(line)
  return entries.length === 0
    ? {
        ok: false,
        why: 'This is no sitemap: it is neither XML nor a list of addresses, one in each line. Check the address.',
      }
    : { ok: true, of: 'pages', entries, problem }
}
