/** A page's main content piece by piece, as a reader takes it in: what data about the page is built from. */
import { attribute, isElement, parsePage, type Element, type Node } from '../page/read/parse.ts'
import { fold } from '../strings.ts'
import { isHeadingTag, kindOf, INLINE, landmarkOf, NOT_TEXT } from '../page/read/elements.ts'

export interface Piece {
  kind: 'heading' | 'text' | 'item' | 'term' | 'definition' | 'cell' | 'summary' | 'caption' | 'address'
  text: string
  /** Its start tag in the page's text. */
  start: number
  /** Of a heading. */
  level: number
  /** Start of the list, the `details`, the row or the definition list that it stands in; null for none. */
  group: number | null
  /** Whether the list is ordered. */
  ordered: boolean
}
export interface TimePiece {
  datetime: string
  text: string
  start: number
  /** What stands before it on its line. */
  before: string
}
export interface Content {
  pieces: Piece[]
  times: TimePiece[]
  images: { src: string; alt: string; start: number; inMain: boolean; inHeader: boolean }[]
  videos: { src: string; poster: string | null; title: string; start: number }[]
  links: { href: string; rel: string; text: string; start: number; inMain: boolean }[]
}

/** So much of what stands before a time is looked at for what it is a time of, in characters. */
const BEFORE = 200
/** The last of what stands in parts. */
function tailOf(parts: readonly string[]): string {
  let tail = ''
  for (let i = parts.length - 1; i >= 0 && tail.length < BEFORE; i--) tail = parts[i]! + tail
  return tail.slice(-BEFORE)
}
/** So many nodes within a link or a time are looked at for its words: links can be nested without end. */
const MOST_WITHIN = 1000

const hiding = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)\b/i
const kinds = new Map<string, Piece['kind']>([
  ['li', 'item'],
  ['dt', 'term'],
  ['dd', 'definition'],
  ['td', 'cell'],
  ['th', 'cell'],
  ['summary', 'summary'],
  ['caption', 'caption'],
  ['figcaption', 'caption'],
  ['address', 'address'],
])
const kindOfTag = (tag: string): Piece['kind'] => (isHeadingTag(tag) ? 'heading' : (kinds.get(tag) ?? 'text'))

/** A paragraph in a list's entry, a definition or a cell is that entry's text. */
const within = (own: Piece['kind'], above: Piece['kind'] | undefined): Piece['kind'] =>
  own === 'text' && above !== undefined && above !== 'heading' && above !== 'text' ? above : own

interface Open {
  node: Element
  next: number
  piece: { kind: Piece['kind']; parts: string[]; start: number; level: number } | null
  ownPiece: boolean
  group: number | null
  ordered: boolean
  main: boolean
  header: boolean
  furniture: boolean
}

/** Reads the visible pieces of a page's text. With a main landmark, of that alone; else of the body without its furniture. */
export function contentOf(text: string): Content {
  const { document } = parsePage(text)
  const content: Content = { pieces: [], times: [], images: [], videos: [], links: [] }
  const hasMain = holdsMain(document.childNodes)
  const stack: Open[] = []
  const finish = (open: Open) => {
    if (!open.ownPiece || !open.piece) return
    emit(open.piece, open)
  }
  const emit = (piece: NonNullable<Open['piece']>, { group, ordered }: Open) => {
    const said = fold(piece.parts.join(''))
    piece.parts = []
    if (said !== '')
      content.pieces.push({
        kind: piece.kind,
        text: said,
        start: piece.start,
        level: piece.level,
        group,
        ordered,
      })
  }
  const enter = (node: Element, up: Open | null): void => {
    const tag = node.tagName
    if (tag === 'head' || attribute(node, 'hidden') !== null || hiding.test(attribute(node, 'style') ?? ''))
      return
    const role = attribute(node, 'role')?.trim().toLowerCase().split(/\s+/)[0] ?? null
    const landmark = landmarkOf(node, role, up?.main ?? false)
    const start = node.place?.start ?? up?.piece?.start ?? 0
    const main = (up?.main ?? false) || landmark === 'main'
    const header = (up?.header ?? false) || (landmark === 'header' && !main)
    const furniture = (up?.furniture ?? false) || (landmark !== null && landmark !== 'main')
    const counts = main || (!hasMain && !furniture)
    const open: Open = {
      node,
      next: 0,
      piece: up?.piece ?? null,
      ownPiece: false,
      group: up?.group ?? null,
      ordered: up?.ordered ?? false,
      main,
      header,
      furniture,
    }
    if (tag === 'img') {
      content.images.push({
        src: (attribute(node, 'src') ?? '').trim(),
        alt: fold(attribute(node, 'alt') ?? ''),
        start,
        inMain: counts,
        inHeader: header,
      })
      return
    }
    if (tag === 'video' || tag === 'iframe') {
      const src = attribute(node, 'src') ?? firstSource(node) ?? ''
      if (counts && src.trim() !== '')
        content.videos.push({
          src: src.trim(),
          poster: attribute(node, 'poster'),
          title: fold(attribute(node, 'title') ?? attribute(node, 'aria-label') ?? ''),
          start,
        })
      return
    }
    if ((kindOf(tag) & NOT_TEXT) !== 0) return
    if (tag === 'a') {
      const href = attribute(node, 'href')
      if (href !== null)
        content.links.push({
          href: href.trim(),
          rel: attribute(node, 'rel')?.toLowerCase() ?? '',
          text: fold(textWithin(node)),
          start,
          inMain: counts,
        })
    }
    if (tag === 'time' && counts) {
      const said = fold(textWithin(node))
      content.times.push({
        datetime: (attribute(node, 'datetime') ?? said).trim(),
        text: said,
        start,
        before: fold(tailOf(open.piece?.parts ?? [])),
      })
    }
    if (tag === 'br' && open.piece) open.piece.parts.push('\n')
    if (tag === 'ul' || tag === 'ol' || tag === 'dl' || tag === 'details' || tag === 'tr') {
      open.group = start
      open.ordered = tag === 'ol'
    }
    if (counts && (kindOf(tag) & INLINE) === 0) {
      // A block begins: what stood before it in the same block is a piece of its own.
      if (up?.piece && up.piece.parts.length > 0) emit(up.piece, up)
      open.piece = {
        kind: within(kindOfTag(tag), up?.piece?.kind),
        parts: [],
        start,
        level: isHeadingTag(tag) ? Number(tag[1]) : 0,
      }
      open.ownPiece = true
    } else if (!counts) open.piece = null
    stack.push(open)
  }
  for (const root of document.childNodes) {
    if (!isElement(root)) continue
    enter(root, null)
    while (stack.length > 0) {
      const open = stack[stack.length - 1]!
      const child: Node | undefined = open.node.childNodes[open.next++]
      if (child === undefined) {
        finish(open)
        stack.pop()
      } else if (isElement(child)) enter(child, open)
      else if (child.nodeName === '#text')
        open.piece?.parts.push((child as unknown as { value: string }).value)
    }
  }
  return content
}

function holdsMain(nodes: Node[]): boolean {
  const queue = [...nodes]
  for (let i = 0; i < queue.length; i++) {
    const node = queue[i]!
    if (!isElement(node)) continue
    if (node.tagName === 'main' || attribute(node, 'role') === 'main') return true
    for (const child of node.childNodes) queue.push(child)
  }
  return false
}
function firstSource(node: Element): string | null {
  for (const child of node.childNodes)
    if (isElement(child) && child.tagName === 'source') return attribute(child, 'src')
  return null
}
function textWithin(node: Element): string {
  let text = ''
  const stack: Node[] = [node]
  for (let seen = 0; stack.length > 0 && seen < MOST_WITHIN; seen++) {
    const at = stack.pop()!
    if (at.nodeName === '#text') text += (at as unknown as { value: string }).value
    else if (isElement(at)) for (let i = at.childNodes.length - 1; i >= 0; i--) stack.push(at.childNodes[i]!)
  }
  return text
}
