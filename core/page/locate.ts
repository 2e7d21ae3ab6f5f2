/**
 * Where a source's parts stand in its bytes, for patching. The bytes are parsed one unit a byte (UTF-16: one unit a
 * code unit), so that every place is a byte place whatever the encoding; markup is ASCII in all of them.
 */
import { parse, type DefaultTreeAdapterTypes } from 'parse5'
import { byteView } from './encoding.ts'
import { attribute, HTML, isElement } from './parse.ts'
import type { Source } from './source.ts'

export type Located = DefaultTreeAdapterTypes.Element

export interface Locations {
  /** One unit a byte (or code unit), the BOM taken off. */
  view: string
  /** View place to byte place: `bom + place * unit`. */
  bom: number
  unit: 1 | 2
  html: Located | null
  head: Located | null
  doctypeEnd: number
  titles: Located[]
  metas: Located[]
  canonicals: Located[]
  /** All elements that an edit can address by the byte of their start tag. */
  byStart: Map<number, Located>
  eol: string
}

const cache = new WeakMap<Source, Locations>()

/** Locates once for each source: the parse with full locations is the dear part of an edit. */
export function locate(source: Source): Locations {
  const known = cache.get(source)
  if (known) return known
  const wide = source.encoding.startsWith('utf-16')
  const view = wide ? source.text : byteView(source.bytes.subarray(source.bom))
  const document = parse(view, { sourceCodeLocationInfo: true })
  const found: Locations = {
    view,
    bom: source.bom,
    unit: wide ? 2 : 1,
    html: null,
    head: null,
    doctypeEnd: 0,
    titles: [],
    metas: [],
    canonicals: [],
    byStart: new Map(),
    eol: /\r\n|\r|\n/.exec(view)?.[0] ?? '\n',
  }
  const stack: { nodes: DefaultTreeAdapterTypes.ChildNode[]; next: number; inHead: boolean }[] = [
    { nodes: document.childNodes, next: 0, inHead: false },
  ]
  while (stack.length > 0) {
    const frame = stack[stack.length - 1]!
    const node = frame.nodes[frame.next++]
    if (node === undefined) {
      stack.pop()
      continue
    }
    if (node.nodeName === '#documentType') found.doctypeEnd = node.sourceCodeLocation?.endOffset ?? 0
    if (!isElement(node)) continue
    const element = node as Located
    if (element.namespaceURI === HTML) note(element, frame.inHead, found)
    stack.push({ nodes: element.childNodes, next: 0, inHead: frame.inHead || element.tagName === 'head' })
  }
  cache.set(source, found)
  return found
}

function note(element: Located, inHead: boolean, found: Locations): void {
  const start = element.sourceCodeLocation?.startOffset
  const tag = element.tagName
  if (tag === 'html') found.html = element
  else if (tag === 'head') found.head = element
  if (start === undefined) return
  const addressable =
    /^(?:title|meta|link|script|h[1-6])$/.test(tag) || attribute(element, 'role') === 'heading'
  if (addressable && !found.byStart.has(start)) found.byStart.set(start, element)
  if (!inHead) return
  if (tag === 'title') found.titles.push(element)
  else if (tag === 'meta') found.metas.push(element)
  else if (tag === 'link' && attribute(element, 'rel')?.toLowerCase().split(/\s+/).includes('canonical'))
    found.canonicals.push(element)
}
