/**
 * source + draft → proof: the source with just the edited bytes changed. Nothing is serialised anew, so every byte
 * outside an edit is as it was, whatever the encoding, the line ends and the quoting.
 */
import type { Draft, Edit, TargetKey } from './draft.ts'
import { parseKey } from './draft.ts'
import { toBytePlaces } from './places.ts'
import { ASCII, encode, prescan, type Encoding } from './encoding.ts'
import { blockSplices, headingSplices } from './heading-edits.ts'
import { commentSplices, doctypeSplices, newSplices, skipSplices } from './shell-edits.ts'
import { basesOf, carried, type Carry } from '../site/carry.ts'
import { attributePlaces, locate, type Located, type Locations } from './locate.ts'
import { attribute } from './parse.ts'
import { safeJson } from '../structured-data/edit-json.ts'
import { fold } from '../strings.ts'
import { baseOf, carryJson, carrySplices } from './references.ts'
import { declaresEncoding, sourceOf, whyUnpatchable, type Source } from './source.ts'

/** One replacement in the view: `[start, end)` becomes `text`; `as` says how a character is written that the encoding lacks. */
export interface Splice {
  start: number
  end: number
  text: string
  as?: 'markup' | 'json'
}
export type Splices = Splice[] | { why: string }

/** What an edit changed: bytes `[from, to)` of the source stand as `[at, until)` in the proof. */
export interface Change {
  key: TargetKey
  from: number
  to: number
  at: number
  until: number
}

export interface Proof {
  source: Source
  changes: Change[]
  /** Edits that could not be applied, with the reason; the others stand. */
  refused: { key: TargetKey; why: string }[]
}

const escapeText = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replaceAll(']]>', ']]&gt;')
const clean = (text: string) => fold(text.replaceAll('\0', ''))
/** A value as it stands between quotes; in a page that is XML, too, `<` may not. */
export function escapeAttribute(value: string, quote: '"' | "'", { xml }: { xml: boolean }): string {
  const escaped = value.replace(/&/g, '&amp;').replaceAll(quote, quote === '"' ? '&quot;' : '&#39;')
  return xml ? escaped.replace(/</g, '&lt;') : escaped
}

/** How a tag without content ends in the page: closed where it is XML. */
const voidEnd = ({ xml }: Locations) => (xml ? ' />' : '>')
/** JSON as it can stand in the page's script: where the page is XML, nothing in it reads as markup. */
const scriptJson = (json: string, { xml }: Locations) =>
  xml
    ? safeJson(json)
        .replace(/[<&]/g, (c) => `\\u00${c.charCodeAt(0).toString(16)}`)
        .replaceAll(']]>', ']]\\u003e')
    : safeJson(json)

/** Text for an element's content: folded, escaped. */
export const contentText = (value: string) => escapeText(clean(value))

/** Sets one attribute, keeping the quoting that is there; an unquoted value is quoted, a missing attribute added behind the others. */
export function setAttribute(places: Locations, element: Located, name: string, value: string): Splice {
  const { view } = places
  const attrs = attributePlaces(view, element)
  const own = attrs[name]
  if (!own) {
    const ends = Object.values(attrs).map((a) => a.end)
    const at = ends.length > 0 ? Math.max(...ends) : element.place.start + 1 + element.tagName.length
    return { start: at, end: at, text: ` ${name}="${escapeAttribute(value, '"', places)}"` }
  }
  const written = view.slice(own.start, own.end)
  const [lead, quote] = /^[^=]*=\s*(["']?)/.exec(written) ?? []
  if (lead === undefined)
    return { start: own.end, end: own.end, text: `="${escapeAttribute(value, '"', places)}"` }
  const start = own.start + lead.length
  if (quote === '"' || quote === "'")
    return { start, end: own.end - 1, text: escapeAttribute(value, quote, places) }
  return { start, end: own.end, text: `"${escapeAttribute(value, '"', places)}"` }
}

const isVoid = (element: Located) => /^(?:meta|link|base|basefont|bgsound)$/.test(element.tagName)

/** Takes an element out, with its line where it has one to itself. */
export function removal(view: string, element: Located): Splices {
  const { place } = element
  if (place.end === null && !isVoid(element))
    return {
      why: 'It is never closed in the source, so it is not certain where it ends. Close it there first.',
    }
  let start = place.start
  let end = place.end ?? place.startEnd
  while (start > 0 && (view[start - 1] === ' ' || view[start - 1] === '\t')) start--
  const after = /^[ \t]*(\r\n|\r|\n)/.exec(view.slice(end, end + 200))
  const atLineStart = start === 0 || view[start - 1] === '\n' || view[start - 1] === '\r'
  if (after && atLineStart) end += after[0].length
  else start = place.start
  return [{ start, end, text: '' }]
}

/** Where something new goes into the head, also when `<head>` or `<html>` is implied; `lead` and `tail` keep the lines. */
export function headInsertion({ view, html, head, headChildren, doctypeEnd, eol }: Locations): {
  at: number
  lead: string
  tail: string
} {
  const endTag = head?.place.endStart ?? null
  const closed = headChildren.filter(
    (c) => (isVoid(c) || c.place.end !== null) && (endTag === null || c.place.start < endTag),
  )
  const last = closed.length === headChildren.length || endTag !== null ? closed.at(-1) : undefined
  if (last) {
    const { start, startEnd, end } = last.place
    const indent = /(?:^|[\r\n])([ \t]*)$/.exec(view.slice(Math.max(0, start - 200), start))?.[1]
    return { at: end ?? startEnd, lead: indent === undefined ? '' : eol + indent, tail: '' }
  }
  if (endTag !== null && headChildren.length === 0) return { at: endTag, lead: '', tail: eol }
  const at = head?.place.startEnd ?? html?.place.startEnd ?? doctypeEnd
  return at === 0 ? { at, lead: '', tail: eol } : { at, lead: eol, tail: '' }
}

export const insertInHead = (places: Locations, markup: string): Splices => {
  const { at, lead, tail } = headInsertion(places)
  return [{ start: at, end: at, text: lead + markup + tail }]
}

function titleSplices(places: Locations, element: Located | undefined, edit: Edit): Splices {
  if (edit.remove) return element ? removal(places.view, element) : []
  const value = edit.value ?? ''
  if (!element) return insertInHead(places, `<title>${contentText(value)}</title>`)
  const { startEnd, endStart } = element.place
  if (endStart === null)
    return { why: 'The title is never closed in the source. Close it there first: </title>.' }
  return [{ start: startEnd, end: endStart, text: contentText(value) }]
}

function metaSplices(places: Locations, element: Located | undefined, name: string, edit: Edit): Splices {
  if (edit.remove) return element ? removal(places.view, element) : []
  const value = clean(edit.value ?? '')
  if (!element)
    return insertInHead(
      places,
      `<meta ${name.startsWith('og:') ? 'property' : 'name'}="${name}" content="${escapeAttribute(value, '"', places)}"${voidEnd(places)}`,
    )
  return [setAttribute(places, element, 'content', value)]
}

function canonicalSplices(places: Locations, element: Located | undefined, edit: Edit): Splices {
  if (edit.remove) return element ? removal(places.view, element) : []
  const value = clean(edit.value ?? '')
  if (!element)
    return insertInHead(
      places,
      `<link rel="canonical" href="${escapeAttribute(value, '"', places)}"${voidEnd(places)}`,
    )
  return [setAttribute(places, element, 'href', value)]
}

function langSplices(places: Locations, edit: Edit): Splices {
  const value = clean(edit.value ?? '')
  if (places.html) return [setAttribute(places, places.html, 'lang', value)]
  const at = places.doctypeEnd
  return [
    {
      start: at,
      end: at,
      text: `${at === 0 ? '' : places.eol}<html lang="${escapeAttribute(value, '"', places)}">${at === 0 ? places.eol : ''}`,
    },
  ]
}

function charsetSplices(places: Locations): Splices {
  const at = places.head?.place.startEnd ?? places.html?.place.startEnd ?? places.doctypeEnd
  const text = `<meta charset="utf-8"${voidEnd(places)}`
  return [{ start: at, end: at, text: at === 0 ? text + places.eol : places.eol + text }]
}

function jsonSplices(places: Locations, element: Located, edit: Edit): Splices {
  if (edit.remove) return removal(places.view, element)
  if (edit.value === undefined) return []
  const { startEnd, endStart } = element.place
  if (endStart === null)
    return { why: 'The script element is never closed in the source. Close it there first.' }
  return [{ start: startEnd, end: endStart, text: scriptJson(edit.value, places), as: 'json' }]
}

/** A new JSON-LD block at the end of the head, with the page's line ends. */
function dataSplices(places: Locations, edit: Edit): Splices {
  if (!edit.value) return []
  const lines = scriptJson(edit.value, places).replace(/\r\n?|\n/g, places.eol)
  const { at, lead, tail } = headInsertion(places)
  const text = `${lead}<script type="application/ld+json">${places.eol}${lines}${places.eol}</script>${tail}`
  return [{ start: at, end: at, text, as: 'json' }]
}

/** An attribute of an element that an edit addresses; it goes where the edit takes it out. */
function attributeSplices(
  source: Source,
  places: Locations,
  element: Located,
  name: string,
  edit: Edit,
): Splices {
  if (edit.remove) {
    const own = attributePlaces(places.view, element)[name]
    if (!own) return []
    const space = /[ \t\r\n\f]+$/.exec(places.view.slice(element.place.start, own.start))?.[0].length ?? 0
    return [{ start: own.start - space, end: own.end, text: '' }]
  }
  if (edit.value === undefined || present(source, places, element, name) === clean(edit.value)) return []
  return [setAttribute(places, element, name, clean(edit.value))]
}

/** What the target holds now, so that an edit which changes nothing touches nothing; null where that cannot be told. */
function present(
  source: Source,
  places: Locations,
  element: Located,
  attributeName: string | null,
): string | null {
  const raw = attributeName
    ? attribute(element, attributeName)
    : element.childNodes.map((n) => ('value' in n ? n.value : '')).join('')
  if (raw === null) return null
  if (places.unit === 2) return fold(raw)
  return /[\x80-\uffff]/.test(raw) ? fold(redecode(raw, source)) : fold(raw)
}

/** Text of the byte view, with references decoded already, into the page's encoding; what was a reference stays. */
export function redecode(raw: string, source: Source): string {
  return raw.replace(
    /[\x80-\xff]+/g,
    (run) =>
      sourceOf(
        Uint8Array.from(run, (c) => c.charCodeAt(0)),
        source.encoding,
        source.encodingBy,
        0,
      ).text,
  )
}

function splicesFor(source: Source, places: Locations, key: TargetKey, edit: Edit): Splices {
  const { kind, name, at } = parseKey(key)
  const view = at === null ? null : (at - places.bom) / places.unit
  const addressed = view === null ? undefined : places.byStart.get(view)
  if (kind === 'comment') return commentSplices(places, view!, edit)
  if (at !== null && !addressed)
    return { why: 'The part of the page that it changes is no longer in the source.' }
  const unchanged = (element: Located | undefined, attr: string | null) =>
    element &&
    !edit.remove &&
    edit.value !== undefined &&
    present(source, places, element, attr) === clean(edit.value)
  switch (kind) {
    case 'title': {
      const element = addressed ?? places.titles[0]
      return unchanged(element, null) ? [] : titleSplices(places, element, edit)
    }
    case 'meta': {
      const named = (m: Located) =>
        (attribute(m, 'name') ?? attribute(m, 'property') ?? '').trim().toLowerCase() === name
      const element = addressed ?? places.metas.find(named)
      return unchanged(element, 'content') ? [] : metaSplices(places, element, name, edit)
    }
    case 'canonical': {
      const element = addressed ?? places.canonicals[0]
      return unchanged(element, 'href') ? [] : canonicalSplices(places, element, edit)
    }
    case 'lang':
      return langSplices(places, edit)
    case 'charset':
      return charsetSplices(places)
    case 'heading':
      return headingSplices(source, places, addressed!, edit)
    case 'jsonld':
      return jsonSplices(places, addressed!, edit)
    case 'data':
      return dataSplices(places, edit)
    case 'block':
      return blockSplices(source, places, addressed!, edit)
    case 'alt':
      return attributeSplices(source, places, addressed!, 'alt', edit)
    case 'id':
      return attributeSplices(source, places, addressed!, 'id', edit)
    case 'link':
      return edit.remove
        ? removal(places.view, addressed!)
        : attributeSplices(source, places, addressed!, 'href', edit)
    case 'doctype':
      return doctypeSplices(places)
    case 'skip':
      return skipSplices(places, edit)
    case 'new':
      return newSplices(source, places, edit)
    default:
      return { why: `No such target: ${key}.` }
  }
}

const missing = {
  markup: (c: string) => `&#${c.codePointAt(0)};`,
  json: (c: string) =>
    Array.from({ length: c.length }, (_, i) => `\\u${c.charCodeAt(i).toString(16).padStart(4, '0')}`).join(
      '',
    ),
}

interface ByteSplice {
  key: TargetKey
  from: number
  to: number
  bytes: Uint8Array
}

function toBytes(
  source: Source,
  places: Locations,
  key: TargetKey,
  splice: Splice,
  encoding: Encoding,
): ByteSplice {
  const from = places.bom + splice.start * places.unit
  const to = places.bom + splice.end * places.unit
  return asBytes(source, key, splice, from, to, encoding)
}

/** Splices of the source's decoded text, in order, as bytes. */
function ofText(
  source: Source,
  splices: readonly Splice[],
  key: TargetKey,
  encoding: Encoding,
): ByteSplice[] {
  const places = toBytePlaces(
    source,
    splices.flatMap(({ start, end }) => [start, end]),
  )
  return splices.map((splice, i) =>
    asBytes(source, key, splice, places[2 * i]!, places[2 * i + 1]!, encoding),
  )
}

/** A splice as bytes in the source's encoding, those that stay at its two ends left out. */
function asBytes(
  source: Source,
  key: TargetKey,
  splice: Splice,
  start: number,
  end: number,
  encoding: Encoding,
): ByteSplice {
  let from = start
  let to = end
  let bytes = encode(splice.text, encoding, missing[splice.as ?? 'markup'])
  let same = 0
  while (same < bytes.length && from + same < to && bytes[same] === source.bytes[from + same]) same++
  from += same
  bytes = bytes.subarray(same)
  let tail = 0
  while (
    tail < bytes.length &&
    to - tail > from &&
    bytes[bytes.length - 1 - tail] === source.bytes[to - 1 - tail]
  )
    tail++
  to -= tail
  return { key, from, to, bytes: bytes.subarray(0, bytes.length - tail) }
}

/** The place in a list of splices, in their order, behind those that begin before one or with it. */
function behind({ from, to }: Pick<ByteSplice, 'from' | 'to'>, sorted: readonly ByteSplice[]): number {
  let low = 0
  let high = sorted.length
  while (low < high) {
    const middle = (low + high) >> 1
    const at = sorted[middle]!
    if (at.from < from || (at.from === from && at.to <= to)) low = middle + 1
    else high = middle
  }
  return low
}
/** Whether a splice overlaps one of those in the list, none of which overlap each other. */
function meetsAny({ from, to }: ByteSplice, sorted: readonly ByteSplice[]): boolean {
  // The last that begins before this one's end: those before it end no later.
  const last = sorted[behind({ from: to, to: -1 }, sorted) - 1]
  return last !== undefined && last.to > from
}

const keysOf = (splices: readonly ByteSplice[]): TargetKey[] => [...new Set(splices.map((s) => s.key))]

/** What declares an encoding must end within so many bytes (WHATWG HTML 4.2.5.4). */
const DECLARED_WITHIN = 1024

/**
 * Where edits push the meta that declares the encoding too far down, it goes to the top of the head: the splices that
 * move it, none where it stays in time; `beyond` where there is no place for it.
 */
function declarationMovedOn(
  source: Source,
  places: Locations,
  accepted: readonly ByteSplice[],
): ByteSplice[] | 'beyond' {
  const declared = source.encodingBy === 'meta' ? prescan(source.bytes) : null
  if (declared?.by !== 'meta') return []
  const { start, end } = declared
  const grown = (until: number) =>
    accepted.reduce((n, s) => (s.to <= until ? n + s.bytes.length - (s.to - s.from) : n), 0)
  if (end + grown(start) <= DECLARED_WITHIN) return []
  const at = places.head?.place.startEnd ?? places.html?.place.startEnd ?? places.doctypeEnd
  const element = places.byStart.get(start)
  if (!element || accepted.some((s) => s.from < end && s.to > start)) return 'beyond'
  if (at + grown(at) + (end - start) + places.eol.length > DECLARED_WITHIN) return 'beyond'
  const key = 'charset'
  const gone = removal(places.view, element)
  if ('why' in gone) return 'beyond'
  const tag = source.bytes.subarray(start, end)
  const eol = encode(places.eol, ASCII, () => '')
  const bytes = new Uint8Array(eol.length + tag.length)
  bytes.set(at === 0 ? tag : eol)
  bytes.set(at === 0 ? eol : tag, at === 0 ? tag.length : eol.length)
  return [{ key, from: at, to: at, bytes }, ...gone.map((s) => toBytes(source, places, key, s, ASCII))]
}

/** The key of changes that no edit of the page made: addresses that followed pages which moved. */
export const CARRIED = 'carried'

/** A draft whose own addresses follow the moves: a canonical or a block may have been written before a slug changed. */
function carriedDraft(source: Source, draft: Draft, carry: Carry): Draft {
  const base = baseOf(source)
  const next: Record<TargetKey, Edit> = { ...draft }
  for (const [key, edit] of Object.entries(draft)) {
    if (edit.value === undefined) continue
    const { kind } = parseKey(key)
    if (kind === 'canonical')
      next[key] = { ...edit, value: carried(edit.value, basesOf(base, carry), carry) ?? edit.value }
    else if (kind === 'jsonld' || kind === 'data')
      next[key] = { ...edit, value: carryJson(edit.value, base, carry) }
  }
  return next
}

/**
 * Applies a draft, and with `carry` lets every address in the page follow the pages that moved. An edit that would change nothing touches nothing; one that cannot be applied, or that overlaps
 * another, is refused with a reason and the others stand. `applyDraft(source, {})` is the source itself.
 */
export function applyDraft(source: Source, given: Draft, carry: Carry | null = null): Proof {
  const draft = carry ? carriedDraft(source, given, carry) : given
  // A slug moves the file; what stands in it follows through `carry`.
  const keys = Object.keys(draft).filter((key) => key !== 'slug')
  if (keys.length === 0 && !carry) return { source, changes: [], refused: [] }
  const unpatchable = whyUnpatchable(source)
  if (unpatchable) {
    // Whether anything in it would have had to follow is not known either.
    const wanted = carry ? [...keys, CARRIED] : keys
    return { source, changes: [], refused: wanted.map((key) => ({ key, why: unpatchable })) }
  }
  const places = locate(source)
  if (places.doctypeEnd > 0 && places.view[places.doctypeEnd - 1] !== '>') {
    const why = 'The doctype is never closed in the source. Close it there first: >.'
    return { source, changes: [], refused: keys.map((key) => ({ key, why })) }
  }
  // What nothing declares is written so that no reader can take it for something else.
  const written = 'charset' in draft ? 'utf-8' : declaresEncoding(source) ? source.encoding : ASCII
  const refused: Proof['refused'] = []
  // Kept in the order of the source's bytes, so that what a splice may meet is found at once.
  const accepted: ByteSplice[] = []
  for (const key of keys) {
    const splices = splicesFor(source, places, key, draft[key]!)
    if ('why' in splices) {
      refused.push({ key, why: splices.why })
      continue
    }
    const own = splices
      .map((s) => toBytes(source, places, key, s, written))
      .filter((s) => s.from < s.to || s.bytes.length > 0)
    if (own.some((splice) => meetsAny(splice, accepted)))
      refused.push({ key, why: 'It changes the same place as another edit of this page.' })
    else for (const splice of own) accepted.splice(behind(splice, accepted), 0, splice)
  }
  const edits = [...accepted]
  if (carry) {
    const carried = ofText(source, carrySplices(source, carry), CARRIED, written).sort(
      (a, b) => a.from - b.from,
    )
    let until = -1
    for (const splice of carried) {
      // Misnested formatting elements stand more than once in the tree, and once in the source.
      const again = splice.from < until
      until = Math.max(until, splice.to)
      // What an edit replaces or takes out has nothing left to follow.
      if (!again && !meetsAny(splice, edits)) accepted.push(splice)
    }
  }
  const late = declarationMovedOn(source, places, accepted)
  if (late === 'beyond') {
    const why =
      'It would push what declares the page’s encoding beyond its first 1024 bytes, where it comes too late. Move that to the top of the head first.'
    return { source, changes: [], refused: [...refused, ...keysOf(accepted).map((key) => ({ key, why }))] }
  }
  for (const splice of late) accepted.splice(behind(splice, accepted), 0, splice)
  if (accepted.length === 0) return { source, changes: [], refused }
  // At one place the html tag comes before what stands in it, the charset before what it speaks of; else the draft's order.
  const first = ['doctype', 'lang', 'charset']
  const rank = (s: ByteSplice) => (first.indexOf(s.key) + first.length + 1) % (first.length + 1)
  accepted.sort((a, b) => a.from - b.from || a.to - b.to || rank(a) - rank(b))
  const bytes = new Uint8Array(
    accepted.reduce((n, s) => n + s.bytes.length - (s.to - s.from), source.bytes.length),
  )
  const changes: Change[] = []
  let read = 0
  let write = 0
  for (const splice of accepted) {
    bytes.set(source.bytes.subarray(read, splice.from), write)
    write += splice.from - read
    bytes.set(splice.bytes, write)
    changes.push({
      key: splice.key,
      from: splice.from,
      to: splice.to,
      at: write,
      until: write + splice.bytes.length,
    })
    write += splice.bytes.length
    read = splice.to
  }
  bytes.set(source.bytes.subarray(read), write)
  // A charset that the draft declares is the encoding the bytes were found to have: it is offered only for UTF-8.
  const by = 'charset' in draft ? 'meta' : source.encodingBy
  const encoding = 'charset' in draft ? 'utf-8' : source.encoding
  return { source: sourceOf(bytes, encoding, by, source.bom), changes, refused }
}

/** A byte of the proof to the byte of the source that it came from; within an edit, the edit's start. */
export function toSourceByte(changes: Change[], at: number): number {
  let shift = 0
  for (const change of changes) {
    if (at < change.at) break
    if (at < change.until) return change.from
    shift = change.to - change.until
  }
  return at + shift
}

/** A byte of the source to the byte of the proof where it stands now; within an edit, the edit's start. */
export function toProofByte(changes: Change[], at: number): number {
  let shift = 0
  for (const change of changes) {
    if (at < change.from) break
    if (at < change.to) return change.at
    shift = change.until - change.to
  }
  return at + shift
}
