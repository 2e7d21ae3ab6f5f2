/** Phrases that a site uses itself, in titles, headings and the words of its links; without demand. */
import { outlineOf, titleOf, type PageFacts } from '../page/read/facts.ts'
import { contentHeadings, nameOf } from '../page/read/content-headings.ts'
import { fold, withoutLastPart } from '../strings.ts'
import { languageOf, wordsOf } from '../words/stem.ts'
import { LONGEST_PHRASE, wordFormsOf } from './phrases.ts'

/** Phrases of fewer content words say too little, of more words are sentences. */
const FEWEST_CONTENT = 2
const MOST_WORDS = 6

/** The phrases that one page uses, one for each title, heading and link of its content that is one. */
export function namingPhrases(page: PageFacts, language: string | null): { key: string; phrase: string }[] {
  const lang = page.lang ?? language
  return namingTexts(page).flatMap((text) => {
    const phrase = phraseOf(text, lang)
    return phrase === null ? [] : [{ key: wordFormsOf(phrase, lang), phrase }]
  })
}

/** Phrases of all pages, those that recur the most first; `places` is how many titles, headings and links use one. */
export function recurringPhrases(
  pages: Iterable<readonly { key: string; phrase: string }[]>,
  most: number,
): { phrase: string; places: number }[] {
  const used = new Map<string, { forms: Map<string, number>; places: number }>()
  for (const page of pages)
    for (const { key, phrase } of page) {
      let entry = used.get(key)
      if (!entry) used.set(key, (entry = { forms: new Map(), places: 0 }))
      entry.places++
      entry.forms.set(phrase, (entry.forms.get(phrase) ?? 0) + 1)
    }
  return [...used.values()]
    .sort((a, b) => b.places - a.places)
    .slice(0, most)
    .map(({ forms, places }) => ({
      phrase: [...forms].reduce((first, form) => (form[1] > first[1] ? form : first))[0],
      places,
    }))
}

function namingTexts(page: PageFacts): string[] {
  const title = titleOf(page)?.text
  return [
    ...(title ? [withoutLastPart(title)] : []),
    ...outlineOf(page)
      .filter((h) => h.level === 1)
      .map(nameOf),
    ...contentHeadings(page)
      .filter((h) => h.level > 1)
      .map(nameOf),
    ...page.links.filter(({ landmark }) => landmark === null || landmark === 'main').map(({ text }) => text),
  ]
}

/** A text as somebody would search with it: in lower case, without filler at its ends; null for one that says too little or too much. */
function phraseOf(text: string, lang: string | null): string | null {
  const { isStopWord } = languageOf(lang)
  const words = wordsOf(fold(text.slice(0, 4 * LONGEST_PHRASE)))
  while (words.length > 0 && isStopWord(words[0]!.word)) words.shift()
  while (words.length > 0 && isStopWord(words.at(-1)!.word)) words.pop()
  if (words.length > MOST_WORDS) return null
  const content = words.filter(({ word }) => !isStopWord(word) && /\p{L}/u.test(word))
  if (content.length < FEWEST_CONTENT) return null
  return words
    .map(({ word }) => word)
    .join(' ')
    .slice(0, LONGEST_PHRASE)
}
