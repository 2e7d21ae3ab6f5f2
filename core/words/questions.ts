/** Which phrases and titles ask something, by how they begin or end. */
import { primaryLanguage, wordsOf } from './stem.ts'

/** Words that begin a question, by language; common practice, no source. */
const questionWords: Record<string, string> = {
  da: 'hvad hvordan hvor hvornår hvorfor hvem hvilken hvilke hvilket kan skal må er',
  de: 'was wie wo wann warum weshalb wer welche welcher welches wieviel woher wohin kann darf ist sind',
  en: 'how what when where why who whose which can do does did is are should could will would may',
  es: 'qué que cómo como dónde donde cuándo cuando quién quien cuál cual cuánto cuanto cuánta cuántos',
  fi: 'mikä mitä miten milloin missä miksi kuka voiko onko',
  fr: 'que quoi comment où quand pourquoi qui quel quelle quels quelles combien',
  it: 'che cosa come dove quando perché chi quale quali quanto quanta',
  nb: 'hva hvordan hvor når hvorfor hvem hvilken hvilke hvilket kan er',
  nl: 'wat hoe waar wanneer waarom wie welke hoeveel kan mag is',
  pt: 'que como onde quando porque quem qual quais quanto',
  sv: 'vad hur var när varför vem vilken vilka vilket kan är',
}
/** Of these, words that only help another verb: they say nothing of what is asked. */
export const auxiliaries = new Set(
  'can do does did is are should could will would may kan skal må er kann darf ist sind mag voiko onko är'.split(
    ' ',
  ),
)
const questions = new Map(
  Object.entries(questionWords).map(([lang, words]) => [lang, new Set(words.split(' '))]),
)
export const questionWordsOf = (lang: string | null): ReadonlySet<string> => {
  const tag = primaryLanguage(lang)
  return questions.get(tag === 'no' || tag === 'nn' ? 'nb' : tag) ?? new Set()
}

/** Whether a phrase asks something: it ends in a question mark, or begins with a word that asks. */
export function isQuestion(phrase: string, lang: string | null): boolean {
  if (/[?？؟]\s*$/.test(phrase)) return true
  const words = wordsOf(phrase)
  return words.length > 2 && questionWordsOf(lang).has(words[0]!.word)
}
