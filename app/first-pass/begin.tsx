/** Where the first pass is begun, or taken up again: beside what is left to do. */
import type { Session } from '../session/session.ts'
import { shownPath } from '../ui/shown-path.ts'
import { stepIds, steps } from './steps.ts'
import { useFirstPass } from './slip.tsx'

export function BeginFirstPass({ session }: { session: Session }) {
  const { pass, findNext, begin } = useFirstPass(session)
  if (pass === undefined || pass?.isOpen) return null
  const isUnderWay = pass !== null && pass.at !== 'end' && session.get().rows.has(pass.page)
  const next = isUnderWay ? null : findNext()
  if (!isUnderWay && !next) return null
  return (
    <section className="sheet px-7 py-5" aria-labelledby="begin-first-pass">
      <h2 id="begin-first-pass" className="font-serif text-[19px]">
        First pass
      </h2>
      <p className="mt-1">
        {isUnderWay
          ? `${shownPath(session.get().rows.get(pass.page)!)}: the next step is “${steps[pass.at as keyof typeof steps].name}”, ${pass.done.length} of ${stepIds.length} are done.`
          : pass === null
            ? 'New to this? Take one page from phrase to review, the home page first: ten steps, each with a word on what it is for.'
            : `Take another page from phrase to review: ${shownPath(next!)}, to which most pages lead.`}
      </p>
      <p className="mt-2">
        <button type="button" className="action" onClick={begin}>
          {isUnderWay ? 'Go on with it' : 'Begin the first pass'}
        </button>
      </p>
    </section>
  )
}
