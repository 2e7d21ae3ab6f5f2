/** What is decided on the galley, as changes of the page's draft. */
import { overEdit, type Edit } from '../../../core/page/edits/draft.ts'
import type { NewBlock } from '../../../core/page/text/insertion.ts'
import type { PageId } from '../../../core/site/page-identity.ts'
import type { Session } from '../../session/session.ts'
import type { BlockLink, GalleyBlock } from '../../workers/galley.ts'
import type { Selected } from './link-words.tsx'

export function galleyEdits(session: Session, page: PageId) {
  const editOf = (key: string) => session.decisionsOf(page)[`edit:${key}`] as Edit | undefined
  /** One step that changes the edit of a target; undefined takes it back. */
  const change = (label: string, key: string, make: (now: Edit | undefined) => Edit | undefined) =>
    void session.decide(label, () => [{ page, key: `edit:${key}`, after: pruned(make(editOf(key))) }])

  return {
    /** What is typed in a block; what the page says anyway is no edit. */
    type(block: GalleyBlock, value: string): void {
      if (block.putIn) {
        const { after, id, part } = block.putIn
        const blocks = (editOf(after)?.blocks ?? []).map((b) => (b.id === id ? { ...b, [part]: value } : b))
        session.type(page, `edit:${after}`, { ...editOf(after), blocks }, 'Text')
        return
      }
      const now = editOf(block.key!)
      const { value: _, ...rest } = now ?? {}
      session.type(
        page,
        `edit:${block.key!}`,
        value === block.original ? pruned(rest) : overEdit(now, { value }),
        'Text',
      )
    },
    /** A new block without words goes when it is left. */
    dropIfEmpty({ putIn }: GalleyBlock): void {
      if (!putIn) return
      const blocks = editOf(putIn.after)?.blocks ?? []
      const isEmpty = (b: NewBlock) => b.text.trim() === '' && (b.answer ?? '').trim() === ''
      if (blocks.some(isEmpty))
        change('New text removed', putIn.after, (now) => ({
          ...now,
          blocks: (now?.blocks ?? []).filter((b) => !isEmpty(b)),
        }))
    },
    remove({ key, putIn }: GalleyBlock): void {
      if (!putIn) return change('Text removed', key!, () => ({ remove: true }))
      change('New text removed', putIn.after, (now) => ({
        ...now,
        blocks: (now?.blocks ?? []).filter((b) => b.id !== putIn.id),
      }))
    },
    link({ key }: GalleyBlock, { phrase, nth }: Selected, href: string): void {
      change('Words linked', key!, (now) => ({
        ...now,
        links: [...(now?.links ?? []), { phrase, nth, href }],
      }))
    },
    unlink({ key }: GalleyBlock, link: BlockLink): void {
      change('Link removed', key!, (now) =>
        link.byte === null
          ? {
              ...now,
              links: (now?.links ?? []).filter((l) => l.phrase !== link.words || l.href !== link.href),
            }
          : { ...now, unlink: [...(now?.unlink ?? []), link.byte] },
      )
    },
    /** Another tag: of a heading its level, or that it becomes a paragraph; of a paragraph that it becomes a heading. */
    tag({ key, tag }: GalleyBlock, to: string): void {
      const byte = key!.slice(key!.indexOf('@'))
      const level = /^h([1-6])$/.exec(to)?.[1]
      const target =
        /^h[1-6]$/.test(tag) && editOf(`block${byte}`) === undefined ? `heading${byte}` : `block${byte}`
      if (level === undefined && target.startsWith('block'))
        return change('Heading made a paragraph again', target, () => undefined)
      change(level === undefined ? 'Heading made a paragraph' : `Made an H${level}`, target, (now) =>
        overEdit(now, level === undefined ? { tag: 'p' } : { level: Number(level) }),
      )
    },
    /** Puts a new block behind one, or behind one of those put in there before. */
    putIn({ behind, putIn }: GalleyBlock, block: Omit<NewBlock, 'id'>): void {
      change('Text inserted', `after@${behind}`, (now) => {
        const blocks = now?.blocks ?? []
        const number = Math.max(0, ...blocks.map((b) => Number(b.id.slice(1)) || 0)) + 1
        const at = putIn ? blocks.findIndex((b) => b.id === putIn.id) + 1 : 0
        return {
          ...now,
          blocks: [...blocks.slice(0, at), { ...block, id: `a${number}` }, ...blocks.slice(at)],
        }
      })
    },
  }
}

/** An edit without lists that hold nothing; undefined for one that asks for nothing. */
function pruned(edit: Edit | undefined): Edit | undefined {
  const entries = Object.entries(edit ?? {}).filter(([, value]) => !Array.isArray(value) || value.length > 0)
  return entries.length > 0 ? (Object.fromEntries(entries) as Edit) : undefined
}
