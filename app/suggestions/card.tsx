/** What is suggested for one page beside what is there, drawn as results at true size. */
import { useState } from 'react'
import { shownAddress } from '../../core/addresses/addresses.ts'
import { measure } from '../../core/measure/snippet.ts'
import { openFields, suggestionOf } from '../../core/work/suggestions.ts'
import {
  suggestedFields,
  keywordsOf,
  type Decisions,
  type SuggestedField,
} from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { DrawnResult } from '../result/drawn-result.tsx'
import { fieldValue } from '../../core/work/typed-field.ts'
import type { Session } from '../session/session.ts'
import { shownPath } from '../ui/shown-path.ts'

export const fieldNames: Record<SuggestedField, string> = {
  title: 'Title',
  description: 'Description',
  keyword: 'Primary keyword',
  secondary: 'Secondary keywords',
  slug: 'Slug',
}
const fits = { fits: 'fits', 'at-risk': 'at risk of being cut', cut: 'is cut' } as const

export interface CardAnswer {
  taken: ReadonlySet<SuggestedField>
  wanted: Partial<Record<SuggestedField, string>>
  why: string
}

export function SuggestionCard({
  session,
  row,
  decisions,
  marks,
  onAnswer,
}: {
  session: Session
  row: LedgerRow
  decisions: Decisions
  /** Marks that the page would be left with, title and description alone; null until that is known. */
  marks: { now: string[]; then: string[] } | null
  onAnswer(answer: CardAnswer): void
}) {
  const suggestion = suggestionOf(decisions)!
  const open = openFields(suggestion)
  const [without, setWithout] = useState<ReadonlySet<SuggestedField>>(new Set())
  const [wanted, setWanted] = useState<Partial<Record<SuggestedField, string>>>({})
  const [why, setWhy] = useState<string | null>(null)
  const { slots } = styleFor(session.get().style, row.url)
  const value = (field: SuggestedField) => wanted[field] ?? suggestion.fields[field] ?? ''
  const present = {
    title: fieldValue(decisions, 'title', row),
    description: fieldValue(decisions, 'meta:description', row),
  }
  const trail = shownAddress(row.url)
  const phrase = keywordsOf(decisions)
  const keywords = phrase ? [phrase.primary, ...phrase.secondary].filter(Boolean) : []
  const newKeywords = open.includes('keyword') ? [value('keyword')] : keywords
  const then = {
    title: open.includes('title') && !without.has('title') ? value('title') : present.title,
    description:
      open.includes('description') && !without.has('description')
        ? value('description')
        : present.description,
  }
  const taken = new Set(open.filter((field) => !without.has(field)))
  return (
    <div
      className="sheet px-5 py-4"
      tabIndex={0}
      role="group"
      aria-label={`Suggestion for ${shownPath(row)}`}
      data-testid="suggestion"
      data-path={row.path}
      onKeyDown={(event) => {
        if (event.target instanceof HTMLElement && /^(?:INPUT|TEXTAREA)$/.test(event.target.tagName)) return
        if (event.ctrlKey || event.metaKey || event.altKey) return
        if (event.key === 't') onAnswer({ taken, wanted, why: '' })
        else if (event.key === 'd') setWhy('')
        else if (event.key === 'e') event.currentTarget.querySelector<HTMLElement>('[data-field]')?.focus()
        else return
        event.preventDefault()
      }}
    >
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h2 className="font-serif text-[17px]">{shownPath(row)}</h2>
        {suggestion.note && <p className="text-[13px] text-ink-2">“{suggestion.note}”</p>}
        <span className="ml-auto text-[13px] text-ink-2">row {suggestion.row}</span>
      </div>
      <div className="mt-2 grid grid-cols-[600px_minmax(0,1fr)] items-start gap-x-9 gap-y-3 max-[1100px]:grid-cols-1">
        <div className="row-start-1">
          <h3 className="text-[13px] text-ink-2">Now</h3>
          <DrawnResult
            screen="wide"
            result={{ trail, ...present }}
            slots={slots}
            keywords={keywords}
            lang={row.lang}
          />
          {marks && <MarksLeft marks={marks.now} />}
        </div>
        <div className="row-start-2">
          <h3 className="text-[13px] text-ink-2">Suggested</h3>
          <DrawnResult
            screen="wide"
            result={{ trail, ...then }}
            slots={slots}
            keywords={newKeywords}
            lang={row.lang}
          />
          {marks && <MarksLeft marks={marks.then} />}
        </div>
        <div className="row-span-2 max-[1100px]:row-start-3">
          {open.length === 0 ? (
            <Answered suggestion={suggestion} />
          ) : (
            <>
              <div className="mt-1 grid gap-3">
                {open.map((field) => (
                  <Field
                    key={field}
                    field={field}
                    value={value(field)}
                    checked={!without.has(field)}
                    says={
                      field === 'title' || field === 'description'
                        ? `${Math.round(measure(value(field), field, slots).px)} px, ${fits[measure(value(field), field, slots).wide.state]}`
                        : ''
                    }
                    onCheck={(checked) => {
                      const next = new Set(without)
                      if (checked) next.delete(field)
                      else next.add(field)
                      setWithout(next)
                    }}
                    onType={(typed) => setWanted({ ...wanted, [field]: typed })}
                  />
                ))}
              </div>
              {why === null ? (
                <p className="mt-3 flex gap-4">
                  <button
                    type="button"
                    className="button button-main"
                    disabled={taken.size === 0}
                    onClick={() => onAnswer({ taken, wanted, why: '' })}
                  >
                    {Object.keys(wanted).length > 0
                      ? 'Take as edited'
                      : taken.size < open.length
                        ? 'Take what is ticked'
                        : 'Take'}{' '}
                    <kbd>T</kbd>
                  </button>
                  <button type="button" className="button" onClick={() => setWhy('')}>
                    Decline … <kbd>D</kbd>
                  </button>
                </p>
              ) : (
                <form
                  className="mt-3 flex items-center gap-3"
                  onSubmit={(event) => {
                    event.preventDefault()
                    onAnswer({ taken: new Set(), wanted: {}, why: why.trim() })
                  }}
                >
                  <input
                    autoFocus
                    className="field"
                    aria-label="Why it is declined"
                    placeholder="Why, in a word; the consultant reads it"
                    maxLength={1000}
                    value={why}
                    onChange={(e) => setWhy(e.target.value)}
                    onKeyDown={(e) => e.key === 'Escape' && setWhy(null)}
                  />
                  <button type="submit" className="button">
                    Decline
                  </button>
                  <button type="button" className="quiet" onClick={() => setWhy(null)}>
                    Cancel
                  </button>
                </form>
              )}
            </>
          )}
        </div>
      </div>
    </div>
  )
}

function Field({
  field,
  value,
  checked,
  says,
  onCheck,
  onType,
}: {
  field: SuggestedField
  value: string
  checked: boolean
  says: string
  onCheck(checked: boolean): void
  onType(typed: string): void
}) {
  return (
    <div className="text-[13px]">
      <div className="flex items-baseline justify-between gap-3">
        <label className="flex items-baseline gap-2">
          <input type="checkbox" checked={checked} onChange={(e) => onCheck(e.target.checked)} />{' '}
          {fieldNames[field]}
        </label>
        <span className="text-ink-2 tabular-nums">{says}</span>
      </div>
      <textarea
        data-field={field}
        rows={field === 'description' ? 3 : 1}
        aria-label={`${fieldNames[field]}, as suggested`}
        className="mt-0.5 block field-sizing-content w-full resize-none border-b border-rule bg-transparent py-0.5 font-serif text-[15px] leading-6"
        value={value}
        disabled={!checked}
        onChange={(e) => onType(e.target.value.replace(/\s*\n\s*/g, ' '))}
      />
    </div>
  )
}

const MarksLeft = ({ marks }: { marks: string[] }) => (
  <p className="mt-1 max-w-[600px] truncate text-[12px] text-ink-2" title={marks.join(', ')}>
    {marks.length === 0 ? 'no marks on title and description' : `left: ${marks.join(', ')}`}
  </p>
)

function Answered({ suggestion }: { suggestion: NonNullable<ReturnType<typeof suggestionOf>> }) {
  return (
    <p className="mt-3 text-[13px] text-ink-2">
      {suggestedFields
        .flatMap((field) => {
          const given = suggestion.answers[field]
          return given ? [`${fieldNames[field]} ${given.answer}${given.why ? ` (“${given.why}”)` : ''}`] : []
        })
        .join(' · ')}
    </p>
  )
}
