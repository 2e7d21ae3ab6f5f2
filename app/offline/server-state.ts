/** Whether Keen Quill's own server answers: asked when the page opens, when the network comes or goes, and now and then. */
import { useSyncExternalStore } from 'react'

/** While it is gone it is asked more often: somebody waits for it. */
const EVERY_MS = { there: 120_000, gone: 10_000 }

let isGone = false
let timer: ReturnType<typeof setTimeout> | undefined
const listeners = new Set<() => void>()

async function look(): Promise<void> {
  clearTimeout(timer)
  let gone: boolean
  try {
    // Whatever it answers, it is there. The service worker does not keep this address.
    await fetch('/alive', { method: 'HEAD', cache: 'no-store' })
    gone = false
  } catch {
    gone = true
  }
  // Several may have asked at once.
  clearTimeout(timer)
  timer = setTimeout(() => void look(), gone ? EVERY_MS.gone : EVERY_MS.there)
  if (gone === isGone) return
  isGone = gone
  for (const listener of listeners) listener()
}
const lookAgain = () => void look()

function subscribe(listener: () => void): () => void {
  if (listeners.size === 0) {
    addEventListener('online', lookAgain)
    addEventListener('offline', lookAgain)
    addEventListener('focus', lookAgain)
    void look()
  }
  listeners.add(listener)
  return () => {
    listeners.delete(listener)
    if (listeners.size > 0) return
    removeEventListener('online', lookAgain)
    removeEventListener('offline', lookAgain)
    removeEventListener('focus', lookAgain)
    clearTimeout(timer)
  }
}

/** Whether the server was found gone when it was last asked. */
export const useServerGone = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => isGone,
    () => false,
  )
