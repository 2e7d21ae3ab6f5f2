/** Demand for a topic: what was answered today is not asked for again; what was known before stays when nobody answers. */
import { useEffect, useState } from 'react'
import type { DemandAnswer, DemandQuestion } from '../../core/keywords/demand.ts'
import { today } from '../session/session.ts'
import { answerKept, keepAnswer } from '../store/answers.ts'

export type Demand =
  | { state: 'asking' }
  /** `problem` says why a newer answer could not be had. */
  | { state: 'answered'; answer: DemandAnswer; source: string; date: string; problem: string | null }
  | { state: 'failed'; why: string; off: boolean }

/** Null while nothing is asked. */
export function useDemand(question: DemandQuestion | null, again: number): Demand | null {
  const key = JSON.stringify([question, again])
  const [known, setKnown] = useState<{ key: string; demand: Demand } | null>(null)
  useEffect(() => {
    if (!question) return
    const stop = new AbortController()
    void ask(question, again > 0, stop.signal).then((demand) => {
      if (!stop.signal.aborted) setKnown({ key, demand })
    })
    return () => stop.abort()
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the question is a value, and its key says when it is another
  }, [key])
  return question && (known?.key === key ? known.demand : { state: 'asking' })
}

async function ask(question: DemandQuestion, anew: boolean, signal: AbortSignal): Promise<Demand> {
  const kept = await answerKept<DemandAnswer>('demand', question).catch(() => null)
  const date = today()
  if (kept && kept.date === date && !anew) return { state: 'answered', ...kept, problem: null }
  const asked = await fromServer(question, signal)
  if (asked.ok) {
    const { answer, source } = asked
    await keepAnswer('demand', question, { date, source, answer }).catch(() => {})
    return { state: 'answered', answer, source, date, problem: null }
  }
  return kept
    ? { state: 'answered', ...kept, problem: asked.why }
    : { state: 'failed', why: asked.why, off: asked.off }
}

/** Whether looking phrases up is switched off on this server; not as long as nobody says so. */
export function useDemandOff(): boolean {
  const [off, setOff] = useState(false)
  useEffect(() => {
    const stop = new AbortController()
    fetch('/demand', { signal: stop.signal })
      .then(async (response) => setOff(((await response.json()) as { off?: unknown }).off === true))
      .catch(() => {})
    return () => stop.abort()
  }, [])
  return off
}

type FromServer =
  { ok: true; answer: DemandAnswer; source: string } | { ok: false; off: boolean; why: string }
async function fromServer(question: DemandQuestion, signal: AbortSignal): Promise<FromServer> {
  try {
    const response = await fetch('/demand', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(question),
      signal,
    })
    if (!response.ok) return { ok: false, off: false, why: await response.text() }
    return (await response.json()) as FromServer
  } catch {
    return {
      ok: false,
      off: false,
      why: 'Keen Quill’s own server cannot be reached. Start it again, or take in a sheet of phrases.',
    }
  }
}
