import { matchesAddress } from '../../core/addresses/match-address.ts'
import { joiResolver } from '@hookform/resolvers/joi'
import Joi from 'joi'
import { useMemo } from 'react'
import { useForm } from 'react-hook-form'
import { toast } from 'sonner'
import {
  pageTypes,
  type AddressStyle,
  type Limits,
  type Severity,
  type HouseStyle,
  type PageType,
} from '../../core/rules/house-style.ts'
import { decodedPath } from '../../core/addresses/addresses.ts'
import { casings, type Casing } from '../../core/wording/casing.ts'
import { casingNames } from '../ui/casing-names.ts'
import type { Session } from '../session/session.ts'
import { Choice } from '../ui/choice.tsx'
import { FormField } from '../ui/form.tsx'
import { plural } from '../ui/plural.ts'
import type { Change, ChangeAddress } from './change.ts'
import { Pattern } from './pattern.tsx'

/** What is asked of some addresses: their type, a pattern, a casing, limits and severities of their own. */
export function Addresses({
  session,
  style,
  onKeep,
}: {
  session: Session
  style: HouseStyle
  onKeep: Change
}) {
  const { rows } = session.get()
  const paths = useMemo(
    () => [...rows.values()].map((row) => decodedPath(row.url)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- of the rows, where their pages are: none moves while this is looked at
    [rows.size],
  )
  const keep =
    (match: string): ChangeAddress =>
    (make, label) =>
      onKeep((now) => ({ addresses: now.addresses.map((a) => (a.match === match ? make(a) : a)) }), label)
  return (
    <>
      <ul>
        {style.addresses.map((a) => (
          <li key={a.match} className="border-t border-rule-2 py-3 first:border-t-0">
            <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 text-[13px]">
              <code className="font-mono text-[13px] font-semibold">{a.match}</code>
              <span className="text-ink-3">
                {plural(paths.filter((p) => matchesAddress(a.match, p)).length, 'page')}
              </span>
              <Choice<PageType | 'none'>
                label="Type"
                value={a.type ?? 'none'}
                options={[{ value: 'none', name: 'none' }, ...pageTypes.map((t) => ({ value: t, name: t }))]}
                onChange={(t) =>
                  keep(a.match)((now) => ({ ...now, type: t === 'none' ? null : t }), `Type of ${a.match}`)
                }
              />
              <Choice<Casing | 'house'>
                label="Casing"
                value={a.casing ?? 'house'}
                options={[
                  { value: 'house', name: 'the site’s' },
                  ...casings.map((c) => ({ value: c, name: casingNames[c] })),
                ]}
                onChange={(c) =>
                  keep(a.match)(
                    ({ casing: _, ...rest }) => (c === 'house' ? rest : { ...rest, casing: c }),
                    `Casing of ${a.match}`,
                  )
                }
              />
              <button
                type="button"
                className="quiet ml-auto"
                onClick={() =>
                  onKeep(
                    (now) => ({ addresses: now.addresses.filter((x) => x.match !== a.match) }),
                    `${a.match} removed`,
                  )
                }
              >
                Remove
              </button>
            </div>
            <Overrides address={a} onKeep={keep(a.match)} session={session} />
            <Pattern session={session} style={style} match={a.match} onKeep={onKeep} />
          </li>
        ))}
      </ul>
      <AddAddresses
        listed={style.addresses.map((a) => a.match)}
        paths={paths}
        onAdd={(path) =>
          onKeep((now) => ({ addresses: [...now.addresses, { match: path }] }), `Addresses ${path}`)
        }
      />
    </>
  )
}

function AddAddresses({
  listed,
  paths,
  onAdd,
}: {
  listed: string[]
  paths: string[]
  onAdd(path: string): void
}) {
  const schema = Joi.object<{ match: string }>({
    match: Joi.string()
      .trim()
      .pattern(/^\//)
      .invalid(...listed)
      .required()
      .messages({
        'string.empty': 'Start the address with /, such as /stories/*',
        'string.pattern.base': 'Start the address with /, such as /stories/*',
        'any.invalid': 'It is already listed.',
      }),
  })
  const { register, handleSubmit, reset, watch, formState } = useForm({
    resolver: joiResolver(schema),
    defaultValues: { match: '' },
  })
  const match = watch('match').trim()
  return (
    <form
      noValidate
      className="mt-2 flex flex-wrap items-start gap-4 text-[13px]"
      onSubmit={handleSubmit((added) => {
        onAdd(added.match)
        reset()
      })}
    >
      <div>
        <FormField
          label={
            <>
              Addresses such as <span className="font-mono font-normal">/stories/*</span>, * for anything
            </>
          }
          className="font-mono"
          registered={register('match')}
          error={formState.errors.match}
        />
      </div>
      <button type="submit" className="button mt-6">
        Add
      </button>
      {match.startsWith('/') && (
        <span className="mt-8 text-ink-2">
          {plural(paths.filter((p) => matchesAddress(match, p)).length, 'page')} of {paths.length}
        </span>
      )}
    </form>
  )
}

/** Severities and limits that differ for these addresses: as for the site, a line for each that is set. */
function Overrides({
  address,
  session,
  onKeep,
}: {
  address: AddressStyle
  session: Session
  onKeep: ChangeAddress
}) {
  const { rules } = session.get()
  const ownRules = address.rules ?? {}
  const limits = address.limits ?? {}
  const setSeverity = (id: string, to: Severity | 'off') =>
    onKeep((now) => ({ ...now, rules: { ...now.rules, [id]: to } }), `Severity for ${address.match}`)
  const limit = (key: keyof Limits, to: number | null) =>
    onKeep((now) => {
      const { [key]: _, ...rest } = now.limits ?? {}
      return { ...now, limits: to === null ? rest : { ...rest, [key]: to } }
    }, `Limit for ${address.match}`)
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-8 text-[13px] max-[700px]:grid-cols-1">
      <div>
        {Object.entries(ownRules).map(([id, severity]) => (
          <p key={id} className="flex items-baseline gap-3">
            {rules.find((r) => r.id === id)?.name ?? id}:{' '}
            <strong className="font-semibold">{severity}</strong>
            <button
              type="button"
              className="quiet"
              onClick={() =>
                onKeep(({ rules, ...now }) => {
                  const { [id]: _, ...rest } = rules ?? {}
                  return { ...now, rules: rest }
                }, `Severity for ${address.match}`)
              }
            >
              same as the site
            </button>
          </p>
        ))}
        <span className="flex items-baseline gap-3">
          <Choice
            label="Another severity for"
            value=""
            options={rules.filter((r) => !ownRules[r.id]).map((r) => ({ value: r.id, name: r.name }))}
            onChange={(id) => setSeverity(id, 'off')}
          />
        </span>
        {Object.keys(ownRules).length > 0 && (
          <span className="flex flex-wrap gap-x-4">
            {Object.entries(ownRules).map(([id, severity]) => (
              <Choice
                key={id}
                label={id}
                value={severity}
                options={(['off', 'nit', 'flaw', 'blocker'] as const).map((s) => ({ value: s, name: s }))}
                onChange={(s) => setSeverity(id, s)}
              />
            ))}
          </span>
        )}
      </div>
      <div className="flex flex-wrap items-baseline gap-x-5">
        {(
          [
            ['titleLongest', 'title at most'],
            ['titleShortest', 'title at least'],
            ['descriptionLongest', 'description at most'],
            ['descriptionShortest', 'description at least'],
          ] as const
        ).map(([key, name]) => (
          <label key={key} className="flex items-baseline gap-1.5">
            {name}
            <input
              inputMode="numeric"
              className="w-12 border-b border-ink-3 bg-transparent px-1 text-right"
              placeholder="–"
              defaultValue={limits[key] ?? ''}
              onBlur={(e) => {
                const n = Number(e.target.value)
                const before = limits[key]
                if (e.target.value.trim() === '') {
                  if (before !== undefined) limit(key, null)
                } else if (Number.isInteger(n) && n > 0) {
                  if (n !== before) limit(key, n)
                } else toast.error('Enter a whole number above zero.')
              }}
            />
          </label>
        ))}
      </div>
    </div>
  )
}
