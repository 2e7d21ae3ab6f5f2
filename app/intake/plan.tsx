/** What would be taken in, and what not and why, before any page is fetched. */
import { joiResolver } from '@hookform/resolvers/joi'
import Joi from 'joi'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import type { LeftOutBy } from '../../core/site/intake-plan.ts'
import { FormField } from '../ui/form.tsx'
import { plural } from '../ui/plural.ts'
import type { PlanView } from '../workers/by-address.ts'
import { AddressesTable } from './addresses-table.tsx'
import { leftOutNames } from './left-out-names.ts'
import { patternsOf } from './question-form.tsx'

const nameSchema = Joi.object<{ name: string }>({
  name: Joi.string().trim().max(200).required().messages({
    'string.empty': 'Give the site a name, by which you find it on the shelf.',
    'string.max': 'Call it something shorter: 200 characters at most.',
  }),
})

export function Plan({
  plan,
  leaveOut,
  name,
  again,
  onLeaveOut,
  onTake,
  onBack,
}: {
  plan: PlanView
  leaveOut: string
  name: string
  /** The name of the site whose pages are taken in again; null for a new one. */
  again: string | null
  onLeaveOut(typed: string): void
  onTake(name: string): void
  onBack(): void
}) {
  const [shown, setShown] = useState<'taken' | 'left out'>('taken')
  const { register, handleSubmit, formState } = useForm({
    resolver: again === null ? joiResolver(nameSchema) : undefined,
    defaultValues: { name },
  })
  const taken = plan.addresses.filter((a) => a.leftOut === null)
  const left = plan.addresses.filter((a) => a.leftOut !== null)
  const counts = new Map<LeftOutBy, number>()
  for (const { leftOut } of left) counts.set(leftOut!, (counts.get(leftOut!) ?? 0) + 1)
  const byLinks = plan.how === 'links'
  return (
    <form
      noValidate
      className="mt-5 grid grid-cols-[minmax(0,1fr)_330px] gap-8"
      onSubmit={handleSubmit((given) => onTake(given.name))}
    >
      <section aria-label="Addresses">
        {byLinks ? (
          <p className="sheet p-6 font-serif text-[17px]">
            Links are followed from {plan.start}. Which pages there are shows on the way; those that
            robots.txt holds back, that lie outside or that you leave out are listed at the end.
          </p>
        ) : (
          <>
            <div role="tablist" aria-label="Which addresses" className="mb-2 flex gap-6 text-[15px]">
              {(['taken', 'left out'] as const).map((which) => (
                <button
                  key={which}
                  type="button"
                  role="tab"
                  aria-selected={shown === which}
                  className={`border-b-2 pb-1 ${shown === which ? 'border-ink font-semibold' : 'border-transparent text-ink-2'}`}
                  onClick={() => setShown(which)}
                >
                  {which === 'taken'
                    ? `${plural(taken.length, 'page')} would be taken in`
                    : `${left.length.toLocaleString('en')} left out`}
                </button>
              ))}
            </div>
            {(shown === 'taken' ? taken : left).length === 0 ? (
              <p className="border-y border-rule py-6 text-ink-2">
                {shown === 'taken'
                  ? 'No page of it would be taken in: see what is left out, and why.'
                  : 'Nothing is left out.'}
              </p>
            ) : (
              <AddressesTable
                label={shown === 'taken' ? 'Pages that would be taken in' : 'Addresses that are left out'}
                lines={(shown === 'taken' ? taken : left).map(({ url, leftOut }) => ({
                  url,
                  says: leftOut === null ? '' : leftOutNames[leftOut],
                  quiet: leftOut !== null,
                }))}
              />
            )}
          </>
        )}
      </section>
      <aside aria-label="What to take">
        {plan.remarks.map((remark) => (
          <p key={remark} className="mb-3 border-l-2 border-carmine pl-3 text-[13px]">
            {remark}
          </p>
        ))}
        {counts.size > 0 && (
          <ul aria-label="Why addresses are left out" className="mb-4 text-[13px] text-ink-2">
            {[...counts].map(([why, count]) => (
              <li key={why} className="flex justify-between border-b border-rule-2 py-1">
                <span>{leftOutNames[why]}</span>
                <span className="tabular-nums">{count.toLocaleString('en')}</span>
              </li>
            ))}
          </ul>
        )}
        <LeaveOut typed={leaveOut} onChange={onLeaveOut} />
        {again === null ? (
          <div className="mt-4">
            <FormField
              label="What you call the site"
              registered={register('name')}
              error={formState.errors.name}
            />
          </div>
        ) : (
          <p className="mt-4 text-ink-2">
            The pages of “{again}” are taken in again; the work on them is kept.
          </p>
        )}
        <button type="submit" className="button button-main mt-5" disabled={!byLinks && taken.length === 0}>
          {byLinks ? 'Follow the links' : `Take in ${plural(taken.length, 'page')}`}
        </button>
        <p className="mt-4 text-[13px]">
          <button type="button" className="quiet" onClick={onBack}>
            Ask for another address
          </button>
        </p>
      </aside>
    </form>
  )
}

/** Patterns are taken over when the field is left, or on Enter with Ctrl. */
function LeaveOut({ typed, onChange }: { typed: string; onChange(typed: string): void }) {
  const [value, setValue] = useState(typed)
  const done = () => patternsOf(value).join('\n') !== patternsOf(typed).join('\n') && onChange(value)
  return (
    <label className="block">
      <span className="font-semibold">Leave out</span>
      <textarea
        className="field mt-1 font-mono text-[13px]"
        rows={3}
        placeholder="/tag/*"
        value={value}
        onChange={(e) => setValue(e.target.value)}
        onBlur={done}
      />
      <span className="text-[13px] text-ink-2">Paths, one in each line; * stands for anything.</span>
    </label>
  )
}
