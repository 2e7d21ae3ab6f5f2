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
}

/** Elements of a line that stand for one character. */
const ATOMS = new Set([
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
const ATOM = '\ufffc'
const ink = /[^\s\ufffc]/

const isInline = (node: Element): boolean =>
  ATOMS.has(node.tagName) ||
  node.tagName === 'br' ||
  node.namespaceURI !== HTML ||
  (kindOf(node.tagName) & INLINE) !== 0

/** Inline elements that hold blocks: they count as containers. */
function containersAmongInline(document: Document): Set<Element> {
  const found = new Set<Element>()
  const stack: Node[] = [document]
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (isElement(node) && !isInline(node))
      for (
        let above = node.parentNode;
        above && isElement(above) && isInline(above) && !found.has(above);
        above = above.parentNode
      )
        found.add(above)
    if ('childNodes' in node) for (const child of node.childNodes) stack.push(child)
  }
  return found
}

interface Open {
  element: Element
  next: number
  landmark: Landmark | null
  sectioning: boolean
  /** Text of the run that is open, piece by piece; and the runs that are closed. */
  run: string[]
  runs: string[]
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
    const own = isHtml ? landmarkOf(element, attribute(element, 'role'), above?.sectioning ?? false) : null
    open.push({
      element,
      next: 0,
      landmark: own ?? above?.landmark ?? null,
      sectioning: (above?.sectioning ?? false) || (kindOf(element.tagName) & SECTIONING) !== 0,
      run: [],
      runs: [],
      mixed: false,
      slots: [],
    })
  }
  const closeRun = (frame: Open) => {
    const text = frame.run.join('')
    frame.run = []
    if (!ink.test(text)) return
    frame.runs.push(text)
    frame.slots.push(blocks.length)
    blocks.push({
      element: frame.element,
      at: frame.element.place?.start ?? null,
      isStretch: true,
      tag: frame.element.tagName,
      text: fold(text),
      landmark: frame.landmark,
    })
  }
  for (const root of document.childNodes) if (isElement(root)) enter(root)
  while (open.length > 0) {
    const frame = open.at(-1)!
    const node = frame.element.childNodes[frame.next++]
    if (node === undefined) {
      closeRun(frame)
      if (!frame.mixed && frame.slots.length === 1) blocks[frame.slots[0]!]!.isStretch = false
      open.pop()
    } else if (node.nodeName === '#text') frame.run.push((node as { value: string }).value)
    else if (!isElement(node)) continue
    else if (isInline(node) && !containers.has(node)) frame.run.push(inlineText(node))
    else if ((kindOf(node.tagName) & NOT_TEXT) === 0 || node.tagName === 'head') {
      closeRun(frame)
      frame.mixed = true
      if (node.tagName !== 'head') enter(node)
    }
  }
  return blocks
}

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
