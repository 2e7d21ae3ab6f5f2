/** What the view is for, in one line at its head, until somebody has worked in it. */
import { useEffect, useState } from 'react'
import { useLocation } from 'react-router'
import { runCommand } from '../ui/command-registry.ts'
import { markUsed, useUsedViews } from './used.ts'
import { viewAt, views, type ViewId } from './views.ts'

export function Purpose() {
  const { pathname, search } = useLocation()
  const view = viewAt(pathname, search)
  return view && <PurposeOf key={view} view={view} />
}

/** To go elsewhere is not to work here. */
const isWork = (target: Element): boolean =>
  target.closest('nav, [role=tablist]') === null && target.closest('button, [role=gridcell]') !== null

function PurposeOf({ view }: { view: ViewId }) {
  const used = useUsedViews()
  // The line stays until the view is left: nothing may jump under the hand that has just begun.
  const [wasUsed] = useState(() => used.has(view))
  const [isAway, putAway] = useState(false)
  useEffect(() => {
    const main = document.getElementById('main')
    if (!main) return
    const use = (e: Event) => {
      if (e.type === 'input' || isWork(e.target as Element)) markUsed(view)
    }
    main.addEventListener('input', use)
    main.addEventListener('click', use)
    return () => {
      main.removeEventListener('input', use)
      main.removeEventListener('click', use)
    }
  }, [view])
  const { name, purpose } = views[view]
  if (wasUsed || isAway || !purpose) return null
  return (
    <aside
      aria-label="What this view is for"
      className="flex flex-wrap items-baseline gap-x-5 border-b border-rule-2 px-6 py-1.5 text-[13px] text-ink-2 max-[700px]:px-4"
      data-testid="purpose"
    >
      <span>
        <span className="font-serif text-[14px] text-ink italic">{name}:</span> {purpose}
      </span>
      <span className="ml-auto flex gap-5 whitespace-nowrap max-[700px]:ml-0">
        <button type="button" className="quiet" onClick={() => runCommand('guide')}>
          Guide
        </button>
        <button
          type="button"
          className="quiet"
          onClick={() => {
            markUsed(view)
            putAway(true)
          }}
        >
          Understood
        </button>
      </span>
    </aside>
  )
}
