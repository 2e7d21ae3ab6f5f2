import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { toast } from 'sonner'
import { stateOf, type Answer, type Decisions } from '../../core/work/decisions.ts'
import type { ChangedPage } from '../../core/exchange/hand-off.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { ReviewAndHandOff } from '../hand-off/review-and-hand-off.tsx'
import { PageChanges, SourceDifference } from '../review/page-changes.tsx'
import { WaysBack } from '../review/ways-back.tsx'
import { rememberReviewer, useReviewer } from '../review/reviewer.ts'
import type { Session } from '../session/session.ts'
import { today } from '../session/today.ts'
import { useSession, useSessionState } from '../session/use-session.ts'
import { Boundary } from '../ui/boundary.tsx'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'

export const meta = () => [{ title: 'Review · Keen Quill' }]

/** Every change before it goes out, page by page. */
export default function Review() {
  const session = useSession()
  const { work } = useSessionState(session)
  const { siteId } = useParams()
  const [search, setSearch] = useSearchParams()
  const navigate = useNavigate()
  const changed = useAnswer(() => session.flush().then(() => core().changedPages()), [session, work])
  const [reviewer] = useReviewer()
  const pages = useMemo(() => changed?.pages ?? [], [changed])
  const waiting = pages.filter((p) => stateOf(work.get(p.id) ?? {}) === 'drafted')
  const asked = search.get('page')
  const page = pages.find((p) => p.path === asked) ?? waiting[0] ?? pages[0]
  const followers = (changed?.followers ?? []).filter((f) => stateOf(work.get(f.id) ?? {}) !== 'approved')
  const go = (to: ChangedPage | undefined) => {
    if (to) setSearch({ page: to.path }, { replace: true, preventScrollReset: false })
  }
  const step = (by: 1 | -1) => go(pages[pages.findIndex((p) => p.id === page?.id) + by])
  /** The next that nobody has answered yet, from this one on; else the next. */
  const goOn = () => {
    const at = pages.findIndex((p) => p.id === page?.id)
    const behind = [...pages.slice(at + 1), ...pages.slice(0, at)]
    go(behind.find((p) => waiting.some((w) => w.id === p.id)) ?? pages[at + 1])
  }
  if (changed !== null && pages.length === 0 && followers.length === 0)
    return (
      <main className="px-6 pt-3 pb-6">
        <div className="flex items-baseline gap-x-6">
          <h1 className="font-serif text-[26px]">Review</h1>
          <ReviewAndHandOff now="review" />
        </div>
        <p className="mt-2 font-serif text-[17px]">
          Nothing has changed yet.{' '}
          <Link className="action font-sans text-[14px]" to={`/sites/${siteId}/ledger`}>
            Open the ledger
          </Link>{' '}
          and begin with what matters most.
        </p>
      </main>
    )
  return (
    <main className="px-6 pt-3 pb-16">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 pb-3">
        <h1 className="font-serif text-[26px]">Review</h1>
        <ReviewAndHandOff now="review" />
        <p className="font-serif text-[15px] text-ink-2 italic" role="status">
          {changed === null
            ? 'Comparing …'
            : `${plural(pages.length, 'changed page')}, ${waiting.length.toLocaleString('en')} to look at`}
        </p>
        <ReviewerField />
      </div>
      {followers.length > 0 && (
        <p className="mb-3 flex flex-wrap items-baseline gap-x-4 border-l-2 border-quill bg-paper px-4 py-1.5 text-[14px]">
          In {plural(followers.length, 'page')} only links and other addresses follow pages that moved.
          <button
            type="button"
            className="action"
            onClick={() =>
              void session.decide(
                `Approved: ${plural(followers.length, 'page')} in which only addresses follow`,
                followers.map((f) => ({ page: f.id, key: 'state', after: 'approved' })),
              )
            }
          >
            Approve {followers.length === 1 ? 'it' : 'them'} unseen
          </button>
        </p>
      )}
      <div className="grid grid-cols-[250px_minmax(0,1fr)] gap-6 max-[900px]:grid-cols-1">
        <PagesToReview pages={pages} work={work} page={page?.id ?? null} onOpen={go} />
        {page && (
          <PageToReview
            key={page.id}
            session={session}
            page={page}
            decisions={work.get(page.id) ?? none}
            reviewer={reviewer}
            onStep={step}
            onAnswered={goOn}
            onDesk={() => navigate(`/sites/${siteId}/desk?page=${encodeURIComponent(page.path)}`)}
          />
        )}
      </div>
    </main>
  )
}
const none: Decisions = {}

function ReviewerField() {
  const [reviewer, setReviewer] = useReviewer()
  return (
    <label className="ml-auto text-[13px] text-ink-2">
      Your name{' '}
      <input
        className="w-40 border-b border-ink-3 bg-transparent px-1 text-ink"
        maxLength={100}
        value={reviewer}
        onChange={(e) => setReviewer(e.target.value)}
        onBlur={() => void rememberReviewer(reviewer)}
      />
    </label>
  )
}

function PagesToReview({
  pages,
  work,
  page,
  onOpen,
}: {
  pages: readonly ChangedPage[]
  work: ReadonlyMap<PageId, Decisions>
  page: PageId | null
  onOpen(page: ChangedPage): void
}) {
  return (
    <nav aria-label="Changed pages" className="sheet max-h-[calc(100vh-190px)] overflow-auto">
      <ol>
        {pages.map((p) => {
          const decisions = work.get(p.id) ?? {}
          const isSentBack = decisions.note !== undefined
          return (
            <li key={p.id}>
              <button
                type="button"
                aria-current={p.id === page ? 'true' : undefined}
                className={`block w-full border-b border-l-[3px] border-b-rule-2 px-4 py-2 text-left ${p.id === page ? 'border-l-ink bg-paper-2' : 'border-l-transparent hover:bg-paper-2'}`}
                onClick={() => onOpen(p)}
              >
                <span className="block truncate text-[13px]">{p.path}</span>
                <span className={`block text-[12px] ${isSentBack ? 'text-carmine' : 'text-ink-3'}`}>
                  {isSentBack ? 'sent back' : stateOf(decisions)}; {plural(p.changes.length, 'field')}
                </span>
              </button>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}

function PageToReview({
  session,
  page,
  decisions,
  reviewer,
  onStep,
  onAnswered,
  onDesk,
}: {
  session: Session
  page: ChangedPage
  decisions: Decisions
  reviewer: string
  onStep(by: 1 | -1): void
  onAnswered(): void
  onDesk(): void
}) {
  const article = useRef<HTMLElement>(null)
  // Keys work as soon as a page is seen; what is being typed elsewhere is left alone.
  useLayoutEffect(() => {
    if (!document.activeElement?.closest('input, textarea')) article.current?.focus({ preventScroll: true })
  }, [])
  const [isSource, setSource] = useState(false)
  const [why, setWhy] = useState<string | null>(null)
  const review = useAnswer(() => core().reviewPage(page.id, decisions), [page.id, decisions])
  const answer = (given: 'yes' | 'no', note: string) => {
    const by = reviewer.trim()
    const said: Answer = { answer: given, note, date: today(), by }
    void session.decide(given === 'yes' ? 'Approved' : 'Sent back', [
      { page: page.id, key: 'answer', after: said },
      { page: page.id, key: 'state', after: given === 'yes' ? 'approved' : 'drafted' },
      {
        page: page.id,
        key: 'note',
        after: given === 'yes' ? undefined : by ? `${note} (${by})` : note,
      },
    ])
    toast(`${page.path}: ${given === 'yes' ? 'approved' : 'sent back'}.`)
    setWhy(null)
    onAnswered()
  }
  function onKeyDown(event: React.KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (event.target instanceof HTMLElement && event.target.closest('input, textarea, .cm-editor')) return
    const act: Record<string, () => void> = {
      n: () => onStep(1),
      p: () => onStep(-1),
      a: () => answer('yes', ''),
      b: () => setWhy(''),
      o: onDesk,
      s: () => setSource((on) => !on),
    }
    const chosen = act[event.key.toLowerCase()]
    if (!chosen) return
    event.preventDefault()
    chosen()
  }
  const given = decisions.answer as Answer | undefined
  return (
    <article
      ref={article}
      tabIndex={-1}
      aria-label={`Changes of ${page.path}`}
      className="sheet min-w-0 px-7 py-5 outline-none"
      data-testid="review"
      data-path={page.path}
      onKeyDown={onKeyDown}
    >
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
        <h2 className="min-w-0 font-serif text-[19px] [overflow-wrap:anywhere]">{page.path}</h2>
        <span className="text-[13px] text-ink-2">
          {stateOf(decisions)}
          {given?.by && `, ${given.answer === 'yes' ? 'approved' : 'answered'} by ${given.by}`}
        </span>
      </div>
      <p className="mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-2 text-[13px]">
        <button type="button" className="button button-main" onClick={() => answer('yes', '')}>
          Approve <kbd>A</kbd>
        </button>
        <button type="button" className="button" onClick={() => setWhy('')}>
          Send back … <kbd>B</kbd>
        </button>
        <button type="button" className="quiet" onClick={onDesk}>
          Open on the desk <kbd>O</kbd>
        </button>
        <button type="button" className="quiet" aria-pressed={isSource} onClick={() => setSource(!isSource)}>
          Source <kbd>S</kbd>
        </button>
        <button type="button" className="quiet ml-auto" onClick={() => onStep(-1)}>
          Page before <kbd>P</kbd>
        </button>
        <button type="button" className="quiet" onClick={() => onStep(1)}>
          Next <kbd>N</kbd>
        </button>
      </p>
      {typeof decisions.note === 'string' && (
        <p className="mt-3 border-l-2 border-carmine bg-paper px-3 py-1 text-[13px]">
          <strong>Sent back:</strong> {decisions.note}
        </p>
      )}
      {why !== null && (
        <form
          className="mt-3 flex items-center gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            if (why.trim() !== '') answer('no', why.trim())
          }}
        >
          <input
            autoFocus
            className="field"
            aria-label="What should be different"
            placeholder="What should be different, in a word"
            maxLength={1900}
            value={why}
            onChange={(e) => setWhy(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== 'Escape') return
              setWhy(null)
              article.current?.focus()
            }}
          />
          <button type="submit" className="button" disabled={why.trim() === ''}>
            Send back
          </button>
        </form>
      )}
      <div className="mt-4 border-t border-rule pt-4">
        <Boundary on={[page.id, isSource]}>
          {isSource ? (
            <SourceDifference page={page.id} decisions={decisions} />
          ) : review ? (
            <>
              <PageChanges review={review} />
              <WaysBack session={session} page={page.id} decisions={decisions} />
            </>
          ) : (
            <p role="status" className="text-ink-2">
              Comparing …
            </p>
          )}
        </Boundary>
      </div>
    </article>
  )
}
