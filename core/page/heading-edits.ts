/** Edits of headings: level, text, joining adjacent headings into one, taking an empty one out. Attributes stay. */
import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'
import type { Edit } from './draft.ts'
import type { Located, Locations } from './locate.ts'
import { attribute } from './parse.ts'
import { toBytePlaces } from './places.ts'
import { contentText, removal, setAttribute, type Splice, type Splices } from './proof.ts'
import { fold } from './read-page.ts'
import { sourceOf, type Source } from './source.ts'

const NOT_CLOSED =
  'The heading has no end tag of its own in the source, so where it ends is uncertain. Close it there first.'

export function headingSplices(source: Source, places: Locations, element: Located, edit: Edit): Splices {
  if (edit.remove) return removal(places.view, element)
  const splices: Splice[] = []
  if (edit.level !== undefined) {
    const level = levelSplices(places, element, edit.level)
    if ('why' in level) return level
    splices.push(...level)
  }
  if (edit.value !== undefined) {
    const text = textSplices(source, places, element, edit.value)
    if ('why' in text) return text
    splices.push(...text)
  }
  if (edit.merge && edit.merge.length > 0) {
    const merged = mergeSplices(places, element, edit.merge)
    if ('why' in merged) return merged
    splices.push(...merged)
  }
  return splices
}

function levelSplices({ view }: Locations, element: Located, level: number): Splices {
  const { start, endStart } = element.place
  if (!/^h[1-6]$/.test(element.tagName)) return [setAttribute(view, element, 'aria-level', String(level))]
  if (endStart === null) return { why: NOT_CLOSED }
  if (element.tagName === `h${level}`) return []
  return [
    { start: start + 2, end: start + 3, text: String(level) },
    { start: endStart + 3, end: endStart + 4, text: String(level) },
  ]
}

/** A piece of a heading's text: a text node with its place in the heading's source, or the space that a break shows as. */
interface Piece {
  value: string
  place: { startOffset: number; endOffset: number } | null
}

function pieces(root: { childNodes: DefaultTreeAdapterTypes.ChildNode[] }): Piece[] {
  return root.childNodes.flatMap((n): Piece[] => {
    if ('value' in n) return [{ value: n.value, place: n.sourceCodeLocation! }]
    if (n.nodeName === 'br') return [{ value: ' ', place: null }]
    if (n.nodeName === 'img') return [{ value: ` ${attribute(n as Located, 'alt') ?? ''} `, place: null }]
    return 'childNodes' in n ? pieces(n) : []
  })
}
const joined = (list: Piece[]) => list.map((p) => p.value).join('')

/**
 * New text for a heading, its inner mark-up kept: the words that changed must lie within one piece of text, or the
 * editor is told.
 */
function textSplices(source: Source, places: Locations, element: Located, value: string): Splices {
  const { startEnd, endStart } = element.place
  if (endStart === null) return { why: NOT_CLOSED }
  const from = places.bom + startEnd * places.unit
  const to = places.bom + endStart * places.unit
  const inner = sourceOf(source.bytes.subarray(from, to), source.encoding, source.encodingBy, 0)
  const all = pieces(parseFragment(inner.text, { sourceCodeLocationInfo: true }))
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
  return { why: 'The words that changed stand in several pieces of mark-up. Change them piece by piece.' }
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
