/**
 * New words for a block, its mark-up kept: the words that changed are replaced where they stand, tags stay in their order,
 * and what is left without words goes. Source of the algorithm: docs/decisions/013-text-edits.md.
 */
import { attribute, type Element } from '../read/parse.ts'
import { ATOM } from './blocks.ts'
import { lettersOf } from './decoded-text.ts'
import type { Item, Items } from './items.ts'
import { asShown, isWhite, shownOf, textOf, type Shown } from './shown.ts'
import { changesBetween, type Hunk } from './word-diff.ts'

export interface TextSplice {
  /** UTF-16 units of the source. */
  start: number
  end: number
  text: string
  /** The new block that it puts in. */
  part?: string
}
export type TextEdit =
  | {
      ok: true
      splices: TextSplice[]
      /** Links that go because no word of theirs is left. */ linksLost: string[]
    }
  | { ok: false; why: string }

/** Behind these, what is typed does not belong to them: a link, code, a note's number. */
const ENDS_BEFORE_TYPED = new Set([
  'a',
  'abbr',
  'button',
  'cite',
  'code',
  'dfn',
  'kbd',
  'label',
  'q',
  'samp',
  'sub',
  'sup',
  'time',
  'var',
])
const wordCharacter = /[\p{L}\p{M}\p{N}_]/u

/** Mark-up that is put in, until it is written: a line end, and the tags of links. Noncharacters: no text holds them. */
const BREAK = '\ufdd0'
const FIRST_TAG = 0xfdd1
const putIn = /[\ufdd0-\ufdef]/
/** So many links are put into one block at a time. */
export const MOST_LINKS = 15

/** A link round the nth occurrence, counted from 0, of a phrase in the wanted wording. */
export interface WantedLink {
  phrase: string
  nth: number
  href: string
}

export interface LinkChanges {
  /** Links that are put round words of the wanted wording. */
  links?: readonly WantedLink[]
  /** Links of the block that are taken away; their words stay. */
  unlink?: readonly Element[]
}

/** An item, or what is put in: text that is no part of the source yet. */
type Next = { item: Item; gone: boolean } | { text: string; isBreak: boolean } | { tag: string }

/**
 * The splices that make a block show what is wanted; none where it shows that already. `breakTag` is what a line end is
 * written as.
 */
export function editText(
  source: string,
  { items, start, end }: Items,
  wanted: string,
  breakTag: string,
  { links = [], unlink = [] }: LinkChanges = {},
): TextEdit {
  const shown = shownOf(items)
  const target = withoutNewAtoms(asShown(wanted), shown)
  if (textOf(shown) === target && links.length + unlink.length === 0)
    return { ok: true, splices: [], linksLost: [] }
  const hunks = changesBetween(
    shown.map((s) => s.value),
    [...target],
  )
  const next = nextItems(items, shown, hunks)
  const lost = dropEmptied(next)
  settleSpaces(next, target)
  if (shownText(next) !== target)
    return {
      ok: false,
      why: 'The words cannot be put in here as they are typed: white space or a picture stands in the way. Change it in the source.',
    }
  for (const element of unlink) {
    const why = dropLink(next, element)
    if (why !== null) return { ok: false, why }
  }
  const tags: string[] = []
  for (const link of links) {
    const why = putLink(next, link, tags)
    if (why !== null) return { ok: false, why }
  }
  const markup = (c: string) => (c === BREAK ? breakTag : tags[c.charCodeAt(0) - FIRST_TAG]!)
  const splices = written(source, next, { start, end }).map((splice) => ({
    ...splice,
    text: splice.text.replace(/[\ufdd0-\ufdef]/g, markup),
  }))
  return { ok: true, splices, linksLost: lost }
}

/** Takes a link's tags out; answers why they must stay, or null. */
function dropLink(next: Next[], element: Element): string | null {
  if (attribute(element, 'id') !== null || attribute(element, 'name') !== null)
    return 'Other links may lead to this one by its id or name. Change it in the source.'
  for (const one of next)
    if (
      'item' in one &&
      (one.item.kind === 'open' || one.item.kind === 'close') &&
      one.item.element === element
    )
      one.gone = true
  return null
}

/** Elements that no link may stand in. */
const NO_LINK_IN = new Set(['a', 'button', 'label', 'summary', 'legend'])

/** Puts a link round a phrase where it stands; answers why it cannot be, or null. Where the very link is there, nothing is to be done. */
function putLink(next: Next[], { phrase, nth, href }: WantedLink, tags: string[]): string | null {
  if (tags.length / 2 >= MOST_LINKS) return `At most ${MOST_LINKS} links are put into one block at a time.`
  const live = next.flatMap((one, index) =>
    'tag' in one || ('item' in one && one.gone) ? [] : [{ item: asItem(one), index }],
  )
  const indexOf = new Map(live.map(({ item, index }) => [item, index]))
  const shown = shownOf(live.map(({ item }) => item))
  const text = textOf(shown)
  let place = -1
  for (let i = 0; i <= nth; i++) {
    place = text.indexOf(phrase, place + 1)
    if (place < 0 || phrase === '') return `“${phrase}” is no longer in this text.`
  }
  const [first, last] = [unitAt(shown, place), unitAt(shown, place + phrase.length - 1)]
  const [from, to] = wholeMarkup(next, indexOf.get(shown[first]!.item)!, indexOf.get(shown[last]!.item)!)
  const around = openAround(next, from)
  const link = around.find((element) => element.tagName === 'a')
  if (link && attribute(link, 'href') === href) return null
  const within = around.find((element) => NO_LINK_IN.has(element.tagName))
  if (within)
    return within.tagName === 'a'
      ? 'These words are a link already.'
      : 'No link can stand in a button, a label or a summary.'
  let depth = 0
  for (let i = from; i <= to; i++) {
    const one = next[i]!
    if (!('item' in one) || one.gone) continue
    const { item } = one
    if (item.kind === 'atom') return 'A picture or a line end stands among these words. Choose others.'
    if (item.kind === 'open' && NO_LINK_IN.has(item.element.tagName))
      return 'A part of these words is a link already.'
    if (item.kind === 'open') depth++
    if (item.kind === 'close' && --depth < 0) return CROSSES
  }
  if (depth !== 0) return CROSSES
  const open = String.fromCharCode(
    FIRST_TAG +
      tags.push(`<a href="${href.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;')}">`) -
      1,
  )
  const close = String.fromCharCode(FIRST_TAG + tags.push('</a>') - 1)
  next.splice(to + 1, 0, { tag: close })
  next.splice(from, 0, { tag: open })
  return null
}
const CROSSES =
  'These words begin in one piece of mark-up and end in another. Choose words that stand together.'

/** A stretch with the tags right before it and behind it that begin or end with it: bold words at its end are bold within the link. */
function wholeMarkup(next: readonly Next[], from: number, to: number): [number, number] {
  const change = (one: Next | undefined) =>
    one && 'item' in one && !one.gone
      ? one.item.kind === 'open'
        ? 1
        : one.item.kind === 'close'
          ? -1
          : 0
      : 0
  let depth = 0
  let missing = 0
  for (let i = from; i <= to; i++) {
    depth += change(next[i])
    missing = Math.max(missing, -depth)
  }
  let start = from
  for (; missing > 0 && change(next[start - 1]) === 1; missing--) {
    start--
    depth++
  }
  let end = to
  for (; depth > 0 && change(next[end + 1]) === -1; depth--) end++
  return [start, end]
}

/** The shown character that a place in the text, in UTF-16 units, belongs to. */
function unitAt(shown: readonly Shown[], place: number): number {
  let at = 0
  for (const [i, { value }] of shown.entries()) {
    at += value.length
    if (place < at) return i
  }
  return shown.length - 1
}

/** Elements of the block that are open at an item. */
function openAround(next: readonly Next[], index: number): Element[] {
  const open: Element[] = []
  for (const one of next.slice(0, index)) {
    if (!('item' in one) || one.gone) continue
    if (one.item.kind === 'open') open.push(one.item.element)
    else if (one.item.kind === 'close') open.pop()
  }
  return open
}

/** Pictures cannot be typed: of those in the wording no more are kept than there are. */
function withoutNewAtoms(text: string, shown: readonly Shown[]): string {
  let left = shown.filter((s) => s.value === ATOM).length
  return asShown([...text].filter((c) => c !== ATOM || left-- > 0).join(''))
}

/** The items with what the changes take out marked and what they put in between. */
function nextItems(items: readonly Item[], shown: readonly Shown[], hunks: readonly Hunk[]): Next[] {
  const indexOf = new Map(items.map((item, i) => [item, i]))
  const at = shown.map((s) => indexOf.get(s.item)!)
  const gone = new Set<number>()
  /** What is put in before the item of each index. */
  const added = new Map<number, string[]>()
  const wraps = wrapsAll(items)
  const inLink = itemsInLinks(items)
  for (const hunk of hunks) {
    for (let k = hunk.from; k < hunk.to; k++) markGone(items, at[k]!, gone)
    if (hunk.text.length === 0) continue
    const place =
      hunk.from < hunk.to ? replacedAt(items, at, hunk, inLink) : insertedAt(items, at, hunk, wraps)
    const before = added.get(place)
    if (before) before.push(...hunk.text)
    else added.set(place, [...hunk.text])
  }
  const next: Next[] = []
  const put = (index: number) => {
    for (const value of added.get(index) ?? []) next.push({ text: value, isBreak: value === '\n' })
  }
  for (const [i, item] of items.entries()) {
    put(i)
    next.push({ item, gone: gone.has(i) })
  }
  put(items.length)
  return next
}

/** Takes a shown character out; of white space, all of the run that it stands for up to the next tag. */
function markGone(items: readonly Item[], index: number, gone: Set<number>): void {
  gone.add(index)
  const item = items[index]!
  if (item.kind !== 'text' || !isWhite(item.value)) return
  for (let i = index + 1; items[i]?.kind === 'text' && isWhite((items[i] as { value: string }).value); i++)
    gone.add(i)
}

/** Where a replacement goes: before the first character of that stretch between tags in which most of what goes stood; links weigh double. */
function replacedAt(
  items: readonly Item[],
  at: readonly number[],
  { from, to }: Hunk,
  inLink: Uint8Array,
): number {
  let best = { at: at[from]!, ink: -1 }
  let stretch = { at: at[from]!, ink: 0 }
  const close = () => {
    if (stretch.ink > best.ink) best = stretch
  }
  for (let k = from; k < to; k++) {
    const index = at[k]!
    const crossed =
      k > from && items.slice(at[k - 1]! + 1, index).some((i) => i.kind === 'open' || i.kind === 'close')
    if (crossed) {
      close()
      stretch = { at: index, ink: 0 }
    }
    const item = items[index]!
    if (item.kind === 'text' && !isWhite(item.value)) stretch.ink += inLink[index] ? 2 : 1
  }
  close()
  return best.at
}

/** For each item whether it stands in a link of the block. */
function itemsInLinks(items: readonly Item[]): Uint8Array {
  const inLink = new Uint8Array(items.length)
  let depth = 0
  for (const [i, item] of items.entries()) {
    if (item.kind === 'open' && item.element.tagName === 'a') depth++
    if (item.kind === 'close' && item.element.tagName === 'a') depth--
    inLink[i] = depth > 0 ? 1 : 0
  }
  return inLink
}

/** Elements that everything that is shown stands in: both ends of the wording are theirs. */
function wrapsAll(items: readonly Item[]): Set<Element> {
  const wraps = new Set<Element>()
  const shows = (item: Item) => item.kind === 'atom' || (item.kind === 'text' && !isWhite(item.value))
  const first = items.findIndex(shows)
  const last = items.findLastIndex(shows)
  for (const item of items.slice(0, Math.max(first, 0))) if (item.kind === 'open') wraps.add(item.element)
  for (const item of items.slice(0, last + 1)) if (item.kind === 'close') wraps.delete(item.element)
  return wraps
}

/** Where something new goes: behind what is to its left, as a rule in the same element. */
function insertedAt(
  items: readonly Item[],
  at: readonly number[],
  { from, text }: Hunk,
  wraps: ReadonlySet<Element>,
): number {
  if (from === 0) {
    // Before the first character, outside of what begins with it, unless that wraps all.
    let index = at[0] ?? items.length
    while (index > 0) {
      const before = items[index - 1]!
      if (before.kind !== 'open' || wraps.has(before.element)) break
      index--
    }
    return index
  }
  const left = items[at[from - 1]!]!
  let index = at[from - 1]! + 1
  // White space that is shown as one space is all of it to the left.
  if (left.kind === 'text' && isWhite(left.value))
    while (items[index]?.kind === 'text' && isWhite((items[index] as { value: string }).value)) index++
  const isSameWord = left.kind === 'text' && wordCharacter.test(left.value) && wordCharacter.test(text[0]!)
  if (isSameWord) return index
  // Out of every link, piece of code and their like that ends here.
  const limit = at[from] ?? items.length
  let outside = index
  for (let i = index; i < limit; i++) {
    const item = items[i]!
    if (item.kind === 'open' || (item.kind === 'close' && wraps.has(item.element))) break
    if (item.kind === 'close' && ENDS_BEFORE_TYPED.has(item.element.tagName)) outside = i + 1
  }
  return outside
}

/** Takes out the tags of elements that had words and have none left, unless something leads to them; answers the links among them. */
function dropEmptied(next: Next[]): string[] {
  const lost: string[] = []
  const open: { element: Element; index: number; had: boolean; has: boolean }[] = []
  // What is in an element is in those around it: told on when it closes.
  const count = (had: boolean, has: boolean) => {
    const frame = open.at(-1)
    if (!frame) return
    frame.had ||= had
    frame.has ||= has
  }
  for (const [i, one] of next.entries()) {
    if ('tag' in one) continue
    if (!('item' in one)) {
      if (one.text.trim() !== '') count(false, true)
      continue
    }
    const { item, gone } = one
    if (item.kind === 'open') open.push({ element: item.element, index: i, had: false, has: false })
    else if (item.kind === 'close') {
      const frame = open.pop()
      if (frame) count(frame.had, frame.has)
      if (!frame || !frame.had || frame.has) continue
      const { element } = frame
      if (attribute(element, 'id') !== null || attribute(element, 'name') !== null) continue
      ;(next[frame.index] as { gone: boolean }).gone = true
      one.gone = true
      const href = element.tagName === 'a' ? attribute(element, 'href') : null
      if (href !== null) lost.push(href)
    } else if (item.kind === 'atom' || (item.kind === 'text' && !isWhite(item.value))) count(true, !gone)
  }
  return lost
}

const asItem = (one: Exclude<Next, { tag: string }>): Item =>
  'item' in one
    ? one.item
    : one.isBreak
      ? { kind: 'atom', element: undefined as unknown as Element, value: '\n', start: -1, end: -1 }
      : { kind: 'text', value: one.text, start: -1, end: -1 }

const shownText = (next: readonly Next[]): string =>
  textOf(shownOf(next.flatMap((one) => ('tag' in one || ('item' in one && one.gone) ? [] : [asItem(one)]))))

/** White space that was folded away and would be shown now goes. */
function settleSpaces(next: Next[], target: string): void {
  const wanted = [...target]
  let k = 0
  let space: Exclude<Next, { tag: string }>[] = []
  let atStart = true
  const settle = (isEnd: boolean) => {
    // White space at the ends of lines shows nothing, and may stay.
    if (space.length > 0 && !atStart && !isEnd) {
      if (wanted[k] === ' ') k++
      else
        for (const one of space)
          if ('item' in one) one.gone = true
          else one.text = ''
    }
    space = []
  }
  for (const one of next) {
    if ('tag' in one || ('item' in one && one.gone)) continue
    const item = asItem(one)
    if (item.kind === 'text' && item.value !== '' && isWhite(item.value)) space.push(one)
    else if (item.kind === 'text' ? item.value !== '' : item.kind === 'atom') {
      settle(item.kind === 'atom' && item.value === '\n')
      k += [...(item as { value: string }).value].length
      atStart = item.kind === 'atom' && item.value === '\n'
    }
  }
}

/** The splices: what stays is not touched, unless what is put beside it would make something else of it. */
function written(source: string, next: readonly Next[], range: { start: number; end: number }): TextSplice[] {
  const splices: TextSplice[] = []
  let at = range.start
  let open: TextSplice | null = null
  const put = (start: number, end: number, text: string) => {
    if (open && open.end === start) {
      open.end = end
      open.text += text
    } else {
      open = { start, end, text }
      splices.push(open)
    }
  }
  for (const one of next) {
    if ('tag' in one) put(at, at, one.tag)
    else if (!('item' in one)) {
      if (one.text !== '') put(at, at, one.isBreak ? BREAK : escaped(one.text))
    } else {
      const { item, gone } = one
      // Tags go by splices of their own: what is beside them is looked at without them.
      if (item.kind !== 'text') open = null
      if (gone) put(item.start, item.end, '')
      if (item.kind !== 'text') open = null
      at = item.end
    }
  }
  return mended(source, next, splices, range)
}

const escaped = (text: string): string =>
  text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, (c) => (text.includes(']]>') ? '&gt;' : c))

/**
 * Where a stretch of text between two tags would be read as something else than is meant (an ampersand that stood alone
 * meets a name, a sign meets a letter), it is written anew with what is unclear escaped.
 */
function mended(
  source: string,
  next: readonly Next[],
  splices: TextSplice[],
  range: { start: number; end: number },
): TextSplice[] {
  const result: TextSplice[] = []
  // Both the splices and the stretches between tags go up: each splice is looked at once.
  let nextSplice = 0
  const check = (from: number, to: number, meant: string) => {
    while (nextSplice < splices.length && splices[nextSplice]!.start < from)
      result.push(splices[nextSplice++]!)
    const pieceSplices: TextSplice[] = []
    while (nextSplice < splices.length && splices[nextSplice]!.end <= to)
      pieceSplices.push(splices[nextSplice++]!)
    if (pieceSplices.length === 0) return
    let text = ''
    let at = from
    for (const s of pieceSplices) {
      text += source.slice(at, s.start) + s.text
      at = s.end
    }
    text += source.slice(at, to)
    const lines = text.split(putIn)
    const read = lines
      .map((line) =>
        lettersOf(line)
          .map((l) => l.value)
          .join(''),
      )
      .join(BREAK)
    if (read === meant.replace(/[\ufdd0-\ufdef]/g, BREAK) && !lines.some((line) => /<[A-Za-z/!?]/.test(line)))
      result.push(...pieceSplices)
    else result.push({ start: from, end: to, text: meant.replace(/&/g, '&amp;').replace(/</g, '&lt;') })
  }
  let from = range.start
  let meant = ''
  for (const one of next) {
    if ('tag' in one) {
      meant += one.tag
      continue
    }
    if (!('item' in one)) {
      meant += one.isBreak ? BREAK : one.text
      continue
    }
    const { item, gone } = one
    if (item.kind === 'text' || gone) {
      if (item.kind === 'text' && !gone) meant += item.value
      continue
    }
    check(from, item.start, meant)
    from = item.end
    meant = ''
  }
  check(from, range.end, meant)
  result.push(...splices.slice(nextSplice))
  return result
}
