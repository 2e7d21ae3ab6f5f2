/** Mentions without a link, each with its sentence: some left out, the rest linked in one step. */
import { useState } from 'react'
import { toast } from 'sonner'
import type { Edit } from '../../../core/page/edits/draft.ts'
import type { PageId } from '../../../core/site/page-identity.ts'
import { BulkStep } from '../../bulk/bulk-step.tsx'
import { useLeftOut } from '../../bulk/left-out.ts'
import { PageChoice } from '../../bulk/page-choice.tsx'
import type { Session } from '../../session/session.ts'
import type { Progress } from '../../session/learn-pages.ts'
import { plural } from '../../ui/plural.ts'
import { sayFailed } from '../../ui/tell.ts'
import type { FoundMention } from '../../workers/site-pages.ts'

/** The other page of a mention is what the line is about. */
export function Mentions({
  session,
  title,
  mentions,
  otherOf,
  progress,
  nothing,
  testId,
}: {
  session: Session
  title: string
  mentions: FoundMention[] | null
  otherOf(mention: FoundMention): PageId
  progress: Progress | null
  /** What is said where there is none. */
  nothing: string
  testId: string
}) {
  const [leftOut, leaveOut] = useLeftOut()
  const [open, setOpen] = useState(false)
  const lines = (mentions ?? []).map((mention) => {
    const other = otherOf(mention)
    return {
      ...mention,
      id: `${mention.on} ${mention.of} ${mention.byte}`,
      path: pathOf(session, other),
      other,
    }
  })
  const chosen = lines.filter((line) => !leftOut.has(line.id))
  const link = () => {
    session
      .decide(`${plural(chosen.length, 'mention')} linked`, () => linking(session, chosen))
      .then(() => toast(`${plural(chosen.length, 'mention')} linked. Undo takes all of it back.`))
      .catch((error: unknown) => sayFailed('They could not be linked', error))
    setOpen(false)
  }
  return (
    <section className="mt-6" aria-label={title}>
      <h2 className="font-serif text-[18px]">
        {title}
        {mentions !== null && !progress && mentions.length > 0 && (
          <span className="ml-3 font-sans text-[13px] text-ink-2">{plural(mentions.length, 'mention')}</span>
        )}
      </h2>
      {progress && (
        <p className="mt-1 flex items-center gap-3 text-[13px] text-ink-2" role="status">
          <progress value={progress.done} max={progress.of} aria-label="Pages looked at" />
          {progress.done.toLocaleString('en')} of {progress.of.toLocaleString('en')} pages
        </p>
      )}
      {!progress && mentions?.length === 0 && <p className="mt-1 text-[13px] text-ink-2">{nothing}</p>}
      {lines.length > 0 && !open && (
        <ul className="mt-1">
          {lines.slice(0, FEW).map((line) => (
            <li key={line.id} className="border-t border-rule-2 py-1.5">
              <Sentence mention={line} />
              <span className="block text-[12px] text-ink-3">{line.path}</span>
            </li>
          ))}
        </ul>
      )}
      {lines.length > 0 && !open && (
        <button type="button" className="action mt-1 text-[13px]" onClick={() => setOpen(true)}>
          {lines.length > FEW ? `See all ${lines.length.toLocaleString('en')} and link them` : 'Link them'}
        </button>
      )}
      {open && (
        <BulkStep
          testId={testId}
          takesFocus
          title="Link these mentions"
          figures={`${plural(chosen.length, 'mention')} would become ${chosen.length === 1 ? 'a link' : 'links'}.`}
          keep={`Link ${plural(chosen.length, 'mention')}`}
          canKeep={chosen.length > 0}
          onKeep={link}
          onClose={() => setOpen(false)}
        >
          <PageChoice
            pages={lines}
            leftOut={leftOut}
            onLeaveOut={leaveOut}
            nameOf={(line) => `${line.path}: ${line.sentence}`}
            height={340}
            rowHeight={52}
            line={(line) => <Sentence mention={line} />}
          />
        </BulkStep>
      )}
    </section>
  )
}
const FEW = 5

const pathOf = (session: Session, page: PageId) => session.get().rows.get(page)?.path ?? page

/** The words in their sentence. */
function Sentence({ mention: { sentence, phrase } }: { mention: FoundMention }) {
  const at = sentence.indexOf(phrase)
  const shown = sentence.length > 240 ? Math.max(0, at - 100) : 0
  return (
    <span className="font-serif text-[15px]">
      {shown > 0 && '… '}
      {sentence.slice(shown, at)}
      <span className="underline decoration-quill decoration-2 underline-offset-4">{phrase}</span>
      {sentence.slice(at + phrase.length, shown + 240 + phrase.length)}
      {sentence.length > shown + 240 + phrase.length && ' …'}
    </span>
  )
}

/** The edits that link mentions; several in one block are links of one edit. */
function linking(session: Session, mentions: readonly FoundMention[]) {
  const edits = new Map<string, { page: PageId; key: string; edit: Edit }>()
  for (const { on, key, phrase, nth, href } of mentions) {
    const at = `${on} ${key}`
    const now = edits.get(at)?.edit ?? (session.decisionsOf(on)[`edit:${key}`] as Edit | undefined)
    edits.set(at, { page: on, key, edit: { ...now, links: [...(now?.links ?? []), { phrase, nth, href }] } })
  }
  return [...edits.values()].map(({ page, key, edit }) => ({ page, key: `edit:${key}`, after: edit }))
}
