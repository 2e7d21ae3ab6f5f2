import { useEffect, useRef } from 'react'
import { NavLink, Outlet, data, redirect, useLocation, useNavigate, useNavigation } from 'react-router'
import { toast } from 'sonner'
import type { Route } from './+types/site'
import { Purpose } from '../help/purpose.tsx'
import { FirstPassSlip } from '../first-pass/slip.tsx'
import { useLookAtAddress } from '../intake/look-at.ts'
import { readyState } from '../store/db.ts'
import { AT_ONCE } from '../session/judging.ts'
import { openSession, type Session } from '../session/session.ts'
import { useSessionState } from '../session/use-session.ts'
import { matchesTyped, useCommand, usePaletteGroup } from '../ui/command-registry.ts'
import { shownPath } from '../ui/shown-path.ts'
import { Boundary } from '../ui/boundary.tsx'
import { Masthead } from '../ui/masthead.tsx'
import { plural, someOf } from '../ui/plural.ts'
import { stateOf } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'

export const meta = () => [{ title: 'Keen Quill' }]

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const ready = await readyState(params.siteId)
  if (ready !== null && ready !== params.siteId) throw redirect(`/sites/${ready}/ledger`)
  const session = await openSession(params.siteId)
  if (!session)
    throw data(
      'This site is not on the shelf of this browser. It may have been removed, or be kept in another browser.',
      {
        status: 404,
        statusText: 'Not on the shelf',
      },
    )
  return { session }
}
clientLoader.hydrate = true as const
/** The session is the site's own state and is not loaded anew after every action. */
export const shouldRevalidate = ({
  currentParams,
  nextParams,
}: {
  currentParams: Record<string, string | undefined>
  nextParams: Record<string, string | undefined>
}) => currentParams.siteId !== nextParams.siteId

export function HydrateFallback() {
  return (
    <>
      <Masthead />
      <p className="p-8 text-ink-2">Opening the site …</p>
    </>
  )
}

const sections: [string, string][] = [
  ['ledger', 'Ledger'],
  ['keywords', 'Keywords'],
  ['desk', 'Desk'],
  ['structured-data', 'Data'],
  ['house-style', 'House style'],
  ['review', 'Review and hand-off'],
  ['progress', 'Progress'],
]

/** What the palette offers: the two views of a section each by its own name. */
const viewNames: [string, string][] = [
  ...sections.filter(([to]) => to !== 'review'),
  ['review', 'Review'],
  ['hand-off', 'Hand-off'],
]

/** So many pages are offered at a time. */
const MOST_PAGES = 12
function pagesNamed(rows: Iterable<LedgerRow>, typed: string): LedgerRow[] {
  const named: LedgerRow[] = []
  for (const row of rows) {
    if (!matchesTyped(`${row.path} ${row.title ?? ''} ${row.h1 ?? ''}`, typed)) continue
    if (named.push(row) === MOST_PAGES) break
  }
  return named
}

export default function Site({ loaderData, params }: Route.ComponentProps) {
  const { session } = loaderData as { session: Session }
  const state = useSessionState(session)
  const navigation = useNavigation()
  const { pathname } = useLocation()
  const { leftOut } = state
  const said = useRef(0)
  useEffect(() => {
    const more = leftOut.slice(said.current)
    said.current = leftOut.length
    if (more.length > 0)
      toast.error(
        `${plural(more.length, 'page')} could not be checked, and what the ledger says of ${more.length === 1 ? 'it' : 'them'} may be out of date: ${someOf(more.map((p) => session.get().rows.get(p.page)?.path ?? p.page))}. ${more[0]!.why}`,
        { duration: 20_000 },
      )
  }, [leftOut, session])

  useCommand('undo', () => void walk(session, 'undo'))
  useCommand('redo', () => void walk(session, 'redo'))
  const navigate = useNavigate()
  useLookAtAddress()
  usePaletteGroup('Views', (typed) =>
    viewNames
      .filter(([, name]) => matchesTyped(name, typed))
      .map(([to, name]) => ({ id: to, name, run: () => void navigate(`/sites/${params.siteId}/${to}`) })),
  )
  usePaletteGroup('Pages', (typed) =>
    typed === ''
      ? []
      : pagesNamed(session.get().rows.values(), typed).map((row) => ({
          id: row.id,
          name: row.h1 || row.title || row.path,
          detail: shownPath(row),
          run: () => void navigate(`/sites/${params.siteId}/desk?page=${encodeURIComponent(row.path)}`),
        })),
  )

  const changed = [...state.work.values()].filter((d) => stateOf(d) !== 'untouched').length
  return (
    <>
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:fixed focus:top-2 focus:left-2 focus:z-50 focus:bg-paper focus:p-2"
      >
        Skip to main content
      </a>
      <Masthead
        site={state.site.name}
        sections={
          <nav
            aria-label="Sections"
            className="flex h-full gap-[18px] text-[14px] whitespace-nowrap max-[700px]:h-auto max-[700px]:flex-wrap max-[700px]:gap-y-0"
          >
            {sections.map(([to, name]) => (
              <NavLink
                key={to}
                to={`/sites/${params.siteId}/${to}`}
                className={({ isActive }) =>
                  `flex h-full items-center border-b-2 max-[700px]:h-7 pt-0.5 ${isActive || (to === 'review' && pathname.endsWith('/hand-off')) ? 'border-ink font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`
                }
              >
                {name}
                {to === 'review' && changed > 0 && (
                  <span className="ml-1.5 text-[13px] font-normal text-ink-3">{changed}</span>
                )}
              </NavLink>
            ))}
          </nav>
        }
      >
        {state.judging && state.judging.of > AT_ONCE && (
          <span className="flex items-center gap-2" data-testid="judging">
            <progress
              className="w-20"
              value={state.judging.done}
              max={state.judging.of}
              aria-label="Pages checked again"
            />
            {state.judging.done.toLocaleString('en')} of {state.judging.of.toLocaleString('en')} pages checked
            <button type="button" className="quiet" onClick={() => session.stopJudging()}>
              Later
            </button>
          </span>
        )}
        <span
          role="status"
          data-testid="saved"
          data-saved={state.saved}
          className={state.saved === 'failed' ? 'font-semibold text-carmine' : ''}
        >
          {
            { saved: 'Saved', saving: 'Saving …', failed: 'Not saved: the browser refused to store it' }[
              state.saved
            ]
          }
        </span>
        <button
          type="button"
          className="hover:text-ink disabled:opacity-60"
          disabled={!state.undo}
          title={state.undo ?? undefined}
          onClick={() => void walk(session, 'undo')}
        >
          Undo <kbd>Ctrl Z</kbd>
        </button>
        <button
          type="button"
          className="hover:text-ink disabled:opacity-60 max-[1180px]:hidden"
          disabled={!state.redo}
          title={state.redo ?? undefined}
          onClick={() => void walk(session, 'redo')}
        >
          Redo
        </button>
      </Masthead>
      <FirstPassSlip session={session} />
      <Purpose />
      <div id="main" aria-busy={navigation.state !== 'idle'}>
        <Boundary on={[pathname]}>
          <Outlet context={session} />
        </Boundary>
      </div>
    </>
  )
}

async function walk(session: Session, direction: 'undo' | 'redo'): Promise<void> {
  const step = await session.walk(direction)
  if (!step) return void toast(direction === 'undo' ? 'Nothing left to undo.' : 'Nothing to redo.')
  const [page = ''] = step.pages
  const what =
    step.pages.length > 1
      ? `${step.label}, ${step.pages.length} pages`
      : `${step.label}, ${page === '' ? 'the site' : (session.get().rows.get(page)?.path ?? page)}`
  toast(`${direction === 'undo' ? 'Undone' : 'Redone'}: ${what}`)
}
