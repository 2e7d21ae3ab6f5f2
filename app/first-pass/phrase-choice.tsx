/** The phrases that the site has, as a choice for a page: those that no other page is for, most searched first. */
import type { PageId } from '../../core/site/page-identity.ts'
import { phrasesOf } from '../../core/work/decisions.ts'
import { sameWording } from '../../core/keywords/phrases.ts'
import type { Session } from '../session/session.ts'
import { useSessionParts } from '../session/use-session.ts'

const followed = ['work'] as const
const MOST = 8

export function PhraseChoice({ session, page }: { session: Session; page: PageId }) {
  const { work } = useSessionParts(session, followed)
  const primary = work.get(page)?.['keyword:primary'] as string | undefined
  const taken = new Set<string>()
  for (const [id, decisions] of work) {
    const of = decisions['keyword:primary'] as string | undefined
    if (id !== page && of) taken.add(sameWording(of))
  }
  const phrases = phrasesOf(work.get('') ?? {})
    .filter(({ phrase }) => !taken.has(sameWording(phrase)))
    .sort((a, b) => (b.monthly ?? 0) - (a.monthly ?? 0))
    .slice(0, MOST)
  if (phrases.length === 0) return null
  return (
    <p className="mt-1 flex flex-wrap items-baseline gap-x-4 text-[13px]" data-testid="phrase-choice">
      <span className="text-ink-2">On the site’s list, no other page is for</span>
      {phrases.map(({ phrase, monthly }) => (
        <button
          key={phrase}
          type="button"
          className="quiet"
          aria-pressed={primary !== undefined && sameWording(primary) === sameWording(phrase)}
          onClick={() =>
            void session.decide('Primary keyword', [{ page, key: 'keyword:primary', after: phrase }])
          }
        >
          {phrase}
          {monthly !== null && <span className="text-ink-3"> {monthly.toLocaleString('en')}</span>}
        </button>
      ))}
    </p>
  )
}
