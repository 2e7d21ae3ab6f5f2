/** Sentences of running text, as the language's rules part them (UAX 29, by Intl.Segmenter). */
const segmenter = new Intl.Segmenter(undefined, { granularity: 'sentence' })

/** So much is looked at on either side, in UTF-16 units: a block may be a whole chapter without a full stop. */
const AROUND = 500

/** The sentence, or the sentences, that a stretch of a text stands in, without white space around. */
export function sentenceAround(text: string, start: number, end: number): string {
  const from = Math.max(0, start - AROUND)
  const window = text.slice(from, end + AROUND)
  let first = 0
  let last = window.length
  for (const { index, segment } of segmenter.segment(window)) {
    if (index <= start - from) first = index
    if (index + segment.length >= end - from) {
      last = index + segment.length
      break
    }
  }
  return window.slice(first, last).trim()
}
