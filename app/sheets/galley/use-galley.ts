/** The galley's view from the worker: of what stays from one answer to the next only a number comes over. */
import { useEffect, useRef, useState } from 'react'
import type { PageId } from '../../../core/site/page-identity.ts'
import type { Decisions } from '../../../core/work/decisions.ts'
import type { Session } from '../../session/session.ts'
import { core } from '../../workers/client.ts'
import type { GalleyView } from '../../workers/galley.ts'
import type { PageView } from '../../workers/page-view.ts'

interface Asked {
  page: PageId
  decisions: Decisions
  helpers: readonly string[]
  view: PageView
  isAhead: boolean
}

/** Null until the first answer; the one before stands until the newer one is there. */
export function useGalley(
  session: Session,
  page: PageId,
  decisions: Decisions,
  view: PageView | null,
  helpers: readonly string[],
): GalleyView | null {
  const [galley, setGalley] = useState<GalleyView | null>(null)
  const [failed, setFailed] = useState<{ error: unknown } | null>(null)
  /** The last answer that came, shown or not: what the next one is told against. */
  const held = useRef<{ edition: number; blocks: GalleyView['blocks'] } | null>(null)
  /** Which of the worker's answers is waited for; one at a time, and only the newest question waits. */
  const asking = useRef<{ of: object; again: boolean } | null>(null)
  /** What was asked for last; `isAhead` while the view that the same key brings is still to come. */
  const last = useRef<Asked | null>(null)
  useEffect(() => {
    if (!view) return
    const before = last.current
    const isSamePage = before?.page === page
    // The question goes out with the key: the view of the same decisions has nothing new for it.
    if (isSamePage && before.isAhead && before.decisions === decisions && before.helpers === helpers) {
      last.current = { ...before, view, isAhead: false }
      return
    }
    const isTyped = isSamePage && before.decisions !== decisions && before.view === view
    last.current = { page, decisions, helpers, view, isAhead: isTyped }
    if (asking.current?.of === session) {
      asking.current.again = true
      return
    }
    const turn = { of: session, again: true }
    asking.current = turn
    async function ask() {
      while (turn.again) {
        turn.again = false
        const { page, helpers } = last.current!
        const before = held.current
        const answer = await core().galleyOf(
          page,
          session.decisionsOf(page),
          [...helpers],
          before?.edition ?? null,
        )
        if (!answer) continue
        const blocks = answer.blocks.map((block) =>
          typeof block === 'number' ? before!.blocks[block]! : block,
        )
        held.current = { edition: answer.edition, blocks }
        if (last.current!.page === page) setGalley({ ...answer, blocks })
      }
    }
    ask()
      .catch((error: unknown) => {
        if (last.current?.page === page) setFailed({ error })
      })
      .finally(() => {
        if (asking.current === turn) asking.current = null
      })
  }, [session, page, decisions, view, helpers])
  if (failed) throw failed.error
  return galley
}
