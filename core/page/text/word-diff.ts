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

interface Word {
  text: string
  from: number
  to: number
}

/** The words of a list of characters, without what stands between them. */
function wordsOf(characters: readonly string[]): Word[] {
  const words: Word[] = []
  let open: Word | null = null
  for (const [i, c] of characters.entries()) {
    if (!wordCharacter.test(c)) open = null
    else if (unspaced.test(c)) {
      words.push({ text: c, from: i, to: i + 1 })
      open = null
    } else if (open) {
      open.text += c
      open.to = i + 1
    } else words.push((open = { text: c, from: i, to: i + 1 }))
  }
  return words
}

/** Pairs of words are looked at one by one up to so many; of longer texts the standard way is taken. */
const MOST_PAIRS = 400_000
/** Changes beyond this many are one change of the whole: nobody keeps anything in such a rewrite. */
const MOST_CHANGES = 1500

/** Words that stay, as pairs in order: of all such choices the one that keeps the most letters, so that "the" leads nobody astray. */
function kept(before: readonly Word[], after: readonly Word[]): [Word, Word][] {
  if (before.length * after.length > MOST_PAIRS) return keptInLong(before, after)
  const width = after.length + 1
  const best = new Uint32Array((before.length + 1) * width)
  for (let i = before.length - 1; i >= 0; i--)
    for (let j = after.length - 1; j >= 0; j--)
      best[i * width + j] =
        before[i]!.text === after[j]!.text
          ? Math.max(
              best[(i + 1) * width + j + 1]! + before[i]!.text.length,
              best[(i + 1) * width + j]!,
              best[i * width + j + 1]!,
            )
          : Math.max(best[(i + 1) * width + j]!, best[i * width + j + 1]!)
  const pairs: [Word, Word][] = []
  for (let i = 0, j = 0; i < before.length && j < after.length;) {
    const [old, now] = [before[i]!, after[j]!]
    if (old.text === now.text && best[i * width + j] === best[(i + 1) * width + j + 1]! + old.text.length) {
      pairs.push([old, now])
      i++
      j++
    } else if (best[i * width + j] === best[(i + 1) * width + j]) i++
    else j++
  }
  return pairs
}

function keptInLong(before: readonly Word[], after: readonly Word[]): [Word, Word][] {
  const parts = diffArrays(
    before.map((w) => w.text),
    after.map((w) => w.text),
    { maxEditLength: MOST_CHANGES },
  )
  const pairs: [Word, Word][] = []
  let [i, j] = [0, 0]
  for (const { added, removed, count } of parts ?? []) {
    if (!added && !removed) for (let k = 0; k < count; k++) pairs.push([before[i + k]!, after[j + k]!])
    if (!added) i += count
    if (!removed) j += count
  }
  return pairs
}

/** Changes from one list of characters to another, in order: what lies between words that stay, its shared ends trimmed. */
export function changesBetween(before: readonly string[], after: readonly string[]): Hunk[] {
  const hunks: Hunk[] = []
  let [from, start] = [0, 0]
  const end = { from: before.length, to: before.length }
  const last = { from: after.length, to: after.length }
  for (const [old, now] of [...kept(wordsOf(before), wordsOf(after)), [end, last] as const]) {
    hunks.push(...trimmed(before, { from, to: old.from, text: after.slice(start, now.from) }))
    from = old.to
    start = now.to
  }
  return hunks
}

function trimmed(before: readonly string[], { from, to, text }: Hunk): Hunk[] {
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
}
