import { useEffect, useState } from 'react'
import type { Columns, SheetPurpose } from '../../core/exchange/columns.ts'
import { core } from '../workers/client.ts'
import type { SheetView } from '../workers/sheets.ts'

/** A sheet that was dropped, opened, with what its columns seem to be; or why it cannot be. */
export function useOpenedSheet(file: File, purpose: SheetPurpose) {
  const [sheet, setSheet] = useState<SheetView | null>(null)
  const [columns, setColumns] = useState<Columns>({})
  const [problem, setProblem] = useState<string | null>(null)
  useEffect(() => {
    let stale = false
    async function open() {
      const result = await core().openSheet(new Uint8Array(await file.arrayBuffer()), purpose)
      if (stale) return
      if (!result.ok) return setProblem(result.why)
      setSheet(result.view)
      setColumns(result.view.columns)
    }
    open().catch((error: Error) => setProblem(`It could not be opened (${error.message}).`))
    return () => {
      stale = true
    }
  }, [file, purpose])
  return { sheet, columns, setColumns, problem, setProblem }
}
