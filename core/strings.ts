/**
 * Looking through texts that others wrote, in one pass: no regular expression is built from them, and none that can
 * backtrack runs over them.
 */

/** Runs of HTML's white space that folding changes: several, or one that is no space. */
const folding = /[\t\n\f\r][ \t\n\f\r]*| [ \t\n\f\r]+/g

/** Texts of at most so many units are first looked through by hand: most are, and most need no folding. */
const SHORT = 32

/** White space folded to single spaces, as HTML shows it; no-break spaces stay. */
export const foldSpaces = (text: string): string =>
  text.length <= SHORT && isFolded(text) ? text : text.replace(folding, ' ')

/** Whether all white space in a text is single spaces. */
function isFolded(text: string): boolean {
  let previous = 0
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i)
    if (unit <= 0x20 && (unit === 0x20 ? previous === 0x20 : unit >= 9 && unit <= 13 && unit !== 11))
      return false
    previous = unit
  }
  return true
}

/** As HTML shows it: white space folded to single spaces and trimmed; no-break spaces stay. */
export const fold = (text: string): string => (text === '' ? '' : foldSpaces(text).trim())

/** White space as `\s` has it, by UTF-16 unit. */
export const isSpace = (unit: number): boolean =>
  unit === 0x20 ||
  (unit >= 9 && unit <= 13) ||
  unit === 0xa0 ||
  unit === 0x1680 ||
  (unit >= 0x2000 && unit <= 0x200a) ||
  unit === 0x2028 ||
  unit === 0x2029 ||
  unit === 0x202f ||
  unit === 0x205f ||
  unit === 0x3000 ||
  unit === 0xfeff

/** Lower case, unit by unit, so that places stay what they are: a letter whose small form is longer stays as it is. */
export function lowerInPlace(text: string): string {
  const lower = text.toLowerCase()
  if (lower.length === text.length) return lower
  let out = ''
  for (const c of text) {
    const small = c.toLowerCase()
    out += small.length === c.length ? small : c
  }
  return out
}

const wordCharacter = /[\p{L}\p{N}]/u
/** Whether the character that ends before a place, or begins at it, is a letter or a digit. */
function touchesWord(text: string, at: number, side: 'before' | 'after'): boolean {
  if (side === 'after') {
    const c = text.codePointAt(at)
    return c !== undefined && wordCharacter.test(String.fromCodePoint(c))
  }
  if (at === 0) return false
  const low = text.charCodeAt(at - 1)
  const pair = low >= 0xdc00 && low <= 0xdfff && at > 1
  return wordCharacter.test(text.slice(at - (pair ? 2 : 1), at))
}

export interface Place {
  start: number
  end: number
}

/** Where a word or phrase stands in a text as whole words, whatever its case and the white space in it. */
export function placesOfPhrase(text: string, phrase: string): Place[] {
  const words = lowerInPlace(phrase).split(/\s+/).filter(Boolean)
  const [first, ...rest] = words
  if (first === undefined) return []
  const lower = lowerInPlace(text)
  const places: Place[] = []
  let from = 0
  for (;;) {
    const at = lower.indexOf(first, from)
    if (at < 0) return places
    from = at + 1
    let end = at + first.length
    const whole = rest.every((word) => {
      let next = end
      while (isSpace(lower.charCodeAt(next))) next++
      if (next === end || !lower.startsWith(word, next)) return false
      end = next + word.length
      return true
    })
    if (!whole || touchesWord(text, at, 'before') || touchesWord(text, end, 'after')) continue
    places.push({ start: at, end })
    from = end
  }
}

/** A separator between the parts of a title, with the white space around it. */
export interface Separator extends Place {
  sign: string
}

/** The separators of a title that have white space on both sides, in order. `signs` are single characters. */
export function separatorsIn(title: string, signs: string): Separator[] {
  const separators: Separator[] = []
  for (let i = 1; i < title.length - 1; i++) {
    if (!signs.includes(title[i]!)) continue
    if (!isSpace(title.charCodeAt(i - 1)) || !isSpace(title.charCodeAt(i + 1))) continue
    let start = i
    const before = separators.at(-1)?.end ?? 0
    while (start > before && isSpace(title.charCodeAt(start - 1))) start--
    let end = i + 1
    while (end < title.length && isSpace(title.charCodeAt(end))) end++
    separators.push({ sign: title[i]!, start, end })
    i = end - 1
  }
  return separators
}

/** Signs that set a site's name off from a page's own words. Common practice, no source. */
const LAST = '|·•–—'

/** A title without its last part, which a separator sets off; the title itself where none does. */
export function withoutLastPart(title: string): string {
  let last = -1
  for (const sign of LAST) last = Math.max(last, title.lastIndexOf(sign))
  const cut = separatorsIn(title.slice(Math.max(0, last - 1)), `${LAST}-`)[0]
  if (!cut) return title
  let end = Math.max(0, last - 1) + cut.start
  while (end > 0 && isSpace(title.charCodeAt(end - 1))) end--
  return title.slice(0, end)
}

/** Lines with their white space folded: a run of spaces is one, a run with a line end in it is one line end. */
export function foldLines(text: string): string {
  const { length } = text
  const out: string[] = []
  let from = 0
  let i = 0
  while (i < length) {
    const c = text.charCodeAt(i)
    if (c !== 0x20 && c !== 0x0a) {
      i++
      continue
    }
    const start = i
    let line = c === 0x0a
    for (i++; i < length; i++) {
      const next = text.charCodeAt(i)
      if (next === 0x0a) line = true
      else if (next !== 0x20) break
    }
    // A run at either end is left out, one within is one sign.
    if (i - start === 1 && start > 0 && i < length) continue
    out.push(text.slice(from, start))
    if (start > 0 && i < length) out.push(line ? '\n' : ' ')
    from = i
  }
  out.push(text.slice(from))
  // Joined, it lies in one piece: whoever looks at each of its characters does so in half of the time.
  return out.join('').trim()
}

/** Text as markup shows it, in HTML and in XML alike: nothing in it is markup; controls, which neither has, become U+FFFD. */
export const escapeMarkup = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`).replace(/[\0-\x08\x0b\x0c\x0e-\x1f]/g, '\ufffd')
