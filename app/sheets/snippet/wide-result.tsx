import { useMemo } from 'react'
import type { Slots } from '../../../core/measure/snippet.ts'
import type { Passage } from '../../../core/wording/shown-instead.ts'
import { textWidth } from '../../../core/measure/width.ts'
import { FurnitureLine, FurnitureQuestions, FurnitureSwitches } from '../../result/furniture.tsx'
import { Ruler } from '../../result/ruler.tsx'
import { TypedText } from '../../result/typed-text.tsx'
import { directionOf } from '../../ui/direction.ts'
import type { SheetProps } from '../sheet-props.ts'
import { AddressTrail } from './address.tsx'
import type { DraftedResult } from './drafted-result.ts'
import { shownOf } from './shown-instead.tsx'
import { CopyButtons, Figures, TokenLine } from './figures.tsx'

const LINE = { title: 26, description: 22 }

/** The result as a wide screen shows it, typed where it stands. */
export function WideResult({
  session,
  row,
  decisions,
  view,
  drafted,
  onType,
  onStartFromInstead,
}: SheetProps & {
  drafted: DraftedResult
  onType(target: 'title' | 'meta:description', value: string): void
  onStartFromInstead(): void
}) {
  const { typed, filled, measured, runs, lead, style, lang, furniture } = drafted
  const { slots } = style
  const { size } = slots.description.wide
  const passage = view?.passage
  const instead = useMemo(() => descriptionInstead(passage ?? null, slots), [passage, slots])
  const isMissing = filled.title.trim() === '' || filled.description.trim() === ''
  return (
    <section
      className="sheet overflow-x-auto px-7 pt-4 pb-3 max-[700px]:px-4"
      aria-label="Result on a wide screen"
    >
      <div className="flex items-baseline justify-between text-[13px]">
        <p>
          <strong className="font-semibold">Wide screen</strong>{' '}
          <span className="text-ink-3">actual size at {slots.title.wide.column} px; type in it</span>
        </p>
        <CopyButtons {...filled} url={view?.url ?? row.url} />
      </div>
      <div className="mt-2">
        <Ruler
          column={slots.title.wide.column}
          riskFrom={slots.title.wide.riskPx}
          px={measured.title.px}
          fit={measured.title.wide.state}
          direction={directionOf(filled.title)}
        />
      </div>
      <div className="result" lang={lang ?? undefined} style={{ width: slots.title.wide.column }}>
        <AddressTrail session={session} row={row} decisions={decisions} view={view} trail={drafted.trail} />
        <div data-anchor="title">
          <TypedText
            testId="title"
            label="Title"
            value={typed.title}
            filled={filled.title}
            shown={measured.title.wide.shown}
            cut={measured.title.wide.cut}
            runs={runs.title}
            lang={lang ?? undefined}
            placeholder={view?.fallBackTitle ?? ''}
            className="text-quill"
            style={{ fontSize: slots.title.wide.size, lineHeight: `${LINE.title}px` }}
            onChange={(value) => onType('title', value)}
            onLeave={() => void session.blur()}
          />
        </div>
        <div data-anchor="description" className="relative mt-1.5" dir={directionOf(filled.description)}>
          {lead !== '' && filled.description !== '' && (
            <span
              className="absolute start-0 top-0 whitespace-pre text-ink-2"
              style={{ fontSize: size, lineHeight: `${LINE.description}px` }}
            >
              {lead}
            </span>
          )}
          <TypedText
            testId="description"
            label="Meta description"
            value={typed.description}
            filled={filled.description}
            shown={measured.description.wide.shown.slice(lead.length)}
            cut={measured.description.wide.cut}
            runs={runs.description}
            lang={lang ?? undefined}
            indent={widthOfLead(lead, size)}
            placeholder={view ? instead : ''}
            className="text-ink"
            style={{ fontSize: size, lineHeight: `${LINE.description}px` }}
            onChange={(value) => onType('meta:description', value)}
            onLeave={() => void session.blur()}
          />
        </div>
        {view && <FurnitureLine furniture={view.furniture} shown={furniture} lang={lang} style={style} />}
        {view && <FurnitureQuestions inResult={view.inResult} shown={furniture} style={style} />}
      </div>
      <div className="mt-2.5 flex flex-wrap justify-between gap-x-4 border-t border-rule-2 pt-2 text-[13px] text-ink-2">
        <Figures
          name="Title"
          measured={measured.title}
          runs={runs.title}
          size={slots.title.wide.size}
          limit={slots.title.wide.column}
          testId="title-px"
        />
        <Figures
          name="Description"
          measured={measured.description}
          runs={runs.description}
          size={size}
          limit={slots.description.wide.allowance!}
          testId="description-px"
        />
      </div>
      <TokenLine typed={typed} tokens={drafted.tokens} />
      {isMissing && view && (
        <p className="mt-1.5 flex flex-wrap gap-x-4 text-[13px] text-ink-2" data-testid="fall-back">
          <span>In faded italics: what would be shown instead.</span>
          <button type="button" className="action" onClick={onStartFromInstead}>
            Start from it <kbd className="font-normal">Alt I</kbd>
          </button>
        </p>
      )}
      <div className="mt-1.5 flex flex-wrap gap-x-8 gap-y-1 text-[13px] text-ink-2 empty:hidden">
        {drafted.keywords.length > 0 && <KeywordSwitches drafted={drafted} />}
        {view && (
          <FurnitureSwitches
            furniture={view.furniture}
            inResult={view.inResult}
            lang={lang}
            shown={furniture}
            onChange={drafted.showFurniture}
          />
        )}
      </div>
    </section>
  )
}

/** So many keywords are offered to be drawn in bold. */
const MOST_SWITCHES = 6

function KeywordSwitches({ drafted }: { drafted: DraftedResult }) {
  return (
    <fieldset className="flex flex-wrap items-baseline gap-x-4">
      <legend className="float-left mr-4 font-semibold">In bold, when searched</legend>
      {drafted.keywords.slice(0, MOST_SWITCHES).map((keyword) => (
        <label key={keyword} className="flex items-baseline gap-1.5">
          <input
            type="checkbox"
            className="accent-ink"
            checked={drafted.emphasisedKeywords.includes(keyword)}
            onChange={(e) => drafted.emphasise(keyword, e.target.checked)}
          />
          {keyword}
        </label>
      ))}
    </fieldset>
  )
}

/** A trailing space has no width of its own: it is measured in front of something. */
const widthOfLead = (lead: string, size: number): number =>
  lead === '' ? 0 : textWidth(`${lead.trimEnd()} |`, size).px - textWidth('|', size).px

function descriptionInstead(passage: Passage | null, slots: Slots): string {
  if (!passage) return 'No description, and no text to take one from. Type one here.'
  const { shown, cut } = shownOf(passage, slots)
  return cut ? `${shown} ...` : shown
}
