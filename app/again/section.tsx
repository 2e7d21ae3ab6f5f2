import { useState } from 'react'

const AT_FIRST = 50

/** One class of what taking in again came to: its name, its number, what it means, and its lines, not too many at once. */
export function Section<T>({
  id,
  title,
  about,
  items,
  children,
}: {
  id: string
  title: string
  about: string
  items: readonly T[]
  children(item: T, index: number): React.ReactNode
}) {
  const [all, setAll] = useState(false)
  if (items.length === 0) return null
  const shown = all ? items : items.slice(0, AT_FIRST)
  return (
    <section aria-labelledby={id} className="mt-7">
      <h2 id={id} className="font-serif text-[20px]">
        {title}{' '}
        <span className="text-[15px] text-ink-2 tabular-nums">{items.length.toLocaleString('en')}</span>
      </h2>
      <p className="text-[13px] text-ink-2">{about}</p>
      <ul className="mt-2 border-t border-rule">{shown.map(children)}</ul>
      {items.length > shown.length && (
        <button type="button" className="action mt-2" onClick={() => setAll(true)}>
          Show all {items.length.toLocaleString('en')}
        </button>
      )}
    </section>
  )
}
