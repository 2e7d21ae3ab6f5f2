import { useMemo, useRef } from 'react'
import { BesideMargin } from '../../margin/beside-margin.tsx'
import { useAnchors } from '../../margin/use-anchors.ts'
import { useCommand } from '../../ui/command-registry.ts'
import type { MarkView } from '../../workers/page-view.ts'
import type { SheetProps } from '../sheet-props.ts'
import { AddressDrawer } from './address.tsx'
import { slugOf } from './address-parts.ts'
import { Carriers } from './carriers.tsx'
import { casedTitle, CasingDrawer, houseCasing } from './casing.tsx'
import { typeInResult, useDraftedResult } from './drafted-result.ts'
import { KeywordFields } from './keyword-fields.tsx'
import { NarrowResult } from './narrow-result.tsx'
import { DESCRIPTION_FROM_TEXT, Instead, shownOf } from './shown-instead.tsx'
import { keepTake, Takes } from './takes.tsx'
import { WideResult } from './wide-result.tsx'

type Target = 'title' | 'meta:description'

/** Marks about the result: titles, descriptions and addresses, and where the keyword stands. */
const isOnSnippet = (mark: MarkView): boolean => mark.shownOn.snippet !== undefined

/** The search result, edited where it is shown: wide with its rule, narrow beside it, following along. */
export function SnippetSheet(props: SheetProps) {
  const { session, row, decisions, view } = props
  const page = row.id
  const drafted = useDraftedResult(props)
  const { typed, filled, style, lang } = drafted

  const type = (target: Target, value: string) => typeInResult(props, target, value)
  const decide = (target: Target, value: string, label: string) =>
    void session.decide(label, [{ page, key: `edit:${target}`, after: { value } }])
  const startFromInstead = () => {
    if (!view) return
    if (filled.title.trim() === '') decide('title', view.fallBackTitle, 'Title from what is shown instead')
    else if (view.passage)
      decide('meta:description', shownOf(view.passage, style.slots).shown, DESCRIPTION_FROM_TEXT)
  }

  // The same while only the typing goes on, so that the margin is not drawn anew for it.
  const marks = useMemo(() => (view?.marks ?? []).filter(isOnSnippet), [view])
  const sheet = useRef<HTMLDivElement>(null)
  const anchors = useAnchors(sheet, marks, view?.address.refused, (mark, box) =>
    box.querySelector(`[data-anchor="${mark.shownOn.snippet}"]`),
  )

  useCommand('keepTake', () => keepTake(session, page, 'title', { text: typed.title, from: '' }))
  useCommand('casing', () => {
    const cased = casedTitle(typed.title, houseCasing(style), style, view)
    if (cased !== typed.title) decide('title', cased, 'Casing')
  })
  useCommand('fromInstead', startFromInstead)
  useCommand('toSlug', () => sheet.current?.querySelector<HTMLElement>('[data-testid="slug"]')?.focus())

  return (
    <BesideMargin
      session={session}
      page={page}
      view={view}
      marks={marks}
      anchors={anchors}
      clean="Nothing to mend in this result."
    >
      <div ref={sheet} className="flex flex-col">
        <WideResult {...props} drafted={drafted} onType={type} onStartFromInstead={startFromInstead} />
        <section
          className="sheet mt-4 grid grid-cols-[386px_1fr] px-7 pt-4 pb-5 max-[700px]:order-first max-[700px]:mt-0 max-[700px]:mb-4 max-[700px]:-mx-3 max-[700px]:grid-cols-1 max-[700px]:gap-4 max-[700px]:border-x-0 max-[700px]:px-4"
          aria-label="Result on a narrow screen"
        >
          <NarrowResult row={row} view={view} drafted={drafted} />
          <div
            className="border-l border-rule-2 pl-5 max-[700px]:border-l-0 max-[700px]:pl-0"
            data-anchor="keyword"
          >
            <KeywordFields
              key={page}
              session={session}
              page={page}
              primary={decisions['keyword:primary'] as string | undefined}
              secondary={decisions['keyword:secondary'] as string[] | undefined}
              view={view}
            />
          </div>
        </section>

        <div className="sheet mt-4 py-1">
          <Takes
            session={session}
            page={page}
            decisions={decisions}
            view={view}
            style={style}
            present={typed}
            keywords={drafted.emphasisedKeywords}
            lang={lang}
          />
          {view && <AddressDrawer session={session} row={row} slug={slugOf(decisions)} view={view} />}
          <CasingDrawer
            title={typed.title}
            style={style}
            view={view}
            lang={lang}
            onApply={(value) => decide('title', value, 'Casing')}
          />
          {view && (
            <Instead
              session={session}
              page={page}
              view={view}
              style={style}
              isDescribed={filled.description.trim() !== ''}
            />
          )}
          {view && <Carriers session={session} page={page} view={view} {...filled} />}
        </div>
      </div>
    </BesideMargin>
  )
}
