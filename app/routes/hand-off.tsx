import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { toast } from 'sonner'
import { handOffsOf, type Answer } from '../../core/work/decisions.ts'
import { ReviewAndHandOff } from '../hand-off/review-and-hand-off.tsx'
import { HandOffList } from '../hand-off/hand-off-list.tsx'
import { ListsToHandOff } from '../hand-off/lists.tsx'
import type { Session } from '../session/session.ts'
import { today } from '../session/today.ts'
import { saveProject } from '../session/save-project.ts'
import { useSession, useSessionState } from '../session/use-session.ts'
import { download, fileName } from '../ui/download.ts'
import { plural, someOf } from '../ui/plural.ts'
import { sayFailed, tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import { reported } from '../workers/reported.ts'
import { useAnswer } from '../workers/use-answer.ts'
import { ForApproval } from '../hand-off/approval-file.tsx'
import type { Progress } from '../workers/intake.ts'

export const meta = () => [{ title: 'Hand-off · Keen Quill' }]

function Answered({ answer }: { answer: Answer | undefined }) {
  if (!answer) return null
  return (
    <span className="text-[13px] text-ink-2">
      {answer.by || 'A colleague'}:{' '}
      <strong className="font-semibold">{answer.answer === 'note' ? 'a note' : answer.answer}</strong>
      {answer.note && `, “${answer.note}”`}
    </span>
  )
}

/** One file for whoever types the changes into a CMS. */
function WorksheetButton({
  name,
  session,
  none,
  main = false,
}: {
  name: string
  session: Session
  none: boolean
  main?: boolean
}) {
  return (
    <button
      type="button"
      className={`button ${main ? 'button-main' : ''}`}
      disabled={none}
      title="Page by page, each field with a button that copies it, for whoever types it into a CMS"
      onClick={() =>
        tell('The worksheet could not be made', async () => {
          await session.flush()
          const html = await core().worksheet()
          if (html) download(fileName(name, '-worksheet.html'), html, 'text/html')
        })
      }
    >
      Worksheet
    </button>
  )
}

export default function HandOff() {
  const session = useSession()
  const state = useSessionState(session)
  const { siteId } = useParams()
  const [progress, setProgress] = useState<Progress | null>(null)
  const { work } = state
  // What was typed must be in the store before the worker reads it there.
  const changed = useAnswer(() => session.flush().then(() => core().changedPages()), [session, work])

  const { site } = state
  const pages = changed?.pages ?? null
  async function save(which: 'whole' | 'changed' | 'approved') {
    setProgress({ done: 0, of: 1, now: '' })
    try {
      await session.flush()
      const made = await reported(setProgress, (report) => core().handOff(which, report))
      if (!made) return
      const name = fileName(
        site.name,
        { whole: '-site.zip', changed: '-changed.zip', approved: '-approved.zip' }[which],
      )
      download(name, made.zip, 'application/zip')
      if (made.asTakenIn.length > 0)
        toast.error(
          `${plural(made.asTakenIn.length, 'file')} could not be changed and left as taken in: ${someOf(made.asTakenIn.map((f) => f.path))}.`,
          { duration: 20_000 },
        )
    } catch (error) {
      sayFailed('The hand-off could not be made', error)
    } finally {
      setProgress(null)
    }
  }
  const approved = (pages ?? []).filter((p) => p.state === 'approved')
  const hasFiles = [...state.rows.values()].some((row) => row.file !== null)
  const none = pages !== null && pages.length === 0
  const handOffs = handOffsOf(work.get('') ?? {})

  return (
    <main className="mx-auto max-w-[1180px] px-6 pt-3 pb-16">
      <div className="flex flex-wrap items-baseline gap-x-5 pb-3">
        <h1 className="font-serif text-[26px]">Hand-off</h1>
        <ReviewAndHandOff now="hand-off" />
        <p className="font-serif text-[15px] text-ink-2 italic">
          {pages === null
            ? 'Comparing …'
            : `${plural(pages.length, 'changed page')}, ${approved.length} approved; before and after`}
        </p>
      </div>
      <section aria-label="Files to hand off" className="sheet flex flex-wrap items-center gap-3 px-6 py-4">
        {!hasFiles && <WorksheetButton name={site.name} session={session} none={none} main />}
        <button
          type="button"
          className={`button ${hasFiles ? 'button-main' : ''}`}
          disabled={progress !== null}
          onClick={() => void save('whole')}
        >
          {hasFiles ? 'Whole site as ZIP' : 'All pages as files'}
        </button>
        <button
          type="button"
          className="button"
          disabled={progress !== null || none}
          onClick={() => void save('changed')}
        >
          Changed files only
        </button>
        {approved.length > 0 && approved.length < (pages ?? []).length && (
          <button
            type="button"
            className="button"
            disabled={progress !== null}
            title="Changed files with what is approved alone; other drafts stay behind"
            onClick={() => void save('approved')}
          >
            Approved only
          </button>
        )}
        <button
          type="button"
          className="button"
          disabled={none}
          onClick={() =>
            tell('The change sheet could not be made', async () =>
              download(fileName(site.name, '-changes.csv'), await core().changesCsv(), 'text/csv'),
            )
          }
        >
          Change sheet as CSV
        </button>
        {hasFiles && <WorksheetButton name={site.name} session={session} none={none} />}
        {(changed?.redirects.length ?? 0) > 0 && (
          <button
            type="button"
            className="button"
            onClick={() =>
              tell('The redirects could not be made', async () =>
                download(fileName(site.name, '-redirects.csv'), await core().redirectsCsv(), 'text/csv'),
              )
            }
          >
            {plural(changed!.redirects.length, 'redirect')} as CSV
          </button>
        )}
        <ListsToHandOff name={site.name} session={session} redirects={changed?.redirects.length ?? 0} />
        <ForApproval session={session} pages={pages ?? []} />
        <button
          type="button"
          className="quiet"
          onClick={() =>
            tell('The project file could not be made', async () => {
              await saveProject(site)
            })
          }
        >
          Project file, with all work
        </button>
        {approved.length > 0 && (
          <button
            type="button"
            className="quiet"
            onClick={() =>
              void session.decide('Handed off', [
                ...approved.map((p) => ({ page: p.id, key: 'state', after: 'handed off' })),
                {
                  page: '',
                  key: 'hand-offs',
                  after: [
                    ...handOffs,
                    { date: today(), what: 'approved pages', pages: approved.map((p) => p.id) },
                  ],
                },
              ])
            }
          >
            Record the approved pages as handed off
          </button>
        )}
        {progress && (
          <span className="flex items-center gap-3 text-[13px] text-ink-2" aria-live="polite">
            <progress value={progress.done} max={progress.of} aria-label="Pages prepared" />
            {progress.now === 'packing' ? 'Packing …' : `${progress.done} of ${progress.of}`}
          </span>
        )}
        <p className="w-full text-[13px] text-ink-2">
          {hasFiles
            ? 'Only what you changed, and addresses that follow pages that moved, differ from what was taken in; everything else is the same, byte for byte.'
            : 'These pages have no files of their own. The worksheet is for whoever types the changes into the CMS; links to a changed address are listed with the pages that they stand on.'}
        </p>
      </section>
      <HandOffList handOffs={handOffs} work={work} />
      {none && (
        <p className="mt-6 font-serif text-[17px]">
          Nothing has changed yet.{' '}
          <Link className="action font-sans text-[14px]" to={`/sites/${siteId}/ledger`}>
            Open the ledger
          </Link>{' '}
          and begin with what matters most.
        </p>
      )}
      {changed && changed.followers.length > 0 && (
        <details className="mt-4 text-[13px] text-ink-2">
          <summary className="cursor-pointer">
            In {plural(changed.followers.length, 'more page')} only links and other addresses change, to
            follow the pages that moved.
          </summary>
          <p className="mt-1">{changed.followers.map((f) => f.path).join(', ')}</p>
        </details>
      )}
      <ul className="mt-5 space-y-4">
        {(pages ?? []).map((page) => (
          <li key={page.id} className="sheet px-6 py-4" data-path={page.path}>
            <div className="flex items-baseline gap-4">
              <h2 className="min-w-0 flex-1 truncate font-serif text-[16px]">
                <Link
                  className="hover:underline"
                  to={`/sites/${siteId}/desk?page=${encodeURIComponent(page.path)}`}
                >
                  {page.url}
                </Link>
              </h2>
              <Answered answer={session.decisionsOf(page.id).answer as Answer | undefined} />
              <span className="text-[13px] text-ink-2">{page.state}</span>
            </div>
            <table className="mt-2 w-full table-fixed text-left text-[13px]">
              <thead className="text-ink-3">
                <tr>
                  <th scope="col" className="w-36 py-1 font-normal">
                    Field
                  </th>
                  <th scope="col" className="py-1 font-normal">
                    Before
                  </th>
                  <th scope="col" className="py-1 font-normal">
                    After
                  </th>
                </tr>
              </thead>
              <tbody>
                {page.changes.map((change) => (
                  <tr key={change.field} className="border-t border-rule-2 align-top">
                    <th scope="row" className="py-1.5 pr-3 font-semibold">
                      {change.field}
                    </th>
                    <td className="py-1.5 pr-6 break-words text-ink-2">
                      {change.before ? <del className="decoration-1">{change.before}</del> : <em>none</em>}
                    </td>
                    <td className="py-1.5 break-words">
                      {change.after ? <ins className="no-underline">{change.after}</ins> : <em>none</em>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {page.refused.map((why) => (
              <p key={why} className="mt-2 border-l-2 border-carmine pl-3 text-[13px]">
                Not applied: {why}
              </p>
            ))}
          </li>
        ))}
      </ul>
    </main>
  )
}
