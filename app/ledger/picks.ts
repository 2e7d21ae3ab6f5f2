/** The pages that are picked for a change of many: one by one, in a stretch, or all that are shown. */
import { useState } from 'react'
import type { PageId } from '../../core/site/page-identity.ts'

export interface Picks {
  picked: ReadonlySet<PageId>
  /** Picks or leaves one; with `toHere`, all from the last one that was picked. */
  pick(shown: readonly { id: PageId }[], index: number, toHere: boolean): void
  /** Picks all that are shown, or none. */
  pickAll(shown: readonly { id: PageId }[], on: boolean): void
}

export function usePicks(): Picks {
  const [picked, setPicked] = useState<ReadonlySet<PageId>>(new Set())
  const [last, setLast] = useState<PageId | null>(null)
  return {
    picked,
    pick(shown, index, toHere) {
      const page = shown[index]
      if (!page) return
      const from = toHere ? shown.findIndex(({ id }) => id === last) : -1
      const [first, end] = from < 0 ? [index, index] : [Math.min(from, index), Math.max(from, index)]
      setPicked((now) => {
        const next = new Set(now)
        const on = from >= 0 || !now.has(page.id)
        for (const { id } of shown.slice(first, end + 1))
          if (on) next.add(id)
          else next.delete(id)
        return next
      })
      setLast(page.id)
    },
    pickAll(shown, on) {
      setPicked(on ? new Set(shown.map(({ id }) => id)) : new Set())
    },
  }
}
