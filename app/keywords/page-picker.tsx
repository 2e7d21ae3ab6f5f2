/** Which page a phrase is for: those that speak of it the most first, then every page by name. */
import { Command } from 'cmdk'
import { useState } from 'react'
import type { KeywordRole } from '../../core/keywords/keyword-map.ts'
import { wordFormsOf } from '../../core/keywords/phrases.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { useLearning } from '../session/learn-pages.ts'
import type { Session } from '../session/session.ts'
import { matchesTyped } from '../ui/command-registry.ts'
import { Dialog } from '../ui/dialog.tsx'
import { shownPath } from '../ui/shown-path.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'
import { assignPhrases, pageName, type SiteKeywords } from './site-keywords.ts'

const MOST = 60

export function PagePicker({
  session,
  keywords,
  phrase,
  onClose,
}: {
  session: Session
  keywords: SiteKeywords
  phrase: string
  onClose(): void
}) {
  const [typed, setTyped] = useState('')
  const [role, setRole] = useState<KeywordRole>('primary')
  const { progress, known } = useLearning(session, true, phrase)
  const suggested = useAnswer(known ? () => core().suggestedPages([phrase]) : null, [known, phrase])
  const has = keywords.map.byForms.get(wordFormsOf(phrase, keywords.lang)) ?? []
  const assign = (row: LedgerRow) => {
    void assignPhrases(session, `“${phrase}” for ${pageName(row)}`, [{ page: row.id, phrase, role }])
    onClose()
  }
  const rowOf = (id: string) => keywords.rows.get(id)
  const named = [...keywords.rows.values()]
    .filter((row) => matchesTyped(`${row.path} ${row.title ?? ''} ${row.h1 ?? ''}`, typed.trim()))
    .sort((a, b) => Number(isNamed(b, typed)) - Number(isNamed(a, typed)))
    .slice(0, MOST)
  const best = (suggested?.[0]?.pages ?? []).flatMap((s) => {
    const row = rowOf(s.id)
    return row && typed === '' ? [{ row, why: s.why }] : []
  })
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={`Which page is for “${phrase}”?`}
      description="A page has one primary keyword, and a few secondary ones at most."
      width={640}
    >
      {has.length > 0 && (
        <ul className="mb-3 text-[13px]">
          {has.map(({ id, phrase: asAssigned, role: now }) => {
            const row = rowOf(id)
            return (
              row && (
                <li key={id} className="flex items-baseline gap-3 border-b border-rule-2 py-1">
                  <span className="min-w-0 flex-1 truncate">
                    {pageName(row)} has it as its {now} keyword
                  </span>
                  <button
                    type="button"
                    className="quiet"
                    onClick={() =>
                      void assignPhrases(session, `“${phrase}” removed from ${pageName(row)}`, [
                        { page: id, phrase: asAssigned, role: null },
                      ])
                    }
                  >
                    Remove it
                  </button>
                </li>
              )
            )
          })}
        </ul>
      )}
      <fieldset className="flex gap-5">
        <legend className="sr-only">As which keyword</legend>
        {(['primary', 'secondary'] as const).map((r) => (
          <label key={r} className="flex items-baseline gap-2">
            <input type="radio" name="role" checked={role === r} onChange={() => setRole(r)} /> as {r} keyword
          </label>
        ))}
      </fieldset>
      {progress && (
        <p className="mt-2 flex items-center gap-3 text-[13px] text-ink-2" role="status">
          <progress value={progress.done} max={progress.of} aria-label="Pages read" />
          Reading the pages for a suggestion: {progress.done.toLocaleString('en')} of{' '}
          {progress.of.toLocaleString('en')}
        </p>
      )}
      <Command label="Pages" shouldFilter={false} loop className="mt-2">
        <Command.Input
          autoFocus
          value={typed}
          onValueChange={setTyped}
          placeholder="Find a page"
          className="field font-serif text-[16px]"
        />
        <Command.List label="Pages" className="mt-2 h-[300px] overflow-auto">
          {best.length > 0 && (
            <Command.Group heading="Speak of it the most" className={groupStyle}>
              {best.map(({ row, why }) => (
                <Page key={row.id} group="best" row={row} detail={why} onSelect={() => assign(row)} />
              ))}
            </Command.Group>
          )}
          <Command.Group heading={typed === '' ? 'All pages' : 'Found'} className={groupStyle}>
            {named.map((row) => (
              <Page
                key={row.id}
                group="named"
                row={row}
                detail={row.phrase ? `has “${row.phrase}”` : null}
                onSelect={() => assign(row)}
              />
            ))}
          </Command.Group>
          {named.length === 0 && <p className="p-2 text-ink-2">No page is called that.</p>}
        </Command.List>
      </Command>
    </Dialog>
  )
}
const groupStyle =
  '[&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:font-serif [&_[cmdk-group-heading]]:text-[14px] [&_[cmdk-group-heading]]:text-ink-3 [&_[cmdk-group-heading]]:italic'

/** Whether what was typed stands in a page's name as it was typed. */
const isNamed = (row: LedgerRow, typed: string) =>
  pageName(row).toLowerCase().includes(typed.trim().toLowerCase())

function Page({
  group,
  row,
  detail,
  onSelect,
}: {
  group: string
  row: LedgerRow
  detail: string | null
  onSelect(): void
}) {
  return (
    <Command.Item
      value={`${group} ${row.id}`}
      onSelect={onSelect}
      className="flex cursor-pointer items-baseline gap-3 px-2 py-1 data-[selected=true]:bg-quill-soft"
    >
      <span className="min-w-0 truncate">{pageName(row)}</span>
      <span className="ml-auto max-w-[55%] shrink-0 truncate text-[12px] text-ink-2">
        {detail ?? shownPath(row)}
      </span>
    </Command.Item>
  )
}
