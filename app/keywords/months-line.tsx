import { Line, LineChart, YAxis } from 'recharts'

const names = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]

/** The month of the year, from 0, of a place among twelve that end with the month of a date. */
const monthAt = (index: number, asOf: string) => (Number(asOf.slice(5, 7)) + index) % 12

/** Twelve months in words: "most in July (9,900), fewest in January (2,900)". */
export function monthsInWords(months: readonly number[], asOf: string): string {
  const most = months.indexOf(Math.max(...months))
  const fewest = months.indexOf(Math.min(...months))
  const named = (i: number) => `${names[monthAt(i, asOf)]} (${months[i]!.toLocaleString('en')})`
  return months[most] === months[fewest]
    ? `the same in every month (${months[0]!.toLocaleString('en')})`
    : `most in ${named(most)}, fewest in ${named(fewest)}`
}

/** The last twelve months as a line, drawn from nothing up. */
export function MonthsLine({ months, asOf }: { months: number[]; asOf: string }) {
  const words = monthsInWords(months, asOf)
  return (
    <span role="img" aria-label={words} title={words} className="inline-block">
      <LineChart
        width={112}
        height={26}
        data={months.map((searches) => ({ searches }))}
        margin={{ top: 3, right: 2, bottom: 2, left: 2 }}
        accessibilityLayer={false}
      >
        <YAxis hide domain={[0, 'dataMax']} />
        <Line
          dataKey="searches"
          stroke="var(--ink-2)"
          strokeWidth={1.5}
          dot={false}
          isAnimationActive={false}
        />
      </LineChart>
    </span>
  )
}
