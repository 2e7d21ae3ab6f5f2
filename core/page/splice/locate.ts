/**
 * Where a source's parts stand in its bytes, for patching. The bytes are parsed one unit a byte (UTF-16: one unit a
 * code unit), so that every place is a byte place whatever the encoding; markup is ASCII in all of them.
 */
import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'
import { byteView } from '../source/encoding.ts'
import {
  attribute,
  HTML,
  isElement,
  parsePage,
  type CommentPlace,
  type Element,
  type Node,
  type TagPlace,
} from '../read/parse.ts'
import type { Source } from '../source/source.ts'

/** An element that stands in the source, with the places of its tags. */
export type Located = Element & { place: TagPlace }

export interface Locations {
  /** One unit a byte (or code unit), the BOM taken off. */
  view: string
  /** View place to byte place: `bom + place * unit`. */
  bom: number
  unit: 1 | 2
  /** The html and head start tags; null where they are implied. */
  html: Located | null
  head: Located | null
  /** Elements of the parsed head, in order. */
  headChildren: Located[]
  doctypeEnd: number
  titles: Located[]
  metas: Located[]
  canonicals: Located[]
  /** Every HTML element by the place of its start tag: what an edit can address. */
  byStart: Map<number, Located>
  /** Comments by the place where they begin. */
  comments: Map<number, CommentPlace>
  body: Located | null
  /** The first visible main landmark. */
  main: Located | null
  eol: string
  /** Whether it is written as XML, too: void elements are closed, and what XML reads as markup is escaped. */
  xml: boolean
}

const cache = new WeakMap<Source, Locations>()

/** Locates once for each source: it never changes, and an edit's every keystroke asks again. */
export function locate(source: Source): Locations {
  const known = cache.get(source)
  if (known) return known
  const wide = source.encoding.startsWith('utf-16')
  const view = wide ? source.text : byteView(source.bytes.subarray(source.bom))
  const { document, doctypeEnd, comments } = parsePage(view)
  const locations: Locations = {
    view,
    bom: source.bom,
    unit: wide ? 2 : 1,
    html: null,
    head: null,
    headChildren: [],
    doctypeEnd,
    titles: [],
    metas: [],
    canonicals: [],
    byStart: new Map(),
    comments: new Map(comments.map((c) => [c.start, c])),
    body: null,
    main: null,
    eol: /\r\n|\r|\n/.exec(view)?.[0] ?? '\n',
    xml: /^\s*<\?xml\s/.test(view) || /^\s*<!doctype\s[^>]*\bXHTML\b/i.test(view.slice(0, doctypeEnd)),
  }
  const stack: { nodes: Node[]; next: number; inHead: boolean }[] = [
    { nodes: document.childNodes, next: 0, inHead: false },
  ]
  while (stack.length > 0) {
    const frame = stack[stack.length - 1]!
    const node = frame.nodes[frame.next++]
    if (node === undefined) stack.pop()
    else if (isElement(node)) {
      if (node.namespaceURI === HTML && node.place) note(node as Located, frame.inHead, locations)
      stack.push({ nodes: node.childNodes, next: 0, inHead: frame.inHead || node.tagName === 'head' })
    }
  }
  cache.set(source, locations)
  return locations
}

function note(element: Located, inHead: boolean, found: Locations): void {
  const tag = element.tagName
  const { start } = element.place
  if (tag === 'html') {
    found.html = element
    if (attribute(element, 'xmlns') !== null) found.xml = true
  } else if (tag === 'head') found.head = element
  else if (tag === 'body') found.body = element
  else if (!found.main && (tag === 'main' || attribute(element, 'role') === 'main')) found.main = element
  // What misnesting clones has one start tag: the first is the one that stands in the source.
  if (!found.byStart.has(start)) found.byStart.set(start, element)
  if (!inHead) return
  found.headChildren.push(element)
  if (tag === 'title') found.titles.push(element)
  else if (tag === 'meta') found.metas.push(element)
  else if (tag === 'link' && attribute(element, 'rel')?.toLowerCase().split(/\s+/).includes('canonical'))
    found.canonicals.push(element)
}

/** Where the attributes of an element's start tag stand in the view, by name in lower case. */
export function attributePlaces(
  view: string,
  { tagName, place }: Located,
): Record<string, { start: number; end: number }> {
  const name = tagName.length
  // Read under a name that means nothing to the parser, so that it stands wherever it is put.
  const tag = '<' + 'x'.repeat(name) + view.slice(place.start + 1 + name, place.startEnd)
  const [element] = parseFragment(tag, { sourceCodeLocationInfo: true }).childNodes
  const attrs = (element as DefaultTreeAdapterTypes.Element | undefined)?.sourceCodeLocation?.attrs ?? {}
  return Object.fromEntries(
    Object.entries(attrs).map(([key, at]) => [
      key,
      { start: place.start + at.startOffset, end: place.start + at.endOffset },
    ]),
  )
}
