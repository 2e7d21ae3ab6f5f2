import { useDraggable } from '@dnd-kit/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { GripVertical } from 'lucide-react'
import { useRef } from 'react'
import type { AssignedPage } from '../../core/keywords/keyword-map.ts'
import { ForPage } from './phrase-table.tsx'
import type { SiteKeywords } from './site-keywords.ts'

export interface MapPhrase {
  key: string
  phrase: string
  monthly: number | null
  pages: AssignedPage[]
}

/** The phrases of the map, each with the page that it is for; ticked ones are suggested for together. */
export function MapPhrases({
  phrases,
  keywords,
  picked,
  onPick,
  onPage,
}: {
  phrases: MapPhrase[]
  keywords: SiteKeywords
  picked: ReadonlySet<string>
  onPick(key: string, on: boolean): void
  onPage(phrase: string): void
}) {
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: phrases.length,
    getScrollElement: () => box.current,
    getItemKey: (i) => phrases[i]!.key,
    estimateSize: () => 38,
    overscan: 10,
    initialRect: { width: 500, height: 460 },
  })
  return (
    <div
      ref={box}
      role="group"
      aria-label="Phrases"
      tabIndex={0}
      className="sheet h-[calc(100vh-300px)] min-h-64 overflow-auto"
      data-testid="map-phrases"
    >
      {phrases.length === 0 && (
        <p className="p-5 font-serif text-[16px]">
          No phrase is listed here. Find phrases first, or type one.
        </p>
      )}
      <ul className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const phrase = phrases[item.index]!
          return (
            <li
              key={item.key}
              ref={virtual.measureElement}
              data-index={item.index}
              data-phrase={phrase.phrase}
              className="absolute right-0 left-0 flex items-baseline gap-3 border-b border-rule-2 py-1.5 pr-3 pl-2"
              style={{ top: item.start }}
            >
              <Handle phrase={phrase.phrase} />
              <input
                type="checkbox"
                aria-label={`Pick “${phrase.phrase}”`}
                checked={picked.has(phrase.key)}
                onChange={(e) => onPick(phrase.key, e.target.checked)}
              />
              <span className="min-w-0 flex-1 font-serif text-[16px] leading-5">{phrase.phrase}</span>
              <span className="text-[12px] text-ink-3 tabular-nums">
                {phrase.monthly === null ? '' : phrase.monthly.toLocaleString('en')}
              </span>
              <span className="w-[45%] truncate text-right text-[13px]">
                <ForPage
                  pages={phrase.pages}
                  keywords={keywords}
                  phrase={phrase.phrase}
                  onPage={() => onPage(phrase.phrase)}
                />
              </span>
            </li>
          )
        })}
      </ul>
    </div>
  )
}

/** What a phrase is dragged by; with the keyboard the page is chosen from a list instead. */
function Handle({ phrase }: { phrase: string }) {
  const { setNodeRef, listeners } = useDraggable({ id: phrase })
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      aria-hidden
      data-handle
      className="cursor-grab touch-none self-center text-ink-3"
    >
      <GripVertical size={14} />
    </span>
  )
}
