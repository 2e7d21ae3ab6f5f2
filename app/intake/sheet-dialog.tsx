/** Pages taken in from a sheet: its columns confirmed, then a page for each row. */
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { ColumnRole } from '../../core/exchange/columns.ts'
import { today } from '../session/today.ts'
import { Dialog } from '../ui/dialog.tsx'
import { plural, someOf } from '../ui/plural.ts'
import { core } from '../workers/client.ts'
import { reported } from '../workers/reported.ts'
import type { SheetView } from '../workers/sheets.ts'
import { useOpenedSheet } from './use-opened-sheet.ts'
import { ColumnChoice } from './column-choice.tsx'

const roles: ColumnRole[] = [
  'address',
  'title',
  'description',
  'h1',
  'keyword',
  'secondary',
  'words',
  'status',
]

export function SheetDialog({ file, onClose }: { file: File; onClose(): void }) {
  const { sheet, columns, setColumns, problem, setProblem } = useOpenedSheet(file, 'pages')
  const [site, setSite] = useState('')
  const [name, setName] = useState(file.name.replace(/\.[a-z]+$/i, ''))
  const [busy, setBusy] = useState(false)
  const navigate = useNavigate()

  async function take(view: SheetView) {
    setBusy(true)
    setProblem(null)
    try {
      const made = await core().pagesFromSheet(view.ticket, columns, today(), site)
      if (!made.ok) return setProblem(made.why)
      const given = { ticket: view.ticket, name, base: made.base, today: today(), demo: false }
      const taken = await reported(
        () => {},
        (report) => core().takeIn(given, report),
      )
      if (!taken.ok) return setProblem(taken.why)
      await navigate(`/sites/${taken.site.id}/ledger?view=left`)
    } catch (error) {
      setProblem((error as Error).message)
    } finally {
      setBusy(false)
    }
  }
  const hasAddress = columns.address !== undefined
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Pages from a sheet"
      description="Each row becomes a page of which as much is known as the sheet says. Fetched or taken in as files later, it becomes whole, and what you drafted stays."
      width={900}
    >
      {problem && (
        <p role="alert" className="mb-4 border-l-2 border-carmine pl-3">
          {problem}
        </p>
      )}
      {sheet && (
        <form
          onSubmit={(event) => {
            event.preventDefault()
            void take(sheet)
          }}
        >
          <ColumnChoice sheet={sheet} roles={roles} columns={columns} onChange={setColumns} />
          <div className="mt-5 grid grid-cols-2 gap-6">
            <label>
              <span className="font-semibold">What you call the site</span>
              <input
                className="field mt-1"
                value={name}
                required
                maxLength={200}
                onChange={(e) => setName(e.target.value)}
              />
            </label>
            <label>
              <span className="font-semibold">Its address</span>
              <input
                className="field mt-1 font-mono text-[13px]"
                placeholder="only needed where rows hold paths alone"
                value={site}
                onChange={(e) => setSite(e.target.value)}
              />
            </label>
          </div>
          <button type="submit" className="button button-main mt-5" disabled={busy || !hasAddress}>
            {busy ? 'Taking in …' : `Take in ${plural(sheet.rows, 'row')}`}
          </button>
          {!hasAddress && (
            <p className="mt-2 text-[13px] text-carmine">Say which column holds the addresses.</p>
          )}
        </form>
      )}
      {!sheet && !problem && <p className="text-ink-2">Opening {someOf([file.name])} …</p>}
    </Dialog>
  )
}
