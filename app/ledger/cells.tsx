/** What the cells of the ledger say, read like print. */
import { placementInWords } from '../../core/keywords/placement.ts'
import type { Fit } from '../../core/measure/snippet.ts'
import { stateOf, takesOf, type Answer, type Decisions } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { hasTokens } from '../../core/wording/tokens.ts'
import { fieldValue } from '../../core/work/typed-field.ts'
import type { SiteMarkCount } from './order.ts'

const SCALE = 330 / 720

/** The thin measure under a title: its width, and the cut as a tick. */
function Measure({ px, cut, column }: { px: number; cut: boolean; column: number }) {
  const limit = column * SCALE
  const width = Math.min(px * SCALE, 330)
  return (
    <svg
      width="330"
      height="9"
      className="mt-1 block"
      role="img"
      aria-label={`${Math.round(px)} px${cut ? ', cut' : ''}`}
    >
      <line x1="0" x2="330" y1="4.5" y2="4.5" stroke="var(--rule)" />
      <rect x="0" y="3" width={Math.min(width, limit)} height="3" fill="var(--ink-2)" />
      {width > limit && <rect x={limit} y="3" width={width - limit} height="3" fill="var(--carmine)" />}
      <line x1={limit} x2={limit} y1="0" y2="9" stroke="var(--ink-2)" />
    </svg>
  )
}

export function TitleCell({
  row,
  decisions,
  column,
}: {
  row: LedgerRow
  decisions: Decisions
  column: number
}) {
  const typed = fieldValue(decisions, 'title', row)
  const title = hasTokens(typed) ? (row.title ?? typed) : typed
  if (title.trim() === '')
    return (
      <p className="font-serif text-[15px] text-carmine italic">
        ‸ no title{row.h1 ? `: “${row.h1}” would be shown` : ''}
      </p>
    )
  return (
    <>
      <p className="line-clamp-2 font-serif text-[15px] leading-5">{title}</p>
      <Measure px={row.titlePx} cut={row.titleFit === 'cut'} column={column} />
    </>
  )
}

export function DescriptionCell({ row, decisions }: { row: LedgerRow; decisions: Decisions }) {
  const description = fieldValue(decisions, 'meta:description', row)
  if (description.trim() === '') return <p className="font-serif text-[15px] text-carmine italic">‸ none</p>
  return (
    <p className="line-clamp-3 leading-[19px]">
      {description}
      {row.descriptionFit === 'cut' && <span className="text-carmine"> · cut</span>}
    </p>
  )
}

/** How title and description stand in results; what fits says so only once. */
export function WidthState({ row }: { row: LedgerRow }) {
  const worst = (a: Fit, b: Fit): Fit => (a === 'cut' || b === 'cut' ? 'cut' : a === 'at-risk' ? a : b)
  const wide = worst(row.titleFit, row.descriptionFit)
  const narrow = row.titleFitNarrow
  const names: Record<Fit, string> = { fits: 'fits', 'at-risk': 'at risk', cut: 'cut' }
  return (
    <>
      <span className={wide === 'cut' ? 'text-carmine' : wide === 'fits' ? 'text-ink-3' : 'text-ink-2'}>
        {names[wide]}
      </span>
      {narrow === 'cut' && wide !== 'cut' && (
        <span className="block text-[12px] text-ink-2">narrow: cut</span>
      )}
    </>
  )
}

export function AnswerLine({ answer }: { answer: Answer | undefined }) {
  if (!answer) return null
  return (
    <span className="block truncate text-[12px] text-ink-3" title={answer.note}>
      {answer.answer === 'note' ? 'a note' : answer.answer}
      {answer.by && ` from ${answer.by}`}
    </span>
  )
}

export function Counts({ row, site }: { row: LedgerRow; site: SiteMarkCount | undefined }) {
  const blocker = row.blocker + (site?.blocker ?? 0)
  const flaw = row.flaw + (site?.flaw ?? 0)
  const nit = row.nit + (site?.nit ?? 0)
  if (blocker + flaw + nit === 0) return <span className="text-[12px] text-ink-3">clean</span>
  return (
    <span
      className="flex gap-2 font-serif text-[15px]"
      title={`${blocker} blockers, ${flaw} flaws, ${nit} nits`}
    >
      <span className="sr-only">{`${blocker} blockers, ${flaw} flaws, ${nit} nits`}</span>
      <span aria-hidden className="flex gap-2">
        {blocker > 0 && <b className="font-semibold text-carmine">{blocker}</b>}
        {flaw > 0 && <b className="font-semibold">{flaw}</b>}
        {nit > 0 && <span className="text-ink-3">{nit}</span>}
      </span>
    </span>
  )
}

/** The primary keyword, and where the page has it, in the same words as on the desk. */
export function KeywordCell({
  row,
  decisions,
  leadWords,
}: {
  row: LedgerRow
  decisions: Decisions
  leadWords: number
}) {
  const primary = decisions['keyword:primary'] as string | undefined
  if (!primary) return <span className="text-ink-3">none yet</span>
  // A row that was made before its keyword was changed says nothing of the new one.
  const placed = row.placement && row.phrase === primary ? placementInWords(row.placement, leadWords) : null
  return (
    <>
      {primary}
      {placed && (
        <span className="line-clamp-3 text-[12px] leading-4 text-ink-2" title={placed}>
          {placed}
        </span>
      )}
    </>
  )
}

export function H1Cell({ row }: { row: LedgerRow }) {
  if (row.h1Count === 1) return row.h1 ?? 'empty'
  return <span className="text-carmine">{row.h1Count === 0 ? 'none' : `${row.h1Count} found`}</span>
}

export function TakesCell({ decisions }: { decisions: Decisions }) {
  const takes = takesOf(decisions, 'title').length + takesOf(decisions, 'description').length
  return takes || <span className="sr-only">none</span>
}

export function StateCell({ decisions }: { decisions: Decisions }) {
  return (
    <>
      {stateOf(decisions)}
      <AnswerLine answer={decisions.answer as Answer | undefined} />
    </>
  )
}
