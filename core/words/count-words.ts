/** Words of running text. */

const SPACE = 1
const LETTER_OR_DIGIT = 2
const asciiKind = new Uint8Array(128)
for (const c of ' \t\n\v\f\r') asciiKind[c.charCodeAt(0)] = SPACE
for (const c of 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789')
  asciiKind[c.charCodeAt(0)] = LETTER_OR_DIGIT

/** White space beyond ASCII. */
const isSpace = (c: number) =>
  c === 0xa0 || (c >= 0x2000 && c <= 0x200b) || c === 0x2028 || c === 0x2029 || c === 0x202f || c === 0x3000

/** A letter or digit beyond ASCII. */
const isWordCharacter = (c: number) => (c >= 0xc0 && (c < 0x2010 || c > 0x2bff)) || c === 0xaa || c === 0xba

/**
 * Words that a character of a script without spaces counts for. Han and hiragana: fitted to what the platform's
 * dictionary (Intl.Segmenter) finds in the Japanese pages of Debian's apache2-doc, within 2 % there, at a hundredth
 * of its cost. Thai, Lao, Burmese, Khmer: from memory. 0: a character of a script with spaces.
 */
function unspacedShare(c: number): number {
  if (c < 0xe00) return 0
  if ((c >= 0x3400 && c <= 0x9fff) || (c >= 0xf900 && c <= 0xfaff)) return 0.6
  if (c >= 0x3040 && c <= 0x309f) return 0.65
  if ((c >= 0xe00 && c <= 0xeff) || (c >= 0x1000 && c <= 0x109f) || (c >= 0x1780 && c <= 0x17ff)) return 0.25
  return 0
}
const isPunctuation = (c: number) => (c >= 0x3001 && c <= 0x303f) || (c >= 0xff00 && c <= 0xff0f)

/** Walks the words of a text's stretch; stops when more than `most` are counted. Returns how many there are and where it stopped. */
function walkWords(text: string, from: number, to: number, most: number): { count: number; at: number } {
  let count = 0
  let shares = 0
  let inWord = 0
  for (let i = from; i < to; i++) {
    const c = text.charCodeAt(i)
    if (c < 128) {
      const kind = asciiKind[c]!
      if (kind === SPACE) inWord = 0
      else if (kind === LETTER_OR_DIGIT && inWord === 0) {
        inWord = 1
        if (++count + shares > most) return { count: most, at: i }
      }
    } else if (isSpace(c) || (c >= 0xe00 && isPunctuation(c))) inWord = 0
    else {
      const share = unspacedShare(c)
      if (share > 0) {
        shares += share
        inWord = 0
      } else if (inWord === 0 && isWordCharacter(c)) {
        inWord = 1
        count++
      }
      if (count + shares > most) return { count: most, at: i }
    }
  }
  return { count: Math.round(count + shares), at: to }
}

/**
 * How many words: runs between white space with a letter or digit in them, as an editor counts; in scripts that
 * write without spaces, an estimate by characters. Of the stretch `[from, to)` where one is given, in UTF-16 units.
 */
export const countWords = (text: string, from = 0, to = text.length): number =>
  walkWords(text, from, to, Infinity).count

/** The first `n` words of a text, for rules about how a page begins. */
export const firstWords = (text: string, n: number): string =>
  text.slice(0, walkWords(text, 0, text.length, n).at)
