/** A reminder, once work is older than a week and no project file holds it: browsers lose stores, people lose machines. */
import { differenceInDays, format, parseISO } from 'date-fns'
import { saveProject } from '../session/save-project.ts'
import type { SiteRecord } from '../store/db.ts'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'

const OLD_DAYS = 7

export interface Unsaved {
  site: SiteRecord
  /** An ISO date and time. */
  since: string
}
export const isOld = ({ since }: Unsaved): boolean =>
  differenceInDays(new Date(), parseISO(since)) >= OLD_DAYS

export function UnsavedWork({ unsaved, onSaved }: { unsaved: readonly Unsaved[]; onSaved(): void }) {
  const old = unsaved.filter(isOld)
  if (old.length === 0) return null
  const [first] = [...old].sort((a, b) => (a.since < b.since ? -1 : 1))
  return (
    <p
      role="status"
      data-testid="unsaved-work"
      className="mt-6 flex flex-wrap items-baseline gap-x-5 gap-y-1 border-l-2 border-quill bg-paper px-4 py-2"
    >
      {old.length === 1
        ? `Work on “${first!.site.name}” since ${format(parseISO(first!.since), 'd MMMM')} is in this browser alone.`
        : `Work on ${plural(old.length, 'site')}, since ${format(parseISO(first!.since), 'd MMMM')}, is in this browser alone.`}
      <button
        type="button"
        className="action"
        onClick={() =>
          tell('The project files could not be made', async () => {
            for (const { site } of old) await saveProject(site)
            onSaved()
          })
        }
      >
        {old.length === 1 ? 'Save its project file' : 'Save a project file of each'}
      </button>
    </p>
  )
}
