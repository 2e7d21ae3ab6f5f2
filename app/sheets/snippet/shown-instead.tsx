import { measure } from '../../../core/measure/snippet.ts'
import type { HouseStyle } from '../../../core/rules/house-style.ts'
import type { PageView } from '../../workers/page-view.ts'
import { Drawer } from '../../ui/drawer.tsx'

/** What results may show in place of what the page says of itself. */
export function Instead({
  view,
  style,
  description,
  onStart,
}: {
  view: PageView
  style: HouseStyle
  description: string
  onStart(text: string): void
}) {
  const { passage } = view
  const m = passage ? measure(passage.text, 'description', style.slots) : null
  const isDescribed = description.trim() !== ''
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
      {passage && m && (
        <>
          <p
            className="result text-[14px] leading-[22px] text-faded italic"
            style={{ width: style.slots.description.wide.column }}
          >
            {m.wide.shown}
            {m.wide.cut && ' ...'}
          </p>
          <p className="mt-2 flex flex-wrap items-baseline gap-x-4 text-[13px] text-ink-2">
            <span>
              From paragraph {passage.paragraph}, {passage.from}.
            </span>
            <button type="button" className="action" onClick={() => onStart(m.wide.shown)}>
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
}
