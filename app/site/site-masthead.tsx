/** The masthead of an open site: its sections, what is being checked and saved, undo and redo; each drawn anew by itself. */
import { memo } from 'react'
import { NavLink, useLocation } from 'react-router'
import { toast } from 'sonner'
import { stateOf, type Decisions } from '../../core/work/decisions.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { AT_ONCE } from '../session/judging.ts'
import type { Session } from '../session/session.ts'
import { useSessionParts, useSessionValue } from '../session/use-session.ts'
import { Masthead } from '../ui/masthead.tsx'

export const sections: [string, string][] = [
  ['ledger', 'Ledger'],
  ['keywords', 'Keywords'],
  ['desk', 'Desk'],
  ['structured-data', 'Data'],
  ['house-style', 'House style'],
  ['review', 'Review and hand-off'],
  ['progress', 'Progress'],
]

export const SiteMasthead = memo(function SiteMasthead({ session }: { session: Session }) {
  const { site } = useSessionParts(session, ofSite)
  return (
    <Masthead site={site.name} sections={<Sections session={session} siteId={site.id} />}>
      <Judging session={session} />
      <Saved session={session} />
      <UndoAndRedo session={session} />
    </Masthead>
  )
})

const ofSite = ['site'] as const
const ofJudging = ['judging'] as const
const ofSaving = ['saved'] as const
const ofLog = ['undo', 'redo'] as const

const changedPages = ({ work }: { work: ReadonlyMap<PageId, Decisions> }): number => {
  let changed = 0
  for (const decisions of work.values()) if (stateOf(decisions) !== 'untouched') changed++
  return changed
}

function Sections({ session, siteId }: { session: Session; siteId: string }) {
  const { pathname } = useLocation()
  const changed = useSessionValue(session, changedPages)
  return (
    <nav
      aria-label="Sections"
      className="flex h-full gap-[18px] text-[14px] whitespace-nowrap max-[700px]:h-auto max-[700px]:flex-wrap max-[700px]:gap-y-0"
    >
      {sections.map(([to, name]) => (
        <NavLink
          key={to}
          to={`/sites/${siteId}/${to}`}
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
  )
}

function Judging({ session }: { session: Session }) {
  const { judging } = useSessionParts(session, ofJudging)
  if (!judging || judging.of <= AT_ONCE) return null
  return (
    <span className="flex items-center gap-2" data-testid="judging">
      <progress className="w-20" value={judging.done} max={judging.of} aria-label="Pages checked again" />
      {judging.done.toLocaleString('en')} of {judging.of.toLocaleString('en')} pages checked
      <button type="button" className="quiet" onClick={() => session.stopJudging()}>
        Later
      </button>
    </span>
  )
}

const savedNames = {
  saved: 'Saved',
  saving: 'Saving …',
  failed: 'Not saved: the browser refused to store it',
}

function Saved({ session }: { session: Session }) {
  const { saved } = useSessionParts(session, ofSaving)
  return (
    <span
      role="status"
      data-testid="saved"
      data-saved={saved}
      className={saved === 'failed' ? 'font-semibold text-carmine' : ''}
    >
      {savedNames[saved]}
    </span>
  )
}

function UndoAndRedo({ session }: { session: Session }) {
  const { undo, redo } = useSessionParts(session, ofLog)
  return (
    <>
      <button
        type="button"
        className="hover:text-ink disabled:opacity-60"
        disabled={!undo}
        title={undo ?? undefined}
        onClick={() => void walk(session, 'undo')}
      >
        Undo <kbd>Ctrl Z</kbd>
      </button>
      <button
        type="button"
        className="hover:text-ink disabled:opacity-60 max-[1180px]:hidden"
        disabled={!redo}
        title={redo ?? undefined}
        onClick={() => void walk(session, 'redo')}
      >
        Redo
      </button>
    </>
  )
}

/** Takes the newest step back, or makes it again, and says which. */
export async function walk(session: Session, direction: 'undo' | 'redo'): Promise<void> {
  const step = await session.walk(direction)
  if (!step) return void toast(direction === 'undo' ? 'Nothing left to undo.' : 'Nothing to redo.')
  const [page = ''] = step.pages
  const what =
    step.pages.length > 1
      ? `${step.label}, ${step.pages.length} pages`
      : `${step.label}, ${page === '' ? 'the site' : (session.get().rows.get(page)?.path ?? page)}`
  toast(`${direction === 'undo' ? 'Undone' : 'Redone'}: ${what}`)
}
