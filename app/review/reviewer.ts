/** Who reviews in this browser: the name that stays with what is approved and sent back. */
import { useEffect, useState } from 'react'
import { db } from '../store/db.ts'

const KEY = 'reviewer'

export const rememberReviewer = (name: string): Promise<string> =>
  db.settings.put({ key: KEY, value: name.trim() })

let known: string | null = null
const listeners = new Set<(name: string) => void>()

/** The name as it is typed, the same wherever it is shown. */
export function useReviewer(): [string, (name: string) => void] {
  const [name, setName] = useState(known ?? '')
  useEffect(() => {
    listeners.add(setName)
    if (known === null)
      void db.settings.get(KEY).then((record) => {
        if (known === null) tell(typeof record?.value === 'string' ? record.value : '')
      })
    return () => void listeners.delete(setName)
  }, [])
  return [name, tell]
}

function tell(name: string): void {
  known = name
  for (const listener of listeners) listener(name)
}
