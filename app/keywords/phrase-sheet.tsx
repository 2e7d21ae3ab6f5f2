/** An editor's own sheet of phrases: its columns confirmed before anything of it is used. */
import { useState } from 'react'
import type { ColumnRole } from '../../core/exchange/columns.ts'
import type { Phrase } from '../../core/keywords/phrases.ts'
import { ColumnChoice } from '../intake/column-choice.tsx'
import { useOpenedSheet } from '../intake/use-opened-sheet.ts'
import { today } from '../session/today.ts'
import { Dialog } from '../ui/dialog.tsx'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'

const roles: ColumnRole[] = ['keyword', 'monthly']

export function PhraseSheet({
  file,
  onClose,
  onRead,
}: {
  file: File
  onClose(): void
  onRead(phrases: Phrase[], title: string): void
}) {
  const { sheet, columns, setColumns, problem, setProblem } = useOpenedSheet(file, 'phrases')
  const [unread, setUnread] = useState<{ row: number; why: string }[]>([])
  async function read(ticket: number) {
    const result = await core().phrasesFromSheet(ticket, columns, file.name.slice(0, 300), today())
    if (result === null) return setProblem('The sheet is no longer at hand. Choose it again.')
    setUnread(result.unread)
    if (result.phrases.length === 0)
      return setProblem('No row of this sheet has a phrase. Say which column holds it.')
    onRead(result.phrases, `From ${file.name}`)
  }
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={`Phrases from ${file.name}`}
      description="Check what each column holds. Columns named by twelve months are read as such."
      width={900}
    >
      {problem && (
        <p role="alert" className="mb-3 border-l-2 border-carmine pl-3">
          {problem} {unread[0] && `Row ${unread[0].row}: ${unread[0].why}`}
        </p>
      )}
      {sheet && (
        <>
          <ColumnChoice sheet={sheet} roles={roles} columns={columns} onChange={setColumns} />
          <button
            type="button"
            className="button button-main mt-5"
            disabled={columns.keyword === undefined}
            onClick={() => void read(sheet.ticket)}
          >
            Read {plural(sheet.rows, 'row')}
          </button>
          {columns.keyword === undefined && (
            <p className="mt-2 text-[13px] text-carmine">Say which column holds the phrases.</p>
          )}
        </>
      )}
    </Dialog>
  )
}
