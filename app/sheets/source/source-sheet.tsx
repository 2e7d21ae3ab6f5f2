import { useEffect, useRef, useState } from 'react'
import { conformance, core } from '../../workers/client.ts'
import type { PlacedFinding } from '../../workers/conformance.worker.ts'
import { useNonce } from '../../nonce.ts'
import type { Session } from '../../session/session.ts'
import { plural } from '../../ui/plural.ts'
import type { MarkView, PageView } from '../../workers/page-view.ts'
import { Margin, type Remark } from '../../margin/margin.tsx'
import type { SourceView } from './source-editor.ts'

/** The check of the page's whole HTML: not asked for; asked for and awaited; done, or failed with the reason. */
type Check =
  | { at: 'off' }
  | { at: 'checking' }
  | { at: 'done'; findings: PlacedFinding[] }
  | { at: 'failed'; why: string }

/**
 * The proof's source, read-only, with every mark in its place; CodeMirror is loaded when this sheet is opened. On demand
 * the whole page's HTML is checked as well, and again after every edit.
 */
export function SourceSheet({
  session,
  view,
  page,
  at,
}: {
  session: Session
  view: PageView | null
  page: string
  /** A place to begin at, in the proof's text; NaN for none. */
  at: number
}) {
  const host = useRef<HTMLDivElement>(null)
  const source = useRef<SourceView | null>(null)
  const arrived = useRef(false)
  const nonce = useNonce()
  const [anchors, setAnchors] = useState<ReadonlyMap<string, number>>(new Map())
  const [check, setCheck] = useState<Check>({ at: 'off' })
  const [failed, setFailed] = useState<unknown>(null)
  /** Counts texts, so that an older one's findings are never shown for a newer one. */
  const shown = useRef(0)
  const marks = view?.marks ?? []
  const placed = marks.filter((m) => m.start !== null && !m.stet)
  const findings = check.at === 'done' ? check.findings : []
  /** Whether the check is wanted: a text that comes later is looked through as well. */
  const wanted = useRef(false)

  useEffect(() => {
    if (!view) return
    let stale = false
    void Promise.all([core().proofText(page, session.decisionsOf(page)), import('./source-editor.ts')])
      .then(([text, { showSource }]) => {
        if (stale || text === null || !host.current) return
        source.current?.view.destroy()
        source.current = showSource(host.current, text, view.marks, nonce, (tops) => setAnchors(tops))
        shown.current++
        if (wanted.current) void look()
        if (at >= 0 && !arrived.current) {
          arrived.current = true
          requestAnimationFrame(() => show(at))
        }
      })
      .catch((error: unknown) => !stale && setFailed(error))
    return () => {
      stale = true
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a new view is a new text
  }, [view])
  useEffect(() => () => source.current?.view.destroy(), [])
  if (failed) throw failed

  async function look(): Promise<void> {
    wanted.current = true
    setCheck({ at: 'checking' })
    const of = source.current
    // Asked for before the source was there: it is looked through when it comes.
    if (!of) return
    const turn = shown.current
    try {
      const answered = await conformance().findings(of.text)
      if (turn !== shown.current) return
      setCheck({ at: 'done', findings: answered })
      of.remark(answered.map((f, i) => ({ id: `html ${i}`, start: f.start })))
    } catch (error) {
      if (turn === shown.current) setCheck({ at: 'failed', why: (error as Error).message })
    }
  }

  function show(start: number) {
    const now = source.current
    if (!now) return
    const { view: cm } = now
    const place = now.placeOf(start)
    const top = cm.documentTop + cm.lineBlockAt(place).top
    scrollTo({ top: scrollY + top - 200 })
    cm.dispatch({ selection: { anchor: place } })
    cm.focus()
  }

  return (
    <>
      <p className="sticky top-[52px] z-10 flex flex-wrap gap-x-6 bg-desk pb-1.5 text-[13px] text-ink-2">
        {placed.length > 0 && (
          <span>
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
          </span>
        )}
        <span className="ml-auto flex gap-3" role="status" data-testid="html-check">
          {
            {
              off: null,
              checking: 'Checking the whole page’s HTML …',
              done:
                findings.length === 0
                  ? 'The whole page’s HTML conforms to the standard.'
                  : `${plural(findings.length, 'finding')} in the whole page’s HTML, at ${findings.length === 1 ? 'its line' : 'their lines'}`,
              failed: `The HTML could not be checked: ${check.at === 'failed' ? check.why : ''}`,
            }[check.at]
          }
          {check.at === 'off' || check.at === 'failed' ? (
            <button type="button" className="action" disabled={!view} onClick={() => void look()}>
              Check the whole page’s HTML
            </button>
          ) : (
            check.at === 'done' && (
              <button
                type="button"
                className="quiet"
                onClick={() => {
                  wanted.current = false
                  setCheck({ at: 'off' })
                  source.current?.remark([])
                }}
              >
                Hide
              </button>
            )
          )}
        </span>
      </p>
      <div className="grid grid-cols-[658px_minmax(0,1fr)] gap-7 max-[1100px]:grid-cols-[minmax(0,1fr)]">
        <section
          className="sheet min-h-40 min-w-0 overflow-x-auto"
          aria-label="Source of the proof, read-only"
          data-testid="source"
        >
          <div ref={host} />
        </section>
        <Margin
          page={page}
          marks={marks}
          anchors={anchors}
          session={session}
          onGoTo={(mark: MarkView) => mark.start !== null && show(mark.start)}
          remarks={findings.map((f, i) => ({
            id: `html ${i}`,
            line: f.line,
            text: f.message,
            from: `HTML standard, ${f.rule}`,
          }))}
          onGoToRemark={(remark: Remark) => show(findings[Number(remark.id.slice(5))]!.start)}
          clean={view ? 'Nothing to mend on this page.' : 'Reading …'}
        />
      </div>
    </>
  )
}
