/** What can be done with a block beside typing in it: another tag, a link taken away, another block behind it, out with it. */
import type { BlockLink, GalleyBlock } from '../../workers/galley.ts'

const headingTags = ['h1', 'h2', 'h3', 'h4', 'h5', 'h6'] as const

/** The tags that a block can have instead of its own; none for what is part of a list or a table. */
export function tagsFor({ tag, putIn, key }: GalleyBlock): readonly string[] {
  if (putIn || key === null) return []
  if (tag === 'p' || tag === 'div') return [tag, ...headingTags]
  return /^h[1-6]$/.test(tag) ? ['p', ...headingTags] : []
}

export function BlockActions({
  block,
  onTag,
  onUnlink,
  onPutIn,
  onRemove,
}: {
  block: GalleyBlock
  onTag(tag: string): void
  onUnlink(link: BlockLink): void
  onPutIn(): void
  onRemove(): void
}) {
  const tags = tagsFor(block)
  return (
    <div className="mt-1 flex flex-wrap items-baseline gap-x-4 gap-y-1 font-sans text-[13px] leading-5 font-normal">
      {tags.length > 0 && (
        <label>
          Tag{' '}
          <select
            className="border-b border-sign bg-paper font-mono text-[12px]"
            value={block.tag}
            onChange={(e) => onTag(e.target.value)}
          >
            {tags.map((tag) => (
              <option key={tag} value={tag}>
                {tag}
              </option>
            ))}
          </select>
        </label>
      )}
      {block.behind !== null && (
        <button type="button" className="quiet" onClick={onPutIn}>
          Insert below
        </button>
      )}
      <button type="button" className="quiet" onClick={onRemove}>
        Remove it
      </button>
      {block.links.map((link, i) => (
        <span key={i} className="min-w-0 truncate text-ink-2">
          “{link.words}” leads to <span className="font-mono text-[12px]">{link.href}</span>{' '}
          <button
            type="button"
            className="quiet"
            aria-label={`Remove the link of “${link.words}”`}
            onClick={() => onUnlink(link)}
          >
            remove the link
          </button>
        </span>
      ))}
    </div>
  )
}
