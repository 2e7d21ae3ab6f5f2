/** Han, kana and Hangul: scripts of which a character says as much as a word or syllable, so that limits by characters do not apply. */
export const hasUnspacedScript = (text: string): boolean =>
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/u.test(text)
