import { memo } from 'react'
import { measure, type Slots } from '../../../core/measure/snippet.ts'
import type { PageId } from '../../../core/site/page-identity.ts'
import type { HouseStyle } from '../../../core/rules/house-style.ts'
import type { Passage } from '../../../core/wording/shown-instead.ts'
import type { Session } from '../../session/session.ts'
import type { PageView } from '../../workers/page-view.ts'
import { Drawer } from '../../ui/drawer.tsx'

/** How the log names a description that begins as a passage of the page. */
export const DESCRIPTION_FROM_TEXT = 'Description from the page’s text'

/** As much of a passage as a wide result shows. */
export const shownOf = (passage: Passage, slots: Slots): { shown: string; cut: boolean } =>
  measure(passage.text, 'description', slots).wide

/** What results may show in place of what the page says of itself. */
export const Instead = memo(function Instead({
  session,
  page,
  view,
  style,
  isDescribed,
}: {
  session: Session
  page: PageId
  view: PageView
  style: HouseStyle
  isDescribed: boolean
}) {
  const { passage } = view
  const wide = passage && shownOf(passage, style.slots)
  const start = (value: string) =>
    void session.decide(DESCRIPTION_FROM_TEXT, [{ page, key: 'edit:meta:description', after: { value } }])
  return (
    <Drawer
      id="instead"
      title="What may be shown instead"
      summary={
        passage
          ? `${isDescribed ? 'a passage such as' : 'no description, so a passage'}: “${passage.text.slice(0, 90)} …”`
          : 'the page has no text to take a passage from'
      }
    >
      {passage && wide && (
        <>
          <p
            className="result text-[14px] leading-[22px] text-faded italic"
            style={{ width: style.slots.description.wide.column }}
          >
            {wide.shown}
            {wide.cut && ' ...'}
          </p>
          <p className="mt-2 flex flex-wrap items-baseline gap-x-4 text-[13px] text-ink-2">
            <span>
              From paragraph {passage.paragraph}, {passage.from}.
            </span>
            <button type="button" className="action" onClick={() => start(wide.shown)}>
              Start from it
            </button>
          </p>
        </>
      )}
      <p className="mt-2 text-[13px] text-ink-3">
        {isDescribed
          ? 'Results use a page’s own description only part of the time, about 30 % by common practice (no source). Where it does not answer what was searched, they look for a passage like this one.'
          : 'Results look for the sentence or two around what was searched, else take the first paragraph. Common practice, no source.'}
      </p>
    </Drawer>
  )
})
