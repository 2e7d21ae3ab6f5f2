/** Questions that people ask around the page's phrases, offered to be answered here. */
import { useMemo } from 'react'
import { sameWording, wordFormsOf } from '../../../core/keywords/phrases.ts'
import { isQuestion } from '../../../core/words/questions.ts'
import { phrasesOf } from '../../../core/work/decisions.ts'
import type { ResultsQuestion } from '../../../core/keywords/results-question.ts'
import type { ResultsAnswer } from '../../../core/results/line-up.ts'
import { compileKeyword } from '../../../core/words/match.ts'
import type { Session } from '../../session/session.ts'
import { answersKept } from '../../store/answers.ts'
import { plural } from '../../ui/plural.ts'
import type { GalleyBlock } from '../../workers/galley.ts'
import { useAnswer } from '../../workers/use-answer.ts'

const MOST = 20

/**
 * Questions that the page's text does not ask yet: those of the site's phrases that speak of what the page is for, and
 * those that came with the results of its phrases, where these were looked up.
 */
export function useQuestions(
  session: Session,
  phrases: readonly string[],
  blocks: readonly GalleyBlock[] | undefined,
  lang: string | null,
): string[] {
  const ofSite = session.get().work.get('')
  const ofResults = useQuestionsOfResults(phrases)
  return useMemo(() => {
    const pagePhrases = new Set(phrases.map((p) => wordFormsOf(p, lang)))
    const stems = phrases.map((p) => compileKeyword(p, lang).stems)
    const ofPhrases = phrasesOf(ofSite ?? {})
      .map(({ phrase }) => phrase)
      .filter((phrase) => isQuestion(phrase, lang))
      .filter((phrase) => {
        const has = new Set(compileKeyword(phrase, lang).stems)
        return (
          pagePhrases.has(wordFormsOf(phrase, lang)) ||
          stems.some((s) => s.length > 0 && s.every((x) => has.has(x)))
        )
      })
    const asked = new Set((blocks ?? []).map((b) => asAsked(b.text)))
    const open = new Map<string, string>()
    for (const question of [...ofPhrases, ...ofResults])
      if (!asked.has(asAsked(question)) && !open.has(asAsked(question)))
        open.set(asAsked(question), asSentence(question))
    return [...open.values()].slice(0, MOST)
  }, [ofSite, ofResults, phrases, blocks, lang])
}

/** What the results of these phrases were answered with, as far as it is kept: nobody is asked for it here. */
function useQuestionsOfResults(phrases: readonly string[]): string[] {
  const kept = useAnswer(
    () => answersKept<ResultsQuestion, ResultsAnswer>('results').catch(() => []),
    [phrases],
  )
  return useMemo(() => {
    const pagePhrases = new Set(phrases.map((phrase) => phrase.trim().toLowerCase()))
    return (kept ?? [])
      .filter(({ question }) => pagePhrases.has(question.phrase))
      .flatMap(({ answer }) => answer.questions)
  }, [kept, phrases])
}

/** A question as it is compared. */
const asAsked = (question: string): string => sameWording(question).replace(/\?$/, '')

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
