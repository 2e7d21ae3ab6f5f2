import { useEffect, useState } from 'react'
import { toast } from 'sonner'
import { BulkStep } from '../bulk/bulk-step.tsx'
import { useLeftOut } from '../bulk/left-out.ts'
import { PageChoice } from '../bulk/page-choice.tsx'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'
import { sayFailed } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import type { DataStep, DataStepPage } from '../workers/data-site.ts'

const AT_ONCE = 20

/** One kind of data for every page, page by page, before any of it is kept. Cancelled by closing. */
export function DataForEveryPage({
  kind,
  session,
  onClose,
}: {
  kind: DataStep
  session: Session
  onClose(): void
}) {
  const [pages, setPages] = useState<DataStepPage[]>([])
  const [done, setDone] = useState<{ of: number; n: number }>({ of: 1, n: 0 })
  const [leftOut, leaveOut] = useLeftOut()
  const [shown, setShown] = useState<string | null>(null)

  useEffect(() => {
    let stale = false
    const { rows, work } = session.get()
    const pages = [...rows.values()].sort((a, b) => (a.path < b.path ? -1 : 1)).map((row) => row.id)
    void (async () => {
      for (let i = 0; i < pages.length && !stale; i += AT_ONCE) {
        const some = pages.slice(i, i + AT_ONCE)
        const preview = await core().dataStepPreview(
          kind,
          Object.fromEntries(some.map((p) => [p, work.get(p) ?? {}])),
          some,
        )
        if (stale) return
        setPages((now) => [...now, ...preview])
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

  const whole = done.n >= done.of
  const given = pages.filter((p) => p.edit !== null)
  const chosen = given.filter((p) => !leftOut.has(p.id))
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
  const page = given.find((p) => p.id === shown) ?? given[0]
  return (
    <BulkStep
      testId="data-step"
      takesFocus
      title={`${what}, page by page`}
      progress={whole ? null : { done: done.n, of: done.of }}
      figures={
        <>
          {plural(chosen.length, 'page')} would get it
          {skipped.length > 0 &&
            `; ${plural(skipped.length, 'page')} would stay as ${skipped.length === 1 ? 'it is' : 'they are'} (${[...new Set(skipped.map((p) => p.skipped!.replace(/\.$/, '').toLowerCase()))].join('; ')})`}
          {marked.length > 0 && `; on ${plural(marked.length, 'page')} something would be marked`}.
        </>
      }
      keep={`Add it to ${plural(chosen.length, 'page')}`}
      canKeep={whole && chosen.length > 0}
      onKeep={keep}
      onClose={onClose}
      closeLabel="Close"
    >
      {page && (
        <div className="grid grid-cols-[1fr_400px] gap-6 max-[1000px]:grid-cols-1">
          <PageChoice
            pages={given}
            leftOut={leftOut}
            onLeaveOut={leaveOut}
            nameOf={(p) => `${p.name}, ${p.path}`}
            shown={page.id}
            onShow={setShown}
            height={420}
            line={(p) => (
              <>
                {p.says}
                {p.marks.length > 0 && (
                  <span className="block text-[12px] text-carmine">{p.marks.join('; ')}</span>
                )}
              </>
            )}
          />
          <pre
            className="max-h-[420px] overflow-auto border border-rule bg-paper-2 p-3 font-mono text-[12px] whitespace-pre-wrap"
            tabIndex={0}
            aria-label="As JSON"
          >
            {page.json}
          </pre>
        </div>
      )}
    </BulkStep>
  )
}
