/** Which column holds what: as it was recognised, for the editor to correct. */
import { columnRoles, type ColumnRole, type Columns } from '../../core/exchange/columns.ts'
import { Choice } from '../ui/choice.tsx'
import type { SheetView } from '../workers/sheets.ts'

const roleNames: Record<ColumnRole, string> = {
  address: 'Address',
  title: 'Title',
  description: 'Description',
  h1: 'H1',
  keyword: 'Primary keyword',
  secondary: 'Secondary keywords',
  slug: 'Slug',
  words: 'Word count',
  status: 'HTTP status',
  monthly: 'Searches a month',
  position: 'Position',
  note: 'Note',
}

export function ColumnChoice({
  sheet,
  roles,
  columns,
  onChange,
}: {
  sheet: SheetView
  roles: readonly ColumnRole[]
  columns: Columns
  onChange(columns: Columns): void
}) {
  const roleOf = (index: number) => columnRoles.find((role) => columns[role] === index) ?? 'none'
  const choose = (index: number, role: ColumnRole | 'none') => {
    const next: Columns = { ...columns }
    for (const other of columnRoles) if (next[other] === index) delete next[other]
    if (role !== 'none') next[role] = index
    onChange(next)
  }
  return (
    <table className="w-full table-fixed text-left text-[13px]">
      <thead className="text-ink-3">
        <tr>
          <th scope="col" className="w-40 py-1 font-normal">
            Column
          </th>
          <th scope="col" className="w-52 py-1 font-normal">
            Holds
          </th>
          <th scope="col" className="py-1 font-normal">
            First rows
          </th>
        </tr>
      </thead>
      <tbody>
        {sheet.heading.map((name, index) => (
          <tr key={index} className="border-t border-rule-2 align-top">
            <th scope="row" className="truncate py-1.5 pr-3 font-semibold" title={name}>
              {name || `column ${index + 1}`}
            </th>
            <td className="py-1.5">
              <Choice
                label={`Column ${name || index + 1} holds`}
                isLabelHidden
                value={roleOf(index)}
                options={[
                  { value: 'none' as const, name: 'nothing that is used' },
                  ...roles.map((role) => ({ value: role, name: roleNames[role] })),
                ]}
                onChange={(role) => choose(index, role as ColumnRole | 'none')}
              />
            </td>
            <td
              className="truncate py-1.5 text-ink-2"
              title={sheet.sample.map((row) => row[index]).join(' · ')}
            >
              {sheet.sample
                .map((row) => row[index])
                .filter(Boolean)
                .join(' · ')}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
