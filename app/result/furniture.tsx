import type { HouseStyle } from '../../core/rules/house-style.ts'
import { shownPrice } from '../../core/structured-data/shown-price.ts'
import type { Furniture } from '../../core/structured-data/things.ts'
import type { InResult } from '../../core/structured-data/in-result.ts'
import { shownDate } from './furniture-text.ts'

/** Which of a result's furniture the editor has switched on. */
export type FurnitureShown = Record<'date' | 'rating' | 'price' | 'trail' | 'questions', boolean>
export const nothingShown: FurnitureShown = {
  date: false,
  rating: false,
  price: false,
  trail: false,
  questions: false,
}
const labels: Record<keyof FurnitureShown, string> = {
  date: 'date',
  rating: 'rating',
  price: 'price',
  trail: 'breadcrumb',
  questions: 'questions',
}

/** Switches for what the page's own data has and results can use; what is still missing for the rest; and who decides. */
export function FurnitureSwitches({
  furniture,
  inResult,
  lang,
  shown,
  onChange,
}: {
  furniture: Furniture
  inResult: InResult
  lang: string | null
  shown: FurnitureShown
  onChange(shown: FurnitureShown): void
}) {
  const has: Record<keyof FurnitureShown, boolean> = {
    date: shownDate(furniture.date, lang) !== null,
    rating: furniture.rating !== null,
    price: furniture.price !== null,
    trail: furniture.trail !== null,
    questions: inResult.adds.questions !== undefined,
  }
  const present = (Object.keys(has) as (keyof FurnitureShown)[]).filter((k) => has[k])
  if (present.length === 0) return null
  // A date that no feature speaks of is shown before many a description all the same.
  const can = present.filter((k) => inResult.adds[k]?.eligible ?? k === 'date')
  const cannot = present.filter((k) => !can.includes(k))
  const notes = [...new Set(can.flatMap((k) => inResult.adds[k]?.note ?? []))]
  return (
    <fieldset className="text-[13px]">
      <legend className="sr-only">From the page’s data</legend>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <strong className="font-semibold">From the page’s data</strong>
        {can.map((k) => (
          <label key={k} className="flex items-baseline gap-1.5">
            <input
              type="checkbox"
              className="accent-ink"
              checked={shown[k]}
              onChange={(e) => onChange({ ...shown, [k]: e.target.checked })}
            />
            {labels[k]}
          </label>
        ))}
        <span className="text-ink-3">
          {can.length > 0 && 'Search engines decide whether to show any of it.'}
        </span>
      </div>
      {cannot.map((k) => (
        <p key={k} className="text-ink-2">
          The data has a {labels[k]} that results cannot use yet
          {inResult.adds[k] &&
            `. Missing for ${inResult.adds[k].feature}: ${inResult.adds[k].missing.join('; ')}`}
          .
        </p>
      ))}
      {notes.map((note) => (
        <p key={note} className="text-ink-2">
          Questions: {note}
        </p>
      ))}
    </fieldset>
  )
}

/** Questions under a result, each on a line, as they stood where they were still shown. */
export function FurnitureQuestions({
  inResult,
  shown,
  style,
}: {
  inResult: InResult
  shown: FurnitureShown
  style: HouseStyle
}) {
  if (!shown.questions || inResult.questions.length === 0) return null
  return (
    <ul
      style={{ fontSize: style.slots.description.wide.size, lineHeight: '22px' }}
      data-testid="result-questions"
    >
      {inResult.questions.map(({ question, answer }) => (
        <li key={question} className="border-t border-rule-2 py-0.5">
          {question}{' '}
          <span className="text-ink-2">{answer.length > 90 ? answer.slice(0, 90) + ' …' : answer}</span>
        </li>
      ))}
    </ul>
  )
}

/** The line of rating and price below a description. */
export function FurnitureLine({
  furniture,
  shown,
  lang,
  style,
}: {
  furniture: Furniture
  shown: FurnitureShown
  lang: string | null
  style: HouseStyle
}) {
  const { rating, price } = furniture
  const parts = [
    shown.rating && rating
      ? `${rating.value} of ${rating.best}${rating.count ? ` by ${rating.count} people` : ''}`
      : null,
    shown.price && price ? shownPrice(price, lang) : null,
  ].filter(Boolean)
  if (parts.length === 0) return null
  return (
    <p className="text-ink-2" style={{ fontSize: style.slots.description.wide.size, lineHeight: '22px' }}>
      {parts.join(' · ')}
    </p>
  )
}
