/** Phrases by demand, one below the other however many they are. */
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'
import type { FoldedPhrase } from '../../core/keywords/phrases.ts'
import { wordsIn } from '../../core/keywords/phrases.ts'
import { isQuestion } from '../../core/words/questions.ts'
import type { AssignedPage } from '../../core/keywords/keyword-map.ts'
import { plural } from '../ui/plural.ts'
import { MonthsLine } from './months-line.tsx'
import { pageName, type SiteKeywords } from './site-keywords.ts'

const tracks = { gridTemplateColumns: '26px minmax(200px, 1fr) 84px 120px 52px minmax(150px, 220px)' }
const line = 'grid items-center gap-x-4 px-3'

export function PhraseTable({
  phrases,
  keywords,
  withSource = false,
  kept,
  onKeep,
  onPage,
}: {
  phrases: FoldedPhrase[]
  keywords: SiteKeywords
  /** Whether it is said where each comes from, and of when it is. */
  withSource?: boolean
  /** Whether a phrase is on the site's list. */
  kept(phrase: FoldedPhrase): boolean
  onKeep(phrase: FoldedPhrase, keep: boolean): void
  /** Asks which page a phrase is for. */
  onPage(phrase: FoldedPhrase): void
}) {
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: phrases.length,
    getScrollElement: () => box.current,
    getItemKey: (i) => phrases[i]!.key,
    estimateSize: () => 40,
    overscan: 8,
    initialRect: { width: 900, height: 460 },
  })
  return (
    <div
      role="table"
      aria-label="Phrases"
      aria-rowcount={phrases.length + 1}
      className="sheet max-[700px]:overflow-x-auto"
      data-testid="phrase-table"
    >
      <div
        role="row"
        aria-rowindex={1}
        className={`${line} max-[700px]:min-w-[680px] border-b border-ink py-2 text-[12.5px] font-semibold`}
        style={tracks}
      >
        <span role="columnheader">
          <span className="sr-only">On the site’s list</span>
        </span>
        <span role="columnheader">Phrase</span>
        <span role="columnheader" className="text-right">
          A month
        </span>
        <span role="columnheader">Twelve months</span>
        <span role="columnheader">Words</span>
        <span role="columnheader">Page</span>
      </div>
      <div
        ref={box}
        role="rowgroup"
        className="h-[calc(100vh-352px)] min-h-64 overflow-auto max-[700px]:min-w-[680px]"
        tabIndex={-1}
      >
        <div role="presentation" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const folded = phrases[item.index]!
            const { phrase, forms } = folded
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                data-phrase={phrase.phrase}
                role="row"
                aria-rowindex={item.index + 2}
                className={`${line} absolute right-0 left-0 border-b border-rule-2 py-1`}
                style={{ ...tracks, top: item.start }}
              >
                <span role="cell">
                  <input
                    type="checkbox"
                    aria-label={`Keep “${phrase.phrase}”`}
                    checked={kept(folded)}
                    onChange={(e) => onKeep(folded, e.target.checked)}
                  />
                </span>
                <span role="cell" className="min-w-0">
                  <span className="font-serif text-[16px]">{phrase.phrase}</span>
                  {isQuestion(phrase.phrase, keywords.lang) && (
                    <span className="ml-2 text-[12px] text-ink-3 italic">question</span>
                  )}
                  {withSource && (
                    <span className="block truncate text-[12px] text-ink-3">
                      {phrase.source}, {phrase.place ? `${phrase.place}, ` : ''}
                      {phrase.date}
                    </span>
                  )}
                  {forms.length > 0 && (
                    <span className="block truncate text-[12px] text-ink-3" title={forms.join(', ')}>
                      also: {forms.join(', ')}
                    </span>
                  )}
                </span>
                <span role="cell" className="text-right tabular-nums">
                  {phrase.monthly === null ? (
                    <span className="text-ink-3">unknown</span>
                  ) : (
                    phrase.monthly.toLocaleString('en')
                  )}
                </span>
                <span role="cell">
                  {phrase.months && <MonthsLine months={phrase.months} asOf={phrase.date} />}
                </span>
                <span role="cell" className="text-[13px] text-ink-2 tabular-nums">
                  {wordsIn(phrase.phrase)}
                </span>
                <span role="cell" className="min-w-0 truncate text-[13px]">
                  <ForPage
                    pages={keywords.map.byForms.get(folded.key) ?? []}
                    keywords={keywords}
                    phrase={phrase.phrase}
                    onPage={() => onPage(folded)}
                  />
                </span>
              </div>
            )
          })}
        </div>
      </div>
    </div>
  )
}

/** The page that has a phrase, or a way to give it one. */
export function ForPage({
  pages,
  keywords,
  phrase,
  onPage,
}: {
  pages: readonly AssignedPage[]
  keywords: SiteKeywords
  phrase: string
  onPage(): void
}) {
  const [first, ...more] = pages
  const row = first && keywords.rows.get(first.id)
  if (!row)
    return (
      <button type="button" className="quiet" aria-label={`Choose a page for “${phrase}”`} onClick={onPage}>
        choose a page
      </button>
    )
  return (
    <button
      type="button"
      className="max-w-full truncate text-left text-quill hover:underline"
      aria-label={`“${phrase}” is for ${pageName(row)}; change`}
      title={row.url}
      onClick={onPage}
    >
      {pageName(row)}
      {first.role === 'secondary' && <span className="text-ink-3"> (secondary)</span>}
      {more.length > 0 && <span className="text-carmine"> and {plural(more.length, 'more page')}</span>}
    </button>
  )
}
