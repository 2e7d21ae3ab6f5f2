/** Which way a text reads: by its first letter. Source: Unicode Standard Annex 9, rules P2 and P3. */

const strong = /\p{L}/u
const rightToLeft =
  /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Samaritan}\p{Script=Mandaic}\p{Script=Adlam}]/u

export const directionOf = (text: string): 'ltr' | 'rtl' => {
  const letter = strong.exec(text)?.[0]
  return letter !== undefined && rightToLeft.test(letter) ? 'rtl' : 'ltr'
}
