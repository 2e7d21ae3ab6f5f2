/** Phrases that the site's own titles, headings and links use: its pages are read, with progress and a way out. */
import { useEffect, useRef } from 'react'
import type { Phrase } from '../../core/keywords/phrases.ts'
import { useLearning } from '../session/learn-pages.ts'
import type { Session } from '../session/session.ts'
import { today } from '../session/today.ts'
import { core } from '../workers/client.ts'
import type { SiteKeywords } from './site-keywords.ts'

const MOST = 1000

export function SitePhrases({
  session,
  keywords,
  onFound,
  onCancel,
}: {
  session: Session
  keywords: SiteKeywords
  onFound(phrases: Phrase[]): void
  onCancel(): void
}) {
  const { progress, known } = useLearning(session, true, null)
  const newest = useRef(onFound)
  useEffect(() => void (newest.current = onFound))
  useEffect(() => {
    if (!known) return
    let stale = false
    void core()
      .sitePhrases(MOST)
      .then((found) => {
        if (stale) return
        newest.current(
          found.map(({ phrase }) => ({
            phrase,
            monthly: null,
            months: null,
            source: 'the site itself',
            date: today(),
            market: null,
            place: null,
          })),
        )
      })
    return () => {
      stale = true
    }
  }, [known])
  return (
    <p className="mt-4 flex items-center gap-3 text-ink-2" role="status">
      <progress value={progress?.done ?? 0} max={progress?.of ?? 1} aria-label="Pages read" />
      Reading {keywords.rows.size.toLocaleString('en')} pages …
      <button type="button" className="quiet" onClick={onCancel}>
        Cancel
      </button>
    </p>
  )
}
