/** Character references (`&amp;`), decoded as the HTML standard has it, with its parse errors. */
import { DecodingMode, HtmlEntityDecoder } from 'entities/decode'
import { ALPHANUMERIC, is } from './characters.ts'

/** One reference as read: what it stands for, where it ends, and the parse errors in it. */
export interface Reference {
  text: string
  end: number
  errors: { code: string; at: number }[]
}

/** Well-formed references, each decoded once; so many are remembered, of at most so many characters. */
const decodedBefore = new Map<string, Reference['text']>()
const MOST_REMEMBERED = 4000
const LONGEST_REMEMBERED = 12

let text = ''
let consumed = 0
let errors: Reference['errors'] = []
const decoder: HtmlEntityDecoder = new HtmlEntityDecoder(
  (codePoint, length) => {
    text += String.fromCodePoint(codePoint)
    consumed = length
  },
  {
    missingSemicolonAfterCharacterReference() {
      errors.push({ code: 'missing-semicolon-after-character-reference', at: consumed })
    },
    absenceOfDigitsInNumericCharacterReference(length) {
      errors.push({ code: 'absence-of-digits-in-numeric-character-reference', at: length })
    },
    validateNumericCharacterReference(codePoint) {
      const code = errorOf(codePoint)
      if (code !== null) errors.push({ code, at: consumed })
    },
  },
)

/** Source: WHATWG HTML 13.2.5.80, numeric character reference end state. */
function errorOf(codePoint: number): string | null {
  if (codePoint === 0) return 'null-character-reference'
  if (codePoint > 0x10ffff) return 'character-reference-outside-unicode-range'
  if (codePoint >= 0xd800 && codePoint <= 0xdfff) return 'surrogate-character-reference'
  if ((codePoint >= 0xfdd0 && codePoint <= 0xfdef) || (codePoint & 0xfffe) === 0xfffe)
    return 'noncharacter-character-reference'
  const control =
    (codePoint <= 0x1f && ![0x20, 0x0a, 0x09, 0x0c].includes(codePoint)) ||
    (codePoint >= 0x7f && codePoint <= 0x9f)
  return control ? 'control-character-reference' : null
}

/** A short, well-formed reference that was decoded before: what it stands for; null for any other. */
export function knownReference(page: string, at: number): { text: string; end: number } | null {
  let end = at + 2
  while (end < at + LONGEST_REMEMBERED && page.charCodeAt(end) !== 0x3b) end++
  const known = decodedBefore.get(page.slice(at, ++end))
  return known === undefined ? null : { text: known, end }
}

/** Reads the reference whose `&` stands at a place; one that is none stays as it stands, with the letters behind it. */
export function readReference(page: string, at: number, inAttribute: boolean): Reference {
  text = ''
  consumed = 0
  errors = []
  decoder.startEntity(inAttribute ? DecodingMode.Attribute : DecodingMode.Legacy)
  let length = decoder.write(page, at + 1)
  if (length < 0) length = decoder.end()
  for (const error of errors) error.at += at
  if (length > 0) {
    const end = at + consumed
    const written = page.slice(at, end)
    if (errors.length === 0 && written.endsWith(';') && written.length <= LONGEST_REMEMBERED)
      if (decodedBefore.size < MOST_REMEMBERED) decodedBefore.set(written, text)
    return { text, end, errors }
  }
  let end = at + 1
  if (!inAttribute && is(page.charCodeAt(end), ALPHANUMERIC)) {
    while (is(page.charCodeAt(end), ALPHANUMERIC)) end++
    if (page[end] === ';') errors.push({ code: 'unknown-named-character-reference', at: end })
  }
  return { text: page.slice(at, end), end, errors }
}
