import { severities, type Severity } from '../../core/rules/house-style.ts'
import type { RuleName } from '../workers/desk.ts'

type Own = Readonly<Record<string, Severity | 'off'>>
const familyNames: Record<RuleName['family'], string> = {
  title: 'Title',
  description: 'Meta description',
  address: 'Address',
  headings: 'Headings',
  text: 'Text and keywords',
  images: 'Images',
  shell: 'Head and page structure',
  data: 'Structured data',
}

/** Every rule with its severity, to be changed or switched off. */
export function Rules({
  rules,
  own,
  onKeep,
}: {
  rules: RuleName[]
  own: Own
  onKeep(make: (own: Own) => Own): void
}) {
  return Object.entries(familyNames).map(([family, name]) => {
    const some = rules.filter((r) => r.family === family)
    if (some.length === 0) return null
    const changed = some.filter((r) => own[r.id]).length
    return (
      <details key={family} className="border-t border-rule-2 py-1.5 first:border-t-0">
        <summary className="cursor-pointer font-serif text-[16px]">
          {name}{' '}
          <span className="font-sans text-[13px] text-ink-3">
            {some.length} rules{changed > 0 && `, ${changed} changed by this house style`}
          </span>
        </summary>
        <table className="mt-1 mb-3 w-full text-left text-[13px]">
          <thead className="sr-only">
            <tr>
              <th scope="col">Mark</th>
              <th scope="col">Severity</th>
              <th scope="col">Basis</th>
            </tr>
          </thead>
          <tbody>
            {some.map((r) => (
              <tr key={r.id} className="border-t border-rule-2 align-baseline">
                <th scope="row" className="w-80 py-1 pr-4 font-normal">
                  {r.name}
                </th>
                <td className="w-36 py-1">
                  <select
                    aria-label={`Severity of: ${r.name}`}
                    className={`bg-paper ${own[r.id] ? 'font-semibold' : ''}`}
                    value={own[r.id] ?? r.severity}
                    onChange={(e) => {
                      const value = e.target.value as Severity | 'off'
                      onKeep((now) => {
                        const { [r.id]: _, ...rest } = now
                        return value === r.severity ? rest : { ...rest, [r.id]: value }
                      })
                    }}
                  >
                    {severities.map((s) => (
                      <option key={s} value={s}>
                        {s}
                      </option>
                    ))}
                    <option value="off">off</option>
                  </select>
                </td>
                <td className="py-1 text-ink-2">{r.basis}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    )
  })
}
