/** Every address that a page's source writes, as splices where it must follow a move. */
import type { DefaultTreeAdapterTypes } from 'parse5'
import { byteView } from './encoding.ts'
import { attributePlaces, locate, type Located, type Locations } from './locate.ts'
import { attribute, isElement, parsePage, type Node } from './parse.ts'
import { escapeAttribute, redecode, type Splice } from './proof.ts'
import type { Source } from './source.ts'
import { basesOf, carried, carryCss, type Carry } from '../site/carry.ts'
import { parseJson, type JsonValue } from '../structured-data/json.ts'

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

function referencesOf(source: Source): References {
  const known = cache.get(source)
  if (known) return known
  const view = source.encoding.startsWith('utf-16')
    ? source.text
    : byteView(source.bytes.subarray(source.bom))
  const found: References = { base: null, references: [], scripts: [], styles: [] }
  const stack: { nodes: Node[]; next: number }[] = [{ nodes: parsePage(view).document.childNodes, next: 0 }]
  while (stack.length > 0) {
    const frame = stack[stack.length - 1]!
    const node = frame.nodes[frame.next++]
    if (node === undefined) stack.pop()
    else if (isElement(node)) {
      if (node.place) note(node as Located, found)
      // What a template holds is kept apart from its children.
      const { content } = node as Partial<DefaultTreeAdapterTypes.Template>
      stack.push({ nodes: (content ?? node).childNodes, next: 0 })
    }
  }
  cache.set(source, found)
  return found
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

/** Splices that let a page's addresses follow the moves, in document order. */
export function carrySplices(source: Source, carry: Carry): Splice[] {
  const { base, references, scripts, styles } = referencesOf(source)
  const places = locate(source)
  const bases = basesOf(base, carry)
  const decoded = (raw: string) => (places.unit === 2 ? raw : redecode(raw, source))
  const splices: Splice[] = []
  for (const { element, attribute: name, value, kind } of references) {
    if (value.trim() === '') continue
    const now = carriedValue(decoded(value), kind)
    if (now !== null) splices.push(...replaceAttribute(places, element, name, now))
  }
  for (const { place } of styles) {
    if (place.endStart === null) continue
    const css = places.view.slice(place.startEnd, place.endStart)
    const now = carryCss(css, bases, carry)
    if (now !== css) splices.push({ start: place.startEnd, end: place.endStart, text: decoded(now) })
  }
  for (const { place } of scripts) {
    if (place.endStart === null) continue
    const json = places.view.slice(place.startEnd, place.endStart)
    for (const s of carriedStrings(json, bases, carry, decoded))
      splices.push({ start: place.startEnd + s.start, end: place.startEnd + s.end, text: s.text, as: 'json' })
  }
  return splices.sort((a, b) => a.start - b.start)

  function carriedValue(value: string, kind: Reference['kind']): string | null {
    if (kind === 'address') return carried(value, bases, carry)
    if (kind === 'style') {
      const now = carryCss(value, bases, carry)
      return now === value ? null : now
    }
    if (kind === 'refresh') {
      const [, , href] = /^([^;,]*[;,]\s*url\s*=\s*["']?)([^"']+)/i.exec(value) ?? []
      const now = href === undefined ? null : carried(href, bases, carry)
      return now === null ? null : value.replace(href!, now)
    }
    let any = false
    const now = value.replace(
      /([^\s,][^\s]*[^\s,])(\s+[\d.]+[wxh])?/g,
      (all: string, href: string, size = '') => {
        const next = carried(href, bases, carry)
        any ||= next !== null
        return next === null ? all : next + size
      },
    )
    return any ? now : null
  }
}

/** Sets a value that is there, keeping its quoting. */
function replaceAttribute({ view }: Locations, element: Located, name: string, value: string): Splice[] {
  const own = attributePlaces(view, element)[name]
  if (!own) return []
  const lead = /^[^=]*=\s*(["']?)/.exec(view.slice(own.start, own.end))
  if (!lead) return []
  const start = own.start + lead[0].length
  const quote = lead[1]
  if (quote === '"' || quote === "'")
    return [{ start, end: own.end - 1, text: escapeAttribute(value, quote) }]
  return [{ start, end: own.end, text: `"${escapeAttribute(value, '"')}"` }]
}

/** Members whose text is an address even where it is relative. */
const addressMembers =
  /^(?:@id|url|item|mainEntityOfPage|image|logo|contentUrl|thumbnailUrl|embedUrl|target|urlTemplate|isPartOf|significantLink|relatedLink)$/

/** Relative text that can be nothing but a path: not a name, not the id of a blank node. */
const isPath = (text: string): boolean => /^(?!_:)(?:\.{0,2}\/|[^\s:]+(?:\/|\.\w{2,5}$))/.test(text)

interface CarriedString {
  start: number
  end: number
  text: string
}

/** The strings of a JSON text that follow the moves, with their places, quotes included. */
function carriedStrings(
  json: string,
  bases: { before: string; after: string },
  carry: Carry,
  decoded: (raw: string) => string,
): CarriedString[] {
  const read = parseJson(json)
  if (!read.ok) return []
  const found: CarriedString[] = []
  const walk = (value: JsonValue, key: string): void => {
    if (value.kind === 'object') for (const m of value.members) walk(m.value, m.key)
    else if (value.kind === 'array') for (const item of value.items) walk(item, key)
    else if (
      value.kind === 'string' &&
      (/^https?:/i.test(value.value) || (addressMembers.test(key) && isPath(value.value)))
    ) {
      const now = carried(decoded(value.value), bases, carry)
      if (now !== null) found.push({ start: value.start, end: value.end, text: JSON.stringify(now) })
    }
  }
  walk(read.value, '')
  return found
}

/** A whole JSON-LD text that an editor wrote, with its addresses following the moves. */
export function carryJson(json: string, baseHref: string | null, carry: Carry): string {
  const strings = carriedStrings(json, basesOf(baseHref, carry), carry, (raw) => raw)
  let out = json
  for (const { start, end, text } of strings.reverse()) out = out.slice(0, start) + text + out.slice(end)
  return out
}

export const baseOf = (source: Source): string | null => referencesOf(source).base
