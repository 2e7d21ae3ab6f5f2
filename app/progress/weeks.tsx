/** One measure by week as a line, hand-offs as vertical lines; and the same as a table. */
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import type { Measured } from '../../core/progress/effect.ts'
import type { Figures } from '../../core/progress/statistics.ts'
import type { ProgressView, ProgressWeek } from '../workers/progress.ts'

export const measureNames: Record<Measured, string> = {
  clicks: 'Clicks',
  impressions: 'Impressions',
  ctr: 'Click-through rate',
  position: 'Position',
}

/** A figure as it is read. */
export function shownFigure(measure: Measured, figures: Figures): string {
  if (measure === 'ctr') return `${(figures.ctr * 100).toFixed(1)} %`
  if (measure === 'position') return figures.position === null ? 'none' : figures.position.toFixed(1)
  return figures[measure].toLocaleString('en')
}

/** The week, by its Monday, in which a day lies. */
const mondayOf = (date: string, weeks: readonly ProgressWeek[]) =>
  weeks.findLast((week) => week.monday <= date)?.monday

export function WeeksChart({ view, measure }: { view: ProgressView; measure: Measured }) {
  const { weeks, handOffs } = view
  const data = weeks.map((week) => ({
    monday: week.monday,
    value: measure === 'ctr' ? week.ctr * 100 : week[measure],
  }))
  const [first, last] = [weeks[0], weeks.at(-1)]
  if (!first || !last)
    return <p className="text-ink-2">There is no whole week of this in the statistics yet.</p>
  return (
    <div
      role="img"
      aria-label={`${measureNames[measure]} by week, from ${shownFigure(measure, first)} in the week of ${first.monday} to ${shownFigure(measure, last)} in the week of ${last.monday}. The table beside it has every week.`}
      className="h-[270px] w-full"
    >
      <ResponsiveContainer width="100%" height="100%">
        <LineChart data={data} margin={{ top: 22, right: 18, bottom: 2, left: 0 }} accessibilityLayer={false}>
          <CartesianGrid vertical={false} stroke="var(--rule-2)" />
          <XAxis dataKey="monday" tick={tick} stroke="var(--rule)" minTickGap={40} />
          <YAxis
            tick={tick}
            stroke="var(--rule)"
            width={54}
            // The first place is the best: it stands above.
            reversed={measure === 'position'}
            domain={measure === 'position' ? ['auto', 'auto'] : [0, 'auto']}
          />
          {handOffs.map(({ date, what }, i) => (
            <ReferenceLine
              key={i}
              x={mondayOf(date, weeks)}
              stroke="var(--carmine)"
              strokeDasharray="3 3"
              label={{
                value: `handed off: ${what}`,
                // Above the curve, and towards the side where there is room for it.
                position:
                  weeks.findIndex(({ monday }) => monday === mondayOf(date, weeks)) < weeks.length / 2
                    ? 'insideTopLeft'
                    : 'insideTopRight',
                dy: -22,
                fontSize: 12,
                fill: 'var(--ink-2)',
              }}
            />
          ))}
          <Line
            dataKey="value"
            stroke="var(--ink)"
            strokeWidth={1.75}
            dot={false}
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  )
}
const tick = { fontSize: 12, fill: 'var(--ink-2)' }

export function WeeksTable({ view }: { view: ProgressView }) {
  const measures = Object.keys(measureNames) as Measured[]
  return (
    <div className="max-h-[290px] overflow-auto" tabIndex={0} role="group" aria-label="Every week">
      <table className="w-full text-right text-[13px] tabular-nums">
        <thead className="sticky top-0 bg-paper text-ink-3">
          <tr>
            <th scope="col" className="py-1 text-left font-normal">
              Week of
            </th>
            {measures.map((measure) => (
              <th key={measure} scope="col" className="py-1 pl-3 font-normal">
                {measure === 'ctr' ? 'CTR' : measureNames[measure]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...view.weeks].reverse().map((week) => (
            <tr key={week.monday} className="border-t border-rule-2">
              <th scope="row" className="py-1 text-left font-normal">
                {week.monday}
              </th>
              {measures.map((measure) => (
                <td key={measure} className="py-1 pl-3">
                  {shownFigure(measure, week)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
