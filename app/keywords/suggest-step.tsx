/** Pages suggested for several phrases at once: seen with the reason, some left out, kept as one step. */
import { useState } from 'react'
import { toast } from 'sonner'
import { BulkStep } from '../bulk/bulk-step.tsx'
import { useLeftOut } from '../bulk/left-out.ts'
import { PageChoice } from '../bulk/page-choice.tsx'
import type { KeywordRole } from '../../core/keywords/keyword-map.ts'
import { keywordsOf } from '../../core/work/decisions.ts'
import { useLearning } from '../session/learn-pages.ts'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'
import { sayFailed } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'
import { assignPhrases, pageName, type SiteKeywords } from './site-keywords.ts'

interface Suggested {
  /** The phrase: what can be left out. */
  id: string
  path: string
  page: string
  name: string
  why: string
  role: KeywordRole
}

export function SuggestStep({
  session,
  keywords,
  phrases,
  onClose,
}: {
  session: Session
  keywords: SiteKeywords
  phrases: string[]
  onClose(): void
}) {
  const [leftOut, leaveOut] = useLeftOut()
  // Suggested once: what is kept afterwards must be what was seen.
  const [taken, setTaken] = useState(false)
  const { progress, known } = useLearning(session, !taken, phrases)
  const answer = useAnswer(known ? () => core().suggestedPages(phrases, 3) : null, [known, phrases])
  const suggested = answer ? suggestionsFrom(answer, session, keywords) : []
  const chosen = suggested.filter((s) => !leftOut.has(s.id))
  const none = answer ? phrases.length - suggested.length : 0
  const keep = () => {
    setTaken(true)
    assignPhrases(
      session,
      `Pages for ${plural(chosen.length, 'phrase')}`,
      chosen.map(({ page, id, role }) => ({ page, phrase: id, role })),
    )
      .then(() => toast(`${plural(chosen.length, 'phrase')} assigned. Undo takes all of it back.`))
      .catch((error: unknown) => sayFailed('They could not be assigned', error))
    onClose()
  }
  return (
    <BulkStep
      testId="suggest-step"
      takesFocus
      title="Suggested pages"
      progress={progress ?? (answer ? null : { done: 0, of: keywords.rows.size })}
      figures={
        answer
          ? `${plural(chosen.length, 'phrase')} would be assigned${none > 0 ? `; ${plural(none, 'phrase')} would stay without one: no page speaks of it yet, or the page has as many phrases as it can bear` : ''}.`
          : 'Reading what each page speaks of.'
      }
      keep={`Assign ${plural(chosen.length, 'phrase')}`}
      canKeep={chosen.length > 0}
      onKeep={keep}
      onClose={onClose}
    >
      <PageChoice
        pages={suggested}
        leftOut={leftOut}
        onLeaveOut={leaveOut}
        nameOf={(s) => `“${s.id}” for ${s.name}`}
        height={300}
        line={(s) => (
          <>
            <span className="font-serif text-[16px]">{s.id}</span> for {s.name}
            <span className="text-[13px] text-ink-2">
              , {s.role}: {s.why}
            </span>
          </>
        )}
      />
    </BulkStep>
  )
}

/**
 * The first page suggested for each phrase: as its primary keyword, unless it has one or is given one before. No page is
 * suggested for more phrases than the house style asks for.
 */
function suggestionsFrom(
  answer: { phrase: string; pages: { id: string; score: number; why: string }[] }[],
  session: Session,
  keywords: SiteKeywords,
): Suggested[] {
  const most = session.get().style.limits.keywordsMost
  const counts = new Map<string, number>()
  const countOf = (id: string) => {
    const chosen = keywordsOf(session.decisionsOf(id))
    return counts.get(id) ?? (chosen ? chosen.secondary.length + (chosen.primary ? 1 : 0) : 0)
  }
  const primary = new Set(
    [...keywords.rows.keys()].filter((id) => keywordsOf(session.decisionsOf(id))?.primary),
  )
  return answer.flatMap(({ phrase, pages }) => {
    const [best] = pages
    const row = best && keywords.rows.get(best.id)
    if (!row || countOf(best.id) >= most) return []
    counts.set(best.id, countOf(best.id) + 1)
    const role = primary.has(best.id) ? 'secondary' : 'primary'
    primary.add(best.id)
    return { id: phrase, path: row.path, page: best.id, name: pageName(row), why: best.why, role } as const
  })
}
