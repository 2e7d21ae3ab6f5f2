import { useDroppable } from '@dnd-kit/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'
import { Link, useParams } from 'react-router'
import type { PageId } from '../../core/site/page-identity.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Session } from '../session/session.ts'
import { shownPath } from '../ui/shown-path.ts'
import { assignPhrases, pageName } from './site-keywords.ts'

export interface MapPage {
  row: LedgerRow
  primary: string
  secondary: string[]
  phrases: string[]
}

/** The pages of the map with the phrases that each is for; a phrase can be dropped on one. */
export function MapPages({
  session,
  pages,
  most,
  onPhrase,
}: {
  session: Session
  pages: MapPage[]
  /** More phrases than this are too many for a page. */
  most: number
  /** Asks which phrase a page is for. */
  onPhrase(page: PageId): void
}) {
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: pages.length,
    getScrollElement: () => box.current,
    getItemKey: (i) => pages[i]!.row.id,
    estimateSize: () => 58,
    overscan: 8,
    initialRect: { width: 600, height: 460 },
  })
  return (
    <div
      ref={box}
      role="group"
      aria-label="Pages"
      tabIndex={0}
      className="sheet h-[calc(100vh-300px)] min-h-64 overflow-auto"
      data-testid="map-pages"
    >
      {pages.length === 0 && <p className="p-5 font-serif text-[16px]">No page is like that.</p>}
      <ul className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => (
          <li
            key={item.key}
            ref={virtual.measureElement}
            data-index={item.index}
            className="absolute right-0 left-0"
            style={{ top: item.start }}
          >
            <PageLine session={session} page={pages[item.index]!} most={most} onPhrase={onPhrase} />
          </li>
        ))}
      </ul>
    </div>
  )
}

function PageLine({
  session,
  page: { row, primary, secondary, phrases },
  most,
  onPhrase,
}: {
  session: Session
  page: MapPage
  most: number
  onPhrase(page: PageId): void
}) {
  const { setNodeRef, isOver } = useDroppable({ id: row.id })
  const { siteId } = useParams()
  const take = (phrase: string) =>
    void assignPhrases(session, `“${phrase}” removed from ${pageName(row)}`, [
      { page: row.id, phrase, role: null },
    ])
  return (
    <div
      ref={setNodeRef}
      data-page={row.path}
      className={`border-b border-rule-2 px-3 py-1.5 ${isOver ? 'bg-quill-soft' : ''}`}
    >
      <p className="flex items-baseline gap-3">
        <Link
          to={`/sites/${siteId}/desk?page=${encodeURIComponent(row.path)}`}
          className="min-w-0 truncate hover:underline"
          title={row.url}
        >
          {pageName(row)}
        </Link>
        <span className="ml-auto shrink-0 truncate text-[12px] text-ink-3">{shownPath(row)}</span>
      </p>
      <p className="flex flex-wrap items-baseline gap-x-3 text-[13px]">
        {phrases.length === 0 && <span className="text-ink-3 italic">no phrase yet</span>}
        {primary && <Phrase phrase={primary} isPrimary onTake={() => take(primary)} page={pageName(row)} />}
        {secondary.map((phrase) => (
          <Phrase key={phrase} phrase={phrase} onTake={() => take(phrase)} page={pageName(row)} />
        ))}
        {phrases.length > most && (
          <span className="text-carmine">
            {phrases.length} phrases, {most} at most
          </span>
        )}
        <button
          type="button"
          className="quiet ml-auto"
          aria-label={`Choose a phrase for ${pageName(row)}`}
          onClick={() => onPhrase(row.id)}
        >
          choose a phrase
        </button>
      </p>
    </div>
  )
}

function Phrase({
  phrase,
  isPrimary = false,
  onTake,
  page,
}: {
  phrase: string
  isPrimary?: boolean
  onTake(): void
  page: string
}) {
  return (
    <span className={isPrimary ? 'font-serif text-[15px] font-semibold' : 'font-serif text-[15px]'}>
      {phrase}{' '}
      <button
        type="button"
        className="px-1 text-[13px] text-ink-3 hover:text-ink"
        aria-label={`Remove “${phrase}” from ${page}`}
        title="Remove it"
        onClick={onTake}
      >
        ×
      </button>
    </span>
  )
}
