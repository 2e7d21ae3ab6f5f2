/**
 * A page's running text as blocks in reading order. A run is consecutive inline children of a block that have ink. If it
 * fills its element, the block is that element; otherwise it is a stretch beside other blocks.
 */
import { fold } from '../../strings.ts'
import { INLINE, kindOf, landmarkOf, NOT_TEXT, SECTIONING } from '../read/elements.ts'
import type { Landmark } from '../read/facts.ts'
import { attribute, HTML, isElement, type Document, type Element, type Node } from '../read/parse.ts'

export interface Block {
  /** The element that it is, or that a stretch stands in. */
  element: Element
  /** Start of that element's start tag, in UTF-16 units; null where the standard adds it without a tag. */
  at: number | null
  /** Beside other blocks in its element. */
  isStretch: boolean
  tag: string
  /** As shown: white space folded; pictures and controls are one character each, U+FFFC. */
  text: string
  landmark: Landmark | null
  /** The nodes of its run, in order. */
  nodes: Node[]
  /** The block before a stretch and the one behind it in its element; null where it begins or ends the element. */
  before: Element | null
  after: Element | null
}

/** Elements of a line that stand for one character. */
export const ATOMS = new Set([
  'img',
  'svg',
  'input',
  'button',
  'select',
  'textarea',
  'video',
  'audio',
  'canvas',
  'object',
  'iframe',
  'embed',
])
export const ATOM = '\ufffc'
const ink = /[^\s\ufffc]/

const isInline = (node: Element): boolean =>
  ATOMS.has(node.tagName) ||
  node.tagName === 'br' ||
  node.namespaceURI !== HTML ||
  (kindOf(node.tagName) & INLINE) !== 0

/** Inline elements that hold blocks: they count as containers. */
function containersAmongInline(document: Document): Set<Element> {
  const containers = new Set<Element>()
  const stack: Node[] = [document]
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (isElement(node) && !isInline(node))
      for (
        let above = node.parentNode;
        above && isElement(above) && isInline(above) && !containers.has(above);
        above = above.parentNode
      )
        containers.add(above)
    if ('childNodes' in node) for (const child of node.childNodes) stack.push(child)
  }
  return containers
}

interface Open {
  element: Element
  next: number
  landmark: Landmark | null
  sectioning: boolean
  /** Text and nodes of the run that is open, piece by piece. */
  run: string[]
  nodes: Node[]
  /** The last block in it so far, and its last stretch, which waits for the block behind it. */
  last: Element | null
  stretch: Block | null
  /** Whether blocks stand in it too. */
  mixed: boolean
  /** Where its own blocks go among those found: before what stands in it. */
  slots: number[]
}

/** All blocks of a page, in the order in which they begin. */
export function textBlocks(document: Document): Block[] {
  const containers = containersAmongInline(document)
  const blocks: Block[] = []
  const open: Open[] = []
  const enter = (element: Element) => {
    const above = open.at(-1)
    const isHtml = element.namespaceURI === HTML
    const ownLandmark = isHtml
      ? landmarkOf(element, attribute(element, 'role'), above?.sectioning ?? false)
      : null
    open.push({
      element,
      next: 0,
      landmark: ownLandmark ?? above?.landmark ?? null,
      sectioning: (above?.sectioning ?? false) || (kindOf(element.tagName) & SECTIONING) !== 0,
      run: [],
      nodes: [],
      last: null,
      stretch: null,
      mixed: false,
      slots: [],
    })
  }
  const closeRun = (frame: Open) => {
    const text = frame.run.join('')
    const { nodes } = frame
    frame.run = []
    frame.nodes = []
    if (!ink.test(text)) return
    const block: Block = {
      element: frame.element,
      at: frame.element.place?.start ?? null,
      isStretch: true,
      tag: frame.element.tagName,
      text: fold(text),
      landmark: frame.landmark,
      nodes,
      before: frame.last,
      after: null,
    }
    frame.slots.push(blocks.length)
    frame.stretch = block
    blocks.push(block)
  }
  for (const root of document.childNodes) if (isElement(root)) enter(root)
  while (open.length > 0) {
    const frame = open.at(-1)!
    const node = frame.element.childNodes[frame.next++]
    if (node === undefined) {
      closeRun(frame)
      if (!frame.mixed && frame.slots.length === 1) blocks[frame.slots[0]!]!.isStretch = false
      open.pop()
    } else if (!isElement(node)) {
      if (node.nodeName === '#text') frame.run.push((node as { value: string }).value)
      frame.nodes.push(node)
    } else if (isInline(node) && !containers.has(node)) {
      frame.run.push(inlineText(node))
      frame.nodes.push(node)
    } else if (isUnshown(node)) frame.nodes.push(node)
    else {
      closeRun(frame)
      if (frame.stretch && frame.stretch.after === null) frame.stretch.after = node
      frame.mixed = true
      frame.last = node
      if (node.tagName !== 'head') enter(node)
    }
  }
  return blocks
}

/** Elements that show no text and stand in a line or anywhere: scripts, style sheets, templates. */
const isUnshown = (node: Element): boolean =>
  node.tagName !== 'head' && (kindOf(node.tagName) & NOT_TEXT) !== 0

/** The text of an inline element: what is not shown left out, line ends for `br`, one character for each picture or control. */
function inlineText(root: Element): string {
  const pieces: string[] = []
  const stack: Node[] = [root]
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (node.nodeName === '#text') pieces.push((node as { value: string }).value)
    else if (!isElement(node)) continue
    else if (node.tagName === 'br') pieces.push('\n')
    else if (ATOMS.has(node.tagName)) pieces.push(ATOM)
    else if ((kindOf(node.tagName) & NOT_TEXT) === 0)
      for (let i = node.childNodes.length - 1; i >= 0; i--) stack.push(node.childNodes[i]!)
  }
  return pieces.join('')
}
