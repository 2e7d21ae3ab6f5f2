/** The galley's view of a page: its text block by block, as the draft leaves it. */
import { findKeyword, compileKeyword } from '../../core/words/match.ts'
import { countWords } from '../../core/words/count-words.ts'
import type { Landmark } from '../../core/page/read/facts.ts'
import { editText } from '../../core/page/text/edit-text.ts'
import { isOfMain, pageText } from '../../core/page/text/page-text.ts'
import { shownOf, textOf } from '../../core/page/text/shown.ts'
import { toSourceByte } from '../../core/page/proof.ts'
import { draftOf, keywordsOf, type Decisions } from '../../core/work/decisions.ts'
import type { Reading } from '../../core/work/evaluate.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { readingFor } from './open-site.ts'

export interface Hit {
  from: number
  to: number
  kind: 'primary' | 'secondary'
}
export interface GalleyBlock {
  /** The draft's key for its words: `text@812`, of a heading `heading@812`; null where there is none. */
  key: string | null
  tag: string
  className: string
  text: string
  /** What the source says; null where it has no such block. */
  original: string | null
  /** Its place in the proof's text, UTF-16 units; null where it has none. */
  start: number | null
  end: number | null
  landmark: Landmark | null
  isMain: boolean
  words: number
  /** Why its words cannot be changed; null where they can. */
  readOnly: string | null
  hits: Hit[]
  isEdited: boolean
  /** Links that go with the words that are taken out. */
  linksLost: string[]
  /** Whether the words up to the house style's first so many end in it. */
  endsLead: boolean
}
export interface PhraseCount {
  phrase: string
  kind: 'primary' | 'secondary'
  count: number
  /** In per cent of the main content's words. */
  density: number
}
export interface GalleyView {
  blocks: GalleyBlock[]
  phrases: PhraseCount[]
  words: number
  leadWords: number
}

export async function galleyOf(id: PageId, decisions: Decisions): Promise<GalleyView | null> {
  const reading = await readingFor(id, decisions)
  return reading && galleyView(reading)
}

export function galleyView(reading: Reading): GalleyView {
  const { proof, page, source, decisions, setting } = reading
  const style = styleFor(setting.style, page.url)
  const lang = page.lang ?? style.language
  const keywords = keywordsOf(decisions)
  const phrases = [
    ...(keywords?.primary ? [{ phrase: keywords.primary, kind: 'primary' as const }] : []),
    ...(keywords?.secondary ?? []).map((phrase) => ({ phrase, kind: 'secondary' as const })),
  ].map((p) => ({ ...p, compiled: compileKeyword(p.phrase, lang), count: 0 }))
  const draft = draftOf(decisions)
  const before = pageText(source)
  const now = pageText(proof.source)
  const isMainBlock = isOfMain(now.blocks)
  let words = 0
  let isLeadOver = false
  const blocks = now.blocks.map((one): GalleyBlock => {
    const { block } = one
    const items = one.items()
    const text = items.ok ? textOf(shownOf(items.items.items)) : block.text
    const isMain = isMainBlock(one)
    const own = countWords(text)
    if (isMain) words += own
    const endsLead = isMain && !isLeadOver && words >= style.limits.leadWords
    isLeadOver ||= endsLead
    const hits: Hit[] = []
    for (const p of phrases) {
      const found = findKeyword(text, p.compiled)
      if (isMain) p.count += found.length
      for (const match of found) hits.push({ from: match.start, to: match.end, kind: p.kind })
    }
    const byte = one.byte === null ? null : toSourceByte(proof.changes, one.byte)
    const isHeading = /^h[1-6]$/.test(block.tag)
    const key = byte === null ? null : `${isHeading ? 'heading' : 'text'}@${byte}`
    const edit = key === null ? undefined : draft[key]
    const atSource = byte === null ? undefined : before.byByte.get(byte)
    const sourceItems = atSource?.items()
    return {
      key: atSource ? key : null,
      tag: block.tag,
      className: block.element.attrs.find((a) => a.name === 'class')?.value ?? '',
      text,
      original: sourceItems?.ok ? textOf(shownOf(sourceItems.items.items)) : null,
      start: items.ok ? (block.isStretch ? items.items.start : block.at) : block.at,
      end: items.ok ? items.items.end : (block.element.place?.closes ?? null),
      landmark: block.landmark,
      isMain,
      words: own,
      readOnly: !atSource
        ? 'It is made by another edit of this page.'
        : sourceItems && !sourceItems.ok
          ? sourceItems.why
          : null,
      hits,
      isEdited: edit?.value !== undefined || (edit?.links?.length ?? 0) > 0,
      linksLost:
        edit?.value !== undefined && sourceItems?.ok
          ? linksLost(source.text, sourceItems.items, edit.value)
          : [],
      endsLead,
    }
  })
  return {
    blocks,
    words,
    leadWords: style.limits.leadWords,
    phrases: phrases.map(({ phrase, kind, count, compiled }) => ({
      phrase,
      kind,
      count,
      density: page.main.words === 0 ? 0 : (100 * count * compiled.stems.length) / page.main.words,
    })),
  }
}

function linksLost(text: string, items: Parameters<typeof editText>[1], wanted: string): string[] {
  const edit = editText(text, items, wanted, '<br>')
  return edit.ok ? edit.linksLost : []
}
