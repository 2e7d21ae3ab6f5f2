/** The ledger as it is shown, written as a sheet, and a sheet whose cells were changed taken back in. */
import { useState } from 'react'
import { Popover } from 'radix-ui'
import { toast } from 'sonner'
import { writeTable } from '../../core/exchange/csv.ts'
import type { WrittenCell } from '../../core/work/bulk/cells.ts'
import { CellChanges } from '../bulk/cell-changes.tsx'
import type { Session } from '../session/session.ts'
import { Dialog } from '../ui/dialog.tsx'
import { download, fileName } from '../ui/download.ts'
import { FilePick } from '../ui/file-pick.tsx'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import type { LedgerColumn, LedgerLine } from './columns.tsx'

export function SheetOfLedger({
  session,
  lines,
  shown,
}: {
  session: Session
  lines: readonly LedgerLine[]
  shown: readonly LedgerColumn[]
}) {
  const [cells, setCells] = useState<{ name: string; cells: WrittenCell[] } | null>(null)
  const table = () => {
    const columns = shown.filter(({ id }) => id !== 'page' && id !== 'address')
    return {
      heading: ['Address', ...columns.map((column) => column.name)],
      rows: lines.map((line) => [line.row.url, ...columns.map((column) => column.value(line))]),
    }
  }
  const name = fileName(session.get().site.name, '-ledger')
  async function take(file: File) {
    const read = await core().ledgerSheet(new Uint8Array(await file.arrayBuffer()))
    if (!read.ok) return void toast.error(`${file.name}: ${read.why}`)
    const { cells: written, unread } = read.read
    if (unread.length > 0)
      toast(`${plural(unread.length, 'row')} left out. Row ${unread[0]!.row}: ${unread[0]!.why}`, {
        duration: 12_000,
      })
    setCells({ name: file.name, cells: written })
  }
  return (
    <>
      <Popover.Root>
        <Popover.Trigger className="quiet text-[13px]">Sheet …</Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            className="sheet z-30 flex w-72 flex-col items-start gap-2 p-4 text-[13px]"
            sideOffset={6}
            align="end"
          >
            <h2 className="font-serif text-[17px]">What is shown, as a sheet</h2>
            <Popover.Close
              className="action"
              onClick={() => {
                const { heading, rows } = table()
                download(
                  `${name}.csv`,
                  writeTable(
                    heading,
                    rows.map((row) => row.map(String)),
                  ),
                  'text/csv',
                )
              }}
            >
              Write {plural(lines.length, 'page')} as CSV
            </Popover.Close>
            <Popover.Close
              className="action"
              onClick={() =>
                tell('The sheet could not be made', async () => {
                  const { heading, rows } = table()
                  const bytes = await core().officeSheet([heading, ...rows], 'xlsx')
                  download(
                    `${name}.xlsx`,
                    bytes,
                    'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
                  )
                })
              }
            >
              Write them as XLSX
            </Popover.Close>
            <FilePick
              label="A sheet of the ledger"
              accept=".csv,.tsv,.txt,.xlsx,.ods"
              testId="ledger-sheet-input"
              onFile={(file) => void tell(`${file.name} could not be read`, () => take(file))}
            >
              Take a changed sheet in …
            </FilePick>
            <p className="text-ink-3">
              Titles, descriptions and keywords that differ become drafts, after you have looked at them.
            </p>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <Dialog
        open={cells !== null}
        onOpenChange={(open) => !open && setCells(null)}
        title="Changed cells"
        description="What differs from the pages as they stand. Nothing is kept before you say so."
        width={1000}
      >
        {cells && (
          <CellChanges
            session={session}
            label={`Cells from ${cells.name}`}
            cells={cells.cells}
            onClose={() => setCells(null)}
          />
        )}
      </Dialog>
    </>
  )
}
