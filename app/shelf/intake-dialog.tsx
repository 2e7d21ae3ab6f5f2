import { joiResolver } from '@hookform/resolvers/joi'
import Joi from 'joi'
import { useEffect, useRef, useState } from 'react'
import { useForm } from 'react-hook-form'
import { useNavigate, useRevalidator } from 'react-router'
import { today } from '../session/today.ts'
import { Dialog } from '../ui/dialog.tsx'
import { FormField, useProblemOf } from '../ui/form.tsx'
import { plural } from '../ui/plural.ts'
import { core, WorkerStopped } from '../workers/client.ts'
import { reported } from '../workers/reported.ts'
import type { Progress, TakenIn } from '../workers/intake.ts'
import type { IntakeInput, Prepared } from '../workers/open-input.ts'
import { MergeOffer } from '../merge/merge-offer.tsx'
import { MergeWork } from '../merge/merge-work.tsx'
import type { SiteRecord } from '../store/db.ts'
import { inMegabytes, roomHere } from '../store/room.ts'
import { useAnswer } from '../workers/use-answer.ts'
import { sweepShelf } from './demo.ts'

type Step =
  | { at: 'opening' }
  | { at: 'refused'; why: string }
  | { at: 'asking'; prepared: Prepared; problem: string | null }
  | { at: 'merging'; prepared: Prepared; into: SiteRecord }
  | { at: 'reading'; progress: Progress; cancelling: boolean }
  | { at: 'done'; site: string; pages: number; others: number; unread: { path: string; why: string }[] }

/** Pages that an intake may get stuck at before it is given up. */
const MOST_STUCK = 5

/** One intake from what was dropped to the ledger: the address is asked once, then pages are read, and what could not be is listed. */
export function IntakeDialog({ input, onClose }: { input: IntakeInput; onClose(): void }) {
  const [step, setStep] = useState<Step>({ at: 'opening' })
  const [named, setNamed] = useState<Named>({ name: '', base: '' })
  const navigate = useNavigate()
  const { revalidate } = useRevalidator()

  useEffect(() => {
    let stale = false
    core()
      .prepare(input)
      .then((result) => {
        if (stale) return
        if (!result.ok) return setStep({ at: 'refused', why: result.why })
        setNamed({ name: result.prepared.name, base: result.prepared.base })
        setStep({ at: 'asking', prepared: result.prepared, problem: null })
      })
      .catch((error: Error) => setStep({ at: 'refused', why: `It could not be opened (${error.message}).` }))
    return () => {
      stale = true
    }
  }, [input])

  const ticket = useRef(0)
  async function take(prepared: Prepared, given: Named) {
    ticket.current = prepared.ticket
    setStep({
      at: 'reading',
      progress: { done: 0, of: prepared.pages + prepared.others, now: '' },
      cancelling: false,
    })
    // Asked for at the moment from which there is something to lose.
    void navigator.storage?.persist?.()
    const result: TakenIn = await takeAll(prepared, given, (progress) =>
      setStep((now) => (now.at === 'reading' ? { ...now, progress } : now)),
    ).catch((error: Error) => ({
      ok: false as const,
      why: `The intake broke off (${error.message}). Nothing was kept; try again, and report it if it breaks again.`,
    }))
    if (!result.ok) {
      if (result.about === 'base') return setStep({ at: 'asking', prepared, problem: result.why })
      return setStep({ at: 'refused', why: result.why })
    }
    const { site } = result
    void revalidate()
    if (site.unread.length === 0) return navigate(`/sites/${site.id}/ledger?view=left`)
    setStep({ at: 'done', site: site.id, pages: site.pages, others: site.otherFiles, unread: site.unread })
  }

  /** Takes all in; a page at which the worker gets stuck is left out, and the rest is taken in from the start. */
  async function takeAll(
    prepared: Prepared,
    given: Named,
    onReport: (progress: Progress) => void,
  ): Promise<TakenIn> {
    const leaveOut: { path: string; why: string }[] = []
    for (;;) {
      let now = ''
      const onProgress = (progress: Progress) => {
        now = progress.now
        onReport(progress)
      }
      try {
        return await reported(onProgress, (report) =>
          prepared.kind === 'project'
            ? core().takeInProject(ticket.current, today(), leaveOut, report)
            : core().takeIn(
                { ticket: ticket.current, ...given, today: today(), demo: false, leaveOut },
                report,
              ),
        )
      } catch (error) {
        if (!(error instanceof WorkerStopped) || now === '' || leaveOut.length === MOST_STUCK) throw error
        leaveOut.push({ path: now, why: `Reading it took too long: ${error.message} It was left out.` })
        await sweepShelf()
        const again = await core().prepare(input)
        if (!again.ok) return again
        ticket.current = again.prepared.ticket
      }
    }
  }

  const reading = step.at === 'reading'
  return (
    <Dialog
      open
      onOpenChange={(open) => {
        if (open) return
        if (step.at === 'reading') void core().cancelIntake(ticket.current)
        onClose()
      }}
      width={step.at === 'merging' ? 860 : 560}
      title={
        {
          opening: 'Opening …',
          refused: 'These pages could not be taken in',
          asking: 'Take the pages in',
          merging: 'Two people’s work as one',
          reading: 'Taking the pages in',
          done: 'Taken in',
        }[step.at]
      }
    >
      {step.at === 'refused' && (
        <>
          <p role="alert">{step.why}</p>
          <button type="button" className="button mt-5" onClick={onClose}>
            Back to the shelf
          </button>
        </>
      )}
      {step.at === 'asking' && (
        <AskingForm
          prepared={step.prepared}
          given={named}
          problem={step.problem}
          onMerge={(into) => setStep({ at: 'merging', prepared: step.prepared, into })}
          onTake={(given) => {
            setNamed(given)
            void take(step.prepared, given)
          }}
        />
      )}
      {step.at === 'merging' && (
        <MergeWork
          ticket={step.prepared.ticket}
          site={step.into}
          project={step.prepared.name}
          onDone={() => void navigate(`/sites/${step.into.id}/ledger`)}
        />
      )}
      {reading && (
        <div>
          <progress
            className="w-full"
            value={step.progress.done}
            max={step.progress.of}
            aria-label="Files read"
          />
          <p className="mt-2 text-ink-2" aria-live="polite">
            {step.progress.done.toLocaleString('en')} of {plural(step.progress.of, 'file')}
          </p>
          <p className="h-5 truncate text-[13px] text-ink-3">{step.progress.now}</p>
          <button
            type="button"
            className="button mt-4"
            disabled={step.cancelling}
            onClick={() => {
              setStep({ ...step, cancelling: true })
              void core().cancelIntake(ticket.current)
            }}
          >
            {step.cancelling ? 'Stopping …' : 'Cancel'}
          </button>
        </div>
      )}
      {step.at === 'done' && (
        <div>
          <p>
            {plural(step.pages, 'page')} taken in. {plural(step.unread.length, 'file')} could not be read as{' '}
            {step.unread.length === 1 ? 'a page' : 'pages'}; what is on the disk is kept aside, and goes into
            the hand-off as it is:
          </p>
          <ul className="mt-3 max-h-64 overflow-auto border-y border-rule text-[13px]">
            {step.unread.map(({ path, why }) => (
              <li key={path} className="border-b border-rule-2 py-1.5">
                <strong>{path}</strong> <span className="text-ink-2">{why}</span>
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="button button-main mt-5"
            onClick={() => navigate(`/sites/${step.site}/ledger?view=left`)}
          >
            Open the ledger
          </button>
        </div>
      )}
    </Dialog>
  )
}

interface Named {
  name: string
  base: string
}
const namedSchema = Joi.object<Named>({
  base: Joi.string().trim().required().messages({
    'string.empty': 'Enter the address at which the site answers, such as https://www.site.example/.',
  }),
  name: Joi.string().trim().max(200).required().messages({
    'string.empty': 'Give the site a name, by which you find it on the shelf.',
    'string.max': 'Call it something shorter: 200 characters at most.',
  }),
})

/** What is asked once: the site's address and name; of a project file, nothing. */
function AskingForm({
  prepared,
  given,
  problem,
  onMerge,
  onTake,
}: {
  prepared: Prepared
  given: Named
  /** Why the address will not do, which only reading it shows. */
  problem: string | null
  /** Only the work of a project file is taken, into a site on the shelf. */
  onMerge(into: SiteRecord): void
  onTake(given: Named): void
}) {
  const { register, handleSubmit, formState } = useForm({
    // A project file brings both along.
    resolver: prepared.kind === 'project' ? undefined : joiResolver(namedSchema),
    defaultValues: given,
    errors: useProblemOf('base', problem),
  })
  const room = useAnswer(roomHere, [])
  return (
    <form noValidate onSubmit={handleSubmit(onTake)}>
      <p className="text-ink-2">
        {plural(prepared.pages, 'page')}
        {prepared.others > 0 && `, and ${plural(prepared.others, 'other file')} kept aside for the hand-off`}
        {prepared.unread.length > 0 && `; ${plural(prepared.unread.length, 'file')} left out`}.
      </p>
      {prepared.kind === 'project' ? (
        <p className="mt-3">
          A project file of “{prepared.name}”, with all its work. It goes on the shelf as a site of its own.
        </p>
      ) : (
        <>
          <div className="mt-4">
            <FormField
              label="The address of the site’s root"
              help={`A guess from ${prepared.baseFrom}. Links and canonicals are checked against it.`}
              registered={register('base')}
              error={formState.errors.base}
            />
          </div>
          <div className="mt-4">
            <FormField
              label="What you call the site"
              registered={register('name')}
              error={formState.errors.name}
            />
          </div>
        </>
      )}
      {room && prepared.size > room.left && (
        <p role="alert" className="mt-4 border-l-2 border-carmine pl-3">
          It needs about {inMegabytes(prepared.size)}, and this browser has {inMegabytes(room.left)} left.
          Take in a part of it, remove a site from the shelf, or free disk space.
        </p>
      )}
      <button
        type="submit"
        className="button button-main mt-6"
        disabled={room !== null && prepared.size > room.left}
      >
        Take in {plural(prepared.pages, 'page')}
      </button>
      {prepared.kind === 'project' && <MergeOffer base={prepared.base} onChoose={onMerge} />}
    </form>
  )
}
