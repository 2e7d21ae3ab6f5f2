/** From places in the decoded text (UTF-16 units) to places in the bytes, and to lines and columns. */
import type { Source } from './source.ts'

/** UTF-16 units that each UTF-8 sequence gives, walked by the decoder's own rule for malformed bytes (one U+FFFD a maximal part). */
function utf8Step(bytes: Uint8Array, i: number): { length: number; units: number } {
  const lead = bytes[i]!
  if (lead < 0x80) return { length: 1, units: 1 }
  let need: number
  let low = 0x80
  let high = 0xbf
  if (lead >= 0xc2 && lead <= 0xdf) need = 1
  else if (lead >= 0xe0 && lead <= 0xef) {
    need = 2
    if (lead === 0xe0) low = 0xa0
    if (lead === 0xed) high = 0x9f
  } else if (lead >= 0xf0 && lead <= 0xf4) {
    need = 3
    if (lead === 0xf0) low = 0x90
    if (lead === 0xf4) high = 0x8f
  } else return { length: 1, units: 1 }
  let length = 1
  while (length <= need) {
    const next = bytes[i + length]
    if (next === undefined || next < low || next > high) return { length, units: 1 }
    low = 0x80
    high = 0xbf
    length++
  }
  return { length, units: need === 3 ? 2 : 1 }
}

const isSingleByte = (encoding: string) => /^(windows-|iso-8859|koi8|macintosh|ibm866|x-mac)/.test(encoding)

/**
 * Steps through bytes of a legacy encoding with several bytes a character. A line feed or "<" is a whole character in
 * all of them, so what lies between two is decoded alone, at once; only a place within is sought byte by byte.
 */
function legacyWalker(source: Source): (place: number) => number {
  const { bytes, encoding, bom } = source
  let i = bom
  let units = 0
  return (place) => {
    while (units < place && i < bytes.length) {
      let end = i + 1
      while (end < bytes.length && bytes[end] !== 0x3c && bytes[end] !== 0x0a) end++
      const whole = new TextDecoder(encoding, { ignoreBOM: true }).decode(bytes.subarray(i, end)).length
      if (units + whole <= place) {
        units += whole
        i = end
        continue
      }
      const decoder = new TextDecoder(encoding, { ignoreBOM: true })
      let at = i
      for (let seen = units; seen < place && at < end; at++)
        seen += decoder.decode(bytes.subarray(at, at + 1), { stream: true }).length
      return at
    }
    return i
  }
}

/** Byte places of ascending places in the text. */
export function toBytePlaces(source: Source, places: number[]): number[] {
  const { bytes, encoding, bom } = source
  if (isSingleByte(encoding)) return places.map((p) => p + bom)
  if (encoding.startsWith('utf-16')) return places.map((p) => p * 2 + bom)
  if (encoding !== 'utf-8') return places.map(legacyWalker(source))
  // No sequence gives more units than it has bytes: where all give as many, each byte is a unit.
  const end = bytes.length - bom
  if (source.text.length === end) return places.map((p) => Math.min(p, end) + bom)
  let i = bom
  let units = 0
  return places.map((place) => {
    while (units < place && i < bytes.length) {
      if (bytes[i]! < 0x80) {
        i++
        units++
        continue
      }
      const step = utf8Step(bytes, i)
      i += step.length
      units += step.units
    }
    return i
  })
}

/** Starts of lines in UTF-16 units; CRLF is one line end, a lone CR one too. */
export function lineStarts(text: string): number[] {
  const starts = [0]
  for (const end of text.matchAll(/\r\n|\r|\n/g)) starts.push(end.index + end[0].length)
  return starts
}

/** Line and column, both from 1, columns in UTF-16 units. */
export function lineAndColumn(starts: number[], place: number): { line: number; column: number } {
  let low = 0
  let high = starts.length - 1
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (starts[middle]! <= place) low = middle
    else high = middle - 1
  }
  return { line: low + 1, column: place - starts[low]! + 1 }
}
