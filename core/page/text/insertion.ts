/**
 * Where a new block goes behind a block, and how it is written there: climbing to the first element whose parent may hold
 * it, only through ends behind which nothing is shown. Source of the algorithm: docs/decisions/013-text-edits.md.
 */
import { attribute, isElement, type Element, type Node } from '../read/parse.ts'
import type { PageBlock, PageText } from './page-text.ts'

export const newBlockKinds = ['p', 'h2', 'h3', 'h4', 'h5', 'h6', 'li', 'question'] as const
export type NewBlockKind = (typeof newBlockKinds)[number]
/** A block that an editor puts in; `id` tells it from the others behind the same block. */
export interface NewBlock {
  id: string
  kind: NewBlockKind
  text: string
  /** Of a question. */
  answer?: string
}

/** How a question is written here: as the page writes its own. */
export type QuestionForm = 'details' | 'terms' | 'heading'

export interface InsertionPlace {
  /** UTF-16 units of the source: what is put in stands before this. */
  at: number
  /** Before and behind every block that is put in: the lines' ends and indents. */
  lead: string
  tail: string
  /** The element that it goes behind; its tag's case and its siblings' classes are taken up. */
  behind: Element
  form: QuestionForm
}

/** Elements that may hold paragraphs, headings and the like. */
const HOLDS_FLOW = new Set([
  'body',
  'main',
  'article',
  'section',
  'div',
  'header',
  'footer',
  'aside',
  'nav',
  'blockquote',
  'dd',
  'details',
  'fieldset',
  'figcaption',
  'figure',
  'form',
  'li',
  'search',
  'hgroup',
  'address',
  'center',
  'object',
])
const LISTS = new Set(['ul', 'ol', 'menu'])
const TABLE_PARTS = new Set(['table', 'thead', 'tbody', 'tfoot', 'tr', 'td', 'th', 'caption'])

const NO_PLACE = 'A block of this kind cannot stand here. Insert it after another block.'
const MID_LIST =
  'It would stand in the middle of a list. Insert it after the last entry, or insert a list entry.'
const IN_TABLE = 'Nothing can be inserted into a table. Insert it after the table.'
const UNCLOSED = 'What it would follow is not closed where it seems to be. Mend it in the source first.'

type Placing = { ok: true; place: InsertionPlace } | { ok: false; why: string }

/** Where a block of a kind goes behind another one, or why it cannot. */
export function insertionPlace(
  source: string,
  { parsed }: PageText,
  after: PageBlock,
  kind: NewBlockKind,
): Placing {
  const { block } = after
  if (within(block.element, (e) => TABLE_PARTS.has(e.tagName))) return { ok: false, why: IN_TABLE }
  const form = kind === 'question' ? formHere(block.element) : 'heading'
  if (block.isStretch && kind !== 'li' && form === 'heading' && HOLDS_FLOW.has(block.tag)) {
    const items = after.items()
    if (!items.ok) return items
    return {
      ok: true,
      place: { at: items.items.end, lead: '', tail: '', behind: block.element, form },
    }
  }
  const accepts = acceptorOf(kind, form)
  let element = form === 'details' ? within(block.element, (e) => e.tagName === 'details')! : block.element
  for (;;) {
    const parent = element.parentNode as Element | null
    if (!parent || !isElement(parent)) return { ok: false, why: NO_PLACE }
    if (accepts(parent, element)) break
    if (LISTS.has(parent.tagName) && hasInkBehind(element)) return { ok: false, why: MID_LIST }
    if (hasInkBehind(element)) return { ok: false, why: NO_PLACE }
    element = parent
  }
  if (form === 'terms' || element.tagName === 'dt') element = lastOfTerm(element)
  const end = endOf(element, source, parsed.bodyEnd)
  if (end === null) return { ok: false, why: UNCLOSED }
  return { ok: true, place: { ...linesAt(source, element, end), behind: element, form } }
}

function acceptorOf(kind: NewBlockKind, form: QuestionForm): (parent: Element, element: Element) => boolean {
  if (kind === 'li') return (parent, element) => LISTS.has(parent.tagName) && element.tagName === 'li'
  if (form === 'terms') return (parent) => parent.tagName === 'dl'
  // A heading of its own in a list entry would belong to that entry alone.
  return (parent) =>
    HOLDS_FLOW.has(parent.tagName) && !(kind !== 'p' && (parent.tagName === 'li' || parent.tagName === 'dd'))
}

function formHere(element: Element): QuestionForm {
  if (within(element, (e) => e.tagName === 'details')) return 'details'
  return within(element, (e) => e.tagName === 'dd' || e.tagName === 'dt') ? 'terms' : 'heading'
}

function within(element: Element, is: (e: Element) => boolean): Element | null {
  for (let node: Node | null = element; node && isElement(node); node = node.parentNode as Node | null)
    if (is(node)) return node
  return null
}

const siblingsOf = (element: Element): Node[] => (element.parentNode as Element | null)?.childNodes ?? []

function hasInkBehind(element: Element): boolean {
  const siblings = siblingsOf(element)
  return siblings
    .slice(siblings.indexOf(element) + 1)
    .some((n) => (isElement(n) ? true : n.nodeName === '#text' && /\S/.test((n as { value: string }).value)))
}

/** The last description of the term that an element belongs to. */
function lastOfTerm(element: Element): Element {
  const siblings = siblingsOf(element)
  let last = element
  for (const node of siblings.slice(siblings.indexOf(element) + 1)) {
    if (!isElement(node)) continue
    if (node.tagName !== 'dd') break
    last = node
  }
  return last
}

/** Where an element ends; one without an end tag, before the white space at its end. Null where it is not certain. */
function endOf({ place }: Element, source: string, bodyEnd: number | null): number | null {
  if (!place) return null
  if (place.end !== null) return place.end
  let end = place.closes ?? bodyEnd ?? source.length
  while (end > place.startEnd && /\s/.test(source[end - 1]!)) end--
  return end
}

/** A line of its own where the element before has one; else no white space at all. */
function linesAt(
  source: string,
  { place }: Element,
  end: number,
): Pick<InsertionPlace, 'at' | 'lead' | 'tail'> {
  const before = source.slice(Math.max(0, place!.start - 200), place!.start)
  const indent = /(?:^|[\r\n])([ \t]*)$/.exec(before)?.[1]
  if (indent === undefined) return { at: end, lead: '', tail: '' }
  const line = /^[ \t]*(\r\n|\r|\n)/.exec(source.slice(end, end + 200))
  // Behind the line's end, so that the block before can go with its line.
  if (line && place!.end !== null) return { at: end + line[0].length, lead: indent, tail: line[1]! }
  const eol = /\r\n|\r|\n/.exec(source)?.[0] ?? '\n'
  return { at: end, lead: eol + indent, tail: '' }
}

/** The markup of a new block as it is written at its place. */
export function markupOf(
  block: NewBlock,
  place: InsertionPlace,
  source: string,
  xml: boolean,
  level: number,
): string {
  const { behind, lead, tail, form } = place
  const upper =
    behind.place !== undefined && /^<[A-Z]/.test(source.slice(behind.place.start, behind.place.start + 2))
  const named = (tag: string) => (upper ? tag.toUpperCase() : tag)
  const element = (tag: string, content: string) =>
    `<${named(tag)}${classFor(tag, behind)}>${content}</${named(tag)}>`
  const text = (value: string) => contentOf(value, xml ? '<br />' : '<br>')
  const one = (markup: string) => `${lead}${markup}${tail}`
  if (block.kind !== 'question') return one(element(block.kind, text(block.text)))
  const [question, answer] = [text(block.text), text(block.answer ?? '')]
  if (form === 'details')
    return one(element('details', `${element('summary', question)}${element('p', answer)}`))
  const parts =
    form === 'terms'
      ? [element('dt', question), element('dd', answer)]
      : [element(`h${level}`, question), element('p', answer)]
  return parts.map(one).join('')
}

const contentOf = (value: string, lineEnd: string): string =>
  value
    .replaceAll('\0', '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replaceAll(']]>', ']]&gt;')
    .split('\n')
    .map((line) => line.trim())
    .join(lineEnd)

/** The class that all siblings of a tag have, as an attribute; "" where they differ or have none. */
function classFor(tag: string, behind: Element): string {
  const same = siblingsOf(behind).filter((n): n is Element => isElement(n) && n.tagName === tag)
  const classes = new Set(same.map((e) => attribute(e, 'class') ?? ''))
  const [only = ''] = classes
  return classes.size === 1 && only !== '' && !/["&<>]/.test(only) ? ` class="${only}"` : ''
}

/** The level of a question's heading: that of the page's own questions before it, else one below the heading it stands under. */
export function questionLevel({ blocks }: PageText, after: PageBlock): number {
  const headings = blocks
    .slice(0, blocks.indexOf(after) + 1)
    .filter(({ block }) => /^h[1-6]$/.test(block.tag))
    .reverse()
  const levelOf = ({ block }: PageBlock) => Number(block.tag[1])
  const question = headings.find(({ block }) => /[?？؟]\s*$/.test(block.text))
  if (question) return levelOf(question)
  return headings[0] ? Math.min(6, levelOf(headings[0]) + 1) : 2
}
