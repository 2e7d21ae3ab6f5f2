import { useEffect, useRef, useState } from 'react'
import type { EditorView } from '@codemirror/view'
import { core } from '../workers/client.ts'
import { useNonce } from '../nonce.ts'
import type { Session } from '../store/session.ts'
import type { MarkView, PageView } from '../workers/page-view.ts'
import { Margin } from './margin.tsx'

/** The proof's source, read-only, with every mark in its place; CodeMirror is loaded when this sheet is opened. */
export function SourceSheet({
  session,
  view,
  path,
  at,
}: {
  session: Session
  view: PageView | null
  path: string
  /** A place to begin at, in the proof's text; NaN for none. */
  at: number
}) {
  const host = useRef<HTMLDivElement>(null)
  const editor = useRef<EditorView | null>(null)
  const arrived = useRef(false)
  const nonce = useNonce()
  const [anchors, setAnchors] = useState<ReadonlyMap<string, number>>(new Map())
  const marks = view?.marks ?? []
  const placed = marks.filter((m) => m.start !== null && !m.stet)

  useEffect(() => {
    if (!view) return
    let stale = false
    void Promise.all([core().proofText(path, session.decisionsOf(path)), import('./source-editor.ts')]).then(
      ([text, { showSource }]) => {
        if (stale || text === null || !host.current) return
        editor.current?.destroy()
        editor.current = showSource(host.current, text, view.marks, nonce, (tops) => setAnchors(tops))
        if (at >= 0 && !arrived.current) {
          arrived.current = true
          requestAnimationFrame(() => show(at))
        }
      },
    )
    return () => {
      stale = true
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a new view is a new text
  }, [view])
  useEffect(() => () => editor.current?.destroy(), [])

  function show(at: number) {
    const cm = editor.current
    if (!cm) return
    const place = Math.min(at, cm.state.doc.length)
    const top = cm.documentTop + cm.lineBlockAt(place).top
    scrollTo({ top: scrollY + top - 200 })
    cm.dispatch({ selection: { anchor: place } })
    cm.focus()
  }

  return (
    <>
      {placed.length > 0 && (
        <p className="sticky top-[52px] z-10 bg-desk pb-1.5 text-[13px] text-ink-2">
          Marks at line{' '}
          {placed.slice(0, 12).map((m) => (
            <button
              key={m.id}
              type="button"
              className="action mr-2.5"
              title={m.name}
              onClick={() => show(m.start!)}
            >
              {m.line}
            </button>
          ))}
          {placed.length > 12 && `and ${placed.length - 12} more`}
        </p>
      )}
      <div className="grid grid-cols-[658px_minmax(0,1fr)] gap-7 max-[1100px]:grid-cols-[minmax(0,1fr)]">
        <section
          className="sheet min-h-40 min-w-0 overflow-x-auto"
          aria-label="Source of the proof, read-only"
          data-testid="source"
        >
          <div ref={host} />
        </section>
        <Margin
          path={path}
          marks={marks}
          anchors={anchors}
          session={session}
          onGoTo={(mark: MarkView) => mark.start !== null && show(mark.start)}
          clean={view ? 'Nothing to mend on this page.' : 'Reading …'}
        />
      </div>
    </>
  )
}
