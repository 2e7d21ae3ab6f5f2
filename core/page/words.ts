/** Words of running text. */

const ALNUM = new Uint8Array(128)
for (const c of 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789') ALNUM[c.charCodeAt(0)] = 1

/** Scripts that write without spaces between words. */
const unspaced =
  /[\u0e00-\u0eff\u1000-\u109f\u1780-\u17ff\u3040-\u30ff\u3400-\u4dbf\u4e00-\u9fff\uf900-\ufaff]/
let segmenter: Intl.Segmenter | null = null

const isSpace = (c: number) =>
  c === 0x20 ||
  (c >= 9 && c <= 13) ||
  c === 0xa0 ||
  (c >= 0x2000 && c <= 0x200b) ||
  c === 0x2028 ||
  c === 0x2029 ||
  c === 0x202f ||
  c === 0x3000

/**
 * How many words: runs between white space with a letter or digit in them, as an editor counts; scripts without
 * spaces are segmented by the platform's dictionaries (Intl.Segmenter).
 */
export function countWords(text: string): number {
  if (unspaced.test(text)) {
    segmenter ??= new Intl.Segmenter('ja', { granularity: 'word' })
    let n = 0
    for (const s of segmenter.segment(text)) if (s.isWordLike) n++
    return n
  }
  let n = 0
  let inWord = false
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    if (c < 128 ? c === 0x20 || (c >= 9 && c <= 13) : isSpace(c)) inWord = false
    else if (
      !inWord &&
      (c < 128 ? ALNUM[c] === 1 : (c >= 0xc0 && (c < 0x2010 || c > 0x2bff)) || c === 0xaa || c === 0xba)
    ) {
      inWord = true
      n++
    }
  }
  return n
}

/** The first `n` words of a text, for rules about how a page begins. */
export function firstWords(text: string, n: number): string {
  if (unspaced.test(text)) {
    segmenter ??= new Intl.Segmenter('ja', { granularity: 'word' })
    let seen = 0
    for (const s of segmenter.segment(text)) if (s.isWordLike && ++seen > n) return text.slice(0, s.index)
    return text
  }
  let seen = 0
  for (const m of text.matchAll(/\S+/g))
    if (/[\p{L}\p{N}]/u.test(m[0]) && ++seen > n) return text.slice(0, m.index)
  return text
}
