import { useEffect, useState } from 'react'
import { shareEqual } from './share-equal.ts'

/**
 * What the worker answers: asked when the view opens and again when one of `on` changes, after `rest` milliseconds in
 * which nothing changed more. The answer before stands until the newer one is there, and an older question's answer is
 * never shown for a newer one; of what it says, parts that say the same are the same objects. Null until the first; without an `ask` nothing is asked and what was known stays. What
 * goes wrong is thrown where the answer is shown, for the boundary around the view.
 */
export function useAnswer<T>(
  ask: (() => Promise<T>) | null,
  on: readonly unknown[],
  rest: number | null = null,
): T | null {
  const [answer, setAnswer] = useState<T | null>(null)
  const [failed, setFailed] = useState<{ error: unknown } | null>(null)
  useEffect(() => {
    if (!ask) return
    let stale = false
    const go = () =>
      void ask().then(
        (found) => !stale && setAnswer((before) => shareEqual(before, found)),
        (error: unknown) => !stale && setFailed({ error }),
      )
    let timer: ReturnType<typeof setTimeout> | null = null
    if (rest === null) go()
    else timer = setTimeout(go, rest)
    return () => {
      stale = true
      if (timer) clearTimeout(timer)
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- whoever asks says what the question hangs on
  }, on)
  if (failed) throw failed.error
  return answer
}
