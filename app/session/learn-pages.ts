/** Learning what all pages speak of, in small portions, as far as it is not known yet. */
import { useEffect, useState } from 'react'
import { core } from '../workers/client.ts'
import type { Session } from './session.ts'

const AT_ONCE = 20

export interface Progress {
  done: number
  of: number
}

/** Ends when everything is known, or at once when it is stopped: then false. */
export async function learnPages(
  session: Pick<Session, 'decisionsOf'>,
  onProgress: (progress: Progress) => void,
  signal: AbortSignal,
): Promise<boolean> {
  const pages = await core().pagesToLearn()
  for (let i = 0; i < pages.length; i += AT_ONCE) {
    if (signal.aborted) return false
    onProgress({ done: i, of: pages.length })
    await core().learnPages(
      pages.slice(i, i + AT_ONCE).map((page) => ({ page, decisions: session.decisionsOf(page) })),
    )
  }
  return !signal.aborted
}

/**
 * Learns while it is wanted, and again whenever `on` changes. `known` says that all of it is there; what is known of some
 * pages can be asked for before.
 */
export function useLearning(
  session: Session,
  wanted: boolean,
  on: unknown,
): { progress: Progress | null; known: boolean } {
  const [progress, setProgress] = useState<Progress | null>(null)
  const [knownFor, setKnownFor] = useState<unknown>(null)
  const [failed, setFailed] = useState<{ error: unknown } | null>(null)
  useEffect(() => {
    if (!wanted) return
    const stop = new AbortController()
    learnPages(session, setProgress, stop.signal)
      .then((whole) => {
        if (!whole) return
        setProgress(null)
        setKnownFor({ on })
      })
      .catch((error: unknown) => {
        if (!stop.signal.aborted) setFailed({ error })
      })
    return () => {
      stop.abort()
      setProgress(null)
    }
  }, [session, wanted, on])
  if (failed) throw failed.error
  return { progress, known: (knownFor as { on: unknown } | null)?.on === on && knownFor !== null }
}
