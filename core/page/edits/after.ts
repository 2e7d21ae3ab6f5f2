/** Edits that put new blocks behind a block of text. */
import type { Source } from '../source/source.ts'
import type { Locations } from '../splice/locate.ts'
import type { Splices } from '../splice/splice.ts'
import type { TextSplice } from '../text/edit-text.ts'
import { isPlaceCertain } from '../text/certain.ts'
import { insertionPlace, markupOf, questionLevel, type NewBlock } from '../text/insertion.ts'
import { pageText } from '../text/page-text.ts'
import type { Edit } from './draft.ts'
import { inView, NO_BLOCK } from './text.ts'

const UNCERTAIN =
  'The page’s tags are not closed where they seem to be around here, so it is not certain where a new block would stand. Mend them in the source first.'

const BEFORE_OTHERS =
  'It would stand before what was inserted first: of several blocks after one, list entries come first. Insert it after another block.'

/** The splices of an edit that puts blocks behind the one at a byte of the source: one for each of them, in their order. */
export function afterSplices(
  source: Source,
  places: Locations,
  byte: number,
  { blocks = [] }: Edit,
): Splices {
  const text = pageText(source)
  const after = text.byByte.get(byte)
  if (!after) return { why: NO_BLOCK }
  const level = questionLevel(text, after)
  const splices: TextSplice[] = []
  for (const block of blocks) {
    const placing = insertionPlace(source.text, text, after, block.kind)
    if (!placing.ok) return { why: placing.why }
    const { place } = placing
    if (place.at < (splices.at(-1)?.start ?? 0)) return { why: BEFORE_OTHERS }
    const markup = (block: NewBlock) => markupOf(block, place, source.text, places.xml, level)
    const isQuestion = block.kind === 'question'
    const probe = (word: string) => markup({ ...block, text: word, ...(isQuestion ? { answer: word } : {}) })
    if (!isPlaceCertain(source.text, text, `${byte} ${block.kind}`, place.at, probe, isQuestion ? 2 : 1))
      return { why: UNCERTAIN }
    splices.push({
      start: place.at,
      end: place.at,
      text: markup(block),
      part: block.id,
    })
  }
  return inView(source, places, splices)
}
