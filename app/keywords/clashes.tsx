/** Where pages are after the same phrase: side by side, with what each page is, and one step to settle it. */
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { AssignedPage, Clash } from '../../core/keywords/keyword-map.ts'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'
import { shownPath } from '../ui/shown-path.ts'
import { assignPhrases, pageName, type SiteKeywords } from './site-keywords.ts'

/** So many are drawn at a time. */
const MOST = 30
const MOST_PAGES = 6

export function Clashes({ session, keywords }: { session: Session; keywords: SiteKeywords }) {
  const { clashes } = keywords.map
  const [open, setOpen] = useState(false)
  if (clashes.length === 0) return null
  return (
    <details
      className="mt-3 border-t border-b border-rule py-2"
      open={open}
      onToggle={(e) => setOpen(e.currentTarget.open)}
      data-testid="clashes"
    >
      <summary className="cursor-pointer font-serif text-[17px]">
        {plural(clashes.length, 'clash', 'clashes')}{' '}
        <span className="font-sans text-[13px] text-ink-2">
          pages that are after the same phrase compete with each other
        </span>
      </summary>
      {open && (
        <ul className="mt-2 max-h-72 overflow-auto">
          {clashes.slice(0, MOST).map((clash) => (
            <ClashLine
              key={`${clash.kind} ${clash.phrase}`}
              session={session}
              keywords={keywords}
              clash={clash}
            />
          ))}
        </ul>
      )}
      {open && clashes.length > MOST && (
        <p className="text-[13px] text-ink-2">
          And {plural(clashes.length - MOST, 'more clash', 'more clashes')}, shown as these are settled.
        </p>
      )}
    </details>
  )
}

function ClashLine({ session, keywords, clash }: { session: Session; keywords: SiteKeywords; clash: Clash }) {
  const { kind, phrase, pages } = clash
  const keepFor = (kept: AssignedPage) => {
    const row = keywords.rows.get(kept.id)
    void assignPhrases(
      session,
      `“${phrase}” for ${row ? pageName(row) : 'one page'} alone`,
      pages.filter((p) => p !== kept).map((p) => ({ page: p.id, phrase: p.phrase, role: null })),
    )
  }
  return (
    <li className="border-t border-rule-2 py-2" data-clash={phrase}>
      <p className="text-[13px] text-ink-2">
        {kind === 'same' ? (
          <>
            {plural(pages.length, 'page')} for <b className="font-serif text-[15px] text-ink">{phrase}</b>
          </>
        ) : (
          <>
            <b className="font-serif text-[15px] text-ink">{phrase}</b> is part of what{' '}
            {plural(pages.length - 1, 'other page is', 'other pages are')} for
          </>
        )}
      </p>
      <div className="mt-1 flex flex-wrap gap-x-8 gap-y-2">
        {pages.slice(0, MOST_PAGES).map((page) => (
          <ClashPage
            key={page.id}
            keywords={keywords}
            page={page}
            onKeep={kind === 'same' ? () => keepFor(page) : null}
          />
        ))}
        {pages.length > MOST_PAGES && (
          <span className="text-[13px] text-ink-2">and {pages.length - MOST_PAGES} more</span>
        )}
      </div>
    </li>
  )
}

function ClashPage({
  keywords,
  page,
  onKeep,
}: {
  keywords: SiteKeywords
  page: AssignedPage
  onKeep: (() => void) | null
}) {
  const { siteId } = useParams()
  const row = keywords.rows.get(page.id)
  if (!row) return null
  return (
    <div className="w-[280px] text-[13px]">
      <p className="truncate font-serif text-[16px]" title={row.title ?? undefined}>
        <Link className="hover:underline" to={`/sites/${siteId}/desk?page=${encodeURIComponent(row.path)}`}>
          {row.title || pageName(row)}
        </Link>
      </p>
      <p className="truncate text-ink-2">
        {shownPath(row)}, {plural(row.words, 'word')}
        {row.h1 && row.h1 !== row.title && `, H1 “${row.h1}”`}
      </p>
      <p>
        {page.role}: “{page.phrase}”{' '}
        {onKeep && (
          <button type="button" className="quiet ml-2" onClick={onKeep}>
            Only this page
          </button>
        )}
      </p>
    </div>
  )
}
