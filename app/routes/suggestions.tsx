import { useRef, useState } from 'react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { toast } from 'sonner'
import { answered, answerRows, openFields, suggestionOf } from '../../core/work/suggestions.ts'
import { writeRows } from '../../core/exchange/csv.ts'
import { measure } from '../../core/measure/snippet.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import type { SuggestedField } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { fieldValue } from '../../core/work/typed-field.ts'
import { useSession, useSessionState } from '../session/use-session.ts'
import { SuggestionCard, type CardAnswer } from '../suggestions/card.tsx'
import { LoadSuggestions } from '../suggestions/load-dialog.tsx'
import { Choice } from '../ui/choice.tsx'
import { download, fileName } from '../ui/download.ts'
import { FilePick } from '../ui/file-pick.tsx'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'
import type { Session } from '../session/session.ts'

export const meta = () => [{ title: 'Suggestions · Keen Quill' }]

/** A consultant's suggestions beside what is there: taken, taken edited, or declined with a word. */
export default function Suggestions() {
  const session = useSession()
  const { rows, work, site } = useSessionState(session)
  const [file, setFile] = useState<File | null>(null)
  const [which, setWhich] = useState<'open' | 'answered'>('open')
  const suggested = [...rows.values()].filter((row) => suggestionOf(session.decisionsOf(row.id)))
  const isOpen = (row: LedgerRow) => openFields(suggestionOf(session.decisionsOf(row.id))!).length > 0
  const open = suggested.filter(isOpen)
  const shown = which === 'open' ? open : suggested.filter((row) => !isOpen(row))
  const fitting = open.filter((row) => fitsWhole(session, row))

  async function takeFitting() {
    await session.decide(`Suggestions that fit taken, ${plural(fitting.length, 'page')}`, () =>
      fitting.flatMap((row) => {
        const decisions = session.decisionsOf(row.id)
        return answered(row.id, decisions, new Set(openFields(suggestionOf(decisions)!)))
      }),
    )
    toast(`Suggestions for ${plural(fitting.length, 'page')} taken.`)
  }
  const rowsOut = () =>
    answerRows(
      suggested.map((row) => {
        const decisions = session.decisionsOf(row.id)
        return {
          url: row.url,
          suggestion: suggestionOf(decisions)!,
          said: (field) => saidNow(session, row, field),
        }
      }),
    )
  return (
    <main className="px-6 pt-3 pb-6">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 pb-3">
        <h1 className="font-serif text-[26px]">Suggestions</h1>
        <p className="font-serif text-[15px] text-ink-2 italic">
          {suggested.length === 0
            ? 'titles and descriptions from a consultant’s sheet'
            : `${open.length} open, ${suggested.length - open.length} answered`}
        </p>
        <div className="ml-auto flex flex-wrap items-baseline gap-5">
          <FilePick
            label="Suggestions from a sheet"
            accept=".csv,.tsv,.txt,.xlsx,.ods"
            testId="suggestions-input"
            onFile={setFile}
          >
            Another sheet …
          </FilePick>
          {suggested.length > 0 && (
            <>
              <Choice
                label="Show"
                value={which}
                options={[
                  { value: 'open' as const, name: 'open' },
                  { value: 'answered' as const, name: 'answered' },
                ]}
                onChange={(chosen) => setWhich(chosen)}
              />
              <button
                type="button"
                className="button"
                disabled={fitting.length === 0}
                onClick={() => void takeFitting()}
              >
                Take all {fitting.length} that fit
              </button>
              <button
                type="button"
                className="button"
                onClick={() =>
                  tell('The answers could not be saved', async () =>
                    download(
                      fileName(site.name, '-answers.xlsx'),
                      await core().officeSheet(rowsOut(), 'xlsx'),
                      'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
                    ),
                  )
                }
              >
                Answers as XLSX
              </button>
              <button
                type="button"
                className="button"
                onClick={() =>
                  download(fileName(site.name, '-answers.csv'), writeRows(rowsOut()), 'text/csv')
                }
              >
                as CSV
              </button>
            </>
          )}
        </div>
      </div>
      {suggested.length === 0 ? (
        <p className="sheet p-8 font-serif text-[17px]">
          Drop or choose a sheet that lists addresses with suggested titles and descriptions. Each is shown
          beside what the page says now; you take the good ones, edit some, decline the rest with a word, and
          send the answers back.
        </p>
      ) : shown.length === 0 ? (
        <p className="sheet p-8 font-serif text-[17px]">
          {which === 'open' ? 'Every suggestion is answered.' : 'None is answered yet.'}
        </p>
      ) : (
        <Cards key={which} session={session} rows={shown} work={work} />
      )}
      {file && (
        <LoadSuggestions
          session={session}
          file={file}
          onClose={() => setFile(null)}
          onLoaded={() => setFile(null)}
        />
      )}
    </main>
  )
}

/** Whether all that is suggested for a page fits a wide result. */
function fitsWhole(session: Session, row: LedgerRow): boolean {
  const suggestion = suggestionOf(session.decisionsOf(row.id))!
  const { slots } = styleFor(session.get().style, row.url)
  return openFields(suggestion).every(
    (field) =>
      (field !== 'title' && field !== 'description') ||
      measure(suggestion.fields[field]!, field, slots).wide.state === 'fits',
  )
}

function saidNow(session: Session, row: LedgerRow, field: SuggestedField): string {
  const decisions = session.decisionsOf(row.id)
  switch (field) {
    case 'title':
      return fieldValue(decisions, 'title', row)
    case 'description':
      return fieldValue(decisions, 'meta:description', row)
    case 'keyword':
      return (decisions['keyword:primary'] as string | undefined) ?? ''
    case 'secondary':
      return ((decisions['keyword:secondary'] as string[] | undefined) ?? []).join('; ')
    case 'slug':
      return row.url
  }
}

function Cards({
  session,
  rows,
  work,
}: {
  session: Session
  rows: LedgerRow[]
  work: ReadonlyMap<string, unknown>
}) {
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    getItemKey: (i) => rows[i]!.id,
    estimateSize: () => 330,
    overscan: 3,
    initialRect: { width: 1200, height: 640 },
  })
  const move = (from: HTMLElement, by: 1 | -1) => {
    const index = Number(from.closest<HTMLElement>('[data-index]')?.dataset.index)
    const next = index + by
    if (!rows[next]) return
    virtual.scrollToIndex(next, { align: 'auto' })
    requestAnimationFrame(() =>
      box.current?.querySelector<HTMLElement>(`[data-index="${next}"] [data-testid=suggestion]`)?.focus(),
    )
  }
  async function answer(row: LedgerRow, given: CardAnswer) {
    const decisions = session.decisionsOf(row.id)
    await session.decide(
      given.taken.size > 0 ? 'Suggestion taken' : 'Suggestion declined',
      answered(row.id, decisions, given.taken, { wanted: given.wanted, why: given.why }),
    )
    // The answered card is gone: the next takes its place, and the focus.
    requestAnimationFrame(() => box.current?.querySelector<HTMLElement>('[data-testid=suggestion]')?.focus())
  }
  return (
    <div
      ref={box}
      className="h-[calc(100vh-140px)] overflow-auto"
      role="list"
      aria-label="Suggestions, page by page"
    >
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]!
          return (
            <div
              key={item.key}
              ref={virtual.measureElement}
              data-index={item.index}
              role="listitem"
              aria-label={row.path}
              className="absolute inset-x-0 pb-4"
              style={{ top: item.start }}
              onKeyDown={(event) => {
                if (event.target instanceof HTMLElement && /^(?:INPUT|TEXTAREA)$/.test(event.target.tagName))
                  return
                if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
                  event.preventDefault()
                  move(event.currentTarget, event.key === 'ArrowDown' ? 1 : -1)
                }
              }}
            >
              <CardOf session={session} row={row} of={work} onAnswer={(given) => void answer(row, given)} />
            </div>
          )
        })}
      </div>
    </div>
  )
}

/** A card with the marks that the page has and would have. */
function CardOf({
  session,
  row,
  of,
  onAnswer,
}: {
  session: Session
  row: LedgerRow
  of: unknown
  onAnswer(answer: CardAnswer): void
}) {
  const decisions = session.decisionsOf(row.id)
  const marks = useAnswer(
    () => core().suggestionMarks(row.id, session.decisionsOf(row.id)),
    [row.id, of, session],
  )
  return (
    <SuggestionCard session={session} row={row} decisions={decisions} marks={marks} onAnswer={onAnswer} />
  )
}
