/** Where the site's pages stand in the results for their phrases, and with whose wording; pages for frequent questions. */
import { useVirtualizer } from '@tanstack/react-virtual'
import { useMemo, useRef, useState } from 'react'
import { Link, useParams } from 'react-router'
import { toast } from 'sonner'
import type { KeywordRole } from '../../core/keywords/keyword-map.ts'
import { marketNames, sameWording, type Market } from '../../core/keywords/phrases.ts'
import { resultsQuestion } from '../../core/keywords/results-question.ts'
import { LINE_UP } from '../../core/results/line-up.ts'
import { ownResult, type OwnResult, type WhoseWording } from '../../core/results/own-result.ts'
import { keywordsOf } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Session } from '../session/session.ts'
import { useServiceOff } from '../session/use-service.ts'
import { Choice } from '../ui/choice.tsx'
import { FilePick } from '../ui/file-pick.tsx'
import { MarketChoice } from '../ui/market-choice.tsx'
import { plural } from '../ui/plural.ts'
import { shownPath } from '../ui/shown-path.ts'
import { tell } from '../ui/tell.ts'
import { ResultsSheet } from './results-sheet.tsx'
import { pageName, type SiteKeywords } from './site-keywords.ts'
import { useResults, type ResultsKept } from './use-results.ts'

interface PhraseOfPage {
  row: LedgerRow
  phrase: string
  role: KeywordRole
  /** Searches a month; null where nobody said. */
  monthly: number | null
  /** Undefined as long as nobody looked it up. */
  kept: ResultsKept | undefined
  result: OwnResult | null
}
type Filter = 'primary' | 'all' | 'seen' | 'not seen' | 'another wording' | 'not looked up' | 'questions'

const wordings: Record<WhoseWording, string> = {
  own: 'the page’s own',
  'own title': 'own title, another description',
  'own description': 'another title, own description',
  another: 'another than the page’s own',
}
const tracks = {
  gridTemplateColumns: 'minmax(180px, 1.2fr) minmax(150px, 1fr) 70px 84px minmax(150px, 1fr) 140px 130px',
}
const line = 'grid items-baseline gap-x-4 px-3'

export function ResultsView({ session, keywords }: { session: Session; keywords: SiteKeywords }) {
  const [market, setMarket] = useState<Market>('national')
  const [place, setPlace] = useState('')
  const [filter, setFilter] = useState<Filter>('primary')
  const [find, setFind] = useState('')
  const [sheet, setSheet] = useState<File | null>(null)
  const off = useServiceOff('results')
  const asked = { market, place, language: keywords.lang }
  const results = useResults(asked)
  const { kept, lookingUp, problem } = results
  const all = usePhrasesOfPages(session, keywords, kept, asked)
  const counts = useMemo(
    () =>
      Object.fromEntries(filters.map(({ value, has }) => [value, all.filter(has).length])) as Record<
        Filter,
        number
      >,
    [all],
  )
  const wanted = find.trim().toLowerCase()
  const shown = useMemo(() => {
    const { has } = filters.find((f) => f.value === filter)!
    return all.filter(
      (p) =>
        has(p) &&
        (wanted === '' || `${p.phrase} ${pageName(p.row)} ${p.row.path}`.toLowerCase().includes(wanted)),
    )
  }, [all, filter, wanted])
  const toLookUp = [...new Set(all.filter((p) => p.role === 'primary').map((p) => p.phrase.toLowerCase()))]
  const isPlaced = market !== 'local' || place !== ''
  return (
    <section aria-labelledby="results-view" data-testid="site-results">
      <h2 id="results-view" className="sr-only">
        In the results
      </h2>
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 pb-2 text-[13px]">
        <MarketChoice market={market} onMarket={setMarket} onPlace={setPlace} />
        <Choice
          label="Show"
          value={filter}
          options={filters.map(({ value, name }) => ({
            value,
            name: `${name}, ${counts[value].toLocaleString('en')}`,
          }))}
          onChange={(value) => setFilter(value)}
        />
        <input
          type="search"
          aria-label="Find a page or a phrase"
          placeholder="Find"
          className="w-28 border-b border-ink-3 bg-transparent px-1"
          value={find}
          onChange={(e) => setFind(e.target.value)}
        />
        {lookingUp ? (
          <span role="status" className="ml-auto flex items-baseline gap-4 text-ink-2">
            {lookingUp.done.toLocaleString('en')} of {plural(lookingUp.of, 'phrase')} looked up
            {lookingUp.failed > 0 && `, ${lookingUp.failed} failed`} …
            <button type="button" className="action" onClick={results.cancel}>
              Stop
            </button>
          </span>
        ) : (
          <span className="ml-auto flex items-baseline gap-5">
            {!off && (
              <button
                type="button"
                className="button"
                disabled={toLookUp.length === 0 || !isPlaced}
                title="One after the other; those of today are not asked for again"
                onClick={() =>
                  void tell('The phrases could not be looked up', () => results.lookUp(toLookUp))
                }
              >
                Look up {plural(toLookUp.length, 'primary phrase')}
              </button>
            )}
            <FilePick
              label="A sheet of results"
              accept=".csv,.tsv,.txt,.xlsx,.ods"
              title="Columns: phrase, position, address, title, description"
              testId="results-input"
              onFile={setSheet}
            >
              Results from a sheet …
            </FilePick>
          </span>
        )}
      </div>
      {problem !== null && (
        <p role="alert" className="mb-2 border-l-2 border-carmine pl-3 text-[13px]">
          {problem} What was known before is shown.
        </p>
      )}
      {filter === 'questions' && (
        <p className="pb-2 font-serif text-[15px] text-ink-2 italic">
          Inner pages that stand at 1 to {LINE_UP}: the places where answers to frequent questions are seen.
        </p>
      )}
      <PhrasesOfPages phrases={shown} isForQuestions={filter === 'questions'} hasAny={all.length > 0} />
      {sheet && (
        <ResultsSheet
          file={sheet}
          asked={asked}
          market={market === 'local' ? `in ${place || 'one place'}` : marketNames[market]}
          onClose={() => setSheet(null)}
          onKept={(phrases, unread) => {
            setSheet(null)
            results.reload()
            const left =
              unread.length > 0
                ? ` ${plural(unread.length, 'row')} left out; row ${unread[0]!.row}: ${unread[0]!.why}`
                : ''
            toast(`Results for ${plural(phrases, 'phrase')} taken in.${left}`, {
              duration: unread.length > 0 ? 12_000 : 4_000,
            })
          }}
        />
      )}
    </section>
  )
}

const isHome = ({ url }: LedgerRow) => new URL(url).pathname === '/'
const filters: { value: Filter; name: string; has(phrase: PhraseOfPage): boolean }[] = [
  { value: 'primary', name: 'primary phrases', has: (p) => p.role === 'primary' },
  { value: 'all', name: 'all phrases', has: () => true },
  { value: 'seen', name: 'seen in the first ten', has: (p) => (p.result?.position ?? 99) <= LINE_UP },
  { value: 'not seen', name: 'not among them', has: (p) => p.kept !== undefined && p.result === null },
  {
    value: 'another wording',
    name: 'with another wording',
    has: (p) => p.result !== null && p.result.wording !== 'own',
  },
  { value: 'not looked up', name: 'not looked up yet', has: (p) => p.kept === undefined },
  {
    value: 'questions',
    name: 'pages for frequent questions',
    has: (p) => p.result !== null && p.result.position <= LINE_UP && !isHome(p.row),
  },
]

function usePhrasesOfPages(
  session: Session,
  { rows, phrases, map, lang }: SiteKeywords,
  kept: ReadonlyMap<string, ResultsKept> | null,
  asked: Parameters<typeof resultsQuestion>[1],
): PhraseOfPage[] {
  const { market, place, language } = asked
  return useMemo(() => {
    const demand = new Map(phrases.map((p) => [sameWording(p.phrase), p.monthly]))
    return [...rows.values()]
      .flatMap((row) => {
        const keywords = keywordsOf(session.decisionsOf(row.id))
        if (!keywords) return []
        const of = (phrase: string, role: KeywordRole): PhraseOfPage => {
          const known = kept?.get(resultsQuestion(phrase, { market, place, language }).phrase)
          return {
            row,
            phrase,
            role,
            monthly: demand.get(sameWording(phrase)) ?? null,
            kept: known,
            result: known ? ownResult(known.answer, [row.url], [row]) : null,
          }
        }
        return [
          ...(keywords.primary ? [of(keywords.primary, 'primary')] : []),
          ...keywords.secondary.map((phrase) => of(phrase, 'secondary')),
        ]
      })
      .sort((a, b) => placeOf(a) - placeOf(b) || (a.row.url < b.row.url ? -1 : 1))
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the map is another when a page's keywords are
  }, [rows, phrases, map, lang, kept, session, market, place, language])
}
/** Those that are seen by their place, then those that are not, then those that nobody looked up. */
const placeOf = ({ kept, result }: PhraseOfPage) => result?.position ?? (kept ? 1000 : 2000)

function PhrasesOfPages({
  phrases,
  isForQuestions,
  hasAny,
}: {
  phrases: PhraseOfPage[]
  isForQuestions: boolean
  hasAny: boolean
}) {
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: phrases.length,
    getScrollElement: () => box.current,
    getItemKey: (i) => `${phrases[i]!.row.id} ${phrases[i]!.phrase}`,
    estimateSize: () => 50,
    overscan: 8,
    initialRect: { width: 1200, height: 460 },
  })
  return (
    <div
      role="table"
      aria-label="Phrases in the results"
      aria-rowcount={phrases.length + 1}
      className="sheet"
    >
      <div
        role="row"
        aria-rowindex={1}
        className={`${line} border-b border-ink py-2 text-[12.5px] font-semibold`}
        style={tracks}
      >
        <span role="columnheader">Page</span>
        <span role="columnheader">Phrase</span>
        <span role="columnheader" className="text-right">
          Place
        </span>
        <span role="columnheader" className="text-right">
          A month
        </span>
        <span role="columnheader">Wording shown</span>
        <span role="columnheader">As of</span>
        <span role="columnheader">
          <span className="sr-only">What to do</span>
        </span>
      </div>
      <div ref={box} role="rowgroup" className="h-[calc(100vh-214px)] min-h-64 overflow-auto" tabIndex={-1}>
        {phrases.length === 0 && (
          <p className="p-5 font-serif text-[16px]">
            {hasAny
              ? 'No phrase is like that.'
              : 'No page has a phrase yet. On the map, say which page is for which phrase; then look them up here.'}
          </p>
        )}
        <div role="presentation" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => (
            <div
              key={item.key}
              ref={virtual.measureElement}
              data-index={item.index}
              role="row"
              aria-rowindex={item.index + 2}
              className={`${line} absolute right-0 left-0 border-b border-rule-2 py-1.5`}
              style={{ ...tracks, top: item.start }}
            >
              <Cells phrase={phrases[item.index]!} isForQuestions={isForQuestions} />
            </div>
          ))}
        </div>
      </div>
    </div>
  )
}

function Cells({
  phrase: { row, phrase, role, monthly, kept, result },
  isForQuestions,
}: {
  phrase: PhraseOfPage
  isForQuestions: boolean
}) {
  const { siteId } = useParams()
  const desk = (sheet: string, more = '') =>
    `/sites/${siteId}/desk?page=${encodeURIComponent(row.path)}&sheet=${sheet}${more}`
  const question = kept?.answer.questions[0]
  return (
    <>
      <span role="cell" className="min-w-0">
        <span className="block truncate font-serif text-[16px]">{pageName(row)}</span>
        <span className="block truncate text-[12px] text-ink-3">{shownPath(row)}</span>
      </span>
      <span role="cell" className="min-w-0 truncate" title={phrase}>
        {phrase}
        {role === 'secondary' && <span className="text-ink-3"> (secondary)</span>}
      </span>
      <span role="cell" className="text-right tabular-nums">
        {result ? result.position : <span className="text-[13px] text-ink-3">{kept ? 'none' : '–'}</span>}
      </span>
      <span role="cell" className="text-right text-[13px] tabular-nums">
        {monthly === null ? <span className="text-ink-3">unknown</span> : monthly.toLocaleString('en')}
      </span>
      <span
        role="cell"
        className="min-w-0 text-[13px] text-ink-2"
        title={result ? `${result.title}: ${result.description}` : undefined}
      >
        {result ? wordings[result.wording] : kept ? 'not among the results' : 'not looked up yet'}
      </span>
      <span role="cell" className="min-w-0 text-[13px] text-ink-3" title={kept?.source}>
        {kept?.answer.asOf}
        <span className="block truncate text-[12px]">{kept?.source}</span>
      </span>
      <span role="cell" className="flex flex-wrap gap-x-4 text-[13px]">
        {isForQuestions ? (
          <>
            <Link
              className="action"
              aria-label={`Answer questions on ${pageName(row)}`}
              to={desk('galley', question ? `&answer=${encodeURIComponent(question)}` : '')}
            >
              Answer {question ? 'one' : 'them'}
            </Link>
            <Link className="quiet" aria-label={`Question data of ${pageName(row)}`} to={desk('data')}>
              Data
            </Link>
          </>
        ) : (
          <Link
            className="action"
            aria-label={`Line-up for “${phrase}”`}
            to={desk('line-up', role === 'primary' ? '' : `&for=${encodeURIComponent(phrase)}`)}
          >
            Line-up
          </Link>
        )}
      </span>
    </>
  )
}
