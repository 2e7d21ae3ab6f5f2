import { Tabs } from 'radix-ui'
import { memo, useCallback, useEffect, useMemo, useRef } from 'react'
import { useSearchParams } from 'react-router'
import { matchesTyped, useCommand, usePaletteGroup } from '../ui/command-registry.ts'
import { ApprovalPicture } from '../result/approval-picture.tsx'
import { Approval, approve } from '../desk/approval.tsx'
import { copyText } from '../ui/copy.ts'
import { DataSheet } from '../sheets/data/data-sheet.tsx'
import { GalleySheet } from '../sheets/galley/galley-sheet.tsx'
import { HeadSheet } from '../sheets/head/head-sheet.tsx'
import { OutlineSheet } from '../sheets/outline/outline-sheet.tsx'
import { LineUpSheet } from '../sheets/line-up/line-up-sheet.tsx'
import { LinksSheet } from '../sheets/links/links-sheet.tsx'
import { PageList } from '../desk/page-list.tsx'
import { SnippetSheet } from '../sheets/snippet/snippet-sheet.tsx'
import { fieldValue } from '../../core/work/typed-field.ts'
import { SourceSheet } from '../sheets/source/source-sheet.tsx'
import { stateOf } from '../../core/work/decisions.ts'
import { fillTokens } from '../../core/wording/tokens.ts'
import { foldText } from '../../core/measure/width.ts'
import { useSession, useSessionParts } from '../session/use-session.ts'
import { Boundary, Problem } from '../ui/boundary.tsx'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { download } from '../ui/download.ts'
import { core } from '../workers/client.ts'
import { ledgerOrder, siteMarkCounts } from '../ledger/order.ts'

const sheets = ['snippet', 'line-up', 'outline', 'galley', 'links', 'data', 'head', 'source'] as const
type SheetName = (typeof sheets)[number]
const sheetNames: Record<SheetName, string> = {
  snippet: 'Snippet',
  'line-up': 'Line-up',
  outline: 'Outline',
  galley: 'Galley',
  links: 'Links',
  data: 'Data',
  head: 'Head',
  source: 'Source',
}

/** What the desk shows of the session: not whether it is saved, nor what undo would take back. */
const followed = ['rows', 'work', 'view', 'problem', 'siteMarks', 'style', 'templates'] as const

export const meta = () => [{ title: 'Desk · Keen Quill' }]

export default function Desk() {
  const session = useSession()
  const state = useSessionParts(session, followed)
  const [search, setSearch] = useSearchParams()
  // The order is by path alone, so that it holds as long as the pages do.
  const order = useMemo(
    () => ledgerOrder([...session.get().rows.values()], 'address', '', new Map()).map((r) => r.id),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- pages come and go with the site
    [session, state.rows.size],
  )
  const rows = useMemo(() => order.flatMap((id) => state.rows.get(id) ?? []), [order, state.rows])
  const asked = search.get('page')
  const row = rows.find((r) => r.path === asked) ?? rows[0]
  const sheet: SheetName = sheets.find((s) => s === search.get('sheet')) ?? 'snippet'
  const page = row?.id ?? ''
  const decisions = session.decisionsOf(page)
  const view = state.view?.id === page ? state.view : null
  const counts = siteMarkCounts(state.siteMarks, state.work)

  useEffect(() => {
    if (page !== '') session.open(page)
  }, [session, page])

  const open = (to: string, params: Record<string, string | string[]> = {}) => {
    void session.blur()
    setSearch(
      { page: to, ...(sheet !== 'snippet' ? { sheet } : {}), ...params },
      { preventScrollReset: false },
    )
  }

  const newestOpen = useRef(open)
  useEffect(() => void (newestOpen.current = open))
  const openFromList = useCallback((path: string) => newestOpen.current(path), [])

  const filled = (field: 'title' | 'meta:description') =>
    row ? fillTokens(fieldValue(decisions, field, row), view?.tokens ?? {}).text : ''
  const step = (by: 1 | -1) => {
    const next = rows[rows.findIndex((r) => r.id === page) + by]
    if (next) open(next.path)
  }
  useCommand('nextPage', () => step(1))
  useCommand('pageBefore', () => step(-1))
  useCommand('copyTitle', () => void copyText(foldText(filled('title')), 'Title'))
  useCommand('copyDescription', () => void copyText(foldText(filled('meta:description')), 'Description'))
  useCommand('copyAddress', () => void (row && copyText(row.url, 'Address')))
  useCommand('approve', () => void (row && approve(session, page)))
  usePaletteGroup('Sheets of this page', (typed) =>
    sheets
      .filter((s) => row && matchesTyped(sheetNames[s], typed))
      .map((s) => ({ id: s, name: sheetNames[s], run: () => open(row!.path, { sheet: s }) })),
  )

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
      <PageList rows={rows} page={page} siteMarks={counts} onOpen={openFromList} />
      <Tabs.Root asChild value={sheet} onValueChange={(s) => open(row.path, { sheet: s })}>
        <main
          className="min-w-0 flex-1 px-6 pt-3 pb-16 max-[700px]:px-3"
          data-testid="desk"
          data-ready={view !== null}
        >
          <h1 className="sr-only">Desk: {row.h1 || row.title || row.path}</h1>
          <div className="flex min-h-10 max-w-[1060px] flex-wrap items-center gap-x-7 gap-y-1">
            <SheetTabs />
            <div className="ml-auto flex flex-wrap items-baseline gap-5 max-[700px]:ml-0">
              <button
                type="button"
                className="quiet text-[13px]"
                title="This page’s file, with only what was changed changed"
                onClick={() =>
                  tell('The page could not be written', async () => {
                    await session.flush()
                    const bytes = await core().pageBytes(page, session.decisionsOf(page))
                    if (bytes)
                      download(
                        row.path.slice(row.path.lastIndexOf('/') + 1) || 'page.html',
                        bytes,
                        'text/html',
                      )
                  })
                }
              >
                Download this page
              </button>
              <ApprovalPicture session={session} id={page} path={row.path} />
              <Approval session={session} page={page} state={stateOf(decisions)} />
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
          <Tabs.Content value={sheet} tabIndex={-1}>
            {state.problem?.page === page ? (
              <Problem why={state.problem.why} onAgain={() => session.lookAgain()} />
            ) : (
              <Boundary on={[page, sheet]}>
                {sheet === 'snippet' && (
                  <SnippetSheet key={page} session={session} row={row} decisions={decisions} view={view} />
                )}
                {sheet === 'line-up' && (
                  <LineUpSheet
                    key={page}
                    session={session}
                    row={row}
                    view={view}
                    decisions={decisions}
                    onAnswer={(answer) => open(row.path, { sheet: 'galley', answer })}
                    onCompare={(addresses, phrase) =>
                      open(row.path, { sheet: 'outline', for: phrase, with: addresses })
                    }
                  />
                )}
                {sheet === 'outline' && (
                  <OutlineSheet
                    key={page}
                    session={session}
                    view={view}
                    page={page}
                    decisions={decisions}
                    onSource={(start) => open(row.path, { sheet: 'source', at: String(start) })}
                  />
                )}
                {sheet === 'galley' && (
                  <GalleySheet
                    key={page}
                    session={session}
                    row={row}
                    view={view}
                    decisions={decisions}
                    toAnswer={search.get('answer')}
                  />
                )}
                {sheet === 'links' && (
                  <LinksSheet key={page} session={session} row={row} view={view} decisions={decisions} />
                )}
                {sheet === 'data' && (
                  <DataSheet
                    key={page}
                    session={session}
                    view={view}
                    page={page}
                    decisions={decisions}
                    onSource={(start) => open(row.path, { sheet: 'source', at: String(start) })}
                    onResult={() => open(row.path, { sheet: 'snippet' })}
                  />
                )}
                {sheet === 'head' && (
                  <HeadSheet key={page} session={session} row={row} view={view} decisions={decisions} />
                )}
                {sheet === 'source' && (
                  <SourceSheet
                    key={page}
                    session={session}
                    view={view}
                    page={page}
                    at={Number(search.get('at') ?? NaN)}
                  />
                )}
              </Boundary>
            )}
          </Tabs.Content>
        </main>
      </Tabs.Root>
    </div>
  )
}

const SheetTabs = memo(function SheetTabs() {
  return (
    <Tabs.List
      aria-label="Sheets"
      className="flex flex-wrap gap-x-7 gap-y-1 whitespace-nowrap max-[700px]:gap-x-5"
    >
      {sheets.map((sheet) => (
        <Tabs.Trigger
          key={sheet}
          value={sheet}
          className="border-b-2 border-transparent pb-0.5 text-ink-2 hover:text-ink data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink"
        >
          {sheetNames[sheet]}
        </Tabs.Trigger>
      ))}
    </Tabs.List>
  )
})
