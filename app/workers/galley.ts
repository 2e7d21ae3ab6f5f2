/** The galley's view of a page: its text block by block, as the draft leaves it. */
import { compileKeyword, findKeyword, type Keywords } from '../../core/words/match.ts'
import { countWords } from '../../core/words/count-words.ts'
import type { Landmark } from '../../core/page/read/facts.ts'
import { editText } from '../../core/page/text/edit-text.ts'
import { isOfMain, pageText, type PageBlock, type PageText } from '../../core/page/text/page-text.ts'
import type { Item, Items } from '../../core/page/text/items.ts'
import { attribute, type Element } from '../../core/page/read/parse.ts'
import { toBytePlaces } from '../../core/page/source/places.ts'
import type { Source } from '../../core/page/source/source.ts'
import type { Edit } from '../../core/page/edits/draft.ts'
import { fold } from '../../core/strings.ts'
import { shownOf, textOf } from '../../core/page/text/shown.ts'
import { newBlockAt, toSourceByte } from '../../core/page/proof.ts'
import { draftOf, keywordsOf, type Decisions } from '../../core/work/decisions.ts'
import type { Reading } from '../../core/work/evaluate.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { readingFor } from './open-site.ts'

export interface Hit {
  from: number
  to: number
  kind: PhraseKind
}
/** Helper words recur among the site's phrases beside the page's own. */
export type PhraseKind = 'primary' | 'secondary' | 'helper'
/** A link of a block, with the byte by which it is taken away; null for one that the draft puts in. */
export interface BlockLink {
  words: string
  href: string
  byte: number | null
}
/** A block that the draft puts in: the block that it stands behind, which of those it is, and which part of it. */
export interface PutIn {
  after: string
  id: string
  part: 'text' | 'answer'
}
export interface GalleyBlock {
  /** The draft's key for its words: `text@812`, of a heading `heading@812`, `after@812+a1` of a new one; null where there is none. */
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
  putIn: PutIn | null
  links: BlockLink[]
  /** The edits that this block can have beside its words: those that another block can be put behind. */
  behind: number | null
  hits: Hit[]
  isEdited: boolean
  /** Links that go with the words that are taken out. */
  linksLost: string[]
  /** Whether the words up to the house style's first so many end in it. */
  endsLead: boolean
}
export interface PhraseCount {
  phrase: string
  kind: PhraseKind
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

/** `helpers` are words that recur among the site's phrases beside the page's own. */
export async function galleyOf(
  id: PageId,
  decisions: Decisions,
  helpers: readonly string[] = [],
): Promise<GalleyView | null> {
  const reading = await readingFor(id, decisions)
  return reading && galleyView(reading, helpers)
}

export function galleyView(reading: Reading, helpers: readonly string[] = []): GalleyView {
  const { proof, page, source, decisions, setting } = reading
  const style = styleFor(setting.style, page.url)
  const lang = page.lang ?? style.language
  const phrases = phrasesToFind(keywordsOf(decisions), helpers, lang)
  const before = pageText(source)
  const now = pageText(proof.source)
  const isMainBlock = isOfMain(now.blocks)
  const addressed = addressing(reading, before)
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
    return {
      ...addressed(one),
      tag: block.tag,
      className: attribute(block.element, 'class') ?? '',
      text,
      start: items.ok ? (block.isStretch ? items.items.start : block.at) : block.at,
      end: items.ok ? items.items.end : (block.element.place?.closes ?? null),
      landmark: block.landmark,
      isMain,
      words: own,
      hits,
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

function phrasesToFind(keywords: Keywords | null, helpers: readonly string[], lang: string | null) {
  const { primary = '', secondary = [] } = keywords ?? {}
  const all: { phrase: string; kind: PhraseKind }[] = [
    ...(primary ? [{ phrase: primary, kind: 'primary' as const }] : []),
    ...secondary.map((phrase) => ({ phrase, kind: 'secondary' as const })),
    ...helpers.map((phrase) => ({ phrase, kind: 'helper' as const })),
  ]
  return all.map((p) => ({ ...p, compiled: compileKeyword(p.phrase, lang), count: 0 }))
}

/** By which key each block of the proof is changed, and what can be changed of it. */
function addressing(
  { proof, source, decisions }: Reading,
  before: PageText,
): (
  one: PageBlock,
) => Pick<
  GalleyBlock,
  'key' | 'original' | 'readOnly' | 'putIn' | 'links' | 'behind' | 'isEdited' | 'linksLost'
> {
  const draft = draftOf(decisions)
  const seen = new Map<string, number>()
  return (one) => {
    const newBlock = one.byte === null ? null : newBlockAt(proof.changes, one.byte)
    if (newBlock !== null) {
      const part = seen.get(newBlock) === undefined ? 'text' : 'answer'
      seen.set(newBlock, 1)
      const [after, id] = newBlock.split('+') as [string, string]
      return {
        key: `${newBlock}${part === 'answer' ? ' answer' : ''}`,
        original: null,
        readOnly: null,
        putIn: { after, id, part },
        links: [],
        behind: Number(after.slice('after@'.length)),
        isEdited: true,
        linksLost: [],
      }
    }
    const byte = one.byte === null ? null : toSourceByte(proof.changes, one.byte)
    const atSource = byte === null ? undefined : before.byByte.get(byte)
    const key = atSource ? `${/^h[1-6]$/.test(one.block.tag) ? 'heading' : 'text'}@${byte}` : null
    const edit = key === null ? undefined : draft[key]
    const items = atSource?.items()
    return {
      key,
      original: items?.ok ? textOf(shownOf(items.items.items)) : null,
      readOnly: !atSource
        ? 'It is made by another edit of this page.'
        : items && !items.ok
          ? items.why
          : null,
      putIn: null,
      links: items?.ok ? linksOf(source, items.items, edit) : [],
      behind: atSource ? byte : null,
      isEdited: edit?.value !== undefined || (edit?.links ?? edit?.unlink ?? []).length > 0,
      linksLost:
        edit?.value !== undefined && items?.ok ? linksLost(source.text, items.items, edit.value) : [],
    }
  }
}

/** The links of a block as the draft leaves them. */
function linksOf(source: Source, { items }: Items, edit: Edit | undefined): BlockLink[] {
  const open = items.flatMap((item) =>
    item.kind === 'open' && item.element.tagName === 'a' && attribute(item.element, 'href') !== null
      ? [item]
      : [],
  )
  const bytes =
    open.length === 0
      ? []
      : toBytePlaces(
          source,
          open.map(({ start }) => start),
        )
  const own = open.flatMap(({ element }, i): BlockLink[] =>
    edit?.unlink?.includes(bytes[i]!)
      ? []
      : [{ words: wordsWithin(items, element), href: attribute(element, 'href')!, byte: bytes[i]! }],
  )
  return [...own, ...(edit?.links ?? []).map(({ phrase, href }) => ({ words: phrase, href, byte: null }))]
}

function wordsWithin(items: readonly Item[], element: Element): string {
  const isOf = (item: Item) => (item.kind === 'open' || item.kind === 'close') && item.element === element
  const within = items.slice(items.findIndex(isOf), items.findLastIndex(isOf))
  return fold(within.map((item) => (item.kind === 'text' ? item.value : '')).join(''))
}

function linksLost(text: string, items: Parameters<typeof editText>[1], wanted: string): string[] {
  const edit = editText(text, items, wanted, '<br>')
  return edit.ok ? edit.linksLost : []
}
