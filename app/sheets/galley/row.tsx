/** A block with what stands around it; drawn anew only when something of it has changed. */
import { memo } from 'react'
import type { NewBlock } from '../../../core/page/text/insertion.ts'
import type { BlockLink, GalleyBlock } from '../../workers/galley.ts'
import { BlockActions } from './block-actions.tsx'
import { Block } from './block.tsx'
import type { Selected } from './link-words.tsx'
import { NewBlockForm, type FirstBlock } from './new-block.tsx'

/** What can be done with a block; the same object for all of them and for good. */
export interface RowActions {
  edit(block: GalleyBlock): void
  type(block: GalleyBlock, value: string): void
  leave(): void
  remove(block: GalleyBlock): void
  move(by: 1 | -1): void
  tag(block: GalleyBlock, tag: string): void
  unlink(block: GalleyBlock, link: BlockLink): void
  compose(block: GalleyBlock): void
  putIn(block: GalleyBlock, given: Omit<NewBlock, 'id'>): void
  stopComposing(block: GalleyBlock): void
  forSelected(block: GalleyBlock, selected: Selected): React.ReactNode
}

export const Row = memo(function Row({
  block,
  typed,
  isEditing,
  composing,
  lang,
  sectionWords,
  leadWords,
  actions,
}: {
  block: GalleyBlock
  /** What is typed in it and not in the worker's answer yet; null where nothing is. */
  typed: string | null
  isEditing: boolean
  /** A new block that is being typed behind it. */
  composing: FirstBlock | null
  lang: string | null
  /** Of a heading: the words of its section. */
  sectionWords: number | null
  leadWords: number
  actions: RowActions
}) {
  return (
    <div>
      <Block
        block={block}
        value={typed ?? block.text}
        editing={isEditing}
        lang={lang}
        sectionWords={sectionWords}
        onEdit={() => actions.edit(block)}
        onType={(value) => actions.type(block, value)}
        onLeave={() => actions.leave()}
        onRemove={() => actions.remove(block)}
        onMove={(by) => actions.move(by)}
        forSelected={(selected) => actions.forSelected(block, selected)}
        actions={
          isEditing && (
            <BlockActions
              block={block}
              onTag={(tag) => actions.tag(block, tag)}
              onUnlink={(link) => actions.unlink(block, link)}
              onPutIn={() => actions.compose(block)}
              onRemove={() => {
                actions.leave()
                actions.remove(block)
              }}
            />
          )
        }
      />
      {composing && (
        <NewBlockForm
          key={composing.text}
          first={composing}
          lang={lang}
          onPutIn={(given) => actions.putIn(block, given)}
          onCancel={() => actions.stopComposing(block)}
        />
      )}
      {block.endsLead && (
        <p
          className="my-1 ml-16 flex items-center gap-3 font-sans text-[12px] text-ink-3"
          data-testid="lead-ends"
        >
          <span className="h-px flex-1 bg-rule" /> the first {leadWords} words end in this block
        </p>
      )}
    </div>
  )
})
