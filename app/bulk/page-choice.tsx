import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'
import type { PageId } from '../../core/site/page-identity.ts'

/** A page in a change of many. */
export interface ChoosablePage {
  id: PageId
  path: string
}

/**
 * The pages of a change, one below the other however many they are, each with what it would come to and a box to leave
 * it out. Space ticks; where `onShow` is given, a page's line shows it beside the list.
 */
export function PageChoice<P extends ChoosablePage>({
  pages,
  leftOut,
  onLeaveOut,
  line,
  nameOf = (page) => page.path,
  canChange = () => true,
  shown,
  onShow,
  height,
  rowHeight = 40,
}: {
  pages: P[]
  leftOut: ReadonlySet<PageId>
  onLeaveOut(pages: PageId[], out: boolean): void
  line(page: P): React.ReactNode
  /** What the box is called for those who do not see the line. */
  nameOf?(page: P): string
  canChange?(page: P): boolean
  shown?: PageId | null
  onShow?(page: PageId): void
  /** The most that the list takes, in px. */
  height: number
  /** About how high a line is, in px. */
  rowHeight?: number
}) {
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: pages.length,
    getScrollElement: () => box.current,
    getItemKey: (i) => pages[i]!.id,
    estimateSize: () => rowHeight,
    overscan: 8,
    initialRect: { width: 600, height },
  })
  return (
    <div
      ref={box}
      className="overflow-auto"
      style={{ maxHeight: height }}
      tabIndex={0}
      role="group"
      aria-label="Pages"
    >
      <ul className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const page = pages[item.index]!
          return (
            <li
              key={item.key}
              ref={virtual.measureElement}
              data-index={item.index}
              data-choice={page.path}
              className="absolute right-0 left-0 flex items-baseline gap-3 border-b border-rule-2 py-1.5"
              style={{ top: item.start }}
            >
              <input
                type="checkbox"
                aria-label={nameOf(page)}
                checked={canChange(page) && !leftOut.has(page.id)}
                disabled={!canChange(page)}
                onChange={(e) => onLeaveOut([page.id], !e.target.checked)}
              />
              {onShow ? (
                <button
                  type="button"
                  className={`min-w-0 flex-1 text-left hover:underline ${shown === page.id ? 'font-semibold' : ''}`}
                  aria-pressed={shown === page.id}
                  onClick={() => onShow(page.id)}
                >
                  {line(page)}
                </button>
              ) : (
                <div className="min-w-0 flex-1">{line(page)}</div>
              )}
              <span className="w-44 truncate pr-1 text-right text-[12px] text-ink-3" title={page.path}>
                {page.path}
              </span>
            </li>
          )
        })}
      </ul>
    </div>
  )
}
