/** Which of the house's forbidden words stand in a text, as whole words, whatever their case. */
export const forbiddenIn = (text: string, words: readonly string[]): string[] =>
  words.filter((word) => {
    const escaped = word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+')
    return new RegExp(`(?<![\\p{L}\\p{N}])${escaped}(?![\\p{L}\\p{N}])`, 'iu').test(text)
  })
