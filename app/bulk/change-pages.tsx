/** A change of the pages that are picked: what it is, what it would come to, some left out, kept as one step. */
import { useState } from 'react'
import { toast } from 'sonner'
import { measure, type Fit } from '../../core/measure/snippet.ts'
import { styleFor, type HouseStyle } from '../../core/rules/house-style.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { BulkStep as Step, PageProposal, ProposedChange } from '../../core/work/bulk/step.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Session } from '../session/session.ts'
import { Choice } from '../ui/choice.tsx'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { BulkStep } from './bulk-step.tsx'
import { useLeftOut } from './left-out.ts'
import { PageChoice } from './page-choice.tsx'
import { StepForm, stepNames, type RuleChoice, type StepKind } from './step-form.tsx'
import { useBulkPreview } from './use-bulk-preview.ts'

const kinds = Object.keys(stepNames) as StepKind[]

export function ChangePages({
  session,
  pages,
  repairable,
  marked,
  onClose,
}: {
  session: Session
  pages: readonly PageId[]
  repairable: readonly RuleChoice[]
  marked: readonly RuleChoice[]
  onClose(): void
}) {
  const [kind, setKind] = useState<StepKind>('replace')
  const [step, setStep] = useState<Step | null>(null)
  const { preview, progress } = useBulkPreview(session, step, pages)
  const { rows, style } = session.get()
  return (
    <ProposedChanges
      session={session}
      title={`Change ${plural(pages.length, 'page')}`}
      beside={
        <Choice
          label="What"
          value={kind}
          options={kinds.map((value) => ({ value, name: stepNames[value] }))}
          onChange={(value) => {
            setKind(value)
            setStep(null)
          }}
        />
      }
      form={
        <StepForm
          key={kind}
          kind={kind}
          titlePattern={style.titlePattern}
          casing={style.casing}
          repairable={repairable}
          marked={marked}
          onStep={setStep}
        />
      }
      label={step ? labelOf(step) : ''}
      proposals={preview?.pages ?? null}
      waiting={step !== null && preview === null}
      same={preview?.same ?? 0}
      progress={progress}
      rows={rows}
      style={style}
      onClose={onClose}
    />
  )
}

/** What the step is called in the log. */
function labelOf(step: Step): string {
  switch (step.kind) {
    case 'replace':
      return `“${step.find}” replaced with “${step.with}”`
    case 'fill':
      return `Empty ${step.field}s filled`
    case 'keyword':
      return `Keyword “${step.phrase}”`
    case 'state':
      return `State: ${step.state}`
    default:
      return stepNames[step.kind]
  }
}

/** Changes of many pages, from a step or from a sheet, before they are kept. */
export function ProposedChanges({
  session,
  title,
  beside,
  form,
  label,
  proposals,
  waiting,
  same,
  progress,
  rows,
  style,
  onClose,
}: {
  session: Session
  title: string
  beside?: React.ReactNode
  form?: React.ReactNode
  label: string
  /** Null as long as nothing is known. */
  proposals: readonly PageProposal[] | null
  waiting: boolean
  /** Pages that stay as they are. */
  same: number
  progress: { done: number; of: number } | null
  rows: ReadonlyMap<PageId, LedgerRow>
  style: HouseStyle
  onClose(): void
}) {
  const [leftOut, leaveOut] = useLeftOut()
  const possible = (proposals ?? []).filter((p) => p.why === null)
  const chosen = possible.filter((p) => !leftOut.has(p.id))
  const impossible = (proposals ?? []).length - possible.length
  const keep = () =>
    tell('The change could not be kept', async () => {
      await session.decide(
        `${label}, ${plural(chosen.length, 'page')}`,
        chosen.flatMap(({ id, decisions }) => decisions.map(({ key, after }) => ({ page: id, key, after }))),
      )
      toast(`${label}: ${plural(chosen.length, 'page')} changed.`)
      onClose()
    })
  return (
    <BulkStep
      testId="change-pages"
      title={title}
      takesFocus={form === undefined}
      beside={beside}
      progress={progress}
      figures={
        proposals === null
          ? waiting && 'Looking at the pages …'
          : [
              possible.length === 0
                ? 'No page would change.'
                : `${plural(chosen.length, 'page')} would change${chosen.length < possible.length ? `, ${possible.length - chosen.length} left out` : ''}.`,
              same > 0 &&
                `${plural(same, 'page')} ${same === 1 ? 'stays' : 'stay'} as ${same === 1 ? 'it is' : 'they are'}.`,
              impossible > 0 && `${plural(impossible, 'page')} cannot be changed.`,
            ]
              .filter(Boolean)
              .join(' ')
      }
      keep={chosen.length > 0 ? `Keep on ${plural(chosen.length, 'page')}` : 'Keep'}
      canKeep={chosen.length > 0 && progress === null && !waiting}
      onKeep={keep}
      onClose={onClose}
    >
      {form}
      {proposals && proposals.length > 0 && (
        <div className="mt-4 border-t border-ink">
          <PageChoice
            pages={[...proposals]}
            leftOut={leftOut}
            onLeaveOut={leaveOut}
            canChange={(p) => p.why === null}
            height={420}
            rowHeight={58}
            line={(p) => <Changes proposal={p} row={rows.get(p.id)} style={style} />}
          />
        </div>
      )}
    </BulkStep>
  )
}

const MOST_SHOWN = 6
const fits: Record<Fit, string> = { fits: 'fits', 'at-risk': 'at risk', cut: 'cut' }

function Changes({
  proposal: { changes, why },
  row,
  style,
}: {
  proposal: PageProposal
  row: LedgerRow | undefined
  style: HouseStyle
}) {
  if (why !== null) return <p className="text-[13px] text-ink-2">{why}</p>
  const { slots } = row ? styleFor(style, row.url) : style
  return (
    <ul>
      {changes.slice(0, MOST_SHOWN).map((change, i) => (
        <li key={i} className="grid grid-cols-[118px_minmax(0,1fr)_120px] items-baseline gap-x-4 text-[13px]">
          <span className="text-ink-3">{change.name}</span>
          <span className="min-w-0">
            <span className="block [overflow-wrap:anywhere] text-ink-2 line-through decoration-ink-3">
              {change.before || <i className="no-underline">none</i>}
            </span>
            <span className="block font-serif text-[15px] [overflow-wrap:anywhere]">
              {change.after || <i>none</i>}
            </span>
          </span>
          <Width change={change} slots={slots} />
        </li>
      ))}
      {changes.length > MOST_SHOWN && (
        <li className="text-[13px] text-ink-3">and {changes.length - MOST_SHOWN} more</li>
      )}
    </ul>
  )
}

function Width({
  change: { role, before, after },
  slots,
}: {
  change: ProposedChange
  slots: HouseStyle['slots']
}) {
  if (role === null) return <span />
  const [was, is] = [before, after].map((text) => measure(text, role, slots))
  return (
    <span className="text-[12px] text-ink-2 tabular-nums">
      {Math.round(was!.px)} → {Math.round(is!.px)} px
      <span className={`block ${is!.wide.state === 'cut' ? 'font-semibold text-carmine' : ''}`}>
        {fits[is!.wide.state]}
      </span>
    </span>
  )
}
