/** Ours in the line-up: typed where it stands, moved by its place, its takes put in by their keys. */
import { shownAddress } from '../../../core/addresses/addresses.ts'
import type { Screen } from '../../../core/measure/snippet.ts'
import type { ResultFigures } from '../../../core/results/line-up.ts'
import { takesOf } from '../../../core/work/decisions.ts'
import { DrawnResult } from '../../result/drawn-result.tsx'
import { emphasised } from '../../result/emphasis.ts'
import { useCommand } from '../../ui/command-registry.ts'
import { TypedText } from '../../result/typed-text.tsx'
import type { SheetProps } from '../sheet-props.ts'
import { typeInResult, type DraftedResult } from '../snippet/drafted-result.ts'
import { chooseTake, keepTake } from '../snippet/takes.tsx'
import { FiguresLine } from './figures.tsx'
import { core } from '../../workers/client.ts'
import { useAnswer } from '../../workers/use-answer.ts'

/** ms */
const REST = 250

export function OurResult({
  session,
  row,
  decisions,
  view,
  drafted,
  phrase,
  screen,
  place,
  last,
  isToday,
  onPlace,
  figures,
}: SheetProps & {
  drafted: DraftedResult
  phrase: string
  screen: Screen
  place: number
  last: number
  /** Whether it stands where it stands today. */
  isToday: boolean
  onPlace(place: number): void
  figures: ResultFigures
}) {
  const { typed, filled, measured, style, lang } = drafted
  const { slots } = style
  const page = row.id
  const type = (target: 'title' | 'meta:description', value: string) =>
    typeInResult({ session, row, view }, target, value)
  const takes = takesOf(decisions, 'title')
  const choose = (text: string) =>
    chooseTake(session, page, 'title', text, { present: typed.title, source: view?.sourceTitle })
  // What is drafted depends on the page and on what is typed: asked for once the typing rests.
  const judged = useAnswer(
    () => core().judgeTakes(page, session.decisionsOf(page)),
    [page, typed.title, decisions['keyword:primary'], takes.length],
    REST,
  )
  const offered = [
    ...takes,
    ...(judged?.drafted.title ?? []).filter(({ text }) => !takes.some((take) => take.text === text)),
  ]
  useCommand('keepTake', () => keepTake(session, page, 'title', { text: typed.title, from: '' }))
  useCommand('nextTake', () => {
    const next = offered[(offered.findIndex((take) => take.text === typed.title) + 1) % offered.length]
    if (next && next.text !== typed.title) choose(next.text)
  })
  return (
    <li
      className="grid grid-cols-[minmax(0,620px)_minmax(0,1fr)] gap-6 border-t border-rule-2 py-3 max-[1100px]:grid-cols-1"
      data-testid="our-result"
      data-place={place}
    >
      <div className="-ml-3 border-l-2 border-quill pl-2.5">
        {screen === 'narrow' ? (
          <DrawnResult
            screen="narrow"
            result={{ ...filled, trail: shownAddress(view?.url ?? row.url) }}
            slots={slots}
            keywords={[phrase]}
            lang={lang}
          />
        ) : (
          <div className="result" lang={lang ?? undefined} style={{ width: slots.title.wide.column }}>
            <p className="truncate pb-0.5 text-[14px] leading-[22px] text-ink-2">
              {shownAddress(view?.url ?? row.url).join(' › ')}
            </p>
            <TypedText
              testId="line-up-title"
              label="Title"
              value={typed.title}
              filled={filled.title}
              shown={measured.title.wide.shown}
              cut={measured.title.wide.cut}
              runs={emphasised(filled.title, [phrase], lang)}
              lang={lang ?? undefined}
              placeholder={view?.fallBackTitle ?? ''}
              className="text-quill"
              style={{ fontSize: slots.title.wide.size, lineHeight: '26px' }}
              onChange={(value) => type('title', value)}
              onLeave={() => void session.blur()}
            />
            <div className="mt-1">
              <TypedText
                testId="line-up-description"
                label="Meta description"
                value={typed.description}
                filled={filled.description}
                shown={measured.description.wide.shown}
                cut={measured.description.wide.cut}
                runs={emphasised(filled.description, [phrase], lang)}
                lang={lang ?? undefined}
                placeholder="No description. Type one here."
                className="text-ink"
                style={{ fontSize: slots.description.wide.size, lineHeight: '22px' }}
                onChange={(value) => type('meta:description', value)}
                onLeave={() => void session.blur()}
              />
            </div>
          </div>
        )}
        {offered.length > 0 && (
          <p className="mt-2 flex flex-wrap items-baseline gap-x-4 text-[13px]" data-testid="line-up-takes">
            <span className="text-ink-2">Takes</span>
            {offered.map((take, i) => (
              <span key={take.text} className="flex items-baseline gap-1">
                <button
                  type="button"
                  className="quiet max-w-64 truncate"
                  aria-pressed={take.text === typed.title}
                  title={take.text}
                  onClick={() => choose(take.text)}
                >
                  {i + 1}: {take.text}
                </button>
                {i >= takes.length && <span className="text-ink-3">drafted</span>}
              </span>
            ))}
          </p>
        )}
      </div>
      <div>
        <label className="text-[13px]">
          Ours at{' '}
          <input
            type="number"
            min={1}
            max={last}
            className="w-14 border-b border-sign bg-transparent px-1 tabular-nums"
            value={place}
            onChange={(e) => {
              const wanted = Number(e.target.value)
              if (wanted >= 1 && wanted <= last) onPlace(wanted)
            }}
          />
          {isToday && <span className="text-ink-3"> where it is today</span>}
        </label>
        <FiguresLine place={place} figures={figures} />
      </div>
    </li>
  )
}
