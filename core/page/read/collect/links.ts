/** Links, controls that should be links, and what the Tab key reaches first. */
import { fold } from '../../../strings.ts'
import { FORM_CONTROL } from '../elements.ts'
import type { AnchorFact, ControlFact, FocusableFact } from '../facts.ts'
import { onLeave, type Frame } from '../frame.ts'
import { isOwnSign } from '../heading-sign.ts'
import { attribute, type Element } from '../parse.ts'
import { placeOf, type Reading } from '../reading.ts'
import type { Headings } from './headings.ts'

/** So many things from the top are looked at for a skip link; common practice: it is the first, or right behind the home link. */
const FIRST_FOCUSABLE = 4

/** Whether an element is named by something else than what stands in it. */
const isNamed = (node: Element): boolean =>
  ['aria-label', 'aria-labelledby', 'title'].some((a) => fold(attribute(node, a) ?? '') !== '')

export function collectAnchor(reading: Reading, headings: Headings, node: Element, frame: Frame): void {
  const href = attribute(node, 'href')
  if (href === null) return
  const trimmed = href.trim()
  const fact: AnchorFact = {
    href: trimmed,
    url: reading.resolve(trimmed),
    text: '',
    landmark: frame.landmark,
    untabbed: node.tagName === 'area' || attribute(node, 'tabindex') === '-1',
    named: isNamed(node),
    hidden: frame.hidden,
    ...placeOf(node),
  }
  reading.page.links.push(fact)
  const words = reading.text.capture(frame.hidden)
  const heading = headings.open
  const from = heading?.words.text.length ?? 0
  onLeave(frame, () => {
    reading.text.release(words)
    fact.text = fold(words.text)
    if (heading && isOwnSign(fact.text)) heading.sign = { from, to: heading.words.text.length }
  })
}

/** A button, or an anchor without an address that nothing leads to. */
export function collectControl(reading: Reading, node: Element, frame: Frame): void {
  const tag = node.tagName as 'a' | 'button'
  const { role } = frame
  if (tag === 'a' && (attribute(node, 'href') !== null || (role !== null && role !== 'link'))) return
  if (tag === 'a' && (frame.id !== null || attribute(node, 'name') !== null)) return
  const fact: ControlFact = {
    tag,
    text: '',
    named: isNamed(node),
    goesTo: tag === 'button' ? addressOfScript(attribute(node, 'onclick') ?? '') : null,
    hidden: frame.hidden,
    ...placeOf(node),
  }
  reading.page.controls.push(fact)
  const words = reading.text.capture(frame.hidden)
  onLeave(frame, () => {
    reading.text.release(words)
    fact.text = fold(words.text)
  })
}

/** The address that a script of one statement goes to, such as `location.href='/visit/'`; null for any other script. */
function addressOfScript(script: string): string | null {
  const goes =
    /^\s*(?:return\s+)?(?:(?:window|document|self|top)\.)?(?:location(?:\.href)?\s*=\s*|location\.(?:assign|replace)\(\s*|open\(\s*)(["'])([^"']{1,2000})\1[^;]{0,100};?\s*(?:return\s+false;?\s*)?$/
  return goes.exec(script.slice(0, 4000))?.[2] ?? null
}

/** The first things that the Tab key reaches. */
export function collectFocusable({ page }: Reading, node: Element, kind: number): void {
  if (page.focusables.length >= FIRST_FOCUSABLE) return
  const tag = node.tagName
  const href = tag === 'a' || tag === 'area' ? attribute(node, 'href') : null
  const tabindex = attribute(node, 'tabindex')
  const usableControl =
    (kind & FORM_CONTROL) !== 0 &&
    attribute(node, 'disabled') === null &&
    attribute(node, 'type')?.toLowerCase() !== 'hidden'
  const reached = href !== null || usableControl || Number(tabindex ?? -1) >= 0
  if (!reached || Number(tabindex ?? 0) < 0) return
  const fact: FocusableFact = { href: href?.trim() ?? null, ...placeOf(node) }
  page.focusables.push(fact)
}
