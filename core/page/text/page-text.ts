/** A source's text blocks with their keys, found once: a source never changes. */
import { parsedSource, type Parsed } from '../read/parse.ts'
import { toBytePlaces } from '../source/places.ts'
import type { Source } from '../source/source.ts'
import { textBlocks, type Block } from './blocks.ts'
import { itemsOf, startOf, type ItemsOf } from './items.ts'

export interface PageBlock {
  /** The byte of its start tag, or where a stretch begins. Null for a block that begins nowhere in the source. */
  byte: number | null
  block: Block
  /** Its characters and tags, or why it cannot be edited; made when it is first asked for. */
  items(): ItemsOf
}
export interface PageText {
  parsed: Parsed
  blocks: PageBlock[]
  byByte: Map<number, PageBlock>
}

/** Whether a frameset counts hangs on what is shown before it: a word more or less, and all of the page is another. */
const FRAMES: ItemsOf = {
  ok: false,
  why: 'The page is made of frames, or was meant to be: what is shown of it hangs on every word. Change it in the source.',
}

const known = new WeakMap<Source, PageText>()

export function pageText(source: Source): PageText {
  const kept = known.get(source)
  if (kept) return kept
  const parsed = parsedSource(source)
  const blocks = textBlocks(parsed.document)
  const starts = blocks.map((block) => (block.isStretch ? startOf(block) : block.at))
  const order = [...starts.entries()]
    .flatMap(([i, at]) => (at === null ? [] : [{ i, at }]))
    .sort((a, b) => a.at - b.at)
  const bytes = toBytePlaces(
    source,
    order.map(({ at }) => at),
  )
  const byteOf = new Map(order.map(({ i }, n) => [i, bytes[n]!]))
  const isFrames = /<frameset\b/i.test(source.text)
  const pageBlocks = blocks.map((block, i): PageBlock => {
    let items: ItemsOf | null = null
    return {
      byte: byteOf.get(i) ?? null,
      block,
      items: () => (items ??= isFrames ? FRAMES : itemsOf(source.text, block, parsed)),
    }
  })
  const byByte = new Map<number, PageBlock>()
  for (const one of pageBlocks) if (one.byte !== null && !byByte.has(one.byte)) byByte.set(one.byte, one)
  const text = { parsed, blocks: pageBlocks, byByte }
  known.set(source, text)
  return text
}

/** Whether a block is of the main content: in a main landmark; where the page has none, in no furniture. */
export function isOfMain(blocks: readonly PageBlock[]): (one: PageBlock) => boolean {
  const wanted = blocks.some(({ block }) => block.landmark === 'main') ? 'main' : null
  return ({ block }) => block.landmark === wanted
}
