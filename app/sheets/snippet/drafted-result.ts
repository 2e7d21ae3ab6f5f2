/** The result as it is drafted: what was typed with its tokens filled, measured, and with its keywords in bold. */
import { useState } from 'react'
import { measure, type Measured } from '../../../core/measure/snippet.ts'
import { foldText, textWidth } from '../../../core/measure/width.ts'
import { styleFor, type HouseStyle } from '../../../core/rules/house-style.ts'
import { fillTokens } from '../../../core/wording/tokens.ts'
import { emphasised, type Run } from '../../result/emphasis.ts'
import { shownDate } from '../../result/furniture-text.ts'
import { nothingShown, type FurnitureShown } from '../../result/furniture.tsx'
import { fieldValue } from '../../../core/work/typed-field.ts'
import type { PageView } from '../../workers/page-view.ts'
import type { SheetProps } from '../sheet-props.ts'

interface OfBoth<T> {
  title: T
  description: T
}
/** What is typed in a result; what the page says anyway is no edit. */
export function typeInResult(
  { session, row, view }: Pick<SheetProps, 'session' | 'row' | 'view'>,
  target: 'title' | 'meta:description',
  value: string,
): void {
  const source = target === 'title' ? view?.sourceTitle : view?.sourceDescription
  const isSource = source != null && foldText(value) === source
  session.type(
    row.id,
    `edit:${target}`,
    isSource ? undefined : { value },
    target === 'title' ? 'Title' : 'Meta description',
  )
}

export interface DraftedResult {
  typed: OfBoth<string>
  filled: OfBoth<string>
  tokens: PageView['tokens']
  measured: OfBoth<Measured>
  runs: OfBoth<Run[]>
  /** What stands before the description, such as a date; "" for nothing. */
  lead: string
  /** The breadcrumb in the address's place; null where the address stands. */
  trail: string[] | null
  /** How far the last line of the title reaches on a narrow screen, in px; 0 where it needs fewer lines than there are. */
  narrowReach: number
  style: HouseStyle
  lang: string | null
  keywords: string[]
  /** Those that are drawn in bold. */
  emphasisedKeywords: string[]
  emphasise(keyword: string, on: boolean): void
  furniture: FurnitureShown
  showFurniture(furniture: FurnitureShown): void
}

export function useDraftedResult({ session, row, decisions, view }: SheetProps): DraftedResult {
  const [furniture, showFurniture] = useState(nothingShown)
  // The primary keyword is in bold until it is switched off, the others once they are switched on.
  const [switched, setSwitched] = useState<readonly string[]>([])
  const style = view?.style ?? styleFor(session.get().style, row.url)
  const { slots } = style
  const lang = view?.lang ?? row.lang ?? style.language
  const tokens = view?.tokens ?? {}
  const typed = {
    title: fieldValue(decisions, 'title', row),
    description: fieldValue(decisions, 'meta:description', row),
  }
  const filled = {
    title: fillTokens(typed.title, tokens).text,
    description: fillTokens(typed.description, tokens).text,
  }
  const keywords = [
    decisions['keyword:primary'] as string | undefined,
    ...((decisions['keyword:secondary'] as string[] | undefined) ?? []),
  ].filter((k): k is string => !!k)
  const emphasisedKeywords = keywords.filter((k, i) => (i === 0) !== switched.includes(k))

  const date = furniture.date && view ? shownDate(view.furniture.date, lang) : null
  const lead = date ? `${date} — ` : ''
  const measured = {
    title: measure(filled.title, 'title', slots),
    description: measure(lead + filled.description, 'description', slots),
  }
  const { lines } = measured.title.narrow
  return {
    typed,
    filled,
    tokens,
    measured,
    runs: {
      title: emphasised(filled.title, emphasisedKeywords, lang),
      description: emphasised(filled.description, emphasisedKeywords, lang),
    },
    lead,
    trail: furniture.trail ? (view?.furniture.trail ?? null) : null,
    narrowReach:
      lines.length === (slots.title.narrow.lines ?? 1)
        ? textWidth(lines.at(-1) ?? '', slots.title.narrow.size).px
        : 0,
    style,
    lang,
    keywords,
    emphasisedKeywords,
    emphasise(keyword, on) {
      const byDefault = keyword === keywords[0]
      setSwitched((now) =>
        on === byDefault ? now.filter((k) => k !== keyword) : [...now.filter((k) => k !== keyword), keyword],
      )
    },
    furniture,
    showFurniture,
  }
}
