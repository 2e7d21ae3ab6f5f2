/** Sites on the shelf that a project file may be of: its work can go there instead of standing beside them. */
import { sameAddress } from '../../core/addresses/addresses.ts'
import { db, type SiteRecord } from '../store/db.ts'
import { useAnswer } from '../workers/use-answer.ts'

export function MergeOffer({ base, onChoose }: { base: string; onChoose(site: SiteRecord): void }) {
  const sites = useAnswer(
    () => db.sites.filter((site) => site.status === 'ready' && sameAddress(site.base, base)).toArray(),
    [base],
  )
  if (!sites || sites.length === 0) return null
  return (
    <div className="mt-4 border-t border-rule-2 pt-3">
      <p>Or take only its work, into a site that is on the shelf already:</p>
      <p className="mt-1 flex flex-wrap gap-x-5">
        {sites.map((site) => (
          <button key={site.id} type="button" className="action" onClick={() => onChoose(site)}>
            Into “{site.name}”, taken in on {site.takenIn}
          </button>
        ))}
      </p>
    </div>
  )
}
