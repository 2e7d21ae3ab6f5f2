import { useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'
import { sayFailed } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import type { Spread, SpreadPage } from '../workers/data-site.ts'

const AT_ONCE = 20
/** So many pages are listed; the figures are of all. */
const LISTED = 200

/** One kind of data for every page, page by page, before any of it is kept. Cancelled by closing. */
export function SpreadPart({ kind, session, onClose }: { kind: Spread; session: Session; onClose(): void }) {
  const [pages, setPages] = useState<SpreadPage[]>([])
  const [done, setDone] = useState<{ of: number; n: number }>({ of: 1, n: 0 })
  const [except, setExcept] = useState<ReadonlySet<string>>(new Set())
  const [shown, setShown] = useState<string | null>(null)
  const heading = useRef<HTMLHeadingElement>(null)

  useEffect(() => {
    let stale = false
    const { rows, work } = session.get()
    const pages = [...rows.values()].sort((a, b) => (a.path < b.path ? -1 : 1)).map((row) => row.id)
    void (async () => {
      for (let i = 0; i < pages.length && !stale; i += AT_ONCE) {
        const some = pages.slice(i, i + AT_ONCE)
        const found = await core().spreadPreview(
          kind,
          Object.fromEntries(some.map((p) => [p, work.get(p) ?? {}])),
          some,
        )
        if (stale) return
        setPages((now) => [...now, ...found])
        setDone({ of: pages.length, n: Math.min(pages.length, i + AT_ONCE) })
      }
    })().catch((error: unknown) => {
      if (stale) return
      sayFailed('The preview broke off', error)
      onClose()
    })
    return () => {
      stale = true
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- closing is the caller's and stays what it does
  }, [kind, session])
  useEffect(() => heading.current?.focus(), [])

  const whole = done.n >= done.of
  const given = pages.filter((p) => p.edit !== null)
  const chosen = given.filter((p) => !except.has(p.id))
  const skipped = pages.filter((p) => p.skipped !== null)
  const marked = chosen.filter((p) => p.marks.length > 0)
  const what = kind === 'breadcrumb' ? 'A breadcrumb' : 'Publisher'
  const keep = () => {
    void session
      .decide(
        `${what} for ${plural(chosen.length, 'page')}`,
        chosen.map((p) => ({ page: p.id, key: `edit:data:${kind}`, after: p.edit })),
      )
      .then(() => toast(`${what}: added to ${plural(chosen.length, 'page')}. Undo removes all of it.`))
    onClose()
  }
  const page = given.find((p) => p.id === shown)
  return (
    <section className="sheet mt-3 p-6" aria-labelledby="spread" data-testid="spread">
      <div className="flex items-baseline gap-4">
        <h3 id="spread" ref={heading} tabIndex={-1} className="font-serif text-[17px]">
          {what}, page by page
        </h3>
        <button type="button" className="quiet ml-auto text-[13px]" onClick={onClose}>
          {whole ? 'Close' : 'Cancel'}
        </button>
      </div>
      {!whole && (
        <p className="mt-1 flex items-center gap-3 text-[13px] text-ink-2">
          <progress value={done.n} max={done.of} aria-label="Pages looked at" /> {done.n} of {done.of} pages
        </p>
      )}
      <p className="mt-1 text-ink-2" data-testid="spread-figures">
        {plural(chosen.length, 'page')} would get it
        {skipped.length > 0 &&
          `; ${plural(skipped.length, 'page')} would stay as ${skipped.length === 1 ? 'it is' : 'they are'} (${[...new Set(skipped.map((p) => p.skipped!.replace(/\.$/, '').toLowerCase()))].join('; ')})`}
        {marked.length > 0 && `; on ${plural(marked.length, 'page')} something would be marked`}.
      </p>
      <div className="mt-2 grid grid-cols-[1fr_400px] gap-6 max-[1000px]:grid-cols-1">
        <ul className="max-h-[420px] overflow-auto" tabIndex={0} aria-label="Pages">
          {given.slice(0, LISTED).map((p) => (
            <li key={p.id} className="flex items-baseline gap-3 border-t border-rule-2 py-1">
              <input
                type="checkbox"
                aria-label={`${p.name}, ${p.path}`}
                checked={!except.has(p.id)}
                onChange={(e) => {
                  const next = new Set(except)
                  if (e.target.checked) next.delete(p.id)
                  else next.add(p.id)
                  setExcept(next)
                }}
              />
              <button
                type="button"
                className="min-w-0 flex-1 text-left hover:underline"
                aria-pressed={p.id === shown}
                onClick={() => setShown(p.id)}
              >
                {p.says}
                {p.marks.length > 0 && (
                  <span className="block text-[12px] text-carmine">{p.marks.join('; ')}</span>
                )}
              </button>
              <span className="max-w-40 truncate text-[12px] text-ink-3">{p.path}</span>
            </li>
          ))}
        </ul>
        <pre
          className="max-h-[420px] overflow-auto border border-rule bg-paper-2 p-3 font-mono text-[12px] whitespace-pre-wrap"
          tabIndex={0}
          aria-label="As JSON"
        >
          {(page ?? given[0])?.json ?? ''}
        </pre>
      </div>
      <button
        type="button"
        className="button button-main mt-4"
        disabled={!whole || chosen.length === 0}
        onClick={keep}
      >
        Add it to {plural(chosen.length, 'page')}
      </button>
    </section>
  )
}
