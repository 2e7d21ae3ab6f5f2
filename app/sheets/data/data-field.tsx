import { useId, useState } from 'react'
import { asLabel } from '../../../core/structured-data/words.ts'
import type { Control } from '../../workers/data-fields.ts'
import { whyWrong } from './data-forms.ts'
import { durationOf, hoursAndMinutes } from './data-words.ts'

const line = 'w-full border-b bg-transparent leading-[22px] hover:border-sign'
const edge = (wrong: boolean) => (wrong ? 'border-carmine' : 'border-rule')

/** What a value may be chosen from besides being typed: pictures and addresses of the page, currencies. */
export interface Suggestions {
  images: readonly string[]
  addresses: readonly string[]
  currencies: readonly string[]
}

/** One value, with the control that fits what the property takes. It shows what is typed at once; the data follows. */
export function ValueField({
  label,
  control,
  value,
  choices,
  textWillDo,
  suggestions,
  onType,
  onRest,
}: {
  label: string
  control: Control
  value: string
  choices: readonly string[]
  textWillDo: boolean
  suggestions: Suggestions
  onType(text: string): void
  onRest(): void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  // What was typed since the field was entered: the data comes back a moment later, older texts first.
  const [sent, setSent] = useState<readonly string[]>([])
  const [seen, setSeen] = useState(value)
  if (value !== seen) {
    setSeen(value)
    // Something else than what was typed: a step was undone, or the JSON was written.
    if (typed !== null && !sent.includes(value)) setTyped(null)
  }
  const id = useId()
  const shown = typed ?? value
  const why = whyWrong(control, shown, textWillDo)
  const type = (text: string) => {
    setTyped(text)
    setSent([...sent.slice(-50), text])
    onType(text)
  }
  const rest = () => {
    setTyped(null)
    setSent([])
    onRest()
  }
  const common = { 'aria-label': label, 'aria-invalid': why !== null, onBlur: rest }

  let field: React.ReactNode
  const member = shown.replace(/^https?:\/\/schema\.org\//, '')
  const duration = hoursAndMinutes(shown)
  if (control === 'choice' && (shown === '' || choices.includes(member)))
    field = (
      <select
        {...common}
        className={`${line} ${edge(false)}`}
        value={member}
        onChange={(e) => type(e.target.value === '' ? '' : `https://schema.org/${e.target.value}`)}
      >
        <option value="">choose …</option>
        {choices.map((c) => (
          <option key={c} value={c}>
            {asLabel(c)}
          </option>
        ))}
      </select>
    )
  else if (
    control === 'yes-no' &&
    /^(?:true|false|True|False|https?:\/\/schema\.org\/(?:True|False)|)$/.test(shown)
  )
    field = (
      <select
        {...common}
        className={`${line} ${edge(false)}`}
        value={shown === '' ? '' : /true$/i.test(shown) ? 'true' : 'false'}
        onChange={(e) => type(e.target.value)}
      >
        <option value="">choose …</option>
        <option value="true">yes</option>
        <option value="false">no</option>
      </select>
    )
  else if (control === 'date' && /^(?:\d{4}-\d{2}-\d{2}(?:T\d{2}:\d{2})?|)$/.test(shown)) {
    const [day = '', time = ''] = shown.split('T')
    field = (
      <span className="flex gap-3">
        <input
          {...common}
          type="date"
          className={`border-b bg-transparent ${edge(false)}`}
          value={day}
          onChange={(e) => type(e.target.value === '' ? '' : e.target.value + (time ? `T${time}` : ''))}
        />
        {day !== '' && (
          <input
            {...common}
            aria-label={`${label}, time of day`}
            type="time"
            className={`border-b bg-transparent ${edge(false)}`}
            value={time}
            onChange={(e) => type(e.target.value === '' ? day : `${day}T${e.target.value}`)}
          />
        )}
      </span>
    )
  } else if (control === 'duration' && (shown === '' || duration)) {
    const { hours, minutes } = duration ?? { hours: 0, minutes: 0 }
    const number = (name: string, n: number, change: (n: number) => string) => (
      <label className="flex items-baseline gap-1.5">
        <input
          aria-label={`${label}, ${name}`}
          type="number"
          min={0}
          className={`w-14 border-b bg-transparent text-right ${edge(false)}`}
          value={shown === '' ? '' : n}
          onChange={(e) => type(change(Math.max(0, Math.round(Number(e.target.value)))))}
          onBlur={rest}
        />
        <span className="text-ink-2">{name}</span>
      </label>
    )
    field = (
      <span className="flex gap-4">
        {number('hours', hours, (n) => durationOf(n, minutes))}
        {number('minutes', minutes, (n) => durationOf(hours, n))}
      </span>
    )
  } else if (control === 'long' || (shown.length > 60 && control === 'text'))
    field = (
      <textarea
        {...common}
        rows={Math.min(6, Math.max(1, Math.ceil(shown.length / 56)))}
        className={`${line} ${edge(why !== null)} resize-y`}
        value={shown}
        onChange={(e) => type(e.target.value)}
      />
    )
  else {
    const list =
      control === 'image'
        ? suggestions.images
        : control === 'address'
          ? suggestions.addresses
          : control === 'currency'
            ? suggestions.currencies
            : []
    field = (
      <>
        <input
          {...common}
          className={`${line} ${edge(why !== null)}`}
          inputMode={control === 'number' ? 'decimal' : undefined}
          list={list.length > 0 ? id : undefined}
          value={shown}
          onChange={(e) => type(e.target.value)}
        />
        {list.length > 0 && (
          <datalist id={id}>
            {list.slice(0, 200).map((o) => (
              <option key={o} value={o} />
            ))}
          </datalist>
        )}
      </>
    )
  }
  return (
    <span className="min-w-0 flex-1">
      {field}
      {why && <span className="block text-[12px] text-carmine">{why}</span>}
    </span>
  )
}
