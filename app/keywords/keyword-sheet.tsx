/** Keywords of all pages as CSV: taken in as one step, and written out in the same form. */
import { toast } from 'sonner'
import { writeTable } from '../../core/exchange/csv.ts'
import { keywordsOf } from '../../core/work/decisions.ts'
import type { Session } from '../session/session.ts'
import { download, fileName } from '../ui/download.ts'
import { FilePick } from '../ui/file-pick.tsx'
import { plural, someOf } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'

export function KeywordSheet({ session }: { session: Session }) {
  async function read(file: File) {
    const result = await core().readKeywordSheet(new Uint8Array(await file.arrayBuffer()))
    if (!result.ok) return void toast.error(`${file.name}: ${result.why}`)
    const { matched, unmatched } = result.read
    await session.decide(
      'Keywords from a sheet',
      matched.flatMap(({ id, primary, secondary }) => [
        { page: id, key: 'keyword:primary', after: primary || undefined },
        { page: id, key: 'keyword:secondary', after: secondary.length > 0 ? secondary : undefined },
      ]),
    )
    const strays = unmatched.length > 0 ? ` No such page: ${someOf(unmatched)}.` : ''
    toast(`Keywords for ${plural(matched.length, 'page')} taken in.${strays}`, {
      duration: unmatched.length > 0 ? 12_000 : 4_000,
    })
  }
  function write() {
    const { rows, site } = session.get()
    const lines = [...rows.values()]
      .sort((a, b) => (a.path < b.path ? -1 : 1))
      .map(({ id, path }) => {
        const { primary = '', secondary = [] } = keywordsOf(session.decisionsOf(id)) ?? {}
        return [path, primary, secondary.join('; ')]
      })
    download(
      fileName(site.name, '-keywords.csv'),
      writeTable(['path', 'primary', 'secondary'], lines),
      'text/csv',
    )
  }
  return (
    <>
      <FilePick
        label="Keywords as CSV"
        accept=".csv,.tsv,.txt"
        title="Columns: path or url, primary, secondary (with semicolons)"
        testId="keywords-input"
        onFile={(file) => void tell(`${file.name} could not be read`, () => read(file))}
      >
        Keywords from a CSV …
      </FilePick>
      <button type="button" className="quiet" onClick={write}>
        Keywords as CSV
      </button>
    </>
  )
}
