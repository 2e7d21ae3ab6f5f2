/** What of the ledger is shown: one choice for each thing that can be told of a page, with how many pages it would leave. */
import { useState } from 'react'
import { Popover } from 'radix-ui'
import type { LedgerView } from '../../core/work/decisions.ts'
import { facets, type Facet, type FacetCounts, type LedgerFilter } from '../../core/work/ledger-filter.ts'
import type { RuleName } from '../workers/desk.ts'
import { Choice } from '../ui/choice.tsx'
import { plural } from '../ui/plural.ts'

const facetNames: Record<Facet, string> = {
  mark: 'Mark',
  severity: 'Severity',
  subject: 'Subject',
  missing: 'Missing',
  state: 'State',
  folder: 'Folder',
  language: 'Language',
  type: 'Type',
}
const severities = ['blocker', 'flaw', 'nit'] as const
const severityNames = { blocker: 'Blockers', flaw: 'Flaws', nit: 'Nits' } as const
const subjects: Record<string, string> = { shell: 'head and structure', data: 'structured data' }
const ANY = 'any'

export function FilterBar({
  filter,
  counts,
  rules,
  onFilter,
}: {
  filter: LedgerFilter
  counts: FacetCounts
  rules: readonly RuleName[]
  onFilter(facet: Facet, value: string | null): void
}) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1.5 text-[13px]">
      {facets
        .filter((facet) => counts[facet].size > (facet === 'mark' ? 0 : 1) || filter[facet] !== undefined)
        .map((facet) => (
          <Choice
            key={facet}
            label={facetNames[facet]}
            value={filter[facet] ?? ANY}
            options={[{ value: ANY, name: ANY }, ...optionsOf(facet, counts[facet], rules, filter[facet])]}
            onChange={(value) => onFilter(facet, value === ANY ? null : value)}
          />
        ))}
    </div>
  )
}

function optionsOf(
  facet: Facet,
  counts: ReadonlyMap<string, number>,
  rules: readonly RuleName[],
  chosen: string | undefined,
): { value: string; name: string; group?: string }[] {
  const values = [...counts]
  // What is chosen stays in sight, even where nothing is left of it.
  if (chosen !== undefined && !counts.has(chosen)) values.push([chosen, 0])
  const named = (name: string, n: number) => `${name}, ${plural(n, 'page')}`
  if (facet === 'mark') {
    const byId = new Map(values)
    return rules
      .filter((rule) => byId.has(rule.id))
      .sort(
        (a, b) =>
          severities.indexOf(a.severity) - severities.indexOf(b.severity) ||
          byId.get(b.id)! - byId.get(a.id)!,
      )
      .map((rule) => ({
        value: rule.id,
        name: named(rule.name, byId.get(rule.id)!),
        group: severityNames[rule.severity],
      }))
  }
  return values
    .sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1))
    .slice(0, MOST_OPTIONS)
    .map(([value, n]) => ({
      value,
      name: named(facet === 'subject' ? (subjects[value] ?? value) : value, n),
    }))
}
/** A site may have thousands of folders: the largest are offered. */
const MOST_OPTIONS = 60

/** Views that were given a name: what is shown, in which order. */
export function NamedViews({
  views,
  now,
  onOpen,
  onKeep,
  onRemove,
}: {
  views: readonly LedgerView[]
  /** The view as it stands, as the address has it; "" for all pages. */
  now: string
  onOpen(search: string): void
  onKeep(name: string): void
  onRemove(name: string): void
}) {
  const [name, setName] = useState('')
  return (
    <Popover.Root>
      <Popover.Trigger className="quiet text-[13px]">
        Views{views.length > 0 && `, ${views.length}`} …
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="sheet z-30 w-80 p-4 text-[13px]" sideOffset={6} align="end">
          <h2 className="font-serif text-[17px]">Views of this site</h2>
          {views.length === 0 && (
            <p className="mt-1 text-ink-2">None yet. Filter the ledger, then give what you see a name.</p>
          )}
          <ul className="mt-1">
            {views.map((view) => (
              <li key={view.name} className="flex items-baseline gap-3 border-b border-rule-2 py-1.5">
                <Popover.Close
                  className="min-w-0 flex-1 truncate text-left hover:underline"
                  aria-current={view.search === now ? 'true' : undefined}
                  onClick={() => onOpen(view.search)}
                >
                  {view.name}
                </Popover.Close>
                <button
                  type="button"
                  className="quiet"
                  aria-label={`Remove the view ${view.name}`}
                  onClick={() => onRemove(view.name)}
                >
                  Remove
                </button>
              </li>
            ))}
          </ul>
          <form
            className="mt-3 flex items-baseline gap-3"
            onSubmit={(event) => {
              event.preventDefault()
              if (name.trim() === '') return
              onKeep(name.trim())
              setName('')
            }}
          >
            <input
              aria-label="Name of the view"
              className="field"
              placeholder="Name what is shown now"
              maxLength={100}
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
            <button type="submit" className="button">
              Keep
            </button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
