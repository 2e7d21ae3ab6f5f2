import { useEffect, useId, useRef } from 'react'

/**
 * A change of many pages before it is kept: what it is, how far it has been looked at, what it would come to, the pages
 * to choose from, and the one step that keeps it.
 */
export function BulkStep({
  title,
  beside,
  progress = null,
  figures,
  children,
  keep,
  canKeep,
  onKeep,
  onClose,
  closeLabel = 'Leave it',
  takesFocus = false,
  testId,
}: {
  title: React.ReactNode
  /** Beside the title: what can be chosen. */
  beside?: React.ReactNode
  /** Pages looked at, while that goes on. */
  progress?: { done: number; of: number } | null
  figures: React.ReactNode
  children: React.ReactNode
  keep: string
  canKeep: boolean
  onKeep(): void
  onClose(): void
  closeLabel?: string
  /** Whether the title takes the focus when the step is opened. */
  takesFocus?: boolean
  testId: string
}) {
  const id = useId()
  const heading = useRef<HTMLHeadingElement>(null)
  useEffect(() => {
    if (takesFocus) heading.current?.focus()
  }, [takesFocus])
  return (
    <section className="sheet mt-4 p-5" aria-labelledby={id} data-testid={testId}>
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <h3 id={id} ref={heading} tabIndex={-1} className="font-serif text-[18px] outline-none">
          {title}
        </h3>
        {beside}
        <button type="button" className="quiet ml-auto text-[13px]" onClick={onClose}>
          {progress ? 'Cancel' : closeLabel}
        </button>
      </div>
      {progress && (
        <p className="mt-1 flex items-center gap-3 text-[13px] text-ink-2">
          <progress value={progress.done} max={progress.of} aria-label="Pages looked at" />{' '}
          {progress.done.toLocaleString('en')} of {progress.of.toLocaleString('en')} pages
        </p>
      )}
      <div className="mt-1 text-[13px] text-ink-2" role="status" data-testid={`${testId}-figures`}>
        {figures}
      </div>
      <div className="mt-3">{children}</div>
      <p className="mt-4 flex flex-wrap items-baseline gap-5">
        <button type="button" className="button button-main" disabled={!canKeep} onClick={onKeep}>
          {keep}
        </button>
        <span className="text-[13px] text-ink-2">One step, which undo takes back.</span>
      </p>
    </section>
  )
}
