import { useEffect, useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { ApprovalPicture } from '../desk/approval-picture.tsx'
import { Approval, approve } from '../desk/approval.tsx'
import { copyText } from '../desk/copy.ts'
import { DataSheet } from '../desk/data-sheet.tsx'
import { HeadSheet } from '../desk/head-sheet.tsx'
import { OutlineSheet } from '../desk/outline-sheet.tsx'
import { PageList } from '../desk/page-list.tsx'
import { fieldValue, SnippetSheet } from '../desk/snippet-sheet.tsx'
import { SourceSheet } from '../desk/source-sheet.tsx'
import { fillTokens } from '../../core/wording/tokens.ts'
import { foldText } from '../../core/measure/width.ts'
import { useSession, useSessionState } from '../store/use-session.ts'
import { Boundary, Problem } from '../ui/boundary.tsx'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { download } from '../ui/download.ts'
import { core } from '../workers/client.ts'
import { ledgerOrder, siteMarkCounts } from '../ledger/order.ts'

const sheets = ['snippet', 'outline', 'data', 'head', 'source'] as const
type SheetName = (typeof sheets)[number]
const sheetNames: Record<SheetName, string> = {
  snippet: 'Snippet',
  outline: 'Outline',
  data: 'Data',
  head: 'Head',
  source: 'Source',
}

export const meta = () => [{ title: 'Desk · Keen Quill' }]

export default function Desk() {
  const session = useSession()
  const state = useSessionState(session)
  const [search, setSearch] = useSearchParams()
  // The order is by path alone, so that it holds as long as the pages do.
  const order = useMemo(
    () => ledgerOrder([...session.get().rows.values()], 'address', '', new Map()).map((r) => r.path),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- pages come and go with the site
    [session, state.rows.size],
  )
  const rows = order.flatMap((p) => state.rows.get(p) ?? [])
  const asked = search.get('page')
  const row = (asked !== null ? state.rows.get(asked) : undefined) ?? rows[0]
  const sheet: SheetName = sheets.find((s) => s === search.get('sheet')) ?? 'snippet'
  const path = row?.path ?? ''
  const decisions = session.decisionsOf(path)
  const view = state.view?.path === path ? state.view : null
  const counts = siteMarkCounts(state.siteMarks, state.work)

  useEffect(() => {
    if (path !== '') session.open(path)
  }, [session, path])

  const open = (to: string, params: Record<string, string> = {}) => {
    void session.blur()
    setSearch(
      { page: to, ...(sheet !== 'snippet' ? { sheet } : {}), ...params },
      { preventScrollReset: false },
    )
  }

  const filled = (field: 'title' | 'meta:description') =>
    row ? fillTokens(fieldValue(decisions, field, row), view?.tokens ?? {}).text : ''
  useEffect(() => {
    if (!row) return
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey || event.metaKey) return
      const index = rows.findIndex((r) => r.path === path)
      const keys: Record<string, () => void> = {
        ArrowDown: () => rows[index + 1] && open(rows[index + 1]!.path),
        ArrowUp: () => rows[index - 1] && open(rows[index - 1]!.path),
        Digit1: () => void copyText(foldText(filled('title')), 'Title'),
        Digit2: () => void copyText(foldText(filled('meta:description')), 'Description'),
        Digit3: () => void copyText(row.url, 'Address'),
        KeyA: () => void approve(session, path),
      }
      const act = keys[event.code]
      if (!act) return
      event.preventDefault()
      act()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  })

  if (!row)
    return (
      <main className="p-10">
        <h1 className="font-serif text-[26px]">Desk</h1>
        <p className="mt-2 text-ink-2">
          This site has no pages that could be read. Take it in again from the shelf.
        </p>
      </main>
    )

  const note = decisions.note as string | undefined
  return (
    <div className="flex">
      <PageList
        rows={rows}
        path={path}
        toMend={(r) => r.blocker + r.flaw + (counts.get(r.path)?.toMend ?? 0)}
        onOpen={(to) => open(to)}
      />
      <main
        className="min-w-0 flex-1 px-6 pt-3 pb-16 max-[700px]:px-3"
        data-testid="desk"
        data-ready={view !== null}
      >
        <h1 className="sr-only">Desk: {row.h1 || row.title || row.path}</h1>
        <div className="flex min-h-10 max-w-[1060px] flex-wrap items-center gap-x-7 gap-y-1">
          <div role="tablist" aria-label="Sheets" className="flex gap-7">
            {sheets.map((s) => (
              <button
                key={s}
                role="tab"
                type="button"
                aria-selected={s === sheet}
                onClick={() => open(path, { sheet: s })}
                className={`border-b-2 pb-0.5 ${s === sheet ? 'border-ink font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
              >
                {sheetNames[s]}
              </button>
            ))}
          </div>
          <div className="ml-auto flex flex-wrap items-baseline gap-5 max-[700px]:ml-0">
            <button
              type="button"
              className="quiet text-[13px]"
              title="This page’s file, with only what was changed changed"
              onClick={() =>
                tell('The page could not be written', async () => {
                  await session.flush()
                  const bytes = await core().pageBytes(path, session.decisionsOf(path))
                  if (bytes) download(path.slice(path.lastIndexOf('/') + 1), bytes, 'text/html')
                })
              }
            >
              Download this page
            </button>
            <ApprovalPicture session={session} path={path} />
            <Approval session={session} path={path} decisions={decisions} />
          </div>
        </div>
        <p className="truncate pb-2 text-[12px] text-ink-3">
          {view?.url ?? row.url} · {row.words.toLocaleString('en')} words
          {view &&
            ` · ${plural(view.images, 'image')} · ${row.lang ?? 'no language'}${row.indexable ? '' : ' · not for results (noindex or another canonical)'}`}
        </p>
        {note && (
          <p className="mb-3 border-l-2 border-carmine bg-paper px-3 py-2 text-[13px]">
            <strong>Sent back:</strong> {note}
          </p>
        )}
        {state.problem?.path === path ? (
          <Problem why={state.problem.why} onAgain={() => session.lookAgain()} />
        ) : (
          <Boundary on={[path, sheet]}>
            {sheet === 'snippet' && (
              <SnippetSheet key={path} session={session} row={row} decisions={decisions} view={view} />
            )}
            {sheet === 'outline' && (
              <OutlineSheet
                key={path}
                session={session}
                view={view}
                path={path}
                decisions={decisions}
                onSource={(start) => open(path, { sheet: 'source', at: String(start) })}
              />
            )}
            {sheet === 'data' && (
              <DataSheet
                key={path}
                session={session}
                view={view}
                path={path}
                decisions={decisions}
                onSource={(start) => open(path, { sheet: 'source', at: String(start) })}
                onResult={() => open(path, { sheet: 'snippet' })}
              />
            )}
            {sheet === 'head' && (
              <HeadSheet key={path} session={session} view={view} path={path} decisions={decisions} />
            )}
            {sheet === 'source' && (
              <SourceSheet
                key={path}
                session={session}
                view={view}
                path={path}
                at={Number(search.get('at') ?? NaN)}
              />
            )}
          </Boundary>
        )}
      </main>
    </div>
  )
}
