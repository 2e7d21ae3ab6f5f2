/**
 * Where the first `folded` UTF-16 units of the folded text end in the text as typed: typed text may hold runs of
 * spaces that are shown, and measured, as one.
 */
export function rawOffset(raw: string, folded: number): number {
  let seen = 0
  let i = 0
  while (i < raw.length && /\s/.test(raw[i]!)) i++
  while (i < raw.length && seen < folded) {
    if (/\s/.test(raw[i]!)) {
      while (i + 1 < raw.length && /\s/.test(raw[i + 1]!)) i++
    }
    i++
    seen++
  }
  return i
}
