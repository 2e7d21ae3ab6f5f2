/** Linking the words that are selected in a block to a page of the site. */
import { useId, useState } from 'react'
import type { LedgerRow } from '../../../core/work/evaluate.ts'

export interface Selected {
  phrase: string
  /** Which occurrence of it in the block, counted from 0. */
  nth: number
}

/** What a selection of a text field comes to; null for nothing. */
export function selectedIn(value: string, from: number, to: number): Selected | null {
  const phrase = value.slice(from, to).trim()
  if (phrase === '' || phrase.includes('\n')) return null
  const start = from + value.slice(from, to).indexOf(phrase)
  let nth = 0
  for (let at = value.indexOf(phrase); at >= 0 && at < start; at = value.indexOf(phrase, at + 1)) nth++
  return { phrase, nth }
}

export function LinkWords({
  selected,
  rows,
  own,
  onLink,
}: {
  selected: Selected
  rows: Iterable<LedgerRow>
  /** The page that the words stand on. */
  own: string
  onLink(href: string): void
}) {
  const id = useId()
  const [typed, setTyped] = useState('')
  const pages = [...rows].filter((row) => row.id !== own)
  // Pages whose phrase it is come first.
  const said = selected.phrase.toLowerCase()
  const ranked = [...pages].sort(
    (a, b) =>
      Number((b.phrase ?? '').toLowerCase() === said) - Number((a.phrase ?? '').toLowerCase() === said),
  )
  const target = pages.find((row) => row.url === typed || new URL(row.url).pathname === typed)
  return (
    <div className="mt-1 flex items-baseline gap-3 font-sans text-[13px]" data-testid="link-words">
      <label htmlFor={id} className="shrink-0">
        Link “{selected.phrase.length > 30 ? `${selected.phrase.slice(0, 30)} …` : selected.phrase}” to
      </label>
      <input
        id={id}
        list={`${id}-pages`}
        className="min-w-0 flex-1 border-b border-sign bg-transparent"
        placeholder="a page of the site, or an address"
        value={typed}
        // The selection in the text is kept: the field takes the focus and gives nothing up.
        onChange={(e) => setTyped(e.target.value)}
      />
      <datalist id={`${id}-pages`}>
        {ranked.slice(0, 500).map((row) => (
          <option key={row.id} value={new URL(row.url).pathname}>
            {row.h1 || row.title || row.path}
          </option>
        ))}
      </datalist>
      <button
        type="button"
        className="action disabled:opacity-60"
        disabled={!target && !/^(?:https?:\/\/|\/)\S+$/i.test(typed)}
        onClick={() => onLink(target ? new URL(target.url).pathname : typed)}
      >
        Link it
      </button>
    </div>
  )
}
