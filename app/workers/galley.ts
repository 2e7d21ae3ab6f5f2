/** The galley's view of a page: its text block by block, as the draft leaves it. */
import { compileKeyword, findKeyword, type Keywords } from '../../core/words/match.ts'
import { countWords } from '../../core/words/count-words.ts'
import type { Landmark } from '../../core/page/read/facts.ts'
import { editText } from '../../core/page/text/edit-text.ts'
import { isOfMain, pageText, type PageBlock, type PageText } from '../../core/page/text/page-text.ts'
import { attribute } from '../../core/page/read/parse.ts'
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
  const seen = new Set<string>()
  const links = linksOfSource(source, before)
  return (one) => {
    const newBlock = one.byte === null ? null : newBlockAt(proof.changes, one.byte)
    if (newBlock !== null) {
      const part = seen.has(newBlock) ? 'answer' : 'text'
      seen.add(newBlock)
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
      links: atSource ? linksLeft(links.get(atSource) ?? [], edit) : [],
      behind: atSource ? byte : null,
      isEdited: edit?.value !== undefined || (edit?.links ?? edit?.unlink ?? []).length > 0,
      linksLost:
        edit?.value !== undefined && items?.ok ? linksLost(source.text, items.items, edit.value) : [],
    }
  }
}

const knownLinks = new WeakMap<Source, Map<PageBlock, BlockLink[]>>()
/** The links of a source, found once: it never changes. */
function linksOfSource(source: Source, text: PageText): Map<PageBlock, BlockLink[]> {
  let links = knownLinks.get(source)
  if (!links) knownLinks.set(source, (links = linksByBlock(source, text)))
  return links
}

/** The links of a block of the source, each with its words and the byte of its start tag. */
function linksByBlock(source: Source, { blocks }: PageText): Map<PageBlock, BlockLink[]> {
  const found: { one: PageBlock; link: BlockLink; start: number }[] = []
  for (const one of blocks) {
    const items = one.items()
    const open: { link: BlockLink; words: string[] }[] = []
    for (const item of items.ok ? items.items.items : []) {
      if (item.kind === 'text') open.at(-1)?.words.push(item.value)
      if ((item.kind !== 'open' && item.kind !== 'close') || item.element.tagName !== 'a') continue
      if (item.kind === 'open') {
        const link: BlockLink = { words: '', href: attribute(item.element, 'href') ?? '', byte: null }
        open.push({ link, words: [] })
        found.push({ one, link, start: item.start })
      } else {
        const closed = open.pop()
        if (closed) closed.link.words = fold(closed.words.join(''))
      }
    }
  }
  found.sort((a, b) => a.start - b.start)
  const bytes = toBytePlaces(
    source,
    found.map(({ start }) => start),
  )
  const links = new Map<PageBlock, BlockLink[]>()
  for (const [i, { one, link }] of found.entries()) {
    if (link.href === '') continue
    const own = links.get(one)
    const placed = { ...link, byte: bytes[i]! }
    if (own) own.push(placed)
    else links.set(one, [placed])
  }
  return links
}

/** Of a block's links those that the draft leaves, and those that it puts in. */
function linksLeft(own: readonly BlockLink[], edit: Edit | undefined): BlockLink[] {
  const gone = new Set(edit?.unlink)
  return [
    ...own.filter(({ byte }) => !gone.has(byte!)),
    ...(edit?.links ?? []).map(({ phrase, href }) => ({ words: phrase, href, byte: null })),
  ]
}

function linksLost(text: string, items: Parameters<typeof editText>[1], wanted: string): string[] {
  const edit = editText(text, items, wanted, '<br>')
  return edit.ok ? edit.linksLost : []
}
