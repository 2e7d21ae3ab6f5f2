import { useState } from 'react'
import { primaryLanguage } from '../../../core/words/stem.ts'
import { protectedBy, type HouseStyle } from '../../../core/rules/house-style.ts'
import { casings, toCasing, type Casing } from '../../../core/wording/casing.ts'
import type { PageView } from '../../workers/page-view.ts'
import { casingNames } from '../../ui/casing-names.ts'
import { Drawer } from '../../ui/drawer.tsx'

/** A title in a casing style, as the house would have it. */
export const casedTitle = (title: string, casing: Casing, style: HouseStyle, view: PageView | null): string =>
  toCasing(title, casing, {
    protectedWords: protectedBy(style),
    names: new Set(view?.names ?? []),
  })

/** Which style Alt+C applies: the house's, else sentence style. */
export const houseCasing = (style: HouseStyle): Casing =>
  style.casing === 'as typed' ? 'sentence' : style.casing

/** The title in each casing style, to look at before one is applied. */
export function CasingDrawer({
  title,
  style,
  view,
  lang,
  onApply,
}: {
  title: string
  style: HouseStyle
  view: PageView | null
  lang: string | null
  onApply(title: string, casing: Casing): void
}) {
  const english = primaryLanguage(lang ?? style.language) === 'en'
  const houseCase = houseCasing(style)
  const wording = casedTitle(title, houseCase, style, view)
  const summary = !english
    ? 'the styles are for English, and this page is in another language'
    : style.casing === 'as typed'
      ? 'the house style sets none'
      : wording === title
        ? `${casingNames[houseCase]} style, as the house style asks`
        : `${casingNames[houseCase]} style would be “${wording}”`
  return (
    <Drawer id="casing" title="Casing" summary={summary}>
      <Casings title={title} style={style} view={view} onApply={onApply} />
    </Drawer>
  )
}

/** The title in each style that is offered. */
function Casings({
  title,
  style,
  view,
  onApply,
}: {
  title: string
  style: HouseStyle
  view: PageView | null
  onApply(title: string, casing: Casing): void
}) {
  const [all, setAll] = useState(false)
  const houseCase = houseCasing(style)
  const shown = casings.filter(
    (c) => c !== 'as typed' && (all || style.casing === 'as typed' || c === houseCase),
  )
  return (
    <>
      <table className="w-full text-left text-[13px]">
        <caption className="sr-only">The title in each casing style</caption>
        <tbody>
          {shown.map((casing) => {
            const cased = casedTitle(title, casing, style, view)
            return (
              <tr key={casing} className="border-t border-rule-2 align-baseline first:border-t-0">
                <th scope="row" className="w-36 py-1.5 font-semibold whitespace-nowrap">
                  {casingNames[casing]}
                  {casing === houseCase && <kbd className="ml-2 font-normal">Alt C</kbd>}
                </th>
                <td className="py-1.5 font-serif text-[15px]">{cased || <em>no title yet</em>}</td>
                <td className="w-20 py-1.5 text-right">
                  {cased === title ? (
                    <span className="text-ink-3">unchanged</span>
                  ) : (
                    <button type="button" className="action" onClick={() => onApply(cased, casing)}>
                      Apply
                    </button>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      <p className="mt-2 text-[13px] text-ink-3">
        Names are recognised from the page’s text and from the house style’s protected words.{' '}
        {style.casing !== 'as typed' && (
          <button type="button" className="quiet" onClick={() => setAll(!all)}>
            {all ? 'Only the house style' : 'All styles'}
          </button>
        )}
      </p>
    </>
  )
}
