/** One block of a page's data with its things, each field by field; drawn anew when it says something else. */
import { memo, useMemo } from 'react'
import type { TargetKey } from '../../../core/page/edits/draft.ts'
import type { PageId } from '../../../core/site/page-identity.ts'
import type { Session } from '../../session/session.ts'
import { useNewest } from '../../ui/use-same.ts'
import type { BlockView, SiteThingView } from '../../workers/data.ts'
import { Block, OneThing } from './data-block.tsx'
import { blockEditor } from './data-edits.ts'
import type { Suggestions } from './data-field.tsx'
import type { ThingSurroundings } from './data-open.tsx'
import { ThingFields } from './data-thing.tsx'

/** What can be done with a block; the same object for all, for as long as they are on the sheet. */
export interface BlockActions {
  /** Shows or hides its JSON. */
  json(key: TargetKey): void
  takeOut(key: TargetKey): void
  /** Shows the page's result. */
  result(): void
  /** Shows a place in the source. */
  look(start: number): void
}

export const PageBlock = memo(function PageBlock({
  session,
  page,
  block,
  isJson,
  suggestions,
  siteThings,
  actions,
}: {
  session: Session
  page: PageId
  block: BlockView
  isJson: boolean
  suggestions: Suggestions
  siteThings: readonly SiteThingView[]
  actions: BlockActions
}) {
  const { key } = block
  const { shown } = useNewest({ shown: () => block.json })
  const around = useMemo(
    (): ThingSurroundings => ({
      editor: blockEditor(session, page, key, shown, () => session.decisionsOf(page)),
      block: key,
      suggestions,
      siteThings,
      onLook: actions.look,
    }),
    [session, page, key, shown, suggestions, siteThings, actions],
  )
  return (
    <Block
      block={block}
      json={isJson}
      onJson={() => actions.json(key)}
      onTakeOut={() => actions.takeOut(key)}
      onResult={actions.result}
    >
      {block.things.map((thing) => (
        <OneThing key={thing.pointer} thing={thing}>
          <ThingFields thing={thing} depth={0} around={around} />
        </OneThing>
      ))}
    </Block>
  )
})
