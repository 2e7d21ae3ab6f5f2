/** A colleague's work taken into a site on the shelf: what comes, and a choice for each thing that both decided differently. */
import { useEffect, useState } from 'react'
import { settledWork, type Dispute } from '../../core/work/merge-work.ts'
import { openSession, type Session } from '../session/session.ts'
import type { SiteRecord } from '../store/db.ts'
import { plural, someOf } from '../ui/plural.ts'
import { shownPath } from '../ui/shown-path.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import type { MergePlan } from '../workers/merge.ts'
import { decisionName, decisionSays } from './decision-names.ts'

const AT_FIRST = 50
const keyOf = ({ page, key }: Dispute) => `${page}\n${key}`

export function MergeWork({
  ticket,
  site,
  project,
  onDone,
}: {
  ticket: number
  site: SiteRecord
  /** What the project file is called. */
  project: string
  onDone(): void
}) {
  const [found, setFound] = useState<{ session: Session; plan: MergePlan } | { why: string } | null>(null)
  useEffect(() => {
    let stale = false
    const plan = async () => {
      const session = await openSession(site.id)
      if (!session) return { why: 'The site is no longer on the shelf.' }
      await session.flush()
      const planned = await core().planMerge(ticket)
      return planned.ok ? { session, plan: planned.plan } : { why: planned.why }
    }
    void plan()
      .catch((error: Error) => ({ why: error.message }))
      .then((answer) => !stale && setFound(answer))
    return () => void (stale = true)
  }, [ticket, site.id])

  if (!found) return <p role="status">Comparing both …</p>
  if ('why' in found) return <p role="alert">{found.why}</p>
  return <Plan {...found} site={site} project={project} onDone={onDone} />
}

function Plan({
  session,
  plan,
  site,
  project,
  onDone,
}: {
  session: Session
  plan: MergePlan
  site: SiteRecord
  project: string
  onDone(): void
}) {
  const [theirs, setTheirs] = useState<ReadonlySet<string>>(new Set())
  const [most, setMost] = useState(AT_FIRST)
  const { taken, disputes, notHere, otherSource } = plan
  const work = settledWork(plan, (dispute) => theirs.has(keyOf(dispute)))
  const pages = new Set(work.map(({ page }) => page)).size
  const rows = session.get().rows
  const choose = (dispute: Dispute, isTheirs: boolean) => {
    const next = new Set(theirs)
    if (isTheirs) next.add(keyOf(dispute))
    else next.delete(keyOf(dispute))
    setTheirs(next)
  }
  return (
    <div data-testid="merge">
      <p>
        {taken.length === 0
          ? `“${project}” brings nothing that “${site.name}” does not have`
          : `${plural(taken.length, 'decision')} of “${project}” ${taken.length === 1 ? 'is' : 'are'} about what nobody has decided here, and ${taken.length === 1 ? 'comes' : 'come'} as ${taken.length === 1 ? 'it is' : 'they are'}`}
        {disputes.length === 0
          ? '; nothing was decided differently.'
          : `; ${plural(disputes.length, 'thing')} ${disputes.length === 1 ? 'was' : 'were'} decided differently. Ours stays unless you choose theirs.`}
      </p>
      {notHere.length > 0 && (
        <p className="mt-2 text-[13px] text-ink-2">
          Left out, because this site has no such {notHere.length === 1 ? 'page' : 'pages'}: {someOf(notHere)}
          .
        </p>
      )}
      {otherSource.length > 0 && (
        <p className="mt-2 text-[13px] text-ink-2">
          The source is another here, so that edits at places in it are left out: {someOf(otherSource)}.
        </p>
      )}
      {disputes.length > 0 && (
        <>
          <p className="mt-4 flex gap-4 text-[13px]">
            <button type="button" className="quiet" onClick={() => setTheirs(new Set())}>
              All ours
            </button>
            <button type="button" className="quiet" onClick={() => setTheirs(new Set(disputes.map(keyOf)))}>
              All theirs
            </button>
          </p>
          <ul className="mt-1 border-t border-rule">
            {disputes.slice(0, most).map((dispute) => {
              const row = rows.get(dispute.page)
              const where = dispute.page === '' ? 'The site' : row ? shownPath(row) : dispute.page
              return (
                <li key={keyOf(dispute)} className="border-b border-rule-2 py-2.5" data-testid="dispute">
                  <fieldset>
                    <legend className="text-[13px]">
                      <strong>{decisionName(dispute.key)}</strong> <span className="text-ink-2">{where}</span>
                    </legend>
                    <div className="mt-1 grid grid-cols-2 gap-x-6 gap-y-1 max-[700px]:grid-cols-1">
                      {(
                        [
                          ['Ours', dispute.ours, false],
                          ['Theirs', dispute.theirs, true],
                        ] as const
                      ).map(([name, value, isTheirs]) => (
                        <label key={name} className="flex items-baseline gap-2">
                          <input
                            type="radio"
                            name={keyOf(dispute)}
                            checked={theirs.has(keyOf(dispute)) === isTheirs}
                            onChange={() => choose(dispute, isTheirs)}
                          />
                          <span className="min-w-0 [overflow-wrap:anywhere]">
                            <span className="block text-[12.5px] text-ink-3">{name}</span>
                            <span className="font-serif text-[16px]">{decisionSays(dispute.key, value)}</span>
                          </span>
                        </label>
                      ))}
                    </div>
                  </fieldset>
                </li>
              )
            })}
          </ul>
          {disputes.length > most && (
            <button type="button" className="action mt-2" onClick={() => setMost(most + 10 * AT_FIRST)}>
              Show more of {disputes.length.toLocaleString('en')}
            </button>
          )}
        </>
      )}
      <button
        type="button"
        className="button button-main mt-6"
        onClick={() =>
          tell('The work could not be taken in', async () => {
            if (work.length > 0) await session.decide(`Work of “${project}” taken in`, work)
            onDone()
          })
        }
      >
        {work.length === 0
          ? 'Open the ledger'
          : `Take in ${plural(work.length, 'decision')} on ${plural(pages, 'page')}`}
      </button>
    </div>
  )
}
