/**
 * Where a line may break: UAX #14 by the `linebreak` package, with the corrections that bring it to Chromium's
 * behaviour. Source of the corrections: found by experiment against Chromium 156 (docs/measuring.md).
 */
import LineBreaker from 'linebreak'

const isAscii = (c: number) => c > 0x20 && c < 0x7f
const isAlnum = (c: number) => (c >= 48 && c <= 57) || (c >= 65 && c <= 90) || (c >= 97 && c <= 122)
const isDigit = (c: number) => c >= 48 && c <= 57

/** Small kana and the long-vowel sign: Chromium breaks before them as before any kana. */
const smallKana = /[ぁぃぅぇぉっゃゅょゎゕゖァィゥェォッャュョヮヵヶㇰ-ㇿーｧ-ｰ]/g

/** UTF-16 offsets after which a line may end, ascending, the end of the text last. `text` must be folded. */
export function breakOffsets(text: string): number[] {
  const offsets = new Set<number>()
  const breaker = new LineBreaker(text.replace(smallKana, 'あ'))
  for (let b = breaker.nextBreak(); b; b = breaker.nextBreak()) offsets.add(b.position)
  for (let i = 1; i < text.length; i++) {
    const before = text.charCodeAt(i - 1)
    const after = text.charCodeAt(i)
    if (before === 0x20 && after !== 0x20) offsets.add(i)
    else if ((before === 0x2f || before === 0x7c) && isAscii(after)) offsets.delete(i)
    else if (before === 0x3f && isAlnum(after)) offsets.add(i)
    else if (before === 0x2d) {
      const further = i >= 2 ? text.charCodeAt(i - 2) : 0x20
      if (after === 0x2d) offsets.add(i)
      else if ((further === 0x20 || Number.isNaN(further)) && isAscii(after)) offsets.delete(i)
      else if (isDigit(after)) {
        if (isAlnum(further)) offsets.add(i)
        else offsets.delete(i)
      }
    }
  }
  offsets.add(text.length)
  return [...offsets].sort((a, b) => a - b)
}
