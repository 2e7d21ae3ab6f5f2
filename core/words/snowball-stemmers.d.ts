declare module 'snowball-stemmers' {
  export interface Stemmer {
    stem(word: string): string
  }
  const snowball: { newStemmer(algorithm: string): Stemmer; algorithms(): string[] }
  export default snowball
}
