/** What became of the pages that were handed off, set against those left alone, in words and page by page. */
import { decodedPath } from '../../core/addresses/addresses.ts'
import { effectInWords, type Measured, type ProgressReport } from '../../core/progress/effect.ts'
import { plural } from '../ui/plural.ts'
import { shownFigure } from './weeks.tsx'

export function BeforeAfter({ report }: { report: ProgressReport }) {
  const { effect, why, weeks, pages, others, tooRecent } = report
  const sentences = (['clicks', 'impressions', 'ctr'] as const).flatMap((measure) => {
    const of = effect[measure]
    return of ? [{ measure, words: effectInWords(measure, of) }] : []
  })
  const { position } = effect
  return (
    <section aria-labelledby="before-after" className="sheet mt-6 px-7 py-5" data-testid="before-after">
      <h2 id="before-after" className="font-serif text-[19px]">
        Before and after
      </h2>
      {why !== null ? (
        <p className="mt-1 font-serif text-[17px]">{why}</p>
      ) : (
        <>
          <p className="mt-1 font-serif text-[19px]">
            {capital(sentences[0]?.words ?? 'too few clicks to tell')}; {plural(weeks, 'week')} before and
            after.
          </p>
          <ul className="mt-1 text-ink-2">
            {sentences.slice(1).map(({ measure, words }) => (
              <li key={measure}>{capital(words)}.</li>
            ))}
            {position && (
              <li>
                {position.low <= 0 && position.high >= 0
                  ? `No clear difference in position from pages left alone (between ${places(position.low)} and ${places(position.high)}).`
                  : `About ${places(position.estimate)} than pages left alone, between ${places(position.low)} and ${places(position.high)}.`}
              </li>
            )}
          </ul>
        </>
      )}
      <p className="mt-2 text-[12px] text-ink-3">
        {plural(pages.length, 'changed page')} against {plural(others, 'page')} left alone in the same weeks.
        Difference of differences, 95 % interval by the bootstrap over pages. What else changed on them in
        those weeks is in it too.
        {tooRecent.length > 0 && ` Too recent to be told: ${plural(tooRecent.length, 'page')}.`}
      </p>
      {pages.length > 0 && (
        <details className="mt-3 text-[13px]">
          <summary className="cursor-pointer text-ink-2">Page by page</summary>
          <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Page by page">
            <table className="mt-2 w-full text-right tabular-nums">
              <thead className="text-ink-3">
                <tr>
                  <th scope="col" className="py-1 text-left font-normal">
                    Page
                  </th>
                  {(['clicks', 'impressions', 'ctr', 'position'] as Measured[]).map((measure) => (
                    <th key={measure} scope="col" className="py-1 pl-4 font-normal">
                      {
                        { clicks: 'Clicks', impressions: 'Impressions', ctr: 'CTR', position: 'Position' }[
                          measure
                        ]
                      }
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {pages.map(({ page, before, after }) => (
                  <tr key={page} className="border-t border-rule-2">
                    <th scope="row" className="max-w-72 truncate py-1 text-left font-normal" title={page}>
                      {decodedPath(page)}
                    </th>
                    {(['clicks', 'impressions', 'ctr', 'position'] as Measured[]).map((measure) => (
                      <td key={measure} className="py-1 pl-4">
                        {shownFigure(measure, before)} → {shownFigure(measure, after)}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </details>
      )}
    </section>
  )
}

/** “0.4 places higher”: below zero is nearer to the first place. */
const places = (difference: number) =>
  `${Math.abs(difference).toFixed(1)} places ${difference < 0 ? 'higher' : 'lower'}`

const capital = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1)
