import { useEffect, useRef } from 'react'
import { Outlet, data, redirect, useLocation, useNavigate, useNavigation } from 'react-router'
import { toast } from 'sonner'
import type { Route } from './+types/site'
import { Purpose } from '../help/purpose.tsx'
import { FirstPassSlip } from '../first-pass/slip.tsx'
import { useLookAtAddress } from '../intake/look-at.ts'
import { readyState } from '../store/db.ts'
import { openSession, type Session } from '../session/session.ts'
import { useSessionParts } from '../session/use-session.ts'
import { sections, SiteMasthead, walk } from '../site/site-masthead.tsx'
import { matchesTyped, useCommand, usePaletteGroup } from '../ui/command-registry.ts'
import { shownPath } from '../ui/shown-path.ts'
import { Boundary } from '../ui/boundary.tsx'
import { Masthead } from '../ui/masthead.tsx'
import { plural, someOf } from '../ui/plural.ts'
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

/** Of the session, what the site's frame says itself. */
const followed = ['leftOut'] as const

export default function Site({ loaderData, params }: Route.ComponentProps) {
  const { session } = loaderData as { session: Session }
  const { leftOut } = useSessionParts(session, followed)
  const navigation = useNavigation()
  const { pathname } = useLocation()
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

  return (
    <>
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:fixed focus:top-2 focus:left-2 focus:z-50 focus:bg-paper focus:p-2"
      >
        Skip to main content
      </a>
      <SiteMasthead session={session} />
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
