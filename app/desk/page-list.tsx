import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, useEffect, useMemo, useRef, useState } from 'react'
import type { SiteMarkCount } from '../ledger/order.ts'
import { shownPath } from '../ui/shown-path.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'

/** What a page is called in a list: its H1, else its title, else its path. */
const nameOf = (row: LedgerRow) => row.h1 || row.title || row.path

/**
 * The pages of the site to step through, with how many marks each has left that are more than nits. Drawn anew only when
 * what it is given changes, which typing alone does not.
 */
export const PageList = memo(function PageList({
  rows,
  page,
  siteMarks,
  onOpen,
}: {
  rows: LedgerRow[]
  page: PageId
  siteMarks: ReadonlyMap<PageId, SiteMarkCount>
  onOpen(path: string): void
}) {
  const [find, setFind] = useState('')
  const list = useRef<HTMLDivElement>(null)
  const wanted = find.trim().toLowerCase()
  const shown = useMemo(
    () =>
      wanted === ''
        ? rows
        : rows.filter((r) => `${r.path} ${r.title ?? ''} ${r.h1 ?? ''}`.toLowerCase().includes(wanted)),
    [rows, wanted],
  )
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => list.current,
    estimateSize: () => 54,
    overscan: 8,
    // The list's end lies below the window's edge while the line that says what a view is for stands above it.
    scrollPaddingEnd: 54,
    initialRect: { width: 205, height: 700 },
  })
  const at = shown.findIndex((r) => r.id === page)
  const { scrollToIndex } = virtual
  useEffect(() => {
    if (at >= 0) scrollToIndex(at)
  }, [at, scrollToIndex])

  return (
    <nav
      aria-label="Pages"
      className="sticky top-[52px] flex h-[calc(100vh-52px)] w-[206px] shrink-0 flex-col border-r border-rule max-[700px]:hidden"
    >
      <input
        type="search"
        aria-label="Find a page"
        placeholder="Find a page"
        className="mx-3.5 mt-4 mb-2 border-b border-ink-3 bg-transparent px-1 py-1.5"
        value={find}
        onChange={(e) => setFind(e.target.value)}
      />
      <div ref={list} className="min-h-0 flex-1 overflow-auto" tabIndex={-1}>
        {shown.length === 0 && <p className="px-5 py-3 text-ink-2">No page matches.</p>}
        <ul className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const row = shown[item.index]!
            const here = row.id === page
            const marks = row.blocker + row.flaw + (siteMarks.get(row.id)?.toMend ?? 0)
            return (
              <li key={row.id} className="absolute right-0 left-0" style={{ top: item.start, height: 54 }}>
                <button
                  type="button"
                  aria-current={here ? 'page' : undefined}
                  onClick={() => onOpen(row.path)}
                  className={`flex h-full w-full flex-col justify-center border-l-[3px] pr-3 pl-5 text-left ${here ? 'border-ink bg-paper' : 'border-transparent hover:bg-paper-2'}`}
                >
                  <span className="flex w-full gap-2">
                    <span className="min-w-0 flex-1 truncate">{nameOf(row)}</span>
                    {marks > 0 && (
                      <span
                        className="font-serif font-semibold text-carmine"
                        title={`${marks} marks to mend, nits aside`}
                      >
                        {marks}
                      </span>
                    )}
                  </span>
                  <span className="block w-full truncate text-[12px] text-ink-3">{shownPath(row)}</span>
                </button>
              </li>
            )
          })}
        </ul>
      </div>
    </nav>
  )
})
