import { memo, useState } from 'react'
import type { Session } from '../../session/session.ts'
import type { PageView } from '../../workers/page-view.ts'
import { Placed } from '../placed.tsx'

/** What the page should be found for: one primary keyword, a few secondary ones. */
export const KeywordFields = memo(function KeywordFields({
  session,
  page,
  primary = '',
  secondary = none,
  view,
}: {
  session: Session
  page: string
  primary: string | undefined
  secondary: string[] | undefined
  view: PageView | null
}) {
  // The list as it is typed, commas and spaces included, until the field is left.
  const [typed, setTyped] = useState<string | null>(null)
  return (
    <div className="text-[13px]">
      <label className="font-semibold" htmlFor="primary">
        Primary keyword
      </label>
      <input
        id="primary"
        className="mt-0.5 w-full border-b border-ink-3 bg-transparent pb-1"
        value={primary}
        maxLength={200}
        placeholder="what people search"
        onChange={(e) =>
          session.type(
            page,
            'keyword:primary',
            e.target.value === '' ? undefined : e.target.value,
            'Primary keyword',
          )
        }
        onBlur={() => void session.blur()}
      />
      <label className="mt-4 block font-semibold" htmlFor="secondary">
        Secondary keywords
      </label>
      <input
        id="secondary"
        className="mt-0.5 w-full border-b border-ink-3 bg-transparent pb-1"
        value={typed ?? secondary.join(', ')}
        placeholder="separated by commas"
        onChange={(e) => {
          setTyped(e.target.value)
          const list = e.target.value
            .split(',')
            .map((s) => s.trim().slice(0, 200))
            .filter(Boolean)
          session.type(page, 'keyword:secondary', list.length === 0 ? undefined : list, 'Secondary keywords')
        }}
        onBlur={() => {
          setTyped(null)
          void session.blur()
        }}
      />
      <Placed view={view} />
      <p className="mt-2 text-ink-3">One page for each primary keyword; any word form counts.</p>
    </div>
  )
})

const none: string[] = []
