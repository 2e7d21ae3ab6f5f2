/** The slip at the head of the views: which step of the first pass is at hand, what it is for, and the way on. */
import { addDays, format } from 'date-fns'
import { useEffect } from 'react'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import { firstOf } from '../store/db.ts'
import type { Session } from '../session/session.ts'
import { useSessionParts } from '../session/use-session.ts'
import { useCommand, usePaletteGroup, matchesTyped } from '../ui/command-registry.ts'
import { shownPath } from '../ui/shown-path.ts'
import { focusWhenThere } from './focus.ts'
import { keepPass, nextPage, stepAfter, stepBefore, usePass, type Pass } from './pass.ts'
import { PhraseChoice } from './phrase-choice.tsx'
import { stepIds, steps, type StepId } from './steps.ts'

const followed = ['rows', 'work', 'site'] as const
/** When to look at the figures again: results follow within weeks, and before and after need whole ones. Common practice, no source. */
const LOOK_AGAIN_DAYS = 42

/** Begins the first pass with a page, or takes it up where it was left. */
export function useFirstPass(session: Session) {
  // Asked when something is done, not followed: this stands in every view, and must cost a keystroke nothing.
  const { site } = session.get()
  const { siteId } = useParams()
  const navigate = useNavigate()
  const { pathname, search } = useLocation()
  const first = firstOf(site)
  const pass = usePass(first)
  const keep = (next: Pass) => void keepPass(first, next)
  const goTo = (step: StepId | 'end', of: Pass) => {
    keep({ ...of, at: step, isOpen: true })
    const row = session.get().rows.get(of.page)
    if (step === 'end' || !row) return
    const there = `/sites/${siteId}/${steps[step].to(row.path)}`
    // What was looked up in a view that is open already stays.
    if (!isAt(there, pathname, search)) void navigate(there)
    focusWhenThere(steps[step].focus)
  }
  const findNext = () => nextPage(session.get().rows.values(), site.base, pass?.passed ?? [])
  return {
    pass,
    findNext,
    goTo,
    putAway: () => pass && keep({ ...pass, isOpen: false }),
    /** With the home page first; the page that is best taken next from then on. */
    begin: () => {
      if (pass && pass.at !== 'end' && session.get().rows.has(pass.page)) return goTo(pass.at, pass)
      const next = findNext()
      if (next)
        goTo(stepIds[0], {
          page: next.id,
          at: stepIds[0],
          done: [],
          isOpen: true,
          passed: pass?.passed ?? [],
        })
    },
  }
}

export function FirstPassSlip({ session }: { session: Session }) {
  const firstPass = useFirstPass(session)
  const { pass, begin } = firstPass
  usePaletteGroup('First pass', (typed) => {
    const name =
      pass && pass.at !== 'end'
        ? 'Go on with the first pass'
        : 'Begin the first pass: a page from phrase to review'
    return matchesTyped(name, typed) ? [{ id: 'begin', name, run: begin }] : []
  })
  if (!pass?.isOpen || !session.get().rows.has(pass.page)) return null
  return (
    <aside aria-label="First pass" className="border-b border-rule bg-paper px-6 py-3 max-[700px]:px-4">
      {pass.at === 'end' ? (
        <End {...firstPass} pass={pass} session={session} />
      ) : (
        <StepSlip {...firstPass} pass={pass} step={pass.at} session={session} />
      )}
    </aside>
  )
}

type SlipProps = ReturnType<typeof useFirstPass> & { pass: Pass; session: Session }

function StepSlip({ session, pass, step, goTo, putAway }: SlipProps & { step: StepId }) {
  const { rows, work } = useSessionParts(session, followed)
  const { siteId } = useParams()
  const { pathname, search } = useLocation()
  const row = rows.get(pass.page)!
  const decisions = work.get(pass.page) ?? {}
  const ofSite = work.get('') ?? {}
  const { name, purpose, good, place, to, soFar, focus } = steps[step]
  const there = `/sites/${siteId}/${to(row.path)}`
  const before = stepBefore(step)
  const isDone = (id: StepId) => pass.done.includes(id)
  const leave = (done: StepId[]) => {
    void session.blur()
    const after = stepAfter(step)
    goTo(after, {
      ...pass,
      done,
      passed: after === 'end' && !pass.passed.includes(pass.page) ? [...pass.passed, pass.page] : pass.passed,
    })
  }
  const goOn = () => leave(isDone(step) ? pass.done : [...pass.done, step])
  useCommand('passOn', goOn)
  const isShort = pass.passed.length > 0
  return (
    <div className="flex flex-wrap items-start gap-x-8 gap-y-3">
      <div className="min-w-0 flex-1 basis-[520px]" data-testid="slip" data-step={step}>
        <ol className="flex flex-wrap gap-x-3 text-[12.5px] text-ink-3" aria-label="Steps of the first pass">
          {stepIds.map((id) => (
            <li key={id}>
              <button
                type="button"
                className={`hover:text-ink ${id === step ? 'border-b border-ink font-semibold text-ink' : isDone(id) ? 'text-ink-2' : ''}`}
                aria-current={id === step ? 'step' : undefined}
                onClick={() => goTo(id, pass)}
              >
                {steps[id].name}
                {isDone(id) && (
                  <>
                    <span aria-hidden> ✓</span>
                    <span className="sr-only">, done</span>
                  </>
                )}
              </button>
            </li>
          ))}
        </ol>
        <h2 className="mt-1.5 flex min-w-0 items-baseline gap-3 font-serif text-[19px] leading-6">
          {name}
          <span className="min-w-0 truncate font-serif text-[14px] text-ink-3 italic">
            {stepIds.indexOf(step) + 1} of {stepIds.length}, {row.h1 || row.title || shownPath(row)}
          </span>
        </h2>
        <p className="max-w-[880px]">
          {!isShort && `${purpose} `}
          {good}
        </p>
        <p className="mt-1 max-w-[100ch] truncate text-[13px] text-ink-2">
          {soFar({ row, decisions, ofSite })}
        </p>
        {step === 'phrase' && <PhraseChoice session={session} page={pass.page} />}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        {before && (
          <button type="button" className="quiet" onClick={() => goTo(before, pass)}>
            Back
          </button>
        )}
        {!isAt(there, pathname, search) && (
          <Link className="action" to={there} onClick={() => focusWhenThere(focus)}>
            Open {place}
          </Link>
        )}
        <button type="button" className="quiet" onClick={() => leave(pass.done)}>
          Skip
        </button>
        <button type="button" className="button button-main" onClick={goOn}>
          Done, go on <kbd>Alt G</kbd>
        </button>
        <button type="button" className="quiet" onClick={putAway}>
          Put away
        </button>
      </div>
    </div>
  )
}

/** Whether a view is open already; how it is searched or sorted is the view's own. */
function isAt(there: string, pathname: string, search: string): boolean {
  const wanted = new URL(there, 'http://here.invalid')
  const now = new URLSearchParams(search)
  return (
    decodeURIComponent(pathname) === decodeURIComponent(wanted.pathname) &&
    [...wanted.searchParams].every(
      ([name, value]) => (now.get(name) ?? (name === 'sheet' ? 'snippet' : null)) === value,
    )
  )
}

function End({ session, pass, goTo, putAway, findNext, begin }: SlipProps) {
  const { rows, work } = useSessionParts(session, followed)
  const { siteId } = useParams()
  const row = rows.get(pass.page)!
  const approved = work.get(pass.page)?.state === 'approved'
  const next = findNext()
  useEffect(() => focusWhenThere('[data-testid=slip-end]'), [])
  return (
    <div
      className="flex flex-wrap items-start gap-x-8 gap-y-3 outline-none"
      data-testid="slip-end"
      tabIndex={-1}
    >
      <div className="min-w-0 flex-1 basis-[520px]">
        <h2 className="font-serif text-[19px] leading-6">What happens now</h2>
        <p className="mt-1 max-w-[880px]">
          {approved
            ? `${shownPath(row)} is approved: hand it off, as its file or as a sheet of changes, to whoever keeps the site.`
            : `${shownPath(row)} is a draft until it is approved: go back to the review for that, then hand it off.`}{' '}
          Once it is live, the results follow within days or weeks, not at once. Take the pages in again to
          see that it is in place, and look at Progress around{' '}
          {format(addDays(new Date(), LOOK_AGAIN_DAYS), 'd MMMM')}: by then it can be told whether it helped.
        </p>
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <button type="button" className="quiet" onClick={() => goTo('review', pass)}>
          Back
        </button>
        {next && (
          <button type="button" className="action" onClick={begin}>
            Take the next page: {shownPath(next)}
          </button>
        )}
        <Link className="button button-main" to={`/sites/${siteId}/hand-off`}>
          Hand off
        </Link>
        <button type="button" className="quiet" onClick={putAway}>
          Put away
        </button>
      </div>
    </div>
  )
}
