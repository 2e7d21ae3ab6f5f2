/** The galley's view from the worker: of what stays from one answer to the next only a number comes over. */
import { useEffect, useRef, useState } from 'react'
import type { PageId } from '../../../core/site/page-identity.ts'
import type { Session } from '../../session/session.ts'
import { core } from '../../workers/client.ts'
import type { GalleyView } from '../../workers/galley.ts'
import type { PageView } from '../../workers/page-view.ts'

/** Null until the first answer; the one before stands until the newer one is there. */
export function useGalley(
  session: Session,
  page: PageId,
  view: PageView | null,
  helpers: readonly string[],
): GalleyView | null {
  const [galley, setGalley] = useState<GalleyView | null>(null)
  const [failed, setFailed] = useState<{ error: unknown } | null>(null)
  /** The last answer that came, shown or not: what the next one is told against. */
  const held = useRef<{ edition: number; blocks: GalleyView['blocks'] } | null>(null)
  useEffect(() => {
    if (!view) return
    let stale = false
    async function ask() {
      const before = held.current
      const answer = await core().galleyOf(
        page,
        session.decisionsOf(page),
        [...helpers],
        before?.edition ?? null,
      )
      if (!answer) return
      const blocks = answer.blocks.map((block) =>
        typeof block === 'number' ? before!.blocks[block]! : block,
      )
      held.current = { edition: answer.edition, blocks }
      if (!stale) setGalley({ ...answer, blocks })
    }
    ask().catch((error: unknown) => {
      if (!stale) setFailed({ error })
    })
    return () => {
      stale = true
    }
  }, [session, page, view, helpers])
  if (failed) throw failed.error
  return galley
}
