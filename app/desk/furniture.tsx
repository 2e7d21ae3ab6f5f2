import type { HouseStyle } from '../../core/rules/house-style.ts'
import { shownPrice, type Furniture } from '../../core/structured-data/things.ts'
import { shownDate } from './furniture-text.ts'

/** Which of a result's furniture the editor has switched on. */
export type Shown = Record<'date' | 'rating' | 'price' | 'trail', boolean>
export const nothingShown: Shown = { date: false, rating: false, price: false, trail: false }
const labels: Record<keyof Shown, string> = {
  date: 'date',
  rating: 'rating',
  price: 'price',
  trail: 'breadcrumb',
}

/** Switches for what the page's own data has, and nothing that it has not. */
export function FurnitureSwitches({
  furniture,
  lang,
  shown,
  onChange,
}: {
  furniture: Furniture
  lang: string | null
  shown: Shown
  onChange(shown: Shown): void
}) {
  const has: Record<keyof Shown, boolean> = {
    date: shownDate(furniture.date, lang) !== null,
    rating: furniture.rating !== null,
    price: furniture.price !== null,
    trail: furniture.trail !== null,
  }
  const present = (Object.keys(has) as (keyof Shown)[]).filter((k) => has[k])
  if (present.length === 0) return null
  return (
    <fieldset className="flex flex-wrap items-baseline gap-x-4">
      <legend className="float-left mr-4 font-semibold">From the page’s data</legend>
      {present.map((k) => (
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
    </fieldset>
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
  shown: Shown
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
