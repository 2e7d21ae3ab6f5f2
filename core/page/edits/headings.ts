/** Edits of headings: level, text, joining adjacent headings into one, taking an empty one out. Attributes stay. */
import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'
import type { Edit } from './draft.ts'
import type { Located, Locations } from '../splice/locate.ts'
import { isOwnSign } from '../read/heading-sign.ts'
import { attribute } from '../read/parse.ts'
import { editText } from '../text/edit-text.ts'
import { pageText } from '../text/page-text.ts'
import { textSplices as blockText } from './text.ts'
import { toBytePlaces } from '../source/places.ts'
import { contentText, removal, setAttribute, type Splice, type Splices } from '../splice/splice.ts'
import { fold } from '../../strings.ts'
import { sourceOf, type Source } from '../source/source.ts'

const NOT_CLOSED =
  'The heading has no end tag of its own in the source, so it is not certain where it ends. Close it there first.'

export function headingSplices(source: Source, places: Locations, element: Located, edit: Edit): Splices {
  // A heading's start tag closes what was left open before it; taken away, that would go on.
  const before = leftOpenBefore(element)
  if (before && (edit.remove || ((edit.tag || edit.hgroup !== undefined) && before !== 'p')))
    return {
      why: `The <${before}> before it is never closed, and this heading closes it. Close it there first.`,
    }
  if (edit.remove) return removal(places.view, element)
  const splices: Splice[] = []
  const parts = [
    edit.hgroup !== undefined
      ? subtitleSplices(places, element, edit.hgroup)
      : edit.tag !== undefined
        ? retag(places, element, edit.tag)
        : edit.level !== undefined
          ? levelSplices(places, element, edit.level)
          : [],
    edit.value !== undefined ? wordsOf(source, places, element, edit.value) : [],
    edit.merge && edit.merge.length > 0 ? mergeSplices(places, element, edit.merge) : [],
  ]
  for (const part of parts) {
    if ('why' in part) return part
    splices.push(...part)
  }
  return splices
}

/** A heading's new words; where they stand in several pieces of markup, as in any other block of text, as long as no link goes. */
function wordsOf(source: Source, places: Locations, element: Located, value: string): Splices {
  const valueSplices = textSplices(source, places, element, value)
  if (!('why' in valueSplices) || valueSplices.why !== IN_PIECES) return valueSplices
  const asBlock = blockText(source, places, places.bom + element.place.start * places.unit, { value })
  return 'why' in asBlock || losesLinks(source, places, element, value) ? valueSplices : asBlock
}

function losesLinks(source: Source, places: Locations, element: Located, value: string): boolean {
  const items = pageText(source)
    .byByte.get(places.bom + element.place.start * places.unit)
    ?.items()
  if (!items?.ok) return true
  const edit = editText(source.text, items.items, value, '<br>')
  return !edit.ok || edit.linksLost.length > 0
}

/** The paragraph or heading right before an element that only its start tag closes; null where there is none. */
function leftOpenBefore(element: Located): string | null {
  const siblings = element.parentNode?.childNodes ?? []
  const previous = siblings[siblings.indexOf(element) - 1] as Located | undefined
  if (!previous || !('tagName' in previous) || !/^(?:p|h[1-6])$/.test(previous.tagName)) return null
  return previous.place && previous.place.endStart === null ? previous.tagName : null
}

/** Another tag for an element, its attributes kept. Only for elements with an end tag of their own. */
function retag({ view }: Locations, element: Located, tag: string): Splices {
  const { start, endStart, end } = element.place
  if (endStart === null || end === null) return { why: NOT_CLOSED }
  if (element.tagName === tag) return []
  const name = start + 1 + element.tagName.length
  const endName = endStart + 2 + element.tagName.length
  // A level that only the role gave is no longer one: the tag says what it is.
  const splices = [
    { start: start + 1, end: name, text: tag },
    { start: endStart + 2, end: endName, text: tag },
  ]
  return view.slice(start + 1, name).toLowerCase() === element.tagName ? splices : { why: NOT_CLOSED }
}

/** A paragraph or div that becomes a heading, its attributes kept. */
export function blockSplices(source: Source, places: Locations, element: Located, edit: Edit): Splices {
  if (edit.level === undefined) return []
  if (!/^(?:p|div)$/.test(element.tagName))
    return { why: 'Only a paragraph or a plain block can be made a heading.' }
  // Some things end a heading, or may not stand in one: the page would not read as it was.
  const inner = places.view.slice(element.place.startEnd, element.place.endStart ?? element.place.startEnd)
  if (
    /<(?:address|article|aside|blockquote|details|div|dl|fieldset|figure|footer|form|h[1-6]|header|hr|li|main|nav|ol|p|pre|section|table|ul)\b/i.test(
      inner,
    )
  )
    return {
      why: 'It contains something that is not allowed in a heading. Take it apart in the source first.',
    }
  const tag = retag(places, element, `h${edit.level}`)
  const text = edit.value === undefined ? [] : textSplices(source, places, element, edit.value)
  return 'why' in tag ? tag : 'why' in text ? text : [...tag, ...text]
}

/** The line under a heading: both in an `hgroup`, unless they stand in one, the second as a paragraph. */
function subtitleSplices(places: Locations, element: Located, above: number): Splices {
  const first = places.byStart.get((above - places.bom) / places.unit)
  const retagged = retag(places, element, 'p')
  if ('why' in retagged) return retagged
  if (!first || first.place.end === null || element.place.end === null) return { why: NOT_CLOSED }
  const between = places.view.slice(first.place.end, element.place.start)
  if (between.trim() !== '')
    return { why: 'There is something between the two lines. Bring them together first.' }
  if (element.parentNode && 'tagName' in element.parentNode && element.parentNode.tagName === 'hgroup')
    return retagged
  return [
    { start: first.place.start, end: first.place.start, text: '<hgroup>' },
    ...retagged,
    { start: element.place.end, end: element.place.end, text: '</hgroup>' },
  ]
}

function levelSplices(places: Locations, element: Located, level: number): Splices {
  const { start, endStart } = element.place
  // A level that the role gives goes before the tag's own.
  const byRole = attribute(element, 'role')?.trim().toLowerCase() === 'heading'
  if (!/^h[1-6]$/.test(element.tagName) || (byRole && attribute(element, 'aria-level') !== null))
    return [setAttribute(places, element, 'aria-level', String(level))]
  if (endStart === null) return { why: NOT_CLOSED }
  if (element.tagName === `h${level}`) return []
  return [
    { start: start + 2, end: start + 3, text: String(level) },
    { start: endStart + 3, end: endStart + 4, text: String(level) },
  ]
}

/** A heading in more pieces than this is edited in the source; from memory. */
const MOST_PIECES = 200
const IN_PIECES = 'The words that changed stand in several pieces of markup. Change them piece by piece.'

/** A piece of a heading's text: a text node with its place in the heading's source, or the space that a break shows as. */
interface Piece {
  value: string
  place: { startOffset: number; endOffset: number } | null
  /** Of a link that is only a sign for itself. */
  sign?: true
}

/** All pieces in order, by a stack of its own: markup nests deeper than the call stack does. */
function pieces(root: { childNodes: DefaultTreeAdapterTypes.ChildNode[] }): Piece[] {
  const inOrder: Piece[] = []
  const open: { nodes: DefaultTreeAdapterTypes.ChildNode[]; next: number; link: boolean; from: number }[] = [
    { nodes: root.childNodes, next: 0, link: false, from: 0 },
  ]
  while (open.length > 0) {
    const top = open.at(-1)!
    const n = top.nodes[top.next++]
    if (n === undefined) {
      open.pop()
      if (top.link && isOwnSign(joined(inOrder.slice(top.from))))
        for (const piece of inOrder.slice(top.from)) piece.sign = true
    } else if ('value' in n) inOrder.push({ value: n.value, place: n.sourceCodeLocation! })
    else if (n.nodeName === 'br') inOrder.push({ value: ' ', place: null })
    else if (n.nodeName === 'img')
      inOrder.push({ value: ` ${attribute(n as Located, 'alt') ?? ''} `, place: null })
    else if ('childNodes' in n)
      open.push({ nodes: n.childNodes, next: 0, link: n.nodeName === 'a', from: inOrder.length })
  }
  return inOrder
}
/** The pieces that are the heading's text: a sign for itself at its end is none of them. */
function textPieces(root: { childNodes: DefaultTreeAdapterTypes.ChildNode[] }): Piece[] {
  const all = pieces(root)
  const last = all.findLastIndex((p) => !p.sign && fold(p.value) !== '')
  return all.some((p) => p.sign) ? all.slice(0, last + 1) : all
}
const joined = (list: Piece[]) => list.map((p) => p.value).join('')

/**
 * New text for a heading, its inner markup kept: the words that changed must lie within one piece of text, or the
 * editor is told.
 */
function textSplices(source: Source, places: Locations, element: Located, value: string): Splices {
  const { startEnd, endStart } = element.place
  if (endStart === null) return { why: NOT_CLOSED }
  const from = places.bom + startEnd * places.unit
  const to = places.bom + endStart * places.unit
  const inner = sourceOf(source.bytes.subarray(from, to), source.encoding, source.encodingBy, 0)
  const all = textPieces(parseFragment(inner.text, { sourceCodeLocationInfo: true }))
  const wanted = fold(value)
  if (fold(joined(all)) === wanted) return []
  const splice = (startOffset: number, endOffset: number, text: string): Splices => {
    const [start, end] = toBytePlaces(inner, [startOffset, endOffset])
    return [
      {
        start: startEnd + start! / places.unit,
        end: startEnd + end! / places.unit,
        text,
      },
    ]
  }
  const inked = all.filter((p) => fold(p.value) !== '')
  if (inked.length > MOST_PIECES) return { why: IN_PIECES }
  if (inked.length === 0) return splice(0, 0, contentText(value))
  for (const piece of inked) {
    if (!piece.place) continue
    const index = all.indexOf(piece)
    const before = joined(all.slice(0, index))
    const after = joined(all.slice(index + 1))
    const room = wanted.length - fold(after).length
    if (room < fold(before).length || !wanted.startsWith(fold(before)) || !wanted.endsWith(fold(after)))
      continue
    const middle = fold(wanted.slice(fold(before).length, room))
    const lead = /^\s*/.exec(piece.value)![0]
    const tail = /\s*$/.exec(piece.value)![0]
    // The white space that is there first; then what the wording needs.
    const fitting = [
      [lead, tail],
      [' ', tail],
      [lead, ' '],
      [' ', ' '],
      ['', ''],
    ].find(([l, t]) => fold(before + l + middle + t + after) === wanted)
    if (fitting)
      return splice(
        piece.place.startOffset,
        piece.place.endOffset,
        fitting[0] + contentText(middle) + fitting[1],
      )
  }
  return { why: IN_PIECES }
}

/**
 * Joins the following headings to this one: each, this one included, becomes a span in one heading and keeps its
 * attributes there, so that what the style sheet says of its class goes on being said.
 */
function mergeSplices(places: Locations, first: Located, merge: number[]): Splices {
  const rest = merge.map((at) => places.byStart.get((at - places.bom) / places.unit))
  const all = [first, ...rest]
  const splices: Splice[] = []
  for (const [i, element] of all.entries()) {
    if (!element || element.place.endStart === null || element.place.end === null) return { why: NOT_CLOSED }
    const { start, endStart, end } = element.place
    const nameEnd = start + 1 + element.tagName.length
    if (i === 0) splices.push({ start: nameEnd, end: nameEnd, text: '><span' })
    else splices.push({ start: start + 1, end: nameEnd, text: 'span' })
    const next = all[i + 1]
    const glued = next?.place.start === end ? ' ' : ''
    splices.push({
      start: endStart,
      end,
      text: next || i < all.length - 1 ? `</span>${glued}` : `</span></${first.tagName}>`,
    })
  }
  return splices
}
