/** What a step would come to on the pages that are picked; asked once typing rests, and anew when the step changes. */
import { useEffect, useState } from 'react'
import type { BulkStep } from '../../core/work/bulk/step.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { Session } from '../session/session.ts'
import type { BulkPreview } from '../workers/bulk.ts'
import { core } from '../workers/client.ts'
import { reported } from '../workers/reported.ts'

const REST = 250

export interface Previewing {
  /** Null as long as nothing was asked or the first answer is on its way. */
  preview: BulkPreview | null
  /** While pages are looked at. */
  progress: { done: number; of: number } | null
}

export function useBulkPreview(
  session: Session,
  step: BulkStep | null,
  pages: readonly PageId[],
): Previewing {
  const key = JSON.stringify(step)
  const [known, setKnown] = useState<{ key: string; preview: BulkPreview } | null>(null)
  const [progress, setProgress] = useState<{ key: string; done: number } | null>(null)
  const [failed, setFailed] = useState<{ error: unknown } | null>(null)
  useEffect(() => {
    if (!step) return
    let stale = false
    const timer = setTimeout(() => {
      reported(
        (done: number) => {
          if (!stale) setProgress({ key, done })
        },
        (report) =>
          core().bulkPreview(
            step,
            pages.map((id) => ({ id, decisions: session.decisionsOf(id) })),
            report,
          ),
      )
        .then((preview) => {
          if (!stale && preview) setKnown({ key, preview })
        })
        .catch((error: unknown) => {
          if (!stale) setFailed({ error })
        })
        .finally(() => {
          if (!stale) setProgress(null)
        })
    }, REST)
    return () => {
      stale = true
      clearTimeout(timer)
      void core().cancelBulk()
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the step is a value, and its key says when it is another
  }, [key, pages, session])
  if (failed) throw failed.error
  const isKnown = step !== null && known?.key === key
  return {
    preview: isKnown ? known.preview : null,
    progress: progress?.key === key ? { done: progress.done, of: pages.length } : null,
  }
}
