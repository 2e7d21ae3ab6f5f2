/**
 * What is too small to tap: targets of less than 24 by 24 CSS pixels that stand too near to another. Source: WCAG 2.2,
 * success criterion 2.5.8, with its exceptions for space around a target and for links within a sentence. Compared with
 * axe-core's rule target-size in tests/reference/target-size.spec.ts.
 */

/** Source: WCAG 2.2, 2.5.8. */
const LEAST = 24
/** More targets than this are not compared with one another. */
const MOST_TARGETS = 3_000

const targetSelector = [
  'a[href]',
  'button:not(:disabled)',
  'input:not([type=hidden]):not(:disabled)',
  'select:not(:disabled)',
  'textarea:not(:disabled)',
  'summary',
  ...['button', 'link', 'checkbox', 'radio', 'switch', 'tab', 'menuitem', 'option', 'slider'].map(
    (role) => `[role=${role}][tabindex]`,
  ),
].join(',')

export interface SmallTarget {
  element: Element
  /** In CSS pixels, unrounded. */
  width: number
  height: number
}

interface Target {
  element: Element
  rect: DOMRect
  x: number
  y: number
  isSmall: boolean
}

/** Targets that are too small and too near to another, in the order of the page. */
export function smallTargets(page: Document): SmallTarget[] {
  const targets = [...page.querySelectorAll(targetSelector)]
    .slice(0, MOST_TARGETS)
    .flatMap((element): Target[] => {
      const rect = element.getBoundingClientRect()
      if (rect.width === 0 || rect.height === 0 || !isSeen(element, page)) return []
      const isSmall = rect.width < LEAST || rect.height < LEAST
      return [{ element, rect, x: rect.x + rect.width / 2, y: rect.y + rect.height / 2, isSmall }]
    })
  return targets
    .filter(
      (target) =>
        target.isSmall &&
        !isInSentence(target.element, page) &&
        targets.some((other) => other !== target && areNear(target, other)),
    )
    .map(({ element, rect }) => ({ element, width: rect.width, height: rect.height }))
}

/** A circle of 24 pixels around a small target's middle must touch no other target, nor the circle of another small one. */
function areNear(target: Target, other: Target): boolean {
  if (target.element.contains(other.element) || other.element.contains(target.element)) return false
  const radius = LEAST / 2
  if (other.isSmall && Math.hypot(target.x - other.x, target.y - other.y) < LEAST) return true
  const dx = Math.max(other.rect.left - target.x, 0, target.x - other.rect.right)
  const dy = Math.max(other.rect.top - target.y, 0, target.y - other.rect.bottom)
  return Math.hypot(dx, dy) < radius
}

function isSeen(element: Element, page: Document): boolean {
  const style = page.defaultView!.getComputedStyle(element)
  return style.visibility === 'visible' && style.opacity !== '0'
}

/** A link whose line holds other words than its own: its height is theirs. */
function isInSentence(element: Element, page: Document): boolean {
  const view = page.defaultView!
  if (view.getComputedStyle(element).display !== 'inline') return false
  let block = element.parentElement
  while (block && view.getComputedStyle(block).display === 'inline') block = block.parentElement
  if (!block) return false
  const walker = page.createTreeWalker(block, 4 /* text */)
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    if (!/[^\s|·•,/>»-]/.test(node.nodeValue ?? '')) continue
    const holder = node.parentElement
    if (!holder || holder.closest(targetSelector) || holder.closest('script, style')) continue
    // Words of a block within are on lines of their own.
    let around: Element | null = holder
    while (around && around !== block && view.getComputedStyle(around).display === 'inline')
      around = around.parentElement
    if (around === block) return true
  }
  return false
}
