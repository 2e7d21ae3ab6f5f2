/** Where a page's text speaks of a phrase without linking it, each with its sentence and the link that could stand there. */
import { editText } from '../page/text/edit-text.ts'
import { isOfMain, pageText } from '../page/text/page-text.ts'
import { shownOf, textOf } from '../page/text/shown.ts'
import type { Source } from '../page/source/source.ts'
import { findKeyword, type Keyword } from '../words/match.ts'
import { sentenceAround } from '../words/sentences.ts'

export interface Mention {
  /** The byte of the block that it stands in, in the source that was asked about. */
  byte: number
  /** The words as they stand there, and which occurrence of them in the block it is, from 0. */
  phrase: string
  nth: number
  sentence: string
}

/** So many are found of one page: one link is enough. */
const MOST = 3

/** Mentions in the main content, in order; headings and what is a link already are passed over. */
export function mentionsIn(source: Source, keyword: Keyword): Mention[] {
  const { blocks } = pageText(source)
  const isMain = isOfMain(blocks)
  const mentions: Mention[] = []
  for (const one of blocks) {
    const { byte, block, items } = one
    if (mentions.length === MOST) break
    if (byte === null || !isMain(one) || /^h[1-6]$/.test(block.tag)) continue
    if (findKeyword(block.text, keyword).length === 0) continue
    const content = items()
    if (!content.ok) continue
    const text = textOf(shownOf(content.items.items))
    for (const { start, end } of findKeyword(text, keyword)) {
      const phrase = text.slice(start, end)
      const nth = occurrencesBefore(text, phrase, start)
      const linked = editText(source.text, content.items, text, '<br>', {
        links: [{ phrase, nth, href: '/' }],
      })
      if (!linked.ok || linked.splices.length === 0) continue
      mentions.push({ byte, phrase, nth, sentence: sentenceAround(text, start, end) })
      break
    }
  }
  return mentions
}

function occurrencesBefore(text: string, phrase: string, start: number): number {
  let nth = 0
  for (let at = text.indexOf(phrase); at >= 0 && at < start; at = text.indexOf(phrase, at + 1)) nth++
  return nth
}
