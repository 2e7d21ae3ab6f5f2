/** Where to work next: what could be won, the most first; one key from the desk. */
import { Link, useParams } from 'react-router'
import { decodedPath } from '../../core/addresses/addresses.ts'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'
import type { ChanceOfPage } from '../workers/progress.ts'
import { useAnswer } from '../workers/use-answer.ts'

const MOST = 25

export function WhereNext({ session, known }: { session: Session; known: unknown }) {
  const chances = useAnswer(() => core().chancesView(), [session, known])
  if (!chances) return null
  return (
    <div className="mt-6 grid grid-cols-2 gap-6 max-[900px]:grid-cols-1" data-testid="where-next">
      <ChanceList
        title="Clicked less than others at the same place"
        about="Set against this site’s own pages at the same place. An estimate: the title and the description are the first things to look at."
        none="No page is clicked clearly less than the site’s others at its place."
        sheet="snippet"
        session={session}
        chances={chances.lessClicked}
      />
      <ChanceList
        title="Phrases within reach"
        about="At 4 to 15, with people who search: what the third place would bring. An estimate."
        none="No phrase stands at 4 to 15 with enough people who search."
        sheet="line-up"
        session={session}
        chances={chances.withinReach}
      />
    </div>
  )
}

function ChanceList({
  title,
  about,
  none,
  sheet,
  session,
  chances,
}: {
  title: string
  about: string
  none: string
  /** The sheet of the desk on which one would begin. */
  sheet: string
  session: Session
  chances: readonly ChanceOfPage[]
}) {
  const { siteId } = useParams()
  const { rows } = session.get()
  return (
    <section className="sheet px-7 py-5" aria-label={title}>
      <h2 className="font-serif text-[19px]">{title}</h2>
      <p className="mt-0.5 text-[13px] text-ink-2">{about}</p>
      {chances.length === 0 ? (
        <p className="mt-2">{none}</p>
      ) : (
        <ol className="mt-2">
          {chances.slice(0, MOST).map((chance) => {
            const row = chance.id === null ? undefined : rows.get(chance.id)
            const name = chance.phrase ?? (row && (row.h1 || row.title)) ?? decodedPath(chance.page)
            return (
              <li
                key={`${chance.page} ${chance.phrase}`}
                className="flex items-baseline gap-3 border-t border-rule-2 py-1.5 text-[13px]"
              >
                <span className="min-w-0 flex-1">
                  {row ? (
                    <Link
                      className="block truncate font-serif text-[16px] hover:underline"
                      to={`/sites/${siteId}/desk?page=${encodeURIComponent(row.path)}&sheet=${sheet}${chance.phrase ? `&for=${encodeURIComponent(chance.phrase)}` : ''}`}
                    >
                      {name}
                    </Link>
                  ) : (
                    <span className="block truncate font-serif text-[16px]">{name}</span>
                  )}
                  <span className="block truncate text-[12px] text-ink-3">
                    {decodedPath(chance.page)}: at {chance.position.toFixed(1)}, clicked{' '}
                    {(chance.ctr * 100).toFixed(1)} % of {chance.impressions.toLocaleString('en')} times;{' '}
                    {(chance.expected * 100).toFixed(1)} % {chance.phrase ? 'could be had' : 'is usual there'}
                  </span>
                </span>
                <span className="font-serif text-[16px] whitespace-nowrap tabular-nums">
                  +{Math.round(chance.won).toLocaleString('en')}{' '}
                  <span className="font-sans text-[12px] text-ink-3">clicks</span>
                </span>
              </li>
            )
          })}
        </ol>
      )}
      {chances.length > MOST && (
        <p className="mt-2 text-[12px] text-ink-3">and {plural(chances.length - MOST, 'further one')}</p>
      )}
    </section>
  )
}
