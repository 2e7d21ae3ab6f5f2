/** What is said of the server and of new versions; beside the routes, as the palette is. */
import { useEffect } from 'react'
import { useServerGone } from './server-state.ts'
import { keepApplication } from './versions.ts'

let isKept = false

export function Offline() {
  const isGone = useServerGone()
  useEffect(() => {
    if (isKept) return
    isKept = true
    void keepApplication()
  }, [])
  if (!isGone) return null
  return (
    <aside
      aria-label="Without the server"
      className="border-b border-rule bg-paper-2 px-6 py-1.5 text-[13px] text-ink-2 max-[700px]:px-4"
      data-testid="server-gone"
    >
      <p role="status">
        Keen Quill’s server cannot be reached. Go on as usual: your work is kept in this browser, and hand-off
        works. Only fetching addresses and looking things up wait until it is back.
      </p>
    </aside>
  )
}
