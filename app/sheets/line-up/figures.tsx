/** What the others do, in figures and words. */
import type { LineUpComparison, Result, ResultFigures } from '../../../core/results/line-up.ts'
import { plural } from '../../ui/plural.ts'

const states = { fits: '', 'at-risk': ', at risk', cut: ', cut' } as const

/** One result's figures, level with it. */
export function FiguresLine({
  place,
  figures,
  result,
}: {
  place: number
  figures: ResultFigures | null
  result?: Result
}) {
  if (!figures) return <p className="text-[12px] text-ink-3">{place}</p>
  const words = [
    figures.phrase === 'first'
      ? 'phrase first'
      : figures.phrase === 'later'
        ? 'phrase later'
        : 'without the phrase',
    figures.numbers.length > 0 ? `numbers ${figures.numbers.join(', ')}` : null,
    figures.year === null ? null : String(figures.year),
    figures.question ? 'a question' : null,
    figures.brackets ? 'brackets' : null,
    result?.date ? 'a date' : null,
    result?.rating ? 'a rating' : null,
    result?.price ? 'a price' : null,
  ].filter(Boolean)
  return (
    <p className="text-[12px] leading-[18px] text-ink-2" data-figures={place}>
      <b className="font-serif text-[15px] text-ink">{place}</b> {words.join(', ')}
      <span className="block text-ink-3">
        title {Math.round(figures.titlePx)} px{states[figures.titleState]}; description{' '}
        {Math.round(figures.descriptionPx)} px{states[figures.descriptionState]}
      </span>
    </p>
  )
}

const MOST_WORDS = 12

/** All of them summed. */
export function Summary({
  comparison: { results, words, oursAlone, first },
  others,
  phrase,
}: {
  comparison: LineUpComparison
  others: number
  phrase: string
}) {
  const count = (is: (figures: ResultFigures) => boolean) => results.filter(is).length
  const figures: [number, string, string][] = [
    [count((f) => f.phrase === 'first'), 'begins with the phrase', 'begin with the phrase'],
    [count((f) => f.phrase === 'absent'), 'has a title without it', 'have titles without it'],
    [count((f) => f.numbers.length > 0), 'has a number', 'have a number'],
    [count((f) => f.year !== null), 'has a year', 'have a year'],
    [count((f) => f.question), 'asks something', 'ask something'],
    [count((f) => f.brackets), 'has brackets', 'have brackets'],
    [count((f) => f.titleState === 'cut'), 'is cut', 'are cut'],
  ]
  const said = figures.filter(([n]) => n > 0).map(([n, one, many]) => `${n} ${n === 1 ? one : many}`)
  const listed = (list: typeof words) =>
    list
      .slice(0, MOST_WORDS)
      .map((w) => `${w.word} ${w.results}`)
      .join(', ')
  const shared = words.filter((w) => w.ours)
  const lacking = words.filter((w) => !w.ours)
  return (
    <div className="mt-3 border-y border-rule py-2 text-[13px] text-ink-2" data-testid="what-others-do">
      <p>
        Of {plural(results.length, 'other result')} for “{phrase}”
        {others > results.length && ` (the first of ${others})`}: {said.join('; ')}
        {first && `; ${first.results} titles begin with “${first.word}”`}.
      </p>
      {shared.length > 0 && <p>Words that recur, and ours has: {listed(shared)}.</p>}
      {lacking.length > 0 && <p>Words that recur, and ours lacks: {listed(lacking)}.</p>}
      {oursAlone.length > 0 && <p>Ours alone has: {oursAlone.slice(0, MOST_WORDS).join(', ')}.</p>}
    </div>
  )
}
