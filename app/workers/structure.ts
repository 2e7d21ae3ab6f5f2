/** What the Head sheet, the comparison and previews of edits show of a page; asked for when they are looked at. */
import { draftOf, keywordsOf, type Decisions } from '../../core/work/decisions.ts'
import type { StyleNote } from '../../core/headings/style-notes.ts'
import { overEdit, type Draft, type Edit, type TargetKey } from '../../core/page/edits/draft.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import {
  robotsOf,
  titleOf,
  type Landmark,
  type MainBy,
  type PageFacts,
  type Place,
} from '../../core/page/read/facts.ts'
import { locate } from '../../core/page/splice/locate.ts'
import { lineAndColumn, lineStarts, toBytePlaces } from '../../core/page/source/places.ts'
import { toProofByte, toSourceByte, type Proof } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import type { Served } from '../../core/page/source/served.ts'
import { lacksOf, structureOf, type Lacks, type PageStructure } from '../../core/results/page-structure.ts'
import { imageTypeOf } from '../../core/page/still/still-files.ts'
import { servedOf, type FetchedMessage } from '../../core/site/fetched.ts'
import { readSource, sourceOf, type Source } from '../../core/page/source/source.ts'
import { whyNotInHead as whyNot } from '../../core/page/edits/shell.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { whatOf } from '../../core/rules/shell/shell-comment.ts'
import { leadsPastMenu } from '../../core/rules/shell/shell-skip-link.ts'
import { addressKey, resolveAddress } from '../../core/addresses/addresses.ts'
import { db } from '../store/db.ts'
import { pathOf, type PageId } from '../../core/site/page-identity.ts'
import { pageProof, wholeDraft } from '../../core/work/page-proof.ts'
import { inventedWeb } from '../store/invented-web.ts'
import { askServer } from './by-address.ts'
import { current, readingFor } from './open-site.ts'

/** A thing of the page, with the key by which an edit addresses it; null where none can. */
export interface At {
  key: TargetKey | null
  start: number
  line: number
}
export interface HeadView {
  doctype: boolean
  lang: string | null
  encoding: { name: string; declared: boolean }
  title: string | null
  robots: string[]
  metas: (At & { name: string; content: string; inHead: boolean })[]
  links: (At & { rel: string; href: string; inHead: boolean })[]
  /** Markup that the editor added to the head, by its key. */
  added: { key: TargetKey; value: string }[]
  landmarks: (At & { landmark: Landmark; label: string; hidden: boolean })[]
  mainBy: MainBy
  mainWords: number
  skipLink: boolean
  images: (At & { src: string; alt: string | null; file: string | null; hidden: boolean })[]
  repeatedIds: (At & { id: string; count: number })[]
  comments: (At & { text: string; what: string | null })[]
  errors: (At & { code: string })[]
}

/** The key of what stands at a place of the proof: the edit that put it there, or a kind and its byte in the source. */
function keysAt(proof: Proof, kind: (i: number) => string, starts: number[]): TargetKey[] {
  const order = [...starts.keys()].sort((a, b) => starts[a]! - starts[b]!)
  const bytes = toBytePlaces(
    proof.source,
    order.map((i) => starts[i]!),
  )
  const keys: TargetKey[] = new Array<TargetKey>(starts.length)
  order.forEach((i, k) => {
    const byte = bytes[k]!
    const inserted = proof.changes.find((c) => c.from === c.to && byte >= c.at && byte < c.until)
    keys[i] = inserted ? inserted.key : `${kind(i)}@${toSourceByte(proof.changes, byte)}`
  })
  return keys
}

/** Everything of a page's shell as an editor reads it. */
export async function headOf(id: PageId, decisions: Decisions): Promise<HeadView | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const { setting, proof, page } = reading
  const starts = lineStarts(proof.source.text)
  const at = <T extends Place>(list: T[], kind: (item: T) => string): (At & { of: T })[] => {
    const keys = keysAt(
      proof,
      (i) => kind(list[i]!),
      list.map((t) => t.start),
    )
    return list.map((of, i) => ({
      key: keys[i]!,
      start: of.start,
      line: lineAndColumn(starts, of.start).line,
      of,
    }))
  }
  const base = resolveAddress(page.base ?? '', page.url) ?? page.url
  const ids = new Map<string, number>()
  for (const { id } of page.ids) ids.set(id, (ids.get(id) ?? 0) + 1)
  const fileOf = (src: string) => {
    const url = src === '' || src.startsWith('data:') ? null : resolveAddress(src, base)
    return url ? (setting.index.addresses.get(addressKey(url)) ?? null) : null
  }
  const links = [
    ...page.rels,
    ...page.canonicals.map((c) => ({ ...c, rel: 'canonical' })),
    ...page.alternates.map((a) => ({ ...a, rel: 'alternate' })),
  ].sort((a, b) => a.start - b.start)
  const draft = draftOf(decisions)
  return {
    doctype: page.doctype,
    lang: page.lang,
    encoding: {
      name: page.charset.encoding,
      declared: ['bom', 'header', 'meta', 'xml'].includes(page.charset.by),
    },
    title: titleOf(page)?.text ?? null,
    robots: robotsOf(page),
    metas: at(page.metas, (m) => `meta:${m.name}`).map(({ of, ...a }) => ({
      ...a,
      name: of.name,
      content: of.content,
      inHead: of.inHead,
      // A name that no key can carry, such as one with a space, is shown and not edited.
      key: /^meta:[a-z0-9:._-]+(?:@\d+)?$/.test(a.key!) || !a.key!.startsWith('meta:') ? a.key : null,
    })),
    links: at(links, (l) => (l.rel === 'canonical' ? 'canonical' : 'link')).map(({ of, ...a }) => ({
      ...a,
      rel: of.rel,
      href: of.href,
      inHead: of.inHead,
    })),
    added: Object.entries(draft).flatMap(([key, edit]) =>
      key.startsWith('new:') ? [{ key, value: edit.value ?? '' }] : [],
    ),
    landmarks: at(page.landmarks, (l) => l.landmark).map(({ of, ...a }) => ({
      ...a,
      key: null,
      landmark: of.landmark,
      label: of.label,
      hidden: of.hidden,
    })),
    mainBy: page.main.by,
    mainWords: page.main.words,
    skipLink: leadsPastMenu(page),
    images: at(page.images, () => 'alt').map(({ of, ...a }) => ({
      ...a,
      src: of.src,
      alt: of.alt,
      hidden: of.hidden || of.presentational,
      file: fileOf(of.src),
    })),
    repeatedIds: at(
      page.ids.filter((i) => ids.get(i.id)! > 1),
      () => 'id',
    ).map(({ of, ...a }) => ({ ...a, id: of.id, count: ids.get(of.id)! })),
    comments: at(page.comments, () => 'comment').map(({ of, ...a }) => ({
      ...a,
      text: of.text.trim().replace(/\s+/g, ' ').slice(0, 200),
      what: whatOf(of.text),
    })),
    errors: page.parseErrors.map(({ code, at: start }) => ({
      key: null,
      start,
      line: lineAndColumn(starts, start).line,
      code,
    })),
  }
}

export interface Excerpt {
  /** Number of the first line. */
  first: number
  lines: string[]
  /** The marked line among them, and the columns in it, from 0. */
  at: number
  from: number
  to: number
}
const AROUND = 5
const LONGEST_LINE = 400

/** The proof's source around a place. */
export async function excerptOf(id: PageId, decisions: Decisions, start: number): Promise<Excerpt | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const { text } = reading.proof.source
  const starts = lineStarts(text)
  const { line, column } = lineAndColumn(starts, Math.min(start, text.length))
  const first = Math.max(1, line - AROUND)
  const lines: string[] = []
  for (let n = first; n <= Math.min(starts.length, line + AROUND); n++)
    lines.push(text.slice(starts[n - 1], starts[n] ?? text.length).replace(/[\r\n]+$/, ''))
  // A page in one line is shown around the place.
  const skip = column > LONGEST_LINE / 2 ? column - 80 : 0
  const end = text.indexOf('>', start)
  return {
    first,
    lines: lines.map((l, i) => (i === line - first ? l.slice(skip) : l).slice(0, LONGEST_LINE)),
    at: line - first,
    from: column - 1 - skip,
    to: column - 1 - skip + Math.max(1, Math.min(end < 0 ? 1 : end + 1 - start, 300)),
  }
}

export interface Hunk {
  line: number
  before: string
  after: string
}

/** Whole lines around bytes `[from, to)`. */
function linesAround(
  { bytes, encoding, encodingBy }: Source,
  from: number,
  to: number,
): [number, number, string] {
  let start = from
  let end = to
  // A line that is a whole page is shown in part.
  while (start > 0 && bytes[start - 1] !== 10 && bytes[start - 1] !== 13 && from - start < 160) start--
  while (end < bytes.length && bytes[end] !== 10 && bytes[end] !== 13 && end - to < 160) end++
  return [start, end, sourceOf(bytes.subarray(start, end), encoding, encodingBy, 0).text.trim()]
}

/** What edits would change in the page as it stands now, line by line. */
export async function previewEdits(
  id: PageId,
  decisions: Decisions,
  edits: Draft,
): Promise<{ hunks: Hunk[]; refused: string[] } | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const { identity, source, proof: now, setting } = reading
  const merged: Record<string, unknown> = { ...decisions }
  for (const [key, edit] of Object.entries(edits))
    merged[`edit:${key}`] = overEdit(decisions[`edit:${key}`] as Edit | undefined, edit)
  const then = pageProof(identity, source, merged, setting)
  const starts = lineStarts(now.source.text)
  const hunks: (Hunk & { from: number; to: number })[] = []
  for (const change of then.changes) {
    if (!(change.key in edits)) continue
    const [from, to, before] = linesAround(
      now.source,
      toProofByte(now.changes, change.from),
      toProofByte(now.changes, change.to),
    )
    const [, , after] = linesAround(then.source, change.at, change.until)
    const last = hunks.at(-1)
    if (last && from < last.to) {
      // Two changes of one line: it is shown once, as it will be.
      last.after = after
      continue
    }
    const line = lineAndColumn(
      starts,
      sourceOf(now.source.bytes.subarray(0, from), now.source.encoding, now.source.encodingBy, now.source.bom)
        .text.length,
    ).line
    hunks.push({ line, before, after, from, to })
  }
  const had = new Set(now.refused.map((r) => r.key))
  return {
    hunks: hunks.map(({ line, before, after }) => ({ line, before, after })),
    refused: then.refused.filter((r) => !had.has(r.key)).map((r) => r.why),
  }
}

export interface LookNote extends StyleNote {
  /** The style sheet's path, or "" for a style element of the page. */
  where: string
}

/** Selectors that address the tags which the page's draft changes: the look may depend on them. */
export async function lookNotes(id: PageId, decisions: Decisions): Promise<LookNote[]> {
  const reading = await readingFor(id, decisions)
  if (!reading) return []
  const { identity, source, page, setting } = reading
  const places = locate(source)
  const tags = new Set<string>()
  for (const [key, edit] of Object.entries(wholeDraft(identity, source, decisions, setting))) {
    const [, at] = /^(?:heading|block)@(\d+)$/.exec(key) ?? []
    const element = at && places.byStart.get((Number(at) - places.bom) / places.unit)
    if (!element) continue
    const to = edit.tag ?? (edit.hgroup !== undefined ? 'p' : edit.level ? `h${edit.level}` : element.tagName)
    if (to === element.tagName && !edit.merge) continue
    tags.add(element.tagName)
    tags.add(edit.merge ? 'span' : to)
  }
  if (tags.size === 0) return []
  const { selectorsFor } = await import('../../core/headings/style-notes.ts')
  const notes: LookNote[] = []
  for (const element of places.byStart.values())
    if (element.tagName === 'style')
      notes.push(
        ...selectorsFor(
          places.view.slice(element.place.startEnd, element.place.endStart ?? element.place.startEnd),
          [...tags],
        ).map((n) => ({ ...n, where: '' })),
      )
  for (const { rel, url } of page.rels) {
    if (!/\bstylesheet\b/.test(rel) || url === null) continue
    const target = setting.index.addresses.get(addressKey(url))
    const file = target === undefined ? undefined : await db.files.get([current!.site.id, target])
    if (file)
      notes.push(
        ...selectorsFor(new TextDecoder().decode(file.bytes), [...tags]).map((n) => ({
          ...n,
          where: file.path,
        })),
      )
  }
  return notes
}

/** Why markup cannot be added to a head; null where it can. */
export const whyNotInHead = (markup: string): string | null => whyNot(markup)

/** A file of the site, for a thumbnail; null where there is none, or it is no picture. */
export async function pictureOf(id: string): Promise<{ bytes: Uint8Array; type: string } | null> {
  const type = imageTypeOf(id)
  const file = type && current ? await db.files.get([current.site.id, id]) : undefined
  return file && type ? { bytes: file.bytes, type } : null
}

/** Another page: of the site, as bytes that were pasted or dropped, or at an address that is fetched. */
export type CompareWith =
  { id: PageId; decisions: Decisions } | { html: Uint8Array; name: string } | { address: string }
export interface Comparison {
  own: PageStructure
  others: ({ ok: true; structure: PageStructure } | { ok: false; name: string; why: string })[]
  lacks: Lacks
}

/** A page of the site's beside others, all judged for the same phrase: `phrase`, or its primary keyword. Null for one that is no longer there. */
export async function compare(
  id: PageId,
  decisions: Decisions,
  others: readonly CompareWith[],
  phrase: string | null,
): Promise<Comparison | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const primary = phrase ?? keywordsOf(decisions)?.primary
  const { language, slots, limits } = styleFor(reading.setting.style, reading.page.url)
  const judged = { language, slots, leadWords: limits.leadWords }
  const ours = structureOf(pathOf(reading.identity), reading.page, primary, judged)
  const compared = await Promise.all(
    others.map(async (other): Promise<Comparison['others'][number]> => {
      const read = await otherPage(other)
      if (!read.ok) return read
      return { ok: true, structure: structureOf(read.name, read.page, primary, judged) }
    }),
  )
  const structures = compared.flatMap((other) => (other.ok ? [other.structure] : []))
  return { own: ours, others: compared, lacks: lacksOf(ours, structures, reading.page.lang ?? language) }
}

type OtherPage = { ok: true; name: string; page: PageFacts } | { ok: false; name: string; why: string }

async function otherPage(other: CompareWith): Promise<OtherPage> {
  if ('id' in other) {
    const second = await readingFor(other.id, other.decisions)
    if (!second) return { ok: false, name: other.id, why: 'It is no longer on the shelf.' }
    return { ok: true, name: pathOf(second.identity), page: second.page }
  }
  if ('html' in other) return readOther(other.html, other.name, 'https://other.example/', null)
  const fetched = await fetchedOnce(other.address)
  if (!fetched.ok) return { ok: false, name: other.address, why: fetched.message }
  return readOther(fetched.body, fetched.url, fetched.url, servedOf(fetched, ''))
}

function readOther(html: Uint8Array, name: string, url: string, served: Served | null): OtherPage {
  const facts = onePage(() => {
    const read = readSource(html, served)
    return read.ok ? { ok: true, value: readPage(read.source, { path: name, url }) } : read
  })
  return facts.ok ? { ok: true, name, page: facts.value } : { ok: false, name, why: facts.why }
}

const MOST_REMEMBERED = 6
const remembered = new Map<string, FetchedMessage>()

/** What an address gave, asked for once while the application is open: a comparison is drawn anew with every key. */
async function fetchedOnce(address: string): Promise<FetchedMessage> {
  const known = remembered.get(address)
  if (known) return known
  const fetched = await askServer(await inventedWeb())(address, 'page')
  if (fetched.ok) {
    if (remembered.size === MOST_REMEMBERED) remembered.delete([...remembered.keys()][0]!)
    remembered.set(address, fetched)
  }
  return fetched
}
