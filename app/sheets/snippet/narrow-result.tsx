import { shownAddress } from '../../../core/addresses/addresses.ts'
import { DrawnResult } from '../../result/drawn-result.tsx'
import { FurnitureLine } from '../../result/furniture.tsx'
import { Ruler } from '../../result/ruler.tsx'
import { directionOf } from '../../ui/direction.ts'
import type { SheetProps } from '../sheet-props.ts'
import type { DraftedResult } from './drafted-result.ts'
import { NarrowFigures } from './figures.tsx'

/** The result as a narrow screen shows it, following along. */
export function NarrowResult({
  row,
  view,
  drafted,
}: Pick<SheetProps, 'row' | 'view'> & { drafted: DraftedResult }) {
  const { filled, measured, style, lang } = drafted
  const { title, description } = style.slots
  return (
    <div>
      <p className="text-[13px]">
        <strong className="font-semibold">Narrow screen</strong>{' '}
        <span className="text-ink-3">{title.narrow.column} px; the rule measures the title’s last line</span>
      </p>
      <div className="mt-1.5">
        <Ruler
          column={title.narrow.column}
          riskFrom={title.narrow.riskPx}
          px={drafted.narrowReach}
          fit={measured.title.narrow.state}
          direction={directionOf(filled.title)}
        />
      </div>
      <DrawnResult
        screen="narrow"
        result={{
          ...filled,
          trail: drafted.trail ?? shownAddress(view?.url ?? row.url),
          lead: drafted.lead,
          instead: { title: view?.fallBackTitle ?? '', description: view?.passage?.text ?? '' },
        }}
        slots={style.slots}
        keywords={drafted.emphasisedKeywords}
        lang={lang}
      >
        {view && (
          <FurnitureLine furniture={view.furniture} shown={drafted.furniture} lang={lang} style={style} />
        )}
      </DrawnResult>
      <p className="mt-2 text-[13px] text-ink-2" data-testid="narrow-figures">
        <NarrowFigures name="Title" measured={measured.title} />
        <NarrowFigures
          name="Description"
          measured={measured.description}
          limit={description.narrow.allowance}
        />
      </p>
    </div>
  )
}
