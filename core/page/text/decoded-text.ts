/** Text as it is shown and where it stands in the source that it is written in: references are longer, CRLF is one line end. */
import { decodeHTML } from 'entities'

/** A character, or all that one reference stands for, with its place in the source. */
export interface Letter {
  value: string
  start: number
  end: number
}

/** The letters of a stretch of source without tags and comments, as the standard reads it; `offset` is where it begins. */
export function lettersOf(written: string, offset = 0): Letter[] {
  const letters: Letter[] = []
  const add = (value: string, at: number, length: number) =>
    letters.push({ value, start: offset + at, end: offset + at + length })
  for (let at = 0; at < written.length;) {
    const unit = written.charCodeAt(at)
    if (unit === 0x0d) {
      const length = written.charCodeAt(at + 1) === 0x0a ? 2 : 1
      add('\n', at, length)
      at += length
    } else if (unit === 0) at++
    else if (unit === 0x26) {
      const { value, length } = referenceIn(written.slice(at, at + LONGEST))
      add(value, at, length)
      at += length
    } else {
      const length = unit >= 0xd800 && unit < 0xdc00 && isLow(written.charCodeAt(at + 1)) ? 2 : 1
      add(written.slice(at, at + length), at, length)
      at += length
    }
  }
  return letters
}
const isLow = (unit: number): boolean => unit >= 0xdc00 && unit < 0xe000

/** A reference is no longer than this: the longest name has 33 characters; a number of more digits is beyond all characters. */
const LONGEST = 64

/** What the reference at the beginning of a piece stands for, and how long it is; "&" itself where it is none. */
function referenceIn(piece: string): { value: string; length: number } {
  const [candidate = '&'] = /^&(?:#[xX][0-9a-fA-F]*|#[0-9]*|[0-9a-zA-Z]*);?/.exec(piece) ?? []
  const decoded = decodeHTML(candidate)
  if (decoded === candidate) return { value: '&', length: 1 }
  // Behind a name without its semicolon stands what is no part of it.
  let length = candidate.length
  while (length > 2 && decodeHTML(candidate.slice(0, length - 1)) + candidate.slice(length - 1) === decoded)
    length--
  return { value: decodeHTML(candidate.slice(0, length)), length }
}
