import { joiResolver } from '@hookform/resolvers/joi'
import Joi from 'joi'
import { Popover } from 'radix-ui'
import { memo, useLayoutEffect, useRef, useState } from 'react'
import { useForm } from 'react-hook-form'
import type { Session } from '../session/session.ts'
import { FormField } from '../ui/form.tsx'
import { today } from '../session/today.ts'
import { overEdit, type Draft, type Edit } from '../../core/page/edits/draft.ts'
import type { Decision } from '../store/work-log.ts'
import { EditPreview } from './edit-preview.tsx'
import { Quoted } from '../ui/quoted.tsx'
import { Sign } from '../ui/sign.tsx'
import type { MarkView } from '../workers/page-view.ts'

const GAP = 14
const severityNames = { blocker: 'Blocker', flaw: 'Flaw', nit: 'Nit' } as const
const severities = Object.keys(severityNames)

const sameTops = (a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): boolean =>
  a.size === b.size && [...a].every(([id, top]) => b.get(id) === top)

/** Something beside the marks that stands in the margin at its line: no mark of ours, and not counted as one. */
export interface Remark {
  id: string
  line: number
  text: string
  /** What said it, and by which name. */
  from: string
}

/**
 * The margin: each mark level with the line that it is about, pushed down where two would meet. `anchors` are px from
 * the margin's top by mark id; a mark without one stands after those of its page as a whole, at the top.
 */
export const Margin = memo(function Margin({
  page,
  marks,
  anchors,
  session,
  onGoTo,
  remarks = [],
  onGoToRemark,
  clean,
}: {
  page: string
  marks: MarkView[]
  remarks?: Remark[]
  onGoToRemark?(remark: Remark): void
  anchors: ReadonlyMap<string, number>
  session: Session
  onGoTo?(mark: MarkView): void
  clean: string
}) {
  const box = useRef<HTMLOListElement>(null)
  const [tops, setTops] = useState<ReadonlyMap<string, number>>(new Map())
  const [height, setHeight] = useState(0)
  // From the top of the sheet down; of what stands at one place, what matters most first, and marks before remarks.
  const ordered: Entry[] = [
    ...marks.map((mark) => ({ id: mark.id, mark, remark: null })),
    ...remarks.map((remark) => ({ id: remark.id, mark: null, remark })),
  ].sort(
    (a, b) =>
      (anchors.get(a.id) ?? 0) - (anchors.get(b.id) ?? 0) ||
      (a.mark ? severities.indexOf(a.mark.severity) : severities.length) -
        (b.mark ? severities.indexOf(b.mark.severity) : severities.length),
  )
  const layoutKey = ordered.map(({ id }) => `${id}:${anchors.get(id) ?? 0}`).join('|')

  useLayoutEffect(() => {
    const place = () => {
      if (!box.current) return
      // Below the sheet, as in a narrow window, there are no lines to be level with.
      const beside = !matchMedia('(max-width: 1100px)').matches
      let bottom = 0
      const next = new Map<string, number>()
      for (const item of box.current.children) {
        const id = (item as HTMLElement).dataset.mark!
        const top = Math.max(beside ? (anchors.get(id) ?? 0) : 0, bottom)
        next.set(id, top)
        bottom = top + (item as HTMLElement).offsetHeight + GAP
      }
      // An observer says once at its start what is known.
      setTops((now) => (sameTops(now, next) ? now : next))
      setHeight(bottom)
    }
    place()
    const observer = new ResizeObserver(place)
    for (const item of box.current?.children ?? []) observer.observe(item)
    return () => observer.disconnect()
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key holds all that moves a mark; the observer sees its size
  }, [layoutKey])

  return (
    <aside
      aria-label="Margin: marks on this sheet"
      data-testid="margin"
      className="relative min-w-0 wrap-anywhere"
    >
      <h2 className="sr-only">Margin: marks on this sheet</h2>
      {ordered.length === 0 && <p className="font-serif text-[15px] text-ink-2 italic">{clean}</p>}
      <ol ref={box} style={{ height }} className="relative">
        {ordered.map(({ id, mark, remark }) => (
          <li
            key={id}
            data-mark={id}
            data-rule={mark?.rule}
            className="absolute right-0 left-0 grid grid-cols-[24px_minmax(0,1fr)] gap-x-2.5"
            style={{ top: tops.get(id) ?? anchors.get(id) ?? 0 }}
          >
            {mark ? (
              <>
                <Sign name={mark.stet ? 'stet' : mark.sign} severity={mark.severity} />
                <MarkText page={page} mark={mark} session={session} onGoTo={onGoTo} />
              </>
            ) : (
              <div className="col-start-2 text-[13px] text-ink-2" data-testid="finding">
                <p>{remark.text}</p>
                <p className="mt-0.5 flex flex-wrap gap-x-4">
                  {onGoToRemark && (
                    <button type="button" className="quiet" onClick={() => onGoToRemark(remark)}>
                      Line {remark.line}
                    </button>
                  )}
                  <span className="text-ink-3">{remark.from}</span>
                </p>
              </div>
            )}
          </li>
        ))}
      </ol>
    </aside>
  )
})

/** One thing in the margin: a mark, or a remark. */
type Entry = { id: string; mark: MarkView; remark: null } | { id: string; mark: null; remark: Remark }

function MarkText({
  page,
  mark,
  session,
  onGoTo,
}: {
  page: string
  mark: MarkView
  session: Session
  onGoTo?(mark: MarkView): void
}) {
  const { repair } = mark
  if (mark.stet)
    return (
      <div>
        <h3 className="font-serif text-[15px] leading-5 text-ink-3 line-through decoration-dotted decoration-1">
          {mark.name}
        </h3>
        <p className="mt-0.5 text-[13px] text-ink-2">
          Stet (let it stand): “{mark.stet.reason}” Since {mark.stet.date}.{' '}
          <button
            type="button"
            className="quiet"
            onClick={() =>
              void session.decide('Stet withdrawn', [{ page, key: mark.stetKey, after: undefined }])
            }
          >
            Withdraw
          </button>
        </p>
      </div>
    )
  return (
    <div>
      <h3 className="font-serif text-[15.5px] leading-5">{mark.name}</h3>
      <p className="mt-0.5 text-[13px] text-ink-2">
        <span className={mark.severity === 'blocker' ? 'text-carmine' : ''}>
          {severityNames[mark.severity]}.
        </span>{' '}
        <Quoted text={mark.message} />
        {mark.stoodBefore &&
          ` It was let stand before (“${mark.stoodBefore.reason}”), but what it is about has changed.`}
      </p>
      {mark.otherPages.length > 0 && (
        <p className="mt-0.5 text-[13px] text-ink-2" title={mark.otherPages.slice(0, 40).join('\n')}>
          Also {mark.otherPages.slice(0, 2).join(', ')}
          {mark.otherPages.length > 2 && ` and ${mark.otherPages.length - 2} more`}
        </p>
      )}
      <p className="mt-1 flex flex-wrap gap-x-4 text-[13px]">
        {repair && (
          <button
            type="button"
            className="action"
            onClick={() => {
              void session.decide(repair.label, () => repairDecisions(session, page, repair.edits))
            }}
          >
            {repair.label}
          </button>
        )}
        {repair && <EditPreview session={session} page={page} edits={repair.edits} />}
        {onGoTo && mark.start !== null && (
          <button type="button" className="quiet" onClick={() => onGoTo(mark)}>
            Line {mark.line}
          </button>
        )}
        <Why mark={mark} />
        <StetForm page={page} mark={mark} session={session} />
      </p>
    </div>
  )
}

/** What a repair decides, over what was decided before. */
const repairDecisions = (session: Session, page: string, edits: Draft): Decision[] =>
  Object.entries(edits).map(([key, edit]) => ({
    page,
    key: `edit:${key}`,
    after: overEdit(session.decisionsOf(page)[`edit:${key}`] as Edit | undefined, edit),
  }))

function Why({ mark }: { mark: MarkView }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="quiet">Why</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content side="left" sideOffset={12} className="sheet z-30 w-80 p-4 text-[13px]">
          <p className="font-serif text-[15px]">{mark.why}</p>
          <p className="mt-2">{mark.mend}</p>
          <p className="mt-2 text-ink-3">Basis: {mark.basis}.</p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

const stetSchema = Joi.object<{ reason: string }>({
  reason: Joi.string().trim().max(500).required().messages({
    'string.empty': 'Say why it may stand, for whoever reads it next.',
    'string.max': 'Say it in 500 characters at most.',
  }),
})

function StetForm({ page, mark, session }: { page: string; mark: MarkView; session: Session }) {
  const [open, setOpen] = useState(false)
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="quiet" title="Let it stand, with a reason">
        Stet
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content side="left" sideOffset={12} className="sheet z-30 w-80 p-4">
          <ReasonForm
            onStet={(reason) => {
              setOpen(false)
              void session.decide(`Stet: ${mark.name}`, [
                { page, key: mark.stetKey, after: { fingerprint: mark.fingerprint, reason, date: today() } },
              ])
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

function ReasonForm({ onStet }: { onStet(reason: string): void }) {
  const { register, handleSubmit, formState } = useForm({
    resolver: joiResolver(stetSchema),
    defaultValues: { reason: '' },
  })
  return (
    <form noValidate onSubmit={handleSubmit(({ reason }) => onStet(reason))}>
      <FormField
        label="Let it stand, because …"
        registered={register('reason')}
        error={formState.errors.reason}
      />
      <button type="submit" className="button mt-3">
        Stet: let it stand
      </button>
    </form>
  )
}
