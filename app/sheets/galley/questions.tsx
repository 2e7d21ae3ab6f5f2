/** Questions that people ask around the page's phrases, offered to be answered here. */
import { useMemo } from 'react'
import { sameWording, wordFormsOf } from '../../../core/keywords/phrases.ts'
import { isQuestion } from '../../../core/words/questions.ts'
import { phrasesOf } from '../../../core/work/decisions.ts'
import { compileKeyword } from '../../../core/words/match.ts'
import type { Session } from '../../session/session.ts'
import { plural } from '../../ui/plural.ts'
import type { GalleyBlock } from '../../workers/galley.ts'

const MOST = 20

/** The site's questions that speak of what the page is for and that its text does not ask yet. */
export function useQuestions(
  session: Session,
  phrases: readonly string[],
  blocks: readonly GalleyBlock[] | undefined,
  lang: string | null,
): string[] {
  const ofSite = session.get().work.get('')
  return useMemo(() => {
    const own = new Set(phrases.map((p) => wordFormsOf(p, lang)))
    const stems = phrases.map((p) => compileKeyword(p, lang).stems)
    const asked = new Set((blocks ?? []).map((b) => sameWording(b.text).replace(/\?$/, '')))
    return phrasesOf(ofSite ?? {})
      .filter(({ phrase }) => isQuestion(phrase, lang))
      .filter(({ phrase }) => {
        const has = new Set(compileKeyword(phrase, lang).stems)
        return (
          own.has(wordFormsOf(phrase, lang)) || stems.some((s) => s.length > 0 && s.every((x) => has.has(x)))
        )
      })
      .filter(({ phrase }) => !asked.has(sameWording(phrase).replace(/\?$/, '')))
      .slice(0, MOST)
      .map(({ phrase }) => asSentence(phrase))
  }, [ofSite, phrases, blocks, lang])
}

/** A question as it is written: with a capital and a question mark. */
const asSentence = (phrase: string): string =>
  `${phrase.slice(0, 1).toLocaleUpperCase()}${phrase.slice(1).replace(/\s*[?？؟]\s*$/, '')}?`

export function Questions({
  questions,
  onAnswer,
}: {
  questions: string[]
  onAnswer(question: string): void
}) {
  if (questions.length === 0) return null
  return (
    <details className="mb-3 border-b border-rule pb-3 text-[13px]" data-testid="questions">
      <summary className="cursor-pointer">{plural(questions.length, 'question')} that people ask</summary>
      <ul className="mt-1">
        {questions.map((question) => (
          <li key={question} className="flex items-baseline gap-3 border-t border-rule-2 py-1">
            <span className="min-w-0 flex-1 font-serif text-[15px]">{question}</span>
            <button
              type="button"
              className="quiet"
              aria-label={`Answer on this page: ${question}`}
              onClick={() => onAnswer(question)}
            >
              Answer it on this page
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
