/**
 * A block's source as items: characters with their places, and the tags and comments between them. Certain or not at all:
 * tags, comments and text must tile the block's range, and each text's source must decode to what the tree holds.
 */
import { INLINE, kindOf, NOT_TEXT } from '../read/elements.ts'
import { attribute, HTML, isElement, type Element, type Node, type Parsed } from '../read/parse.ts'
import { saidAround } from './around.ts'
import { ATOM, ATOMS, type Block } from './blocks.ts'
import { lettersOf } from './decoded-text.ts'

/** `start` and `end` are UTF-16 units of the source. */
export type Item =
  | { kind: 'text'; value: string; start: number; end: number }
  | { kind: 'open' | 'close'; element: Element; start: number; end: number }
  /** Takes the place of one character: a picture, a control, a line end. */
  | { kind: 'atom'; element: Element; value: string; start: number; end: number }
  /** Shows nothing: a comment, a script, something hidden. */
  | { kind: 'unshown'; start: number; end: number }

export interface Items {
  start: number
  end: number
  items: Item[]
}
export type ItemsOf = { ok: true; items: Items } | { ok: false; why: string }

/** Where a stretch begins: behind the block before it, or where its element does. Null where the source does not say. */
export function startOf({ element, before }: Block): number | null {
  return before === null
    ? (element.place?.startEnd ?? null)
    : (before.place?.end ?? before.place?.closes ?? null)
}

/** Where the content of a block begins and ends; null where the source does not say. */
export function rangeOf(block: Block, parsed: Parsed, length: number): [number, number] | null {
  const { element, isStretch, after } = block
  const { place } = element
  if (!place) return null
  const end = place.closes ?? parsed.bodyEnd ?? length
  if (!isStretch) return [place.startEnd, end]
  const from = startOf(block)
  const to = after === null ? end : (after.place?.start ?? null)
  return from === null || to === null || from > to ? null : [from, to]
}

const UNCERTAIN =
  'Its tags are not closed where they seem to be, so it is not certain what its words are. Mend it in the source first.'
const refuse = (why: string): ItemsOf => ({ ok: false, why })

const VOID = new Set([
  'area',
  'br',
  'col',
  'embed',
  'hr',
  'img',
  'input',
  'link',
  'meta',
  'param',
  'source',
  'track',
  'wbr',
])

const PREFORMATTED = new Set(['pre', 'listing', 'xmp'])
const whyNotThere = saidAround((element) => {
  if (PREFORMATTED.has(element.tagName))
    return 'It is preformatted text, in which every space counts. Change it in the source.'
  return element.namespaceURI === HTML ? null : 'It is part of a drawing. Change it in the source.'
})

/** A block in which white space counts, or whose text is code, is changed in the source. */
function whyNot({ element, nodes }: Block): string | null {
  return whyNotThere(element) ?? (nodes.some((n) => isElement(n) && n.tagName === 'pre') ? UNCERTAIN : null)
}

/** The comments that lie within a range; all of them stand in the order of the source. */
function commentsWithin(comments: Parsed['comments'], start: number, end: number): Parsed['comments'] {
  let low = 0
  let high = comments.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (comments[middle]!.start < start) low = middle + 1
    else high = middle
  }
  let last = low
  while (last < comments.length && comments[last]!.end <= end) last++
  return comments.slice(low, last)
}

/** The items of a block of a source's text. */
export function itemsOf(text: string, block: Block, parsed: Parsed): ItemsOf {
  const why = whyNot(block)
  if (why !== null) return refuse(why)
  const range = rangeOf(block, parsed, text.length)
  if (!range) return refuse(UNCERTAIN)
  const [start, end] = range
  const items: Item[] = []
  const comments = commentsWithin(parsed.comments, start, end)
  let comment = 0
  let at = start
  /** Text that the tree has and whose source is still to come. */
  let pending: string[] = []
  /** Takes the text up to a place, comments within it. */
  const textUntil = (until: number): boolean => {
    const value = pending.join('')
    pending = []
    if (until < at) return false
    const decoded: string[] = []
    const take = (from: number, to: number) => {
      for (const letter of lettersOf(text.slice(from, to), from)) {
        decoded.push(letter.value)
        items.push({ kind: 'text', ...letter })
      }
    }
    let from = at
    for (; comment < comments.length && comments[comment]!.start < until; comment++) {
      const nextComment = comments[comment]!
      if (nextComment.start < from || nextComment.end > until) return false
      take(from, nextComment.start)
      items.push({ kind: 'unshown', start: nextComment.start, end: nextComment.end })
      from = nextComment.end
    }
    take(from, until)
    at = until
    return decoded.join('') === value
  }
  const tag = (item: Item): boolean => {
    if (!textUntil(item.start)) return false
    items.push(item)
    at = item.end
    return true
  }
  // In the order of the tree, by a stack: what is left of an element is its end tag.
  const stack: ({ node: Node } | { close: Element })[] = [...block.nodes].reverse().map((node) => ({ node }))
  for (let next = stack.pop(); next !== undefined; next = stack.pop()) {
    if ('close' in next) {
      const { place } = next.close
      if (!place || place.endStart === null || place.end === null) return refuse(UNCERTAIN)
      if (!tag({ kind: 'close', element: next.close, start: place.endStart, end: place.end }))
        return refuse(UNCERTAIN)
      continue
    }
    const { node } = next
    if (node.nodeName === '#text') pending.push((node as { value: string }).value)
    else if (isElement(node)) {
      const { place } = node
      if (!place) return refuse(UNCERTAIN)
      const whole = VOID.has(node.tagName) ? place.startEnd : place.end
      if (node.tagName === 'br') {
        if (!tag({ kind: 'atom', element: node, value: '\n', start: place.start, end: place.startEnd }))
          return refuse(UNCERTAIN)
      } else if (ATOMS.has(node.tagName) || isHidden(node)) {
        if (whole === null) return refuse(UNCERTAIN)
        const item: Item = isHidden(node)
          ? { kind: 'unshown', start: place.start, end: whole }
          : { kind: 'atom', element: node, value: ATOM, start: place.start, end: whole }
        if (!tag(item)) return refuse(UNCERTAIN)
        while (comment < comments.length && comments[comment]!.start < whole) comment++
      } else if (VOID.has(node.tagName)) {
        if (!tag({ kind: 'unshown', start: place.start, end: place.startEnd })) return refuse(UNCERTAIN)
      } else {
        if (!tag({ kind: 'open', element: node, start: place.start, end: place.startEnd }))
          return refuse(UNCERTAIN)
        stack.push({ close: node })
        for (let i = node.childNodes.length - 1; i >= 0; i--) stack.push({ node: node.childNodes[i]! })
      }
    }
  }
  return textUntil(end) ? { ok: true, items: { start, end, items } } : refuse(UNCERTAIN)
}

const hidingStyle = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)\b/i
const isHidden = (node: Element): boolean =>
  (kindOf(node.tagName) & NOT_TEXT) !== 0 ||
  ((kindOf(node.tagName) & INLINE) !== 0 &&
    (attribute(node, 'hidden') !== null || hidingStyle.test(attribute(node, 'style') ?? '')))
