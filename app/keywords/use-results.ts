/** The results that are kept for the site's phrases, and looking up those that are not. */
import { useEffect, useMemo, useRef, useState } from 'react'
import { resultsQuestion, type ResultsQuestion } from '../../core/keywords/results-question.ts'
import type { ResultsAnswer } from '../../core/results/line-up.ts'
import { ask } from '../session/use-service.ts'
import { answersKept, type AnswerKept } from '../store/answers.ts'
import { useAnswer } from '../workers/use-answer.ts'

export type ResultsKept = AnswerKept<ResultsQuestion, ResultsAnswer>
type Market = Pick<ResultsQuestion, 'market' | 'place' | 'language'>

export interface LookingUp {
  done: number
  of: number
  failed: number
}

/** Milliseconds between two questions to the service: it is somebody's. */
const PAUSE = 250
/** After so many failures in a row nobody is asked further. */
const MOST_FAILURES = 3

export function useResults({ market, place, language }: Market) {
  const [edition, setEdition] = useState(0)
  const all = useAnswer(() => answersKept<ResultsQuestion, ResultsAnswer>('results'), [edition])
  const kept = useMemo(
    () =>
      all &&
      new Map(
        all
          .filter(
            ({ question }) =>
              question.market === market &&
              question.place === (market === 'local' ? place.trim() : '') &&
              question.language === language,
          )
          .map((one) => [one.question.phrase, one]),
      ),
    [all, market, place, language],
  )
  const reload = () => setEdition((n) => n + 1)
  const [lookingUp, setLookingUp] = useState<LookingUp | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const stop = useRef<AbortController | null>(null)
  useEffect(() => () => stop.current?.abort(), [])

  /** One after the other, those of today left out; what fails is counted, and what was known stays. */
  async function lookUp(phrases: readonly string[]) {
    const controller = new AbortController()
    stop.current = controller
    setProblem(null)
    const progress = { done: 0, of: phrases.length, failed: 0 }
    setLookingUp({ ...progress })
    let failuresInRow = 0
    for (const phrase of phrases) {
      const before = Date.now()
      const told = await ask<ResultsAnswer>(
        'results',
        resultsQuestion(phrase, { market, place, language }),
        false,
        controller.signal,
      )
      if (controller.signal.aborted) break
      progress.done++
      const why = told.state === 'failed' ? told.why : told.state === 'answered' ? told.problem : null
      failuresInRow = why === null ? 0 : failuresInRow + 1
      if (why !== null) {
        progress.failed++
        setProblem(why)
        if (failuresInRow === MOST_FAILURES) break
      }
      setLookingUp({ ...progress })
      if (progress.done % 10 === 0) reload()
      // What was known already was answered at once.
      if (Date.now() - before > 5) await new Promise((resolve) => setTimeout(resolve, PAUSE))
    }
    stop.current = null
    setLookingUp(null)
    reload()
  }
  return { kept, lookingUp, problem, lookUp, cancel: () => stop.current?.abort(), reload }
}
