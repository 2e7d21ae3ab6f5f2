/**
 * Whether a page stays what it is around a change of its text. Pages whose tags are not in order are read in ways of their
 * own: a word before a tag may bring back bold type that was never closed. So each place is tried once, with a word, and
 * what is found of it holds: what is typed later makes no difference.
 */
import { parsePage } from '../read/parse.ts'
import { textBlocks, type Block } from './blocks.ts'
import type { PageBlock, PageText } from './page-text.ts'

const PROBE = 'keenquill9'
const known = new WeakMap<PageText, Map<string, boolean>>()

/** What was found of a place once, by its key. */
function once(text: PageText, key: string, find: () => boolean): boolean {
  let places = known.get(text)
  if (!places) known.set(text, (places = new Map()))
  let certain = places.get(key)
  if (certain === undefined) places.set(key, (certain = find()))
  return certain
}

const shapeOf = ({ text, tag, isStretch }: Block, words = text) =>
  `${tag} ${isStretch} ${words.replace(/\s+/g, '')}`
const sameShapes = (blocks: readonly string[], others: readonly string[]) =>
  blocks.length === others.length && blocks.every((shape, i) => shape === others[i])

/** Whether words can be put at the beginning and the end of a block, and are its own there. */
export function isBlockCertain(source: string, text: PageText, one: PageBlock): boolean {
  const items = one.items()
  if (!items.ok) return false
  const { start, end } = items.items
  return once(text, `${one.byte}`, () => {
    const tried = `${source.slice(0, start)}${PROBE} ${source.slice(start, end)} ${PROBE}${source.slice(end)}`
    const now = textBlocks(parsePage(tried).document).map((block) => shapeOf(block))
    const wanted = text.blocks.map(({ block }) =>
      block === one.block ? shapeOf(block, PROBE + block.text + PROBE) : shapeOf(block),
    )
    return sameShapes(now, wanted)
  })
}

/** Whether new blocks stand alone at a place; `markup` makes them of one word. `key` tells the place from others. */
export function isPlaceCertain(
  source: string,
  text: PageText,
  key: string,
  at: number,
  markup: (word: string) => string,
  count: number,
): boolean {
  return once(text, key, () => {
    const tried = source.slice(0, at) + markup(PROBE) + source.slice(at)
    const now = textBlocks(parsePage(tried).document)
    const rest = now.filter((block) => block.text !== PROBE)
    return (
      now.length - rest.length === count &&
      sameShapes(
        rest.map((block) => shapeOf(block)),
        text.blocks.map(({ block }) => shapeOf(block)),
      )
    )
  })
}
