/** Which columns the ledger shows, and in which order; kept with the site. */
import { Popover } from 'radix-ui'
import type { LedgerColumnChoice } from '../../core/work/decisions.ts'
import { ledgerColumns, usualColumns } from './columns.tsx'

export function ColumnPicker({
  chosen,
  onChoose,
}: {
  chosen: readonly LedgerColumnChoice[]
  /** null goes back to the usual ones. */
  onChoose(chosen: LedgerColumnChoice[] | null): void
}) {
  const shown = chosen.flatMap(({ id }) => ledgerColumns.find((column) => column.id === id) ?? [])
  const others = ledgerColumns.filter((column) => !shown.includes(column))
  const move = (id: string, by: 1 | -1) => {
    const next = [...chosen]
    const at = next.findIndex((column) => column.id === id)
    const to = at + by
    if (to < 1 || to >= next.length) return
    ;[next[at], next[to]] = [next[to]!, next[at]!]
    onChoose(next)
  }
  return (
    <Popover.Root>
      <Popover.Trigger className="quiet text-[13px]">Columns …</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="sheet z-30 max-h-[70vh] w-80 overflow-auto p-4 text-[13px]"
          sideOffset={6}
          align="end"
        >
          <h2 className="font-serif text-[17px]">Columns</h2>
          <ul className="mt-1">
            {[...shown, ...others].map((column) => {
              const isShown = shown.includes(column)
              const isPage = column.id === 'page'
              return (
                <li key={column.id} className="flex items-baseline gap-3 border-b border-rule-2 py-1">
                  <label className="flex min-w-0 flex-1 items-baseline gap-2">
                    <input
                      type="checkbox"
                      checked={isShown}
                      disabled={isPage}
                      onChange={(e) =>
                        onChoose(
                          e.target.checked
                            ? [...chosen, { id: column.id, width: null }]
                            : chosen.filter(({ id }) => id !== column.id),
                        )
                      }
                    />{' '}
                    {column.name}
                  </label>
                  {isShown && !isPage && (
                    <>
                      <button
                        type="button"
                        className="quiet"
                        aria-label={`${column.name} further left`}
                        onClick={() => move(column.id, -1)}
                      >
                        ←
                      </button>
                      <button
                        type="button"
                        className="quiet"
                        aria-label={`${column.name} further right`}
                        onClick={() => move(column.id, 1)}
                      >
                        →
                      </button>
                    </>
                  )}
                </li>
              )
            })}
          </ul>
          <p className="mt-2 text-ink-2">
            Clicks and Position are of the last four weeks; they come with the statistics of Progress.
          </p>
          <button
            type="button"
            className="action mt-3"
            disabled={JSON.stringify(chosen) === JSON.stringify(usualColumns)}
            onClick={() => onChoose(null)}
          >
            The usual ones
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
