/** How alike two texts are: Dice's coefficient over pairs of letters. Source: Dice 1945, Measures of the amount of ecologic association. */

/** Quotes, dashes and white space evened out: who retypes a page changes them without meaning to. */
export const evened = (text: string): string =>
  text
    .normalize('NFC')
    .replace(/[\u2018\u2019\u201a\u2032\u00b4`]/g, "'")
    .replace(/[\u201c\u201d\u201e\u00ab\u00bb]/g, '"')
    .replace(/[\u2010-\u2015\u2212]/g, '-')
    .replace(/\s+/g, ' ')
    .trim()

/** Pairs of letters of a text, with how often each occurs. */
export type Pairs = { counts: Map<string, number>; total: number }

/** Texts are compared by their beginning, of so many letters. */
const LONGEST = 600

export function pairsOf(text: string): Pairs {
  const counts = new Map<string, number>()
  const letters = text.slice(0, LONGEST).toLowerCase()
  for (let i = 0; i + 1 < letters.length; i++) {
    const pair = letters.slice(i, i + 2)
    counts.set(pair, (counts.get(pair) ?? 0) + 1)
  }
  return { counts, total: Math.max(letters.length - 1, 0) }
}

/** 0 for nothing in common, 1 for the same pairs. */
export function alike(a: Pairs, b: Pairs): number {
  if (a.total === 0 || b.total === 0) return 0
  const [less, more] = a.counts.size < b.counts.size ? [a, b] : [b, a]
  let common = 0
  for (const [pair, count] of less.counts) common += Math.min(count, more.counts.get(pair) ?? 0)
  return (2 * common) / (a.total + b.total)
}
