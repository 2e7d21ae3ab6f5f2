import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { outcomesOf, type Outcomes } from '../again/outcomes.ts'
import { Section } from '../again/section.tsx'
import { targetName, wishOf } from '../ui/target-names.ts'
import { closeSession, type Session } from '../session/session.ts'
import { useSession, useSessionState } from '../session/use-session.ts'
import type { AgainRecord } from '../store/db.ts'
import { Dialog } from '../ui/dialog.tsx'
import { shownPath } from '../ui/shown-path.ts'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'

export const meta = () => [{ title: 'Taken in again · Keen Quill' }]

/** What is live, what is still to do, what somebody else changed, what is gone: after a site's pages were taken in again. */
export default function TakenAgain() {
  const session = useSession()
  const { siteId } = useParams()
  const again = useAnswer(async () => ({ record: await core().againOf(siteId!) }), [siteId])
  if (!again) return <p className="p-8 text-ink-2">Opening …</p>
  if (!again.record)
    return (
      <main className="mx-auto max-w-[1000px] px-8 py-8">
        <h1 className="font-serif text-[26px]">Taken in again</h1>
        <p className="mt-3 text-ink-2">
          The pages of this site were taken in once. Some weeks after a hand-off, take them in again to see
          what is live.
        </p>
        <p className="mt-4">
          <Link className="action" to={`/intake?again=${siteId}`}>
            Take the pages in again …
          </Link>
        </p>
      </main>
    )
  return <Report session={session} again={again.record} />
}

function Report({ session, again }: { session: Session; again: AgainRecord }) {
  const { work, rows } = useSessionState(session)
  const outcomes = outcomesOf(work, again.date, rows)
  const page = (id: string) => {
    const row = rows.get(id)
    return row ? <PageLink row={row} /> : <span>{id}</span>
  }
  const fresh = again.new.filter((id) => rows.has(id))
  const nothing =
    outcomes.conflicts.length +
      outcomes.live.length +
      outcomes.toDo.length +
      outcomes.aside.length +
      fresh.length +
      again.gone.length +
      again.moved.length ===
    0
  return (
    <main className="mx-auto max-w-[1000px] px-8 py-7">
      <div className="flex items-baseline gap-5">
        <h1 className="font-serif text-[26px]">Taken in again</h1>
        <p className="font-serif text-[15px] text-ink-2 italic">
          on {again.date}; {plural(again.changed, 'page')} changed since the time before
        </p>
        <UndoAll again={again} />
      </div>
      {nothing && (
        <p className="sheet mt-6 p-7 font-serif text-[17px]">
          Nothing was drafted, and no page is new, gone or moved.
        </p>
      )}
      <Conflicts session={session} outcomes={outcomes} page={page} />
      <Section
        id="live"
        title="In place"
        about="The page says now what was wanted: these edits are done."
        items={outcomes.live}
      >
        {({ page: id, target, live }, i) => (
          <Line key={i} page={page(id)} what={targetName(target)}>
            <span className="font-serif">{live.value || 'taken out'}</span>
          </Line>
        )}
      </Section>
      <Section
        id="to-do"
        title="Still to do"
        about="The page says what it said before."
        items={outcomes.toDo}
      >
        {({ page: id, target, edit }, i) => (
          <Line key={i} page={page(id)} what={targetName(target)}>
            <span className="font-serif">{wishOf(edit)}</span>
          </Line>
        )}
      </Section>
      <Section
        id="gone"
        title="Gone from their pages"
        about="What these edits were about is no longer on the page. They are kept here."
        items={outcomes.aside}
      >
        {({ page: id, key, target, aside }, i) => (
          <Line key={i} page={page(id)} what={target.startsWith('stet:') ? 'Stet' : targetName(target)}>
            <span className="font-serif">{aside.was}</span>{' '}
            <button
              type="button"
              className="quiet ml-3 text-[13px]"
              onClick={() => void session.decide('Put away', [{ page: id, key, after: undefined }])}
            >
              Put away
            </button>
          </Line>
        )}
      </Section>
      <Section
        id="moved"
        title="Pages that moved"
        about="Known by a redirect, or by what they say."
        items={again.moved}
      >
        {({ id, from, to }) => (
          <Line key={id} page={page(id)} what="">
            <span className="text-[13px] text-ink-2">
              {from} <span aria-label="is now">→</span> {to}
            </span>
          </Line>
        )}
      </Section>
      <Section id="new" title="New pages" about="They were not there the time before." items={fresh}>
        {(id) => (
          <Line key={id} page={page(id)} what="">
            <span className="font-serif">{rows.get(id)!.title}</span>
          </Line>
        )}
      </Section>
      <Section
        id="gone-pages"
        title="Pages that are gone"
        about="What was decided for them is kept until the pages are taken in once more."
        items={again.gone}
      >
        {({ id, url, title, decisions }) => (
          <Line key={id} page={<span className="break-all">{url}</span>} what="">
            <span className="font-serif">{title}</span>{' '}
            {Object.keys(decisions).length > 0 && (
              <span className="text-[13px] text-ink-2">
                ({plural(Object.keys(decisions).length, 'decision')})
              </span>
            )}
          </Line>
        )}
      </Section>
    </main>
  )
}

function PageLink({ row }: { row: { path: string; url: string } }) {
  const { siteId } = useParams()
  return (
    <Link
      className="block truncate text-quill hover:underline"
      to={`/sites/${siteId}/desk?page=${encodeURIComponent(row.path)}`}
    >
      {shownPath(row)}
    </Link>
  )
}

function Line({ page, what, children }: { page: React.ReactNode; what: string; children: React.ReactNode }) {
  return (
    <li className="grid grid-cols-[250px_150px_minmax(0,1fr)] items-baseline gap-4 border-b border-rule-2 py-2 max-[700px]:grid-cols-1 max-[700px]:gap-0">
      <span className="min-w-0">{page}</span>
      <span className="text-[13px] text-ink-2">{what}</span>
      <span className="min-w-0 break-words">{children}</span>
    </li>
  )
}

/** Both wordings side by side; the editor picks. */
function Conflicts({
  session,
  outcomes,
  page,
}: {
  session: Session
  outcomes: Outcomes
  page(id: string): React.ReactNode
}) {
  return (
    <Section
      id="conflicts"
      title="In conflict"
      about="Both you and somebody else changed these, or it is not certain that they are the same. Pick one for each."
      items={outcomes.conflicts}
    >
      {({ page: id, key, target, conflict }) => (
        <li key={`${id} ${key}`} className="border-b border-rule-2 py-3" data-testid="conflict">
          <div className="flex items-baseline gap-4">
            <span className="min-w-0 truncate">{page(id)}</span>
            <span className="text-[13px] text-ink-2">{targetName(target)}</span>
            <span className="ml-auto flex gap-4">
              <button
                type="button"
                className="action"
                onClick={() =>
                  void session.decide('Ours kept', [
                    { page: id, key, after: undefined },
                    { page: id, key: `edit:${target}`, after: conflict.edit },
                  ])
                }
              >
                Keep ours
              </button>
              <button
                type="button"
                className="action"
                onClick={() => void session.decide('Theirs taken', [{ page: id, key, after: undefined }])}
              >
                Take theirs
              </button>
            </span>
          </div>
          <dl className="mt-1.5 grid grid-cols-[70px_minmax(0,1fr)] gap-x-4 gap-y-0.5 font-serif text-[15px]">
            <Wording name="Ours" text={conflict.wanted || 'taken out'} />
            <Wording name="Theirs" text={conflict.says || 'nothing'} />
            <Wording name="Before" text={conflict.was || 'nothing'} quiet />
          </dl>
        </li>
      )}
    </Section>
  )
}

function Wording({ name, text, quiet = false }: { name: string; text: string; quiet?: boolean }) {
  return (
    <>
      <dt className="font-sans text-[13px] text-ink-2">{name}</dt>
      <dd className={`line-clamp-3 break-words ${quiet ? 'text-ink-2' : ''}`}>{text}</dd>
    </>
  )
}

function UndoAll({ again }: { again: AgainRecord }) {
  const [sure, setSure] = useState(false)
  const navigate = useNavigate()
  return (
    <>
      <button type="button" className="quiet ml-auto text-[13px]" onClick={() => setSure(true)}>
        Undo taking in again …
      </button>
      <Dialog
        open={sure}
        onOpenChange={setSure}
        title="Go back to the pages as they were before?"
        description="All of it is undone in one step. What you decided since then waits with the newer pages, and comes back when you do the step again."
      >
        <div className="flex gap-3">
          <button
            type="button"
            className="button button-main"
            onClick={() =>
              tell('The step could not be undone', async () => {
                const to = await core().undoAgain(again.site)
                if (to === null) return void toast.error('The pages as they were before are no longer kept.')
                closeSession()
                toast('Undone: the pages are as they were before.')
                await navigate(`/sites/${to}/ledger`)
              })
            }
          >
            Go back
          </button>
          <button type="button" className="button" onClick={() => setSure(false)}>
            Stay
          </button>
        </div>
      </Dialog>
    </>
  )
}
