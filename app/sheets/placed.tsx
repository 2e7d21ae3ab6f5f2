import { placementInWords } from '../../core/keywords/placement.ts'
import type { PageView } from '../workers/page-view.ts'

/** Where the page has its primary phrase and where it has not, in one line. */
export function Placed({ view }: { view: PageView | null }) {
  if (!view?.row.placement) return null
  return (
    <p className="mt-2 text-[13px] text-ink-2" data-testid="placement">
      “{view.row.phrase}” in {placementInWords(view.row.placement, view.style.limits.leadWords)}.
    </p>
  )
}
