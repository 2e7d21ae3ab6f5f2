/** A consultant's sheet taken over: its columns confirmed, and which row is for which page, before anything is kept. */
import { useEffect, useState } from 'react'
import type { ColumnRole } from '../../core/exchange/columns.ts'
import type { SuggestionsRead } from '../../core/exchange/suggestions.ts'
import type { Suggestion, SuggestedField } from '../../core/work/decisions.ts'
import { useOpenedSheet } from '../intake/use-opened-sheet.ts'
import { ColumnChoice } from '../intake/column-choice.tsx'
import type { Session } from '../session/session.ts'
import { today } from '../session/today.ts'
import { Dialog } from '../ui/dialog.tsx'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'

const roles: ColumnRole[] = ['address', 'title', 'description', 'keyword', 'secondary', 'slug', 'note']

export function LoadSuggestions({
  session,
  file,
  onClose,
  onLoaded,
}: {
  session: Session
  file: File
  onClose(): void
  onLoaded(): void
}) {
  const { sheet, columns, setColumns, problem } = useOpenedSheet(file, 'suggestions')
  const [read, setRead] = useState<SuggestionsRead | null>(null)
  useEffect(() => {
    let stale = false
    if (sheet)
      void core()
        .matchSuggestions(sheet.ticket, columns)
        .then((found) => stale || setRead(found))
    return () => {
      stale = true
    }
  }, [sheet, columns])

  const useful = read?.matched.filter((row) => Object.keys(fieldsOf(row)).length > 0) ?? []
  async function keep() {
    await session.decide(
      `Suggestions from ${file.name}`,
      useful.map((row) => ({
        page: row.id,
        key: 'suggested',
        after: {
          sheet: file.name.slice(0, 300),
          date: today(),
          row: row.row,
          fields: fieldsOf(row),
          note: row.note,
          answers: {},
        } satisfies Suggestion,
      })),
    )
    onLoaded()
  }
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={`Suggestions from ${file.name}`}
      description="Check what each column holds. Nothing is changed on a page until you take a suggestion."
      width={900}
    >
      {problem && (
        <p role="alert" className="border-l-2 border-carmine pl-3">
          {problem}
        </p>
      )}
      {sheet && (
        <>
          <ColumnChoice sheet={sheet} roles={roles} columns={columns} onChange={setColumns} />
          {read && <Matched read={read} />}
          <button
            type="button"
            className="button button-main mt-5"
            disabled={useful.length === 0}
            onClick={() => void keep()}
          >
            Look at suggestions for {plural(useful.length, 'page')}
          </button>
        </>
      )}
    </Dialog>
  )
}

const fieldsOf = (row: SuggestionsRead['matched'][number]): Partial<Record<SuggestedField, string>> =>
  Object.fromEntries(
    Object.entries({
      title: row.title,
      description: row.description,
      keyword: row.keyword,
      secondary: row.secondary.join('; '),
      slug: row.slug,
    }).filter(([, value]) => value !== ''),
  )

function Matched({ read }: { read: SuggestionsRead }) {
  return (
    <div className="mt-4 text-[13px]" data-testid="suggestions-matched">
      <p>
        {plural(read.matched.length, 'row')} matched a page; {read.unmatched.length.toLocaleString('en')}{' '}
        matched none; {read.twice.length.toLocaleString('en')} could not be told apart.
      </p>
      {(read.unmatched.length > 0 || read.twice.length > 0) && (
        <ul className="mt-2 max-h-44 overflow-auto border-y border-rule">
          {read.unmatched.slice(0, 200).map(({ row, address, near }) => (
            <li key={row} className="border-b border-rule-2 py-1">
              Row {row}: <span className="font-mono text-[12px]">{address || 'no address'}</span> is no page
              of this site.
              {near.length > 0 && <span className="text-ink-2"> Nearest: {near.join(', ')}</span>}
            </li>
          ))}
          {read.twice.slice(0, 200).map(({ row, address }) => (
            <li key={row} className="border-b border-rule-2 py-1">
              Row {row}: <span className="font-mono text-[12px]">{address}</span> means two pages, or a page
              that a row before it means.
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
