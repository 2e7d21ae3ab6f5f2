/** The views of one section as words beside its heading. */
export function ViewsNav<V extends string>({
  label,
  views,
  now,
  onChoose,
}: {
  label: string
  views: Readonly<Record<V, string>>
  now: V
  onChoose(view: V): void
}) {
  return (
    <nav aria-label={label} className="flex gap-6">
      {(Object.entries(views) as [V, string][]).map(([view, name]) => (
        <button
          key={view}
          type="button"
          aria-current={view === now ? 'page' : undefined}
          className={`border-b-2 pb-0.5 ${view === now ? 'border-ink font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
          onClick={() => onChoose(view)}
        >
          {name}
        </button>
      ))}
    </nav>
  )
}
