/** A result with the place before or behind it where ours can be put. */
export function Among({
  at,
  onPut,
  isBehind = false,
  children,
}: {
  /** The place that ours would have there. */
  at: number
  onPut(at: number): void
  isBehind?: boolean
  children: React.ReactNode
}) {
  const caret = (
    <li className="list-none">
      <button
        type="button"
        className="flex min-h-6 w-full items-center gap-2 border-t border-rule-2 text-left text-[12px] text-ink-3 hover:text-ink focus-visible:text-ink"
        aria-label={`Put ours at ${at}`}
        onClick={() => onPut(at)}
      >
        <span aria-hidden className="font-serif text-[15px] leading-4">
          ‸
        </span>
      </button>
    </li>
  )
  return (
    <>
      {!isBehind && caret}
      {children}
      {isBehind && caret}
    </>
  )
}
