import { useState } from 'react'
import { toast } from 'sonner'
import { defaultStyle, limitsExplained, type HouseStyle } from '../../core/rules/house-style.ts'
import { eyeExplained } from '../../core/results/eye.ts'
import type { Change } from './change.ts'

/** Every limit with its figure, to be changed where it stands, and what the figure rests on. */
export function LimitsTable({ style, onKeep }: { style: HouseStyle; onKeep: Change }) {
  const { slots } = style
  const widths = [
    [
      'title',
      'wide',
      'Cut of a title on wide screens',
      'column',
      'Common practice, from memory, no published source: one line at 20 px in an Arial-metric type.',
    ],
    [
      'title',
      'wide',
      'A title is at risk from',
      'riskPx',
      'Engines change their widths without notice: hence a band before the cut.',
    ],
    [
      'title',
      'narrow',
      'A narrow screen’s line',
      'column',
      'A phone of 390 px with its margins, two lines. From memory.',
    ],
    [
      'description',
      'wide',
      'Cut of a description on wide screens',
      'allowance',
      'Px of text in all, on two lines. Common practice, from memory.',
    ],
    ['description', 'wide', 'A description is at risk from', 'riskPx', 'The band before the cut.'],
    [
      'description',
      'narrow',
      'Cut of a description on narrow screens',
      'allowance',
      'Common practice, from memory.',
    ],
  ] as const
  return (
    <table className="w-full text-left text-[13px]">
      <thead className="text-ink-3">
        <tr>
          <th scope="col" className="py-1 font-normal">
            What
          </th>
          <th scope="col" className="w-40 py-1 font-normal">
            Figure
          </th>
          <th scope="col" className="py-1 font-normal">
            Basis
          </th>
        </tr>
      </thead>
      <tbody>
        {limitsExplained.map(({ key, name, unit, basis }) => (
          <tr key={key} className="border-t border-rule-2 align-baseline">
            <th scope="row" className="py-1.5 pr-4 font-semibold">
              {name}
            </th>
            <td className="py-1.5">
              <Figure
                label={`${name}, ${unit}`}
                value={style.limits[key]}
                plain={defaultStyle.limits[key]}
                unit={unit}
                onKeep={(n) => onKeep((now) => ({ limits: { ...now.limits, [key]: n } }), name)}
              />
            </td>
            <td className="py-1.5 text-ink-2">{basis}</td>
          </tr>
        ))}
        {widths.map(([role, screen, name, field, basis]) => (
          <tr key={name} className="border-t border-rule-2 align-baseline">
            <th scope="row" className="py-1.5 pr-4 font-semibold">
              {name}
            </th>
            <td className="py-1.5">
              <Figure
                label={`${name}, px`}
                value={slots[role][screen][field] ?? 0}
                plain={defaultStyle.slots[role][screen][field] ?? 0}
                unit="px"
                onKeep={(n) =>
                  onKeep(({ slots: now }) => {
                    const slot = { ...now[role][screen], [field]: n }
                    return { slots: { ...now, [role]: { ...now[role], [screen]: slot } } }
                  }, name)
                }
              />
            </td>
            <td className="py-1.5 text-ink-2">{basis}</td>
          </tr>
        ))}
        {eyeExplained.map(({ key, name }) => (
          <tr key={key} className="border-t border-rule-2 align-baseline">
            <th scope="row" className="py-1.5 pr-4 font-semibold">
              {name}
            </th>
            <td className="py-1.5">
              <Figure
                label={`${name}, %`}
                value={Math.round(style.eye[key] * 100)}
                plain={Math.round(defaultStyle.eye[key] * 100)}
                unit="%"
                onKeep={(n) => onKeep((now) => ({ eye: { ...now.eye, [key]: n / 100 } }), name)}
              />
            </td>
            <td className="py-1.5 text-ink-2">
              The model of where the eye lands; from memory, common practice, no source.
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Figure({
  label,
  value,
  plain,
  unit,
  onKeep,
}: {
  label: string
  value: number
  plain: number
  unit: string
  onKeep(n: number): void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const keep = () => {
    const n = Number(typed)
    if (typed !== null && Number.isInteger(n) && n > 0 && n !== value) onKeep(n)
    else if (typed !== null && n !== value) toast.error('Enter a whole number above zero.')
    setTyped(null)
  }
  return (
    <span className="whitespace-nowrap">
      <input
        aria-label={label}
        inputMode="numeric"
        className={`w-16 border-b border-ink-3 bg-transparent px-1 text-right ${value === plain ? '' : 'font-semibold'}`}
        value={typed ?? String(value)}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
      />{' '}
      {unit}
      {value !== plain && <span className="text-ink-3"> (default {plain})</span>}
    </span>
  )
}
