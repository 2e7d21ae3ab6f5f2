/** An editor's own sheet of results, for a market: its columns confirmed, each phrase's rows kept as its results. */
import { useState } from 'react'
import type { ColumnRole } from '../../core/exchange/columns.ts'
import { resultsQuestion, type ResultsQuestion } from '../../core/keywords/results-question.ts'
import { ColumnChoice } from '../intake/column-choice.tsx'
import { useOpenedSheet } from '../intake/use-opened-sheet.ts'
import { today } from '../session/today.ts'
import { keepAnswer } from '../store/answers.ts'
import { Dialog } from '../ui/dialog.tsx'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'

const roles: ColumnRole[] = ['keyword', 'position', 'address', 'title', 'description']

export function ResultsSheet({
  file,
  asked,
  market,
  onClose,
  onKept,
}: {
  file: File
  /** For which readers and in which language the results are kept. */
  asked: Pick<ResultsQuestion, 'market' | 'place' | 'language'>
  /** The same in words. */
  market: string
  onClose(): void
  onKept(phrases: number, unread: { row: number; why: string }[]): void
}) {
  const { sheet, columns, setColumns, problem, setProblem } = useOpenedSheet(file, 'results')
  const [isReading, setReading] = useState(false)
  async function read(ticket: number) {
    setReading(true)
    const date = today()
    const result = await core().resultsFromSheet(ticket, columns, asked.market, date)
    if (result === null || result.answers.length === 0) {
      setReading(false)
      const first = result?.unread[0]
      return setProblem(
        result === null
          ? 'The sheet is no longer at hand. Choose it again.'
          : `No row of this sheet is a result.${first ? ` Row ${first.row}: ${first.why}` : ''}`,
      )
    }
    for (const answer of result.answers)
      await keepAnswer('results', resultsQuestion(answer.phrase, asked), {
        date,
        source: file.name.slice(0, 300),
        answer,
      })
    onKept(result.answers.length, result.unread)
  }
  const isReady = columns.keyword !== undefined && columns.address !== undefined
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={`Results from ${file.name}`}
      description={`Check what each column holds. They are kept as the results ${market}.`}
      width={900}
    >
      {problem && (
        <p role="alert" className="mb-3 border-l-2 border-carmine pl-3">
          {problem}
        </p>
      )}
      {sheet && (
        <>
          <ColumnChoice sheet={sheet} roles={roles} columns={columns} onChange={setColumns} />
          <button
            type="button"
            className="button button-main mt-5"
            disabled={!isReady || isReading}
            onClick={() => void read(sheet.ticket)}
          >
            Keep {plural(sheet.rows, 'row')}
          </button>
          {!isReady && (
            <p className="mt-2 text-[13px] text-carmine">
              Say which columns hold the phrases and the addresses.
            </p>
          )}
        </>
      )}
    </Dialog>
  )
}
