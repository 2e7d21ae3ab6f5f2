/** Every address that a page's source writes, as splices where it must follow a move. */
import type { DefaultTreeAdapterTypes } from 'parse5'
import { writtenPlaces } from './attribute-text.ts'
import { attributePlaces, type Located } from '../splice/locate.ts'
import { attribute, isElement, parsePage, type Node } from '../read/parse.ts'
import { escapeAttribute, type Splice } from '../splice/splice.ts'
import type { Source } from '../source/source.ts'
import { basesOf, addressAfterMoves, cssAddresses, type PageMoves } from '../../addresses/page-moves.ts'
import { safeJson } from '../../json/edit-json.ts'
import { parseJson, type JsonValue } from '../../json/json.ts'

interface Reference {
  element: Located
  /** The attribute's name as it is written, in lower case, and its value. */
  attribute: string
  value: string
  kind: 'address' | 'set' | 'refresh' | 'style'
}
interface References {
  base: string | null
  references: Reference[]
  scripts: Located[]
  styles: Located[]
}

const addressAttributes = new Set([
  'href',
  'src',
  'action',
  'formaction',
  'poster',
  'data',
  'cite',
  'background',
  'longdesc',
  'xlink:href',
])
/** Metas whose content is an address, and no others: the width of an image stands beside it under a longer name. */
const metaAddress =
  /^(?:(?:og|twitter):(?:url|image|video|audio|player)(?::(?:url|secure_url|src|stream))?|al:web:url|msapplication-(?:starturl|tileimage))$/i

const cache = new WeakMap<Source, References>()

/** The addresses that a source writes; places are of its decoded text, so that an encoding's own bytes are never taken apart. */
function referencesOf(source: Source): References {
  const known = cache.get(source)
  if (known) return known
  const gathered: References = { base: null, references: [], scripts: [], styles: [] }
  const stack: { nodes: Node[]; next: number }[] = [
    { nodes: parsePage(source.text).document.childNodes, next: 0 },
  ]
  while (stack.length > 0) {
    const frame = stack[stack.length - 1]!
    const node = frame.nodes[frame.next++]
    if (node === undefined) stack.pop()
    else if (isElement(node)) {
      if (node.place) note(node as Located, gathered)
      // What a template holds is kept apart from its children.
      const { content } = node as Partial<DefaultTreeAdapterTypes.Template>
      stack.push({ nodes: (content ?? node).childNodes, next: 0 })
    }
  }
  cache.set(source, gathered)
  return gathered
}

function note(element: Located, found: References): void {
  const add = (name: string, value: string, kind: Reference['kind']) =>
    found.references.push({ element, attribute: name, value, kind })
  for (const { name: local, prefix, value } of element.attrs) {
    const name = prefix ? `${prefix}:${local}` : local
    if (name === 'srcset' || name === 'imagesrcset') add(name, value, 'set')
    else if (name === 'style') add(name, value, 'style')
    else if (element.tagName === 'base') found.base ??= name === 'href' ? value : null
    else if (addressAttributes.has(name)) add(name, value, 'address')
  }
  if (element.tagName === 'meta') {
    const content = attribute(element, 'content') ?? ''
    if (/^refresh$/i.test(attribute(element, 'http-equiv') ?? '')) add('content', content, 'refresh')
    else if (metaAddress.test(attribute(element, 'property') ?? attribute(element, 'name') ?? ''))
      add('content', content, 'address')
  }
  if (element.tagName === 'style') found.styles.push(element)
  if (
    element.tagName === 'script' &&
    /^application\/ld\+json\s*(;|$)/i.test((attribute(element, 'type') ?? '').trim())
  )
    found.scripts.push(element)
}

/** Splices of a source's text that let its addresses follow the moves, in document order. */
export function followedSplices(source: Source, pageMoves: PageMoves): Splice[] {
  const { text } = source
  const { base, references, scripts, styles } = referencesOf(source)
  const bases = basesOf(base, pageMoves)
  const splices: Splice[] = []
  for (const reference of references)
    if (reference.value.trim() !== '')
      for (const splice of attributeSplices(text, reference, carriedIn(reference))) splices.push(splice)
  for (const { place } of styles) {
    if (place.endStart === null) continue
    for (const s of cssAddresses(text.slice(place.startEnd, place.endStart), bases, pageMoves))
      splices.push({ ...s, start: place.startEnd + s.start, end: place.startEnd + s.end })
  }
  for (const { place } of scripts) {
    if (place.endStart === null) continue
    for (const s of carriedStrings(text.slice(place.startEnd, place.endStart), bases, pageMoves))
      splices.push({ start: place.startEnd + s.start, end: place.startEnd + s.end, text: s.text, as: 'json' })
  }
  return splices.sort((a, b) => a.start - b.start)

  /** The parts of an attribute's value that follow. */
  function carriedIn({ value, kind }: Reference): Splice[] {
    if (kind === 'style') return cssAddresses(value, bases, pageMoves)
    const parts: Splice[] = []
    const follow = (start: number, href: string) => {
      const now = addressAfterMoves(href, bases, pageMoves)
      if (now !== null) parts.push({ start, end: start + href.length, text: now })
    }
    if (kind === 'address') {
      const href = value.trim()
      follow(value.indexOf(href), href)
    } else if (kind === 'refresh') {
      const lead = /^[^;,]*[;,]\s*url\s*=\s*["']?/i.exec(value)?.[0]
      const href = lead === undefined ? undefined : /^[^"']+/.exec(value.slice(lead.length))?.[0]
      if (href !== undefined) follow(lead!.length, href.trimEnd())
    } else
      for (const m of value.matchAll(/\S+/g)) {
        const href = m[0].replace(/^,+/, '')
        const shown = href.replace(/,+$/, '')
        // Widths and densities stand behind an address.
        if (shown !== '' && !/^[\d.]+[wxh]$/.test(shown)) follow(m.index + m[0].length - href.length, shown)
      }
    return parts
  }
}

/** Addresses hold no `<`: how they are written does not hang on the page's being XML. */
const asHtml = { xml: false }

/** Splices of the text for splices of an attribute's value: of just those bytes, or of the whole value where it is written in a way of its own. */
function attributeSplices(
  text: string,
  { element, attribute: name, value }: Reference,
  parts: Splice[],
): Splice[] {
  const place = parts.length === 0 ? undefined : attributePlaces(text, element)[name]
  const lead = place && /^[^=]*=\s*(["']?)/.exec(text.slice(place.start, place.end))
  if (!place || !lead) return []
  const quote = lead[1] === '"' || lead[1] === "'" ? lead[1] : null
  const start = place.start + lead[0].length
  const end = quote ? place.end - 1 : place.end
  const places = quote ? writtenPlaces(text.slice(start, end), value) : null
  if (places)
    return parts.map((p) => ({
      start: start + places[p.start]!,
      end: start + places[p.end]!,
      text: escapeAttribute(p.text, quote!, asHtml),
    }))
  let now = ''
  let at = 0
  for (const part of parts) {
    now += value.slice(at, part.start) + part.text
    at = part.end
  }
  now += value.slice(at)
  const written = escapeAttribute(now, quote ?? '"', asHtml)
  return [{ start, end, text: quote ? written : `"${written}"` }]
}

/** Members whose text is an address even where it is relative. */
const addressMembers =
  /^(?:@id|url|item|mainEntityOfPage|image|logo|contentUrl|thumbnailUrl|embedUrl|target|urlTemplate|isPartOf|significantLink|relatedLink)$/

/** Relative text that can be nothing but a path: not a name, not the id of a blank node. */
const isPath = (text: string): boolean => /^(?!_:)(?:\.{0,2}\/|[^\s:]+(?:\/|\.\w{2,5}$))/.test(text)

/** The strings of a JSON text that follow the moves, with their places, quotes included. */
function carriedStrings(
  json: string,
  bases: { before: string; after: string },
  pageMoves: PageMoves,
): Splice[] {
  const read = parseJson(json)
  if (!read.ok) return []
  const strings: Splice[] = []
  const open: { value: JsonValue; key: string }[] = [{ value: read.value, key: '' }]
  for (let next = open.pop(); next; next = open.pop()) {
    const { value, key } = next
    if (value.kind === 'object') for (const m of value.members) open.push({ value: m.value, key: m.key })
    else if (value.kind === 'array') for (const item of value.items) open.push({ value: item, key })
    else if (
      value.kind === 'string' &&
      (/^https?:/i.test(value.value) || (addressMembers.test(key) && isPath(value.value)))
    ) {
      const now = addressAfterMoves(value.value, bases, pageMoves)
      if (now !== null)
        strings.push({ start: value.start, end: value.end, text: safeJson(JSON.stringify(now)) })
    }
  }
  return strings.sort((a, b) => a.start - b.start)
}

/** A whole JSON-LD text that an editor wrote, with its addresses following the moves. */
export function followedJson(json: string, baseHref: string | null, pageMoves: PageMoves): string {
  let out = ''
  let at = 0
  for (const { start, end, text } of carriedStrings(json, basesOf(baseHref, pageMoves), pageMoves)) {
    out += json.slice(at, start) + text
    at = end
  }
  return out + json.slice(at)
}

export const baseOf = (source: Source): string | null => referencesOf(source).base
