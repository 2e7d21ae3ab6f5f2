/** Which views somebody has worked in, in this browser: what a view is for need not be said there any more. */
import { useSyncExternalStore } from 'react'

const KEY = 'keen-quill-used-views'
const listeners = new Set<() => void>()
let kept: string | null = null
let used: ReadonlySet<string> = new Set()

/** What is kept may come from another version, or from anybody: only names count, and only so many. */
function read(): ReadonlySet<string> {
  const now = localStorage.getItem(KEY)
  if (now !== kept) {
    kept = now
    used = new Set((now ?? '').slice(0, 2000).split(' ').filter(Boolean))
  }
  return used
}
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}
const none: ReadonlySet<string> = new Set()

export const useUsedViews = (): ReadonlySet<string> => useSyncExternalStore(subscribe, read, () => none)

export function markUsed(view: string): void {
  if (read().has(view)) return
  localStorage.setItem(KEY, [...read(), view].join(' '))
  for (const listener of listeners) listener()
}
