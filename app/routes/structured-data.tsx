import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { asLabel } from '../../core/structured-data/words.ts'
import { ThingGraph } from '../site-data/graph.tsx'
import { DataForEveryPage } from '../site-data/data-for-every-page.tsx'
import { useSession, useSessionState } from '../session/use-session.ts'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'
import type { DataStep } from '../workers/data-site.ts'

export const meta = () => [{ title: 'Structured data, all pages · Keen Quill' }]

/** So many pages are listed at once; the figures are of all. */
const LISTED = 300

/** What the whole site tells machines: which pages describe what, who points to whom, and one step for all pages. */
export default function StructuredData() {
  const session = useSession()
  const { rows, site, siteMarks } = useSessionState(session)
  const { siteId } = useParams()
  const pathOf = (id: string) => rows.get(id)?.path ?? id
  const data = useAnswer(() => core().siteData(), [rows, siteMarks])
  const [dataStep, setDataStep] = useState<DataStep | null>(null)
  const [only, setOnly] = useState<string | null>(null)

  if (!data)
    return <main className="p-10 font-serif text-[15px] text-ink-2 italic">Reading {rows.size} pages …</main>

  const counts = new Map<string, number>()
  for (const page of data.pages) for (const type of page.types) counts.set(type, (counts.get(type) ?? 0) + 1)
  const none = data.pages.filter((p) => p.none).length
  const shown = data.pages.filter((p) => only === null || (only === '' ? p.none : p.types.includes(only)))
  const wrong = siteMarks.filter((m) => m.rule === 'data-dangling' || m.rule === 'data-conflict')
  return (
    <main className="mx-auto max-w-[1100px] px-6 py-6">
      <h1 className="font-serif text-[26px]">Structured data on {site.name}</h1>
      <p className="mt-1 max-w-2xl text-ink-2">
        {plural(data.pages.length - none, 'page')} of {data.pages.length.toLocaleString('en')} have structured
        data. A thing with an “@id” is described once and pointed to from everywhere else.
      </p>

      <section className="mt-5" aria-labelledby="one-step">
        <h2 id="one-step" className="font-serif text-[19px]">
          One step for every page
        </h2>
        <ul className="mt-1">
          {(
            [
              [
                'breadcrumb',
                'A breadcrumb',
                'Where each page sits in the site, from addresses and page names.',
              ],
              [
                'organisation',
                'Publisher',
                'The organisation, described once on the home page; every page points to it.',
              ],
            ] as const
          ).map(([kind, name, says]) => (
            <li key={kind} className="flex flex-wrap items-baseline gap-x-4 border-t border-rule-2 py-2">
              <span className="w-40 font-serif text-[16px]">{name}</span>
              <span className="text-[13px] text-ink-2">{says}</span>
              <button type="button" className="action ml-auto text-[13px]" onClick={() => setDataStep(kind)}>
                See what it would add
              </button>
            </li>
          ))}
        </ul>
        {dataStep && (
          <DataForEveryPage
            key={dataStep}
            kind={dataStep}
            session={session}
            onClose={() => setDataStep(null)}
          />
        )}
      </section>

      {wrong.length > 0 && (
        <section className="mt-6" aria-labelledby="wrong" data-testid="site-data-marks">
          <h2 id="wrong" className="font-serif text-[19px]">
            What contradicts or leads nowhere
          </h2>
          <ul className="mt-1">
            {wrong.map((m, i) => (
              <li key={i} className="border-t border-rule-2 py-1.5 text-[13.5px]">
                {m.message}{' '}
                <span className="text-ink-2">
                  {m.pages.slice(0, 3).map((id, j) => (
                    <span key={id}>
                      {j > 0 && ', '}
                      <Link
                        className="quiet"
                        to={`/sites/${siteId}/desk?page=${encodeURIComponent(pathOf(id))}&sheet=data`}
                      >
                        {pathOf(id)}
                      </Link>
                    </span>
                  ))}
                  {m.pages.length > 3 && ` and ${m.pages.length - 3} more`}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}

      <section className="mt-6" aria-labelledby="whom">
        <h2 id="whom" className="font-serif text-[19px]">
          How things refer to one another
        </h2>
        <ThingGraph data={data} />
      </section>

      <section className="mt-6" aria-labelledby="pages">
        <h2 id="pages" className="font-serif text-[19px]">
          Which pages describe what
        </h2>
        <p className="mt-1 flex flex-wrap gap-x-4 gap-y-1 text-[13px]">
          <button
            type="button"
            className={only === null ? 'font-semibold' : 'quiet'}
            aria-pressed={only === null}
            onClick={() => setOnly(null)}
          >
            All
          </button>
          {none > 0 && (
            <button
              type="button"
              className={only === '' ? 'font-semibold' : 'quiet'}
              aria-pressed={only === ''}
              onClick={() => setOnly('')}
            >
              Nothing ({none})
            </button>
          )}
          {[...counts]
            .sort((a, b) => b[1] - a[1])
            .slice(0, 16)
            .map(([type, n]) => (
              <button
                key={type}
                type="button"
                className={only === type ? 'font-semibold' : 'quiet'}
                aria-pressed={only === type}
                onClick={() => setOnly(type)}
              >
                {asLabel(type)} ({n})
              </button>
            ))}
        </p>
        <table className="mt-2 w-full text-left" data-testid="site-data">
          <thead className="text-[13px] text-ink-2">
            <tr className="border-b border-ink">
              <th className="py-1 pr-4 font-normal">Page</th>
              <th className="py-1 font-normal">Describes</th>
            </tr>
          </thead>
          <tbody>
            {shown.slice(0, LISTED).map((page) => (
              <tr key={page.id} className="border-b border-rule-2 align-baseline">
                <td className="py-1.5 pr-4">
                  <Link
                    className="hover:underline"
                    to={`/sites/${siteId}/desk?page=${encodeURIComponent(page.path)}&sheet=data`}
                  >
                    {page.name}
                  </Link>{' '}
                  <span className="text-[12px] text-ink-3">{page.path}</span>
                </td>
                <td className="py-1.5 text-[13.5px]">
                  {page.none ? (
                    <span className="text-ink-3">nothing</span>
                  ) : (
                    page.types.map(asLabel).join(', ') || 'a thing without a type'
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {shown.length > LISTED && (
          <p className="mt-1 text-[13px] text-ink-2">and {shown.length - LISTED} more</p>
        )}
      </section>
    </main>
  )
}
