/** One intake by address, from what is typed to the ledger. */
import { useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { decodedPath } from '../../core/addresses/addresses.ts'
import { today } from '../session/today.ts'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'
import { reported } from '../workers/reported.ts'
import type { FetchedView, PlanView } from '../workers/by-address.ts'
import type { Progress, TakenIn } from '../workers/intake.ts'
import type { FetchingProgress } from '../../core/work/fetch-site.ts'
import { AddressesTable } from './addresses-table.tsx'
import { leftOutNames } from './left-out-names.ts'
import { Plan } from './plan.tsx'
import { firstAsked, patternsOf, QuestionForm, questionOf, type Asked } from './question-form.tsx'

type Step =
  | { at: 'asking'; problem: string | null }
  | { at: 'looking'; now: string }
  | { at: 'plan'; plan: PlanView }
  | { at: 'fetching'; progress: FetchingProgress; stopping: boolean }
  | { at: 'stopped'; fetched: FetchedView; name: string }
  | { at: 'reading'; progress: Progress }
  | { at: 'done'; fetched: FetchedView; site: string }
  | { at: 'failed'; why: string; fetched: FetchedView | null }

/** What is fetched again instead of for the first time, and what then becomes of it. */
export interface Again {
  name: string
  asked: Asked
  /** Gives the fetched pages over, by their ticket. Answers where to go on. */
  take(ticket: number): Promise<string>
}

export function ByAddress({ address, again = null }: { address: string; again?: Again | null }) {
  const [asked, setAsked] = useState<Asked>(again?.asked ?? firstAsked(address))
  const [step, setStep] = useState<Step>({ at: 'asking', problem: null })
  const ticket = useRef<number | null>(null)
  const navigate = useNavigate()
  const fail = (error: Error) => setStep({ at: 'failed', why: error.message, fetched: null })

  async function look(given: Asked) {
    setAsked(given)
    setStep({ at: 'looking', now: given.address })
    if (given.how === 'page' && !again) {
      const looked = await core().lookAt(given.address, today())
      if (!looked.ok) return setStep({ at: 'asking', problem: looked.why })
      return navigate(`/sites/${looked.site}/desk?page=${encodeURIComponent(looked.page)}`)
    }
    ticket.current = await core().addressTicket()
    const planned = await reported(
      (now: string) => setStep((s) => (s.at === 'looking' ? { at: 'looking', now } : s)),
      (report) => core().planByAddress(ticket.current!, questionOf(given), report),
    )
    setStep(planned.ok ? { at: 'plan', plan: planned.plan } : { at: 'asking', problem: planned.why })
  }
  async function leaveOut(typed: string) {
    const next = { ...asked, leaveOut: typed }
    setAsked(next)
    const plan = await core().replan(ticket.current!, { leaveOut: patternsOf(typed), most: next.most })
    if (plan) setStep({ at: 'plan', plan })
  }
  async function fetchAll(name: string) {
    setStep({ at: 'fetching', progress: { done: 0, of: 0, now: '', failed: 0 }, stopping: false })
    void navigator.storage?.persist?.()
    const fetched = await reported(
      (progress: FetchingProgress) => setStep((s) => (s.at === 'fetching' ? { ...s, progress } : s)),
      (report) => core().fetchPlanned(ticket.current!, today(), report),
    )
    if (!fetched)
      return setStep({
        at: 'asking',
        problem: 'What was planned is no longer at hand. Look at the address again.',
      })
    if (fetched.cancelled) return setStep({ at: 'stopped', fetched, name })
    await read(fetched, name)
  }
  async function read(fetched: FetchedView, name: string) {
    if (fetched.pages === 0) return setStep({ at: 'failed', why: 'No page could be fetched.', fetched })
    if (again) return navigate(await again.take(ticket.current!))
    setStep({ at: 'reading', progress: { done: 0, of: fetched.pages, now: '' } })
    const given = { ticket: ticket.current!, name, base: fetched.base, today: today(), demo: false }
    const taken: TakenIn = await reported(
      (progress: Progress) => setStep((s) => (s.at === 'reading' ? { ...s, progress } : s)),
      (report) => core().takeIn(given, report),
    )
    if (!taken.ok) return setStep({ at: 'failed', why: taken.why, fetched })
    setStep({ at: 'done', fetched, site: taken.site.id })
  }
  const drop = () => {
    if (ticket.current !== null) void core().dropFetched(ticket.current)
    ticket.current = null
    setStep({ at: 'asking', problem: null })
  }
  useEffect(
    () => () => {
      if (ticket.current !== null) void core().cancelFetching(ticket.current)
    },
    [],
  )

  switch (step.at) {
    case 'asking':
      return (
        <QuestionForm given={asked} problem={step.problem} onAsk={(given) => void look(given).catch(fail)} />
      )
    case 'looking':
      return (
        <p role="status" className="mt-6 text-ink-2">
          Asking for {step.now} …
        </p>
      )
    case 'plan':
      return (
        <Plan
          plan={step.plan}
          leaveOut={asked.leaveOut}
          name={new URL(step.plan.start).host.replace(/^www\./, '')}
          again={again?.name ?? null}
          onLeaveOut={(typed) => void leaveOut(typed)}
          onTake={(name) => void fetchAll(name).catch(fail)}
          onBack={drop}
        />
      )
    case 'fetching':
      return (
        <Waiting
          label="Pages fetched"
          done={step.progress.done}
          of={step.progress.of}
          now={step.progress.now}
          says={`${step.progress.done.toLocaleString('en')} of ${plural(step.progress.of, 'page')} fetched${step.progress.failed > 0 ? `; ${step.progress.failed} failed` : ''}`}
        >
          <button
            type="button"
            className="button mt-4"
            disabled={step.stopping}
            onClick={() => {
              setStep({ ...step, stopping: true })
              void core().cancelFetching(ticket.current!)
            }}
          >
            {step.stopping ? 'Stopping …' : 'Cancel'}
          </button>
        </Waiting>
      )
    case 'stopped':
      return (
        <section className="sheet mt-6 max-w-[760px] p-7" role="alertdialog" aria-label="Cancelled">
          <p className="font-serif text-[19px]">
            Cancelled. {plural(step.fetched.pages, 'page')} had come by then.
          </p>
          <div className="mt-4 flex gap-3">
            <button
              type="button"
              className="button"
              disabled={step.fetched.pages === 0}
              onClick={() => void read(step.fetched, step.name).catch(fail)}
            >
              Keep what came
            </button>
            <button type="button" className="button button-main" onClick={drop}>
              Keep nothing
            </button>
          </div>
        </section>
      )
    case 'reading':
      return (
        <Waiting
          label="Pages read"
          done={step.progress.done}
          of={step.progress.of}
          now={step.progress.now}
          says={`${step.progress.done.toLocaleString('en')} of ${plural(step.progress.of, 'page')} read`}
        />
      )
    case 'done':
      return (
        <Done fetched={step.fetched} onOpen={() => void navigate(`/sites/${step.site}/ledger?view=left`)} />
      )
    case 'failed':
      return (
        <section className="sheet mt-6 max-w-[760px] p-7">
          <p role="alert" className="font-serif text-[19px]">
            {step.why}
          </p>
          {step.fetched && <NotTaken fetched={step.fetched} />}
          <button type="button" className="button mt-5" onClick={drop}>
            Ask for another address
          </button>
        </section>
      )
  }
}

function Waiting({
  label,
  done,
  of,
  now,
  says,
  children,
}: {
  label: string
  done: number
  of: number
  now: string
  says: string
  children?: React.ReactNode
}) {
  return (
    <section className="sheet mt-6 max-w-[760px] p-7">
      <progress className="w-full" value={done} max={Math.max(of, 1)} aria-label={label} />
      <p className="mt-2 text-ink-2" aria-live="polite">
        {says}
      </p>
      <p className="h-5 truncate font-mono text-[12px] text-ink-3">{now}</p>
      {children}
    </section>
  )
}

function Done({ fetched, onOpen }: { fetched: FetchedView; onOpen(): void }) {
  return (
    <section className="sheet mt-6 p-7">
      <h2 className="font-serif text-[21px]">{plural(fetched.pages, 'page')} taken in</h2>
      <p className="mt-1 text-ink-2">
        {fetched.whole
          ? 'Nothing that the site names was left out, so rules about the whole site speak too.'
          : 'Something was left out, so rules that need the whole site (broken links, pages to which nothing links) keep quiet.'}
      </p>
      <NotTaken fetched={fetched} />
      <button type="button" className="button button-main mt-5" onClick={onOpen}>
        Open the ledger
      </button>
    </section>
  )
}

/** What failed, what was left out, with the reasons, and what led to another page. */
function NotTaken({ fetched }: { fetched: FetchedView }) {
  const lines = [
    ...fetched.failed.map(({ url, why }) => ({ url, says: why, quiet: false })),
    ...fetched.leftOut.map(({ url, leftOut }) => ({ url, says: leftOutNames[leftOut!], quiet: true })),
    ...fetched.redirected.map(({ url, to }) => ({
      url,
      says: `redirects to ${decodedPath(to)}`,
      quiet: true,
    })),
  ]
  if (lines.length === 0) return null
  const parts = [
    fetched.failed.length > 0 && `${plural(fetched.failed.length, 'address', 'addresses')} failed`,
    fetched.leftOut.length > 0 && `${fetched.leftOut.length.toLocaleString('en')} left out`,
    fetched.redirected.length > 0 &&
      `${plural(fetched.redirected.length, 'address', 'addresses')} redirected`,
  ].filter(Boolean)
  return (
    <div className="mt-4">
      <h3 className="mb-1 font-semibold">{parts.join(', ')}</h3>
      <AddressesTable label="Addresses without a page of their own" lines={lines} height={300} />
    </div>
  )
}
