/** Addresses with what becomes of each: drawn a few at a time, for a sitemap lists up to 50,000. */
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'

export interface AddressLine {
  url: string
  /** What becomes of it, in a few words; "" for nothing special. */
  says: string
  quiet: boolean
}

export function AddressesTable({
  lines,
  label,
  height = 380,
}: {
  lines: AddressLine[]
  label: string
  height?: number
}) {
  const box = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => box.current,
    estimateSize: () => 28,
    overscan: 12,
  })
  return (
    <div
      ref={box}
      role="list"
      aria-label={label}
      tabIndex={0}
      style={{ maxHeight: height }}
      className="overflow-auto border-y border-rule text-[13px]"
    >
      <div style={{ height: rows.getTotalSize() }} className="relative">
        {rows.getVirtualItems().map(({ index, start }) => {
          const line = lines[index]!
          return (
            <div
              key={index}
              role="listitem"
              aria-setsize={lines.length}
              aria-posinset={index + 1}
              style={{ transform: `translateY(${start}px)` }}
              className={`absolute inset-x-0 flex h-7 items-center gap-4 border-b border-rule-2 px-2 ${line.quiet ? 'text-ink-3' : ''}`}
            >
              <span className="min-w-0 flex-1 truncate font-mono text-[12px]" title={line.url}>
                {line.url}
              </span>
              <span className="max-w-[55%] shrink-0 truncate text-ink-2" title={line.says}>
                {line.says}
              </span>
            </div>
          )
        })}
      </div>
    </div>
  )
}
