/**
 * An outside service asked through our own server: what was answered today is not asked for again; what was known before
 * stays when nobody answers.
 */
import { useEffect, useState } from 'react'
import { answerKept, keepAnswer } from '../store/answers.ts'
import { today } from './today.ts'

export type Told<Answer> =
  | { state: 'asking' }
  /** `problem` says why a newer answer could not be had. */
  | { state: 'answered'; answer: Answer; source: string; date: string; problem: string | null }
  | { state: 'failed'; why: string; off: boolean }

type FromServer<Answer> =
  { ok: true; answer: Answer; source: string } | { ok: false; off: boolean; why: string }

/** `service` is the address of our own server's route. Null while nothing is asked; `again` counts how often it is asked anew. */
export function useService<Answer>(
  service: string,
  question: object | null,
  again: number,
): Told<Answer> | null {
  const key = JSON.stringify([question, again])
  const [known, setKnown] = useState<{ key: string; told: Told<Answer> } | null>(null)
  useEffect(() => {
    if (!question) return
    const stop = new AbortController()
    void ask<Answer>(service, question, again > 0, stop.signal).then((told) => {
      if (!stop.signal.aborted) setKnown({ key, told })
    })
    return () => stop.abort()
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the question is a value, and its key says when it is another
  }, [service, key])
  return question && (known?.key === key ? known.told : { state: 'asking' })
}

/** Asks once, as the sheet and the run over all pages do. */
export async function ask<Answer>(
  service: string,
  question: object,
  anew: boolean,
  signal: AbortSignal,
): Promise<Told<Answer>> {
  const kept = await answerKept<Answer>(service, question).catch(() => null)
  const date = today()
  if (kept && kept.date === date && !anew) return { state: 'answered', ...kept, problem: null }
  const asked = await fromServer<Answer>(service, question, signal)
  if (asked.ok) {
    const { answer, source } = asked
    await keepAnswer(service, question, { date, source, answer }).catch(() => {})
    return { state: 'answered', answer, source, date, problem: null }
  }
  return kept
    ? { state: 'answered', ...kept, problem: asked.why }
    : { state: 'failed', why: asked.why, off: asked.off }
}

/** Whether a service is switched off on this server; not as long as nobody says so. */
export function useServiceOff(service: string): boolean {
  const [off, setOff] = useState(false)
  useEffect(() => {
    const stop = new AbortController()
    fetch(`/${service}`, { signal: stop.signal })
      .then(async (response) => setOff(((await response.json()) as { off?: unknown }).off === true))
      .catch(() => {})
    return () => stop.abort()
  }, [service])
  return off
}

async function fromServer<Answer>(
  service: string,
  question: object,
  signal: AbortSignal,
): Promise<FromServer<Answer>> {
  try {
    const response = await fetch(`/${service}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(question),
      signal,
    })
    if (!response.ok) return { ok: false, off: false, why: await response.text() }
    return (await response.json()) as FromServer<Answer>
  } catch {
    return {
      ok: false,
      off: false,
      why: 'Keen Quill’s own server cannot be reached. Start it again, or take in a sheet.',
    }
  }
}
