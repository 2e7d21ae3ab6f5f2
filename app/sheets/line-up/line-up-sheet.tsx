/** Our result among the others that people see for a phrase: set at a place, typed where it stands, compared in figures and words. */
import { useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { sameAddress, shownAddress } from '../../../core/addresses/addresses.ts'
import type { Market } from '../../../core/keywords/phrases.ts'
import { resultsQuestion } from '../../../core/keywords/results-question.ts'
import {
  compareLineUp,
  LINE_UP,
  withoutOurs,
  type Result,
  type ResultsAnswer,
} from '../../../core/results/line-up.ts'
import { compileKeyword } from '../../../core/words/match.ts'
import { lineUpPlaces } from '../../session/line-up-places.ts'
import { useService } from '../../session/use-service.ts'
import { Choice } from '../../ui/choice.tsx'
import { plural } from '../../ui/plural.ts'
import { DrawnResult } from '../../result/drawn-result.tsx'
import { MarketChoice } from '../../ui/market-choice.tsx'
import type { Screen } from '../../../core/measure/snippet.ts'
import type { SheetProps } from '../sheet-props.ts'
import { useDraftedResult } from '../snippet/drafted-result.ts'
import { Among } from './among.tsx'
import { EyeView } from './eye-view.tsx'
import { FiguresLine, Summary } from './figures.tsx'
import { OurResult } from './our-result.tsx'

/** Pages that stand beside ours in a comparison, at most. */
const MOST_COMPARED = 3

interface Ways {
  /** Takes a question to the page’s text. */
  onAnswer(question: string): void
  /** Sets the page’s structure beside others, by their addresses. */
  onCompare(addresses: string[], phrase: string): void
}

export function LineUpSheet(props: SheetProps & Ways) {
  const { session, row, decisions, view } = props
  const primary = (decisions['keyword:primary'] as string | undefined) ?? ''
  const secondary = (decisions['keyword:secondary'] as string[] | undefined) ?? []
  const pagePhrases = [primary, ...secondary].filter(Boolean)
  const [search] = useSearchParams()
  const [other, setOther] = useState<string | null>(search.get('for'))
  const [market, setMarket] = useState<Market>('national')
  const [place, setPlace] = useState('')
  const [screen, setScreen] = useState<Screen>('wide')
  const [eye, setEye] = useState(false)
  const [position, setPosition] = useState(lineUpPlaces.get(row.id) ?? null)
  const [again, setAgain] = useState(0)
  const phrase = other ?? pagePhrases[0] ?? ''
  const language = session.get().style.language ?? 'en'
  const isAsked = phrase !== '' && (market !== 'local' || place !== '')
  const told = useService<ResultsAnswer>(
    'results',
    isAsked ? resultsQuestion(phrase, { market, place, language }) : null,
    again,
  )
  return (
    <section className="sheet min-w-0 px-7 py-4 max-[700px]:px-3" aria-label="Line-up" data-testid="line-up">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 text-[13px]">
        <PhraseField key={phrase} phrase={phrase} own={pagePhrases} onPhrase={setOther} />
        <MarketChoice market={market} onMarket={setMarket} onPlace={setPlace} />
        <Choice
          label="Screen"
          value={screen}
          options={[
            { value: 'wide', name: 'wide' },
            { value: 'narrow', name: 'narrow' },
          ]}
          onChange={(value) => setScreen(value)}
        />
        <label className="flex items-baseline gap-1.5">
          <input type="checkbox" checked={eye} onChange={(e) => setEye(e.target.checked)} /> Where the eye
          lands
        </label>
        {told?.state === 'answered' && (
          <span className="ml-auto text-ink-3">
            {told.answer.asOf}, {told.source}
          </span>
        )}
      </div>
      {phrase === '' && (
        <p className="mt-4 font-serif text-[17px]">
          This page has no keyword yet. Type the phrase whose results you want to see.
        </p>
      )}
      {told?.state === 'asking' && (
        <p className="mt-4 text-ink-2" role="status">
          Asking for the results for “{phrase}” …
        </p>
      )}
      {told?.state === 'failed' && (
        <p role="alert" className="mt-4 border-l-2 border-carmine pl-3" data-testid="results-failed">
          {told.why}{' '}
          {!told.off && (
            <button type="button" className="action" onClick={() => setAgain((n) => n + 1)}>
              Ask again
            </button>
          )}
        </p>
      )}
      {told?.state === 'answered' && (
        <>
          {told.problem && (
            <p role="status" className="mt-3 border-l-2 border-carmine pl-3 text-[13px]">
              {told.problem} What was answered on {told.date} is shown.
            </p>
          )}
          <Results
            {...props}
            key={`${phrase} ${market} ${place}`}
            answer={told.answer}
            phrase={phrase}
            screen={screen}
            eye={eye}
            position={position}
            onPosition={(at) => {
              lineUpPlaces.set(row.id, at)
              setPosition(at)
            }}
          />
        </>
      )}
      {view === null && <p className="mt-2 text-[13px] text-ink-3 italic">The page is being read …</p>}
      <p className="mt-4 border-t border-rule pt-3 text-[12px] text-ink-2">
        Type in our result as on the Snippet sheet. A caret between two results sets ours there; in its place
        field, <kbd>↑</kbd> <kbd>↓</kbd> move it and a number jumps. <kbd>Alt N</kbd> puts the next take
        there, <kbd>Alt T</kbd> keeps what stands there as one.
      </p>
    </section>
  )
}

function PhraseField({
  phrase,
  own,
  onPhrase,
}: {
  phrase: string
  own: string[]
  onPhrase(phrase: string | null): void
}) {
  const [typed, setTyped] = useState(phrase)
  return (
    <form
      className="flex items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        onPhrase(typed.trim() || null)
      }}
    >
      <label>
        Results for{' '}
        <input
          className="w-56 border-b border-sign bg-transparent px-1 font-serif text-[16px]"
          list="line-up-phrases"
          maxLength={200}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
      </label>
      <datalist id="line-up-phrases">
        {own.map((p) => (
          <option key={p} value={p} />
        ))}
      </datalist>
      <button type="submit" className="quiet">
        Look up
      </button>
    </form>
  )
}

function Results({
  onAnswer,
  onCompare,
  answer,
  phrase,
  screen,
  eye,
  position,
  onPosition,
  ...props
}: SheetProps &
  Ways & {
    answer: ResultsAnswer
    phrase: string
    screen: Screen
    /** Whether it is drawn as the model of the eye has it. */
    eye: boolean
    position: number | null
    onPosition(position: number): void
  }) {
  const { row, view } = props
  const [toCompare, setToCompare] = useState<readonly string[]>([])
  const drafted = useDraftedResult(props)
  const url = view?.url ?? row.url
  const oldUrl = view?.address.oldUrl
  const { others, ours } = useMemo(
    // Today’s results show the page at its old address, where its slug is to change.
    () =>
      withoutOurs(
        answer.results,
        (address) => sameAddress(address, url) || (oldUrl !== undefined && sameAddress(address, oldUrl)),
      ),
    [answer, url, oldUrl],
  )
  const place = Math.min(others.length + 1, position ?? ours?.position ?? 1)
  const keyword = useMemo(() => compileKeyword(phrase, drafted.lang), [phrase, drafted.lang])
  const { title, description } = drafted.filled
  const comparison = useMemo(
    () =>
      compareLineUp(
        others.slice(0, LINE_UP - 1),
        { title, description, url, position: place },
        keyword,
        drafted.style.slots,
      ),
    [others, title, description, url, place, keyword, drafted.style.slots],
  )
  const before = others.slice(0, place - 1)
  const after = others.slice(place - 1, LINE_UP - 1)
  const line = (result: Result, at: number) => (
    <li
      key={result.url}
      className="grid grid-cols-[minmax(0,620px)_minmax(0,1fr)] gap-6 py-3 max-[1100px]:grid-cols-1"
    >
      <DrawnResult
        screen={screen}
        result={{
          trail: result.trail.length > 0 ? result.trail : shownAddress(result.url),
          title: result.title,
          description: result.description,
        }}
        slots={drafted.style.slots}
        keywords={[phrase]}
        lang={drafted.lang}
      >
        <Furniture result={result} />
      </DrawnResult>
      <div>
        <FiguresLine
          place={at}
          figures={comparison.results.find((figures) => figures.url === result.url) ?? null}
          result={result}
        />
        <label className="mt-1 inline-flex items-baseline gap-1.5 text-[12px] text-ink-2">
          <input
            type="checkbox"
            aria-label={`Compare the page at ${at}`}
            checked={toCompare.includes(result.url)}
            disabled={toCompare.length >= MOST_COMPARED && !toCompare.includes(result.url)}
            onChange={(e) =>
              setToCompare((now) =>
                e.target.checked ? [...now, result.url] : now.filter((address) => address !== result.url),
              )
            }
          />{' '}
          compare its page
        </label>
      </div>
    </li>
  )
  const drawnByEye = useMemo(
    () =>
      [
        ...others.slice(0, place - 1).map((r) => ({ ...r, isOurs: false })),
        { url, title, description, isOurs: true },
        ...others.slice(place - 1, LINE_UP - 1).map((r) => ({ ...r, isOurs: false })),
      ].map(({ url: address, title: t, description: d, isOurs }) => ({
        url: address,
        title: t,
        description: d,
        isOurs,
      })),
    [others, place, url, title, description],
  )
  if (eye)
    return (
      <EyeView
        results={drawnByEye}
        phrase={phrase}
        screen={screen}
        slots={drafted.style.slots}
        weights={drafted.style.eye}
        lang={drafted.lang}
      />
    )
  return (
    <>
      <Summary comparison={comparison} others={others.length} phrase={phrase} />
      {toCompare.length > 0 && (
        <p className="sticky top-0 z-10 flex items-baseline gap-4 border-b border-rule bg-paper py-2 text-[13px]">
          <button
            type="button"
            className="button button-main"
            onClick={() => onCompare([...toCompare], phrase)}
          >
            Compare ours with {plural(toCompare.length, 'page')}
          </button>
          <span className="text-ink-2">
            {toCompare.length < MOST_COMPARED
              ? 'Up to three, tick them beside their results.'
              : 'Three are the most.'}
          </span>
        </p>
      )}
      {ours && (ours.title !== title || ours.description !== description) && (
        <p className="mt-2 border-l-2 border-rule pl-3 text-[13px]" data-testid="shown-otherwise">
          The results show our page at {ours.position} as “{ours.title}”: “{ours.description}”. Engines choose
          what they show.
        </p>
      )}
      <ol className="mt-3 max-[700px]:-ml-3 max-[700px]:overflow-x-auto max-[700px]:pl-3">
        {before.map((result, i) => (
          <Among key={result.url} at={i + 1} onPut={onPosition}>
            {line(result, i + 1)}
          </Among>
        ))}
        <OurResult
          {...props}
          drafted={drafted}
          phrase={phrase}
          screen={screen}
          place={place}
          last={Math.min(LINE_UP, others.length + 1)}
          isToday={ours !== null && place === ours.position}
          onPlace={onPosition}
          figures={comparison.ours}
        />
        {after.map((result, i) => (
          <Among key={result.url} at={place + i + 1} onPut={onPosition} isBehind>
            {line(result, place + i + 1)}
          </Among>
        ))}
      </ol>
      {answer.questions.length > 0 && (
        <section className="mt-4 border-t border-rule pt-3" aria-label="Questions around this phrase">
          <h2 className="font-serif text-[17px]">Questions around this phrase</h2>
          <ul className="mt-1 text-[13px]">
            {answer.questions.map((question) => (
              <li key={question} className="flex items-baseline gap-4 border-t border-rule-2 py-1">
                <span className="font-serif text-[15px]">{question}</span>
                <button
                  type="button"
                  className="quiet"
                  aria-label={`Answer on this page: ${question}`}
                  onClick={() => onAnswer(question)}
                >
                  Answer it on this page
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}

function Furniture({ result: { date, rating, price } }: { result: Result }) {
  const parts = [
    date,
    rating && `${rating.value} of 5, ${rating.count.toLocaleString('en')} ratings`,
    price,
  ].filter(Boolean)
  return parts.length > 0 ? <p className="mt-1 text-[13px] text-ink-2">{parts.join(' · ')}</p> : null
}
