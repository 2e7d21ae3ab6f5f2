import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { toast } from 'sonner'
import { decodedPath } from '../../core/addresses/addresses.ts'
import { measured, type Measured } from '../../core/progress/effect.ts'
import { BeforeAfter } from '../progress/before-after.tsx'
import { measureNames, WeeksChart, WeeksTable } from '../progress/weeks.tsx'
import { WhereNext } from '../progress/where-next.tsx'
import { today } from '../session/today.ts'
import { useService } from '../session/use-service.ts'
import { useSession, useSessionState } from '../session/use-session.ts'
import { Choice } from '../ui/choice.tsx'
import { FilePick } from '../ui/file-pick.tsx'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import { core } from '../workers/client.ts'
import type { ProgressGroup, ProgressView } from '../workers/progress.ts'
import { useAnswer } from '../workers/use-answer.ts'

export const meta = () => [{ title: 'Progress · Keen Quill' }]

const spans = [2, 4, 6, 8, 12]

/** Whether it helped: how the site does in results, what became of changed pages, where to work next. */
export default function Progress() {
  const session = useSession()
  const { site, work, rows } = useSessionState(session)
  const [search, setSearch] = useSearchParams()
  const [again, setAgain] = useState(0)
  const [edition, setEdition] = useState(0)
  const told = useService<object>('statistics', { site: site.base }, again)
  const group = groupFrom(search)
  const groupKey = JSON.stringify(group)
  const measure: Measured = measured.find((m) => m === search.get('measure')) ?? 'clicks'
  const weeks = spans.find((n) => String(n) === search.get('weeks')) ?? 4
  const ofSite = work.get('') ?? none
  // What came last from the service or a sheet is in the store, and the worker reads it there.
  const view = useAnswer(told?.state === 'asking' ? null : () => core().progressView(ofSite, group, weeks), [
    told?.state,
    again,
    edition,
    groupKey,
    weeks,
    ofSite,
  ])
  const change = (changes: Record<string, string | null>) => {
    const next = new URLSearchParams(search)
    for (const [name, value] of Object.entries(changes))
      if (value === null) next.delete(name)
      else next.set(name, value)
    setSearch(next, { replace: true, preventScrollReset: true })
  }
  async function take(file: File) {
    const read = await core().statisticsFromSheet(
      new Uint8Array(await file.arrayBuffer()),
      file.name.slice(0, 300),
      today(),
    )
    if (!read.ok) return void toast.error(`${file.name}: ${read.why}`)
    const { unread } = read
    toast(
      `${plural(read.rows, 'row')} taken in.${unread.length > 0 ? ` ${plural(unread.length, 'row')} left out; row ${unread[0]!.row}: ${unread[0]!.why}` : ''}`,
      { duration: unread.length > 0 ? 12_000 : 4_000 },
    )
    setEdition((n) => n + 1)
  }
  return (
    <main className="mx-auto max-w-[1240px] px-6 pt-3 pb-16">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 pb-3">
        <h1 className="font-serif text-[26px]">Progress</h1>
        <p className="font-serif text-[15px] text-ink-2 italic">
          how the site does in results, and whether it helped
        </p>
        <span className="ml-auto flex flex-wrap items-baseline gap-x-5 text-[13px]">
          {view && (
            <span className="text-ink-3" data-testid="statistics-source">
              up to {view.asOf}, {view.source}
            </span>
          )}
          <FilePick
            label="A sheet of statistics"
            accept=".csv,.tsv,.txt,.xlsx,.ods"
            title="Columns: date, page, phrase, clicks, impressions, position"
            testId="statistics-input"
            onFile={(file) => void tell(`${file.name} could not be read`, () => take(file))}
          >
            Statistics from a sheet …
          </FilePick>
        </span>
      </div>
      {told?.state === 'asking' && (
        <p role="status" className="text-ink-2">
          Asking for the statistics of {site.base} …
        </p>
      )}
      {(told?.state === 'failed' || (told?.state === 'answered' && told.problem !== null)) && (
        <p role="alert" className="mb-3 border-l-2 border-carmine pl-3" data-testid="statistics-failed">
          {told.state === 'failed' ? told.why : told.problem}{' '}
          {!(told.state === 'failed' && told.off) && (
            <button type="button" className="action" onClick={() => setAgain((n) => n + 1)}>
              Ask again
            </button>
          )}
        </p>
      )}
      {view === null && told?.state === 'failed' && (
        <p className="font-serif text-[17px]">
          Nothing is known of this site’s statistics yet. Take a sheet in: date, page, clicks, impressions.
        </p>
      )}
      {view && view.weeks.length === 0 && view.report.pages.length === 0 && group.kind === 'site' && (
        <p className="font-serif text-[17px]">
          The statistics say nothing of this site’s pages. Check its address, {site.base}, or take a sheet in.
        </p>
      )}
      {view && (
        <>
          <section className="sheet px-7 py-5" aria-label="By week">
            <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2 text-[13px]">
              <Choice
                label="Show"
                value={measure}
                options={measured.map((value) => ({ value, name: measureNames[value] }))}
                onChange={(value) => change({ measure: value === 'clicks' ? null : value })}
              />
              <Choice
                label="of"
                value={optionOf(group)}
                options={groupOptions(
                  view,
                  [...rows.values()].map((row) => row.url),
                  group,
                )}
                onChange={(value) => change({ of: value === 'site' ? null : value })}
              />
            </div>
            <div className="mt-3 grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-8 max-[900px]:grid-cols-1">
              <WeeksChart view={view} measure={measure} />
              <WeeksTable view={view} />
            </div>
            {view.marks.length > 1 && <MarksOverTime marks={view.marks} />}
          </section>
          <div className="mt-6 -mb-4 flex text-[13px]">
            <Choice
              label="Before and after, at most"
              value={String(weeks)}
              options={spans.map((n) => ({ value: String(n), name: plural(n, 'week') }))}
              onChange={(value) => change({ weeks: value === '4' ? null : value })}
            />
          </div>
          <BeforeAfter report={view.report} />
          <WhereNext session={session} known={view} />
        </>
      )}
    </main>
  )
}
const none = {}

function MarksOverTime({ marks }: { marks: ProgressView['marks'] }) {
  return (
    <p className="mt-3 border-t border-rule pt-2 text-[13px] text-ink-2">
      Marks on the pages:{' '}
      {marks
        .slice(-8)
        .map(({ date, marks: n, pages }) => `${date}: ${n.toLocaleString('en')} on ${plural(pages, 'page')}`)
        .join('; ')}
      .
    </p>
  )
}

function groupFrom(search: URLSearchParams): ProgressGroup {
  const asked = search.get('of') ?? 'site'
  const [, kind, value] = /^(folder|page|phrase):(.+)$/s.exec(asked) ?? []
  if (kind && value) return { kind: kind as 'folder', value }
  return { kind: asked === 'changed' || asked === 'alone' ? asked : 'site' }
}
const optionOf = (group: ProgressGroup) => ('value' in group ? `${group.kind}:${group.value}` : group.kind)

/** So many pages are offered by name: a list of thousands helps nobody. */
const MOST_PAGES = 300

function groupOptions({ folders, phrases }: ProgressView, urls: string[], now: ProgressGroup) {
  const options: { value: string; name: string; group?: string }[] = [
    { value: 'site', name: 'the whole site' },
    { value: 'changed', name: 'pages that were handed off' },
    { value: 'alone', name: 'pages left alone' },
    ...folders.map((folder) => ({ value: `folder:${folder}`, name: folder, group: 'Folders' })),
    ...urls
      .sort()
      .slice(0, MOST_PAGES)
      .map((url) => ({ value: `page:${url}`, name: decodedPath(url), group: 'Pages' })),
    ...phrases.map((phrase) => ({ value: `phrase:${phrase}`, name: phrase, group: 'Phrases' })),
  ]
  const value = optionOf(now)
  if (!options.some((option) => option.value === value) && 'value' in now)
    options.push({ value, name: now.value })
  return options
}
