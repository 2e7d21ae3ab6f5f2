/** Edits of a block of text: its words, or that it goes. */
import { toBytePlaces } from '../source/places.ts'
import type { Source } from '../source/source.ts'
import type { Locations } from '../splice/locate.ts'
import type { Splices } from '../splice/splice.ts'
import { isBlockCertain } from '../text/certain.ts'
import { editText, type TextSplice } from '../text/edit-text.ts'
import type { Items } from '../text/items.ts'
import { pageText, type PageBlock } from '../text/page-text.ts'
import { shownOf, textOf } from '../text/shown.ts'
import { isElement, type Element } from '../read/parse.ts'
import type { Edit } from './draft.ts'

const UNCERTAIN =
  'The page’s tags are not closed where they seem to be around here, so it is not certain what else would change with it. Mend them in the source first.'
export const NO_BLOCK = 'The text that it changes is no longer in the source.'

/** The splices of an edit of the block at a byte of the source. */
export function textSplices(source: Source, places: Locations, byte: number, edit: Edit): Splices {
  const block = pageText(source).byByte.get(byte)
  if (!block) return { why: NO_BLOCK }
  const spliced = edit.remove ? removed(source, block) : reworded(source, places, block, edit)
  return 'why' in spliced ? spliced : inView(source, places, spliced)
}

function reworded(
  source: Source,
  places: Locations,
  block: PageBlock,
  { value, links = [], unlink = [] }: Edit,
): TextSplice[] | { why: string } {
  const items = block.items()
  if (!items.ok) return items
  if (!isBlockCertain(source.text, pageText(source), block)) return { why: UNCERTAIN }
  const wanted = value ?? textOf(shownOf(items.items.items))
  const edit = editText(source.text, items.items, wanted, places.xml ? '<br />' : '<br>', {
    links,
    unlink: unlink.length === 0 ? [] : linksAt(source, items.items, unlink),
  })
  return edit.ok ? edit.splices : edit
}

/** The links of a block whose start tags are at the given bytes. */
function linksAt(source: Source, { items }: Items, bytes: readonly number[]): Element[] {
  const links = items.flatMap((item) => (item.kind === 'open' && item.element.tagName === 'a' ? [item] : []))
  const at = toBytePlaces(
    source,
    links.map(({ start }) => start),
  )
  return links.flatMap(({ element }, i) => (bytes.includes(at[i]!) ? [element] : []))
}

/** From places in the text to places in the view. */
export function inView(source: Source, { bom, unit }: Locations, splices: TextSplice[]): Splices {
  const ends = splices.flatMap(({ start, end }) => [start, end])
  const order = [...ends].sort((a, b) => a - b)
  const bytes = toBytePlaces(source, order)
  const byteOf = new Map(order.map((place, i) => [place, bytes[i]!]))
  const view = (place: number) => (byteOf.get(place)! - bom) / unit
  return splices.map((splice) => ({ ...splice, start: view(splice.start), end: view(splice.end) }))
}

/** Parts of something that would be less than whole without them. */
const PARTS = new Set([
  'td',
  'th',
  'caption',
  'dt',
  'dd',
  'summary',
  'legend',
  'figcaption',
  'option',
  'label',
  'button',
])

function removed(source: Source, { block, items }: PageBlock): TextSplice[] | { why: string } {
  const { text } = source
  if (block.isStretch) {
    const content = items()
    return content.ok ? [{ start: content.items.start, end: content.items.end, text: '' }] : content
  }
  if (PARTS.has(block.tag))
    return {
      why: 'It is part of a table, a list of terms or a form, which would not be whole without it. Take it out in the source.',
    }
  if (closesWhatIsOpen(block.element))
    return { why: 'The paragraph before it is never closed, and this one closes it. Close that one first.' }
  const { parsed } = pageText(source)
  const element = withEmptied(block.element)
  const { place } = element
  if (!place) return { why: NO_BLOCK }
  let { start } = place
  let end = place.end ?? place.closes ?? parsed.bodyEnd ?? text.length
  // With its line, where it has one to itself.
  while (start > 0 && (text[start - 1] === ' ' || text[start - 1] === '\t')) start--
  const isLineStart = start === 0 || text[start - 1] === '\n' || text[start - 1] === '\r'
  const behind = /^[ \t]*(\r\n|\r|\n)/.exec(text.slice(end, end + 200))
  if (behind && isLineStart) end += behind[0].length
  else start = place.start
  return [{ start, end, text: '' }]
}

/** The element, or the list that would be left empty without it. */
function withEmptied(element: Element): Element {
  let gone = element
  for (;;) {
    const parent = gone.parentNode as Element | null
    if (!parent || !isElement(parent) || !/^(?:ul|ol|li|menu)$/.test(parent.tagName)) return gone
    const others = parent.childNodes.some(
      (n) =>
        n !== gone && (isElement(n) || (n.nodeName === '#text' && /\S/.test((n as { value: string }).value))),
    )
    if (others) return gone
    gone = parent
  }
}

/** Whether an element's start tag closes a paragraph before it that nothing else closes. */
function closesWhatIsOpen(element: Element): boolean {
  const siblings = element.parentNode?.childNodes ?? []
  const before = siblings.slice(0, siblings.indexOf(element)).findLast((n) => isElement(n)) as
    Element | undefined
  return (
    before?.place !== undefined &&
    before.place.endStart === null &&
    before.place.closes === element.place?.start
  )
}
