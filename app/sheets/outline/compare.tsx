/** The page's structure beside up to three others: of the site, at an address, from a file, or pasted. */
import { memo, useState } from 'react'
import { toast } from 'sonner'
import type { Session } from '../../session/session.ts'
import { Dialog } from '../../ui/dialog.tsx'
import { FilePick } from '../../ui/file-pick.tsx'
import { core } from '../../workers/client.ts'
import type { PageView } from '../../workers/page-view.ts'
import type { CompareWith } from '../../workers/structure.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import { SideBySide } from './side-by-side.tsx'

const MOST_OTHERS = 3

/** A page of the site by its id, or an address, as the view's own address has them. */
export type Compared = { id: string } | { address: string }

export const Compare = memo(function Compare({
  session,
  page,
  view,
  phrase,
  compared,
  onChoose,
}: {
  session: Session
  page: string
  view: PageView | null
  /** What the pages are judged for instead of this page's primary keyword; null for that. */
  phrase: string | null
  compared: readonly Compared[]
  onChoose(compared: Compared[]): void
}) {
  const [foreign, setForeign] = useState<{ html: Uint8Array; name: string }[]>([])
  const [isPasting, setPasting] = useState(false)
  const [pasted, setPasted] = useState('')
  const others: CompareWith[] = [
    ...compared.map((other) =>
      'id' in other ? { ...other, decisions: session.decisionsOf(other.id) } : other,
    ),
    ...foreign,
  ]
  const answer = useAnswer(
    view && others.length > 0 ? () => core().compare(page, session.decisionsOf(page), others, phrase) : null,
    [view, JSON.stringify(compared), foreign, page, phrase, session],
  )
  const isFull = others.length >= MOST_OTHERS
  const takeFile = async (file: File) => {
    if (isFull) return void toast.error(`Three pages can be compared at a time. Remove one first.`)
    setForeign([...foreign, { html: new Uint8Array(await file.arrayBuffer()), name: file.name }])
  }
  const remove = (index: number) => {
    if (index < compared.length) onChoose(compared.filter((_, i) => i !== index))
    else setForeign(foreign.filter((_, i) => i !== index - compared.length))
  }
  return (
    <section
      className="mt-4 border-t border-rule pt-3"
      data-testid="compare"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        const file = e.dataTransfer.files[0]
        if (file) void takeFile(file)
      }}
    >
      <h2 className="font-serif text-[17px]">Compare its structure</h2>
      {isFull ? (
        <p className="mt-1 text-[13px] text-ink-3">
          Three pages stand beside this one. Remove one to add another.
        </p>
      ) : (
        <div className="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-[13px]">
          <label className="flex items-baseline gap-2">
            with
            <select
              className="max-w-56 border-b border-ink-3 bg-desk"
              value=""
              data-testid="compare-with"
              onChange={(e) => onChoose([...compared, { id: e.target.value }])}
            >
              <option value="">a page of the site …</option>
              <PagesToCompare
                session={session}
                pages={session.get().rows.size}
                page={page}
                compared={compared}
              />
            </select>
          </label>
          <AddressField onAddress={(address) => onChoose([...compared, { address }])} />
          <FilePick
            label="An HTML file to compare with"
            accept=".html,.htm,.xhtml"
            testId="compare-file"
            onFile={(f) => void takeFile(f)}
          >
            a file …
          </FilePick>
          <button type="button" className="quiet" onClick={() => setPasting(true)}>
            pasted source …
          </button>
          <span className="text-ink-3">or drop a page here; pages are only read, never run</span>
        </div>
      )}
      {others.length > 0 && answer === null && (
        <p role="status" className="mt-3 text-[13px] text-ink-2">
          Reading what it is compared with …
        </p>
      )}
      {others.length > 0 && answer && <SideBySide {...answer} onRemove={remove} />}
      <Dialog
        open={isPasting}
        onOpenChange={setPasting}
        title="Compare with pasted source"
        description="The source of any page; it is only read, never run."
      >
        <textarea
          aria-label="Source of the other page"
          className="field h-60 font-mono text-[12px]"
          value={pasted}
          onChange={(e) => setPasted(e.target.value)}
        />
        <button
          type="button"
          className="button button-main mt-3"
          disabled={pasted.trim() === ''}
          onClick={() => {
            setForeign([...foreign, { html: new TextEncoder().encode(pasted), name: 'pasted page' }])
            setPasted('')
            setPasting(false)
          }}
        >
          Compare
        </button>
      </Dialog>
    </section>
  )
})

/** The site's other pages, drawn anew when pages come or go, and not for what is typed. */
const PagesToCompare = memo(function PagesToCompare({
  session,
  page,
  compared,
}: {
  session: Session
  /** How many there are. */
  pages: number
  page: string
  compared: readonly Compared[]
}) {
  return [...session.get().rows.values()]
    .filter((row) => row.id !== page && !compared.some((other) => 'id' in other && other.id === row.id))
    .sort((a, b) => (a.path < b.path ? -1 : 1))
    .map((row) => (
      <option key={row.id} value={row.id}>
        {row.path}
      </option>
    ))
})

function AddressField({ onAddress }: { onAddress(address: string): void }) {
  const [typed, setTyped] = useState('')
  const address = /^https?:\/\//i.test(typed.trim()) ? typed.trim() : `https://${typed.trim()}`
  return (
    <form
      className="flex items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (typed.trim() === '') return
        if (!URL.canParse(address))
          return void toast.error('This is no web address. Write it like https://www.your-site.example/page.')
        onAddress(address)
        setTyped('')
      }}
    >
      <label>
        an address{' '}
        <input
          className="w-48 border-b border-ink-3 bg-transparent px-1"
          maxLength={2000}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
      </label>
      <button type="submit" className="quiet">
        Fetch it
      </button>
    </form>
  )
}
