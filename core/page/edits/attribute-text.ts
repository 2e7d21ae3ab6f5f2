/** From places in an attribute's value to places in the text that it is written as: character references are longer. */
import { decodeHTMLAttribute } from 'entities'

/**
 * Where each UTF-16 unit of a written attribute's value begins in the writing, its end last. What a reference stands for
 * begins where the reference does. Null where the writing does not decode to the value.
 */
export function writtenPlaces(written: string, value: string): number[] | null {
  // The standard reads CRLF and CR as one line end.
  const text = written.replace(/\r\n?/g, '\n')
  if (text.length !== written.length || decodeHTMLAttribute(text) !== value) return null
  const places: number[] = []
  for (let at = 0; at < text.length;) {
    const next = text.indexOf('&', at + 1)
    const end = next < 0 ? text.length : next
    if (text[at] !== '&') {
      for (; at < end; at++) places.push(at)
      continue
    }
    const decoded = decodeHTMLAttribute(text.slice(at, end) + (next < 0 ? '' : '&'))
    const units = next < 0 ? decoded : decoded.slice(0, -1)
    // What stands behind the reference is as it was written.
    let behind = 0
    while (
      behind < units.length - 1 &&
      behind < end - at - 1 &&
      units[units.length - 1 - behind] === text[end - 1 - behind]
    )
      behind++
    for (let k = 0; k < units.length - behind; k++) places.push(at)
    for (let k = behind; k > 0; k--) places.push(end - k)
    at = end
  }
  places.push(text.length)
  return places.length === value.length + 1 ? places : null
}
