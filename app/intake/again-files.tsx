/** Taking a site in again from a folder, a ZIP archive or one file. */
import { useRef, useState } from 'react'
import { fromDrop, fromPicker } from '../shelf/dropped.ts'
import { core } from '../workers/client.ts'
import type { IntakeInput } from '../workers/open-input.ts'

export function AgainFromFiles({ onTake }: { onTake(ticket: number): Promise<void> }) {
  const folder = useRef<HTMLInputElement>(null)
  const file = useRef<HTMLInputElement>(null)
  const [problem, setProblem] = useState<string | null>(null)
  async function take(input: IntakeInput | null) {
    if (!input) return
    setProblem(null)
    try {
      const prepared = await core().prepare(input)
      if (!prepared.ok) return setProblem(prepared.why)
      if (prepared.prepared.kind === 'project')
        return setProblem('This is a project file. Take it in from the shelf: it brings a site of its own.')
      await onTake(prepared.prepared.ticket)
    } catch (error) {
      setProblem((error as Error).message)
    }
  }
  const pick = (list: FileList | null) => void take(list && fromPicker(list))
  return (
    <section
      aria-label="From files"
      className="sheet mt-5 max-w-[760px] border-dashed p-7"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        void fromDrop(e.dataTransfer).then(take)
      }}
    >
      <h2 className="font-serif text-[19px]">Or from files</h2>
      <p className="mt-1 text-ink-2">Drop the site’s folder or ZIP archive as it is now.</p>
      <div className="mt-4 flex gap-3">
        <button type="button" className="button" onClick={() => folder.current?.click()}>
          Choose a folder …
        </button>
        <button type="button" className="button" onClick={() => file.current?.click()}>
          Choose a ZIP or a page …
        </button>
      </div>
      {problem && (
        <p role="alert" className="mt-3 font-semibold text-carmine">
          {problem}
        </p>
      )}
      <input
        ref={(node) => {
          folder.current = node
          node?.setAttribute('webkitdirectory', '')
        }}
        type="file"
        hidden
        aria-label="Folder of pages"
        onChange={(e) => pick(e.target.files)}
      />
      <input
        ref={file}
        type="file"
        hidden
        aria-label="ZIP or page"
        data-testid="again-file-input"
        accept=".zip,.html,.htm,.xhtml"
        onChange={(e) => pick(e.target.files)}
      />
    </section>
  )
}
