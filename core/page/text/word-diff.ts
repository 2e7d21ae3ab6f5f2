/** What changed between two wordings, word by word; where a script has no spaces, character by character. */
import { diffArrays } from 'diff'

/** The characters from `from` up to `to` of the old wording become `text`. Counted in the units that are handed in. */
export interface Hunk {
  from: number
  to: number
  text: string[]
}

/** Han, kana, Hangul, Thai, Lao, Khmer, Myanmar: words are not set apart. */
const unspaced =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u
const wordCharacter = /[\p{L}\p{M}\p{N}_'’-]/u

/** Changes beyond this many are one change of the whole: nobody keeps anything in such a rewrite. */
const MOST_CHANGES = 1500

function wordsOf(characters: readonly string[]): { words: string[]; ends: number[] } {
  const words: string[] = []
  const ends: number[] = []
  let word = ''
  for (const [i, c] of characters.entries()) {
    const joins = wordCharacter.test(c) && !unspaced.test(c)
    if (joins) word += c
    const next = characters[i + 1]
    if (joins && next !== undefined && wordCharacter.test(next) && !unspaced.test(next)) continue
    words.push(joins ? word : c)
    ends.push(i + 1)
    word = ''
  }
  return { words, ends }
}

/** Changes from one list of characters to another, in order, their shared ends trimmed. */
export function changesBetween(before: readonly string[], after: readonly string[]): Hunk[] {
  const [old, next] = [wordsOf(before), wordsOf(after)]
  const parts = diffArrays(old.words, next.words, { maxEditLength: MOST_CHANGES })
  if (!parts) return trimmed(before, [{ from: 0, to: before.length, text: [...after] }])
  const hunks: Hunk[] = []
  let [i, j] = [0, 0]
  let open: { from: number; to: number; start: number; end: number } | null = null
  const place = (ends: number[], index: number) => (index === 0 ? 0 : ends[index - 1]!)
  const close = () => {
    if (open) hunks.push({ from: open.from, to: open.to, text: after.slice(open.start, open.end) })
    open = null
  }
  for (const { added, removed, count } of parts) {
    if (!added && !removed) {
      close()
      i += count
      j += count
      continue
    }
    open ??= {
      from: place(old.ends, i),
      to: place(old.ends, i),
      start: place(next.ends, j),
      end: place(next.ends, j),
    }
    if (removed) i += count
    if (added) j += count
    open.to = place(old.ends, i)
    open.end = place(next.ends, j)
  }
  close()
  return trimmed(before, hunks)
}

function trimmed(before: readonly string[], hunks: Hunk[]): Hunk[] {
  return hunks.flatMap(({ from, to, text }) => {
    let head = 0
    while (head < text.length && from + head < to && before[from + head] === text[head]) head++
    let tail = 0
    while (
      tail < text.length - head &&
      to - tail > from + head &&
      before[to - tail - 1] === text[text.length - tail - 1]
    )
      tail++
    const left = { from: from + head, to: to - tail, text: text.slice(head, text.length - tail) }
    return left.from === left.to && left.text.length === 0 ? [] : [left]
  })
}
