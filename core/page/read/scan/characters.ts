/** What an ASCII character means to the scanner: a sum of the kinds below, by code. */
export const SPACE = 1
/** Ends a tag's or an attribute's name. */
export const ENDS_NAME = 2
/** A parse error in an attribute's name. */
export const ODD_IN_NAME = 4
export const UPPER = 8
export const ALPHANUMERIC = 16
/** A parse error in a value without quotation marks. */
export const ODD_UNQUOTED = 32
export const LETTER = 64
/** Behind `<`, begins something else than text. */
export const OPENS = 128

export const kindsOf = new Uint8Array(128)
const mark = (characters: string, kinds: number) => {
  for (const c of characters) kindsOf[c.charCodeAt(0)]! |= kinds
}
const LETTERS = 'abcdefghijklmnopqrstuvwxyz'
mark(' \t\n\f\r', SPACE | ENDS_NAME)
mark('/>=', ENDS_NAME)
mark('"\'<', ODD_IN_NAME)
mark('"\'<=`', ODD_UNQUOTED)
mark(LETTERS, ALPHANUMERIC | LETTER | OPENS)
mark(LETTERS.toUpperCase(), UPPER | ALPHANUMERIC | LETTER | OPENS)
mark('0123456789', ALPHANUMERIC)
mark('/!?', OPENS)

/** Whether a UTF-16 unit is of a kind; NaN, behind the end of a text, is of none. */
export const is = (unit: number, kind: number): boolean => unit < 128 && (kindsOf[unit]! & kind) !== 0
