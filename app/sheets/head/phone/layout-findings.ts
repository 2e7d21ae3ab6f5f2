/** What the layout of a page that is looked at tells: what is too wide, too small to read, too small to tap. */
import { smallTargets } from './target-size.ts'

export interface LayoutFinding {
  /** Where its tag stands in the proof, in UTF-16 units; null for what the browser put in. */
  start: number | null
  /** Its first words, or its tag. */
  what: string
  /** Of what is too wide: how far it goes beyond the screen; of text: its size; of targets: width and height. CSS pixels. */
  px: number
  py?: number
}
export interface LayoutFindings {
  wide: LayoutFinding[]
  small: LayoutFinding[]
  tap: LayoutFinding[]
  /** How many there are of each, of which so many are listed. */
  counts: { wide: number; small: number; tap: number }
}

/** Smaller text is hard to read without enlarging the page, in CSS pixels. Common practice, no source. */
const LEAST_TEXT = 12
/** So many of a kind are listed. */
const LISTED = 12
const MOST_ELEMENTS = 20_000

/**
 * Reads the layout of a document that was drawn `width` pixels wide. `shrink` is how much smaller a phone shows it, 1 for a
 * page that fits the screen. `startName` is the attribute that says where a tag stands.
 */
export function layoutFindings(
  page: Document,
  width: number,
  shrink: number,
  startName: string,
): LayoutFindings {
  const nameOf = (element: Element, px: number, py?: number): LayoutFinding => {
    const at = element.closest(`[${startName}]`)?.getAttribute(startName)
    const words = (element.textContent ?? '').replace(/\s+/g, ' ').trim()
    return {
      start: at ? Number(at) : null,
      what:
        words === ''
          ? `a “${element.tagName.toLowerCase()}”`
          : `“${words.length > 60 ? `${words.slice(0, 60)} …` : words}”`,
      px,
      ...(py === undefined ? {} : { py }),
    }
  }
  const wide = tooWide(page, width).map(({ element, by }) => nameOf(element, Math.round(by)))
  const small = tooSmall(page, shrink).map(({ element, px }) => nameOf(element, Math.round(px * 10) / 10))
  const tap = smallTargets(page).map(({ element, width: w, height: h }) =>
    nameOf(element, Math.floor(w * shrink), Math.floor(h * shrink)),
  )
  return {
    wide: wide.slice(0, LISTED),
    small: small.slice(0, LISTED),
    tap: tap.slice(0, LISTED),
    counts: { wide: wide.length, small: small.length, tap: tap.length },
  }
}

/** What goes beyond the right edge, the innermost that does so by itself; nothing where the page can not be pushed. */
function tooWide(page: Document, width: number): { element: Element; by: number }[] {
  if (page.documentElement.scrollWidth <= width + 1) return []
  const beyond = new Map<Element, number>()
  for (const element of [...page.body.querySelectorAll('*')].slice(0, MOST_ELEMENTS)) {
    const { right, width: elementWidth, height } = element.getBoundingClientRect()
    if (elementWidth === 0 || height === 0 || right <= width + 1 || isClipped(element, width, page)) continue
    // The one around it goes as far only because this one does.
    if (element.parentElement) beyond.delete(element.parentElement)
    beyond.set(element, right - width)
  }
  return [...beyond].map(([element, by]) => ({ element, by }))
}

/** Whether it stands in something that scrolls or cuts by itself and ends on the screen. */
function isClipped(element: Element, width: number, page: Document): boolean {
  for (let around = element.parentElement; around && around !== page.body; around = around.parentElement)
    if (page.defaultView!.getComputedStyle(around).overflowX !== 'visible')
      return around.getBoundingClientRect().right <= width + 1
  return false
}

/** Elements whose own text is shown too small, each once. */
function tooSmall(page: Document, shrink: number): { element: Element; px: number }[] {
  const tiny = new Map<Element, number>()
  const walker = page.createTreeWalker(page.body, 4 /* text */)
  let seen = 0
  for (let node = walker.nextNode(); node && seen < MOST_ELEMENTS; node = walker.nextNode(), seen++) {
    const element = node.parentElement
    if (!element || tiny.has(element) || !/\S/.test(node.nodeValue ?? '')) continue
    const style = page.defaultView!.getComputedStyle(element)
    const px = parseFloat(style.fontSize) * shrink
    if (!(px < LEAST_TEXT) || style.visibility !== 'visible') continue
    const { width, height } = element.getBoundingClientRect()
    // Text of a pixel is for screen readers alone.
    if (width > 1 && height > 1) tiny.set(element, px)
  }
  return [...tiny].map(([element, px]) => ({ element, px }))
}
