import { Popover } from 'radix-ui'
import { memo, useState } from 'react'
import { mainChoicePattern } from '../../core/page/read/main-content.ts'
import type { MainBy } from '../../core/page/read/facts.ts'
import { houseStyleSchema, ownStyle } from '../../core/rules/house-style.ts'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'

const foundBy: Record<MainBy, string> = {
  chosen: 'where the house style says',
  main: 'by its main element',
  role: 'by role="main"',
  article: 'in its only article',
  density: 'by where the running text stands',
  body: 'by leaving out header, menu, asides and footer',
}

/** How the main content was found, and the place to say otherwise for the site. */
export const MainFound = memo(function MainFound({
  session,
  by,
  words,
}: {
  session: Session
  by: MainBy
  words: number
}) {
  const { style } = session.get()
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState(style.main ?? '')
  const wrong = typed.trim() !== '' && !mainChoicePattern.test(typed.trim())
  return (
    <p className="mt-1 text-[13px] text-ink-2" data-testid="main-found">
      Main content found {foundBy[by]}: {plural(words, 'word')}.{' '}
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger className="quiet">Change this for the site …</Popover.Trigger>
        <Popover.Portal>
          <Popover.Content side="top" sideOffset={8} className="sheet z-30 w-96 p-4 text-[13px]">
            <form
              onSubmit={(event) => {
                event.preventDefault()
                if (wrong) return
                setOpen(false)
                void session.decide('Where the main content is', () => {
                  const kept = ownStyle({ ...session.get().style, main: typed.trim() || null })
                  const { error } = houseStyleSchema.validate(kept)
                  return error
                    ? []
                    : [{ page: '', key: 'style', after: Object.keys(kept).length > 0 ? kept : undefined }]
                })
              }}
            >
              <label className="block font-semibold" htmlFor="main-choice">
                On every page of the site it is
              </label>
              <input
                id="main-choice"
                className="field mt-2 font-mono"
                placeholder="#content, .article-text, article"
                value={typed}
                aria-invalid={wrong}
                aria-describedby="main-choice-help"
                onChange={(e) => setTyped(e.target.value)}
              />
              <p id="main-choice-help" className="mt-1 text-ink-2">
                {wrong
                  ? 'A tag, an #id or a .class is expected.'
                  : 'A tag, an #id or a .class. If left empty, or on pages without it, the main content is found page by page.'}
              </p>
              <button type="submit" className="button mt-3" disabled={wrong}>
                Keep for the site
              </button>
            </form>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </p>
  )
})
