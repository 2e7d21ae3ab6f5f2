/** Depth-first over a page's elements, and what is known of each that is open. */
import type { Landmark } from './facts.ts'
import type { Box } from './look-alike.ts'
import { isElement, type Element, type Node } from './parse.ts'

/** One element that is open during the walk; frames are used again, one for each depth. */
export interface Frame {
  node: Element
  /** Which child comes next. */
  next: number
  role: string | null
  id: string | null
  className: string | null
  style: string
  hidden: boolean
  /** Not drawn: its text is no visible text. */
  unseen: boolean
  /** The landmark that the element is, and the nearest that it is or stands in. */
  ownLandmark: Landmark | null
  landmark: Landmark | null
  sectioning: boolean
  inHead: boolean
  block: boolean
  bold: boolean
  linked: boolean
  /** Within something in which no heading of the page is looked for. */
  noHeadings: boolean
  /** Within banner, menu, aside or footer. */
  furniture: boolean
  /** Counts of the paragraph or div that the text here belongs to; `ownBox` where this element is the one. */
  box: Box | null
  ownBox: boolean
  /** Where the element's text begins, as a mark of the running text. */
  textMark: number
  /** Where a container's text begins, in characters, and the running prose before it; -1: no container. */
  from: number
  prose: number
  /** Whether the element holds headings only, once asked. */
  onlyHeadings: boolean | null
  leave: (() => void) | null
}

/** Something more to do when an element is left, in the order in which it was asked for. */
export function onLeave(frame: Frame, job: () => void): void {
  const before = frame.leave
  frame.leave = before
    ? () => {
        before()
        job()
      }
    : job
}

export interface Visitor {
  enter(frame: Frame, node: Element, parent: Frame | null): void
  text(words: string, frame: Frame): void
  leave(frame: Frame): void
}

/** Walks by a stack of its own: pages nest deeper than the call stack does. */
export function walk(roots: Node[], visitor: Visitor): void {
  const frames: Frame[] = []
  let depth = -1
  const open = (node: Element) => {
    depth++
    if (depth === frames.length) frames.push({} as Frame)
    const frame = frames[depth]!
    frame.node = node
    frame.next = 0
    frame.leave = null
    visitor.enter(frame, node, depth > 0 ? frames[depth - 1]! : null)
  }
  for (const root of roots) {
    if (!isElement(root)) continue
    open(root)
    while (depth >= 0) {
      const frame = frames[depth]!
      const child = frame.node.childNodes[frame.next++]
      if (child === undefined) {
        depth--
        visitor.leave(frame)
      } else if (child.nodeName === '#text') visitor.text((child as { value: string }).value, frame)
      // Nodes that are no elements have names that begin with a number sign.
      else if (child.nodeName.charCodeAt(0) !== 0x23) open(child as Element)
    }
  }
}
