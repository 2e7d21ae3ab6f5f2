import { placesOfPhrase } from '../strings.ts'

/** Which of the house's forbidden words stand in a text, as whole words, whatever their case. */
export const forbiddenIn = (text: string, words: readonly string[]): string[] =>
  words.filter((word) => placesOfPhrase(text, word).length > 0)
