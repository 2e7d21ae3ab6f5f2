import { useEffect, useState } from 'react'

/**
 * What the worker answers: asked when the view opens and again when one of `on` changes, after `rest` milliseconds in
 * which nothing changed more. The answer before stands until the newer one is there, and an older question's answer is
 * never shown for a newer one. Null until the first; without an `ask` nothing is asked and what was known stays.
 */
export function useAnswer<T>(
  ask: (() => Promise<T>) | null,
  on: readonly unknown[],
  rest: number | null = null,
): T | null {
  const [answer, setAnswer] = useState<T | null>(null)
  useEffect(() => {
    if (!ask) return
    let stale = false
    const go = () => void ask().then((found) => !stale && setAnswer(found))
    let timer: ReturnType<typeof setTimeout> | null = null
    if (rest === null) go()
    else timer = setTimeout(go, rest)
    return () => {
      stale = true
      if (timer) clearTimeout(timer)
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- whoever asks says what the question hangs on
  }, on)
  return answer
}
