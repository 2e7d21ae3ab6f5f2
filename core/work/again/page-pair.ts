/** A page's source as it was and as it is now: where each element of the one stands in the other. */
import {
  parsePage,
  attribute,
  HTML,
  isElement,
  type Element,
  type Node,
  type Parsed,
} from '../../page/read/parse.ts'
import { toBytePlaces } from '../../page/source/places.ts'
import type { Source } from '../../page/source/source.ts'
import { textBlocks, type Block } from '../../page/text/blocks.ts'
import { fold, foldSpaces } from '../../strings.ts'
import { matchBlocks, type Match } from './match-blocks.ts'
import { evened } from './similarity.ts'

/** One state of a page, its elements by the byte where they begin. */
export interface Side {
  source: Source
  elements: { element: Element; at: number }[]
  byByte: Map<number, Element>
  byteOf: Map<Element, number>
  blocks: Block[]
  /** What is shown of an element that is a block, or holds stretches of text. */
  textOf: Map<Element, string>
  /** The beginning of the text within each element. */
  tellingText(): ReadonlyMap<Node, string>
  /** Elements of the head. */
  head: Element[]
  comments: { text: string; at: number }[]
}

export function sideOf(source: Source): Side {
  const parsed: Parsed = parsePage(source.text)
  const all: Element[] = []
  const stack: Node[] = [parsed.document]
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (isElement(node)) all.push(node)
    if ('childNodes' in node) for (const child of node.childNodes) stack.push(child)
  }
  const elements = all.filter((element) => element.namespaceURI === HTML && element.place)
  elements.sort((a, b) => a.place!.start - b.place!.start)
  const bytes = toBytePlaces(
    source,
    elements.map((e) => e.place!.start),
  )
  const comments = [...parsed.comments].sort((a, b) => a.start - b.start)
  const commentBytes = toBytePlaces(
    source,
    comments.map((c) => c.start),
  )
  const byByte = new Map<number, Element>()
  const byteOf = new Map<Element, number>()
  for (const [i, element] of elements.entries()) {
    // What misnesting clones has one start tag: the first is the one that stands in the source.
    if (!byByte.has(bytes[i]!)) byByte.set(bytes[i]!, element)
    byteOf.set(element, bytes[i]!)
  }
  const blocks = textBlocks(parsed.document)
  const textOf = new Map<Element, string>()
  for (const { element, text } of blocks) {
    const before = textOf.get(element)
    textOf.set(element, before === undefined ? text : `${before} ${text}`)
  }
  return {
    source,
    textOf,
    tellingText: onceEach(() => tellingTexts(all)),
    head: headElements(parsed.document),
    elements: elements.map((element, i) => ({ element, at: bytes[i]! })),
    byByte,
    byteOf,
    blocks,
    comments: comments.map(({ text }, i) => ({ text, at: commentBytes[i]! })),
  }
}

function headElements(document: Parsed['document']): Element[] {
  const html = document.childNodes.find((n) => n.nodeName === 'html') as Element | undefined
  const head = html?.childNodes.find((n) => n.nodeName === 'head') as Element | undefined
  return head?.childNodes.filter(isElement) ?? []
}

/** Where something of the page as it was stands now. */
export interface Place {
  at: number
  sure: boolean
}

export interface PagePair {
  before: Side
  now: Side
  /** Of an element or a comment, by the byte where it begins; null where it is gone. */
  placeOf(at: number): Place | null
}

/** `wanted` is what was decided for blocks of text, `asked` the bytes that a place is needed for. */
export function pairPages(
  before: Side,
  now: Side,
  wanted: ReadonlyMap<number, string>,
  asked: ReadonlySet<number>,
): PagePair {
  const blockAt = new Map<number, number>()
  const byteOfBlock = (side: Side, block: Block) =>
    block.isStretch ? undefined : side.byteOf.get(block.element)
  for (const [i, block] of before.blocks.entries()) {
    const at = byteOfBlock(before, block)
    if (at !== undefined) blockAt.set(at, i)
  }
  let blocks: Map<number, Match> | null = null
  const blockPlace = (index: number): Place | null => {
    blocks ??= matchBlocks(
      before.blocks,
      now.blocks,
      (i) => wanted.get(byteOfBlock(before, before.blocks[i]!) ?? -1) ?? null,
      new Set([...asked].flatMap((at) => blockAt.get(at) ?? [])),
    )
    const match = blocks.get(index)
    const block = match && now.blocks[match.to]
    const at = block && byteOfBlock(now, block)
    return match && at !== undefined ? { at, sure: match.sure } : null
  }
  const others = onceEach(() => matchOthers(before, now))
  const comments = onceEach(() =>
    matchByKeys(
      before.comments.map(({ text, at }) => ({ keys: [evened(text)], at })),
      now.comments.map(({ text, at }) => ({ keys: [evened(text)], at })),
    ),
  )
  return {
    before,
    now,
    placeOf(at) {
      const block = blockAt.get(at)
      if (block !== undefined) return blockPlace(block)
      const to = before.byByte.has(at) ? others().get(at) : comments().get(at)
      return to === undefined ? null : { at: to, sure: true }
    },
  }
}

function onceEach<T>(make: () => T): () => T {
  let made: { value: T } | null = null
  return () => (made ??= { value: make() }).value
}

interface Keyed {
  /** What it is told by, the surest first. */
  keys: string[]
  at: number
}

/** Those that share a key as often on both sides, in order; first by the surest key, then by the next. */
function matchByKeys(before: readonly Keyed[], now: readonly Keyed[]): Map<number, number> {
  const matches = new Map<number, number>()
  const taken = new Set<number>()
  const depth = before.reduce((most, { keys }) => Math.max(most, keys.length), 0)
  for (let level = 0; level < depth; level++) {
    const groups = (things: readonly Keyed[], isFree: (at: number) => boolean) => {
      const starts = new Map<string, number[]>()
      for (const { keys, at } of things) {
        const key = keys[level]
        if (key === undefined || !isFree(at)) continue
        const group = starts.get(key)
        if (group) group.push(at)
        else starts.set(key, [at])
      }
      return starts
    }
    const there = groups(now, (at) => !taken.has(at))
    for (const [key, old] of groups(before, (at) => !matches.has(at))) {
      const current = there.get(key)
      if (current?.length !== old.length) continue
      old.forEach((at, n) => {
        matches.set(at, current[n]!)
        taken.add(current[n]!)
      })
    }
  }
  return matches
}

const matchOthers = (before: Side, now: Side): Map<number, number> =>
  matchByKeys(
    before.elements.map(({ element, at }) => ({ keys: keysOf(element, before), at })),
    now.elements.map(({ element, at }) => ({ keys: keysOf(element, now), at })),
  )

/** What an element that is no block of text is told by. */
function keysOf(element: Element, side: Side): string[] {
  const tag = element.tagName
  const said = (name: string) => attribute(element, name) ?? ''
  switch (tag) {
    case 'title':
      return [`title ${evened(ownText(element))}`, 'title']
    case 'meta': {
      const name = (said('name') || said('property') || said('http-equiv')).toLowerCase()
      return [`meta ${name} ${evened(said('content'))}`, `meta ${name}`]
    }
    case 'link':
      return [`link ${said('rel').toLowerCase()} ${said('href')}`, `link ${said('rel').toLowerCase()}`]
    case 'img':
      return [`img ${said('src')} ${said('alt')}`, `img ${said('src')}`, `img ${pictureName(said('src'))}`]
    case 'script':
      return dataKeys(element)
    default: {
      const attributes = element.attrs.map((a) => `${a.name}=${a.value}`).join(' ')
      const text = fold(side.tellingText().get(element) ?? '').slice(0, TELLING)
      return [`${tag} ${attributes} ${evened(text)}`, `${tag} ${attributes}`]
    }
  }
}

const ownText = (element: Element): string =>
  element.childNodes.map((n) => ('value' in n ? (n as { value: string }).value : '')).join('')

/** So much of an element's text, in UTF-16 units, tells it from others like it. */
const TELLING = 200
/** The text that each element is told by. Given elements, those around before those within: each text is put together once. */
function tellingTexts(elements: readonly Element[]): ReadonlyMap<Node, string> {
  const texts = new Map<Node, string>()
  for (let i = elements.length - 1; i >= 0; i--) {
    const element = elements[i]!
    let text = ''
    for (const child of element.childNodes) {
      if (text.length > 2 * TELLING) break
      text +=
        child.nodeName === '#text' ? telling((child as { value: string }).value) : (texts.get(child) ?? '')
    }
    texts.set(element, telling(text))
  }
  return texts
}
/** A space before the first word is left out in the end. */
const telling = (text: string): string => foldSpaces(text).slice(0, TELLING + 1)

/** A picture's file name without what is put into it to tell its versions apart: a hash, a size. */
const pictureName = (src: string): string =>
  (src.split(/[?#]/, 1)[0]!.split('/').at(-1) ?? '')
    .replace(/[.-](?:[0-9a-f]{6,40}|\d{2,5}x\d{2,5}|@?\d+[wx])(?=[.-]|$)/gi, '')
    .toLowerCase()

/** JSON as it is compared: keys in order, no white space; null for what is none, or nests deeper than can be read. */
export function comparableJson(text: string): string | null {
  try {
    return JSON.stringify(JSON.parse(text), (_, v: unknown) => (isPlain(v) ? sorted(v) : v))
  } catch {
    return null
  }
}
const isPlain = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v)
const sorted = (object: Record<string, unknown>): Record<string, unknown> =>
  Object.assign(
    Object.create(null) as Record<string, unknown>,
    Object.fromEntries(Object.entries(object).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))),
  )

function dataKeys(element: Element): string[] {
  const type = (attribute(element, 'type') ?? '').trim().toLowerCase()
  const text = ownText(element)
  if (type !== 'application/ld+json')
    return [`script ${type} ${attribute(element, 'src') ?? text.slice(0, TELLING)}`]
  const whole = comparableJson(text)
  if (whole === null) return [`json ${evened(text).slice(0, 2000)}`, 'json ?']
  const { types, name } = aboutOf(JSON.parse(text))
  return [`json ${whole}`, `json type ${types} ${name}`, `json type ${types}`]
}
function aboutOf(value: unknown): { types: string; name: string } {
  const first = Array.isArray(value) ? value[0] : value
  const thing = isPlain(first) && Array.isArray(first['@graph']) ? (first['@graph'] as unknown[])[0] : first
  if (!isPlain(thing)) return { types: '', name: '' }
  const text = (v: unknown) =>
    typeof v === 'string' ? v : Array.isArray(v) ? v.filter((t) => typeof t === 'string').join(',') : ''
  return { types: text(thing['@type']), name: text(thing.name) || text(thing.headline) }
}
