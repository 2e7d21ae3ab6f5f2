/** The galley's view of a page: its text block by block, as the draft leaves it. */
import { compileKeyword, findKeyword, type Keywords } from '../../core/words/match.ts'
import { countWords } from '../../core/words/count-words.ts'
import { editText } from '../../core/page/text/edit-text.ts'
import { rangeOf } from '../../core/page/text/items.ts'
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
  /** Which of the view's phrases. */
  phrase: number
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
  isMain: boolean
  words: number
  /** Why its words cannot be changed; null where they can. */
  readOnly: string | null
  putIn: PutIn | null
  links: readonly BlockLink[]
  /** The byte of the block of the source that another can be put behind: this one, or what it stands behind; null where none can. */
  behind: number | null
  hits: readonly Hit[]
  isEdited: boolean
  /** Links that go with the words that are taken out. */
  linksLost: readonly string[]
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
  /** Where each block begins and ends in the proof's text, UTF-16 units; null where it has no place. */
  starts: (number | null)[]
  ends: (number | null)[]
  phrases: PhraseCount[]
  words: number
  leadWords: number
}
/** A view as it is sent: a block that is as it was in the answer before is its number there. */
export interface GalleyAnswer extends Omit<GalleyView, 'blocks'> {
  /** Counts the answers. */
  edition: number
  blocks: (GalleyBlock | number)[]
}

let edition = 0
/** The blocks of the answer before. */
let sent: { edition: number; blocks: GalleyBlock[] } = { edition: 0, blocks: [] }

/**
 * `helpers` are words that recur among the site's phrases beside the page's own; `have` is the edition that the window
 * holds. Null for what is no page of the site.
 */
export async function galleyOf(
  id: PageId,
  decisions: Decisions,
  helpers: readonly string[] = [],
  have: number | null = null,
): Promise<GalleyAnswer | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const view = galleyView(reading, helpers)
  const before = have === sent.edition ? sent.blocks : []
  const numbers = new Map(before.map((block, i) => [block, i]))
  const sameKey = new Map(before.map((block) => [block.key, block]))
  const blocks = view.blocks.map((block) => {
    const known = sameKey.get(block.key)
    return known && isSame(known, block) ? known : block
  })
  sent = { edition: ++edition, blocks }
  return { ...view, edition, blocks: blocks.map((block) => numbers.get(block) ?? block) }
}

/** Whether two blocks are alike: lists that are kept from one answer to the next are the same lists. */
const isSame = (a: GalleyBlock, b: GalleyBlock): boolean =>
  (Object.keys(b) as (keyof GalleyBlock)[]).every((name) => a[name] === b[name])

/** What a block's words alone say, and of what it was read; kept, for with every key all other blocks stay. */
interface Known {
  /** The tree's own text and the source of it. */
  of: { block: string; written: string }
  text: string
  words: number
  /** By what was looked for. */
  hits: { of: string; hits: readonly Hit[] }
}
/** Of the page that was looked at last, by the blocks' keys. */
let known = new Map<string, Known>()

export function galleyView(reading: Reading, helpers: readonly string[] = []): GalleyView {
  const { proof, page, source, decisions, setting } = reading
  const style = styleFor(setting.style, page.url)
  const lang = page.lang ?? style.language
  const phrases = phrasesToFind(keywordsOf(decisions), helpers, lang)
  const lookedFor = JSON.stringify([lang, phrases.map((p) => [p.phrase, p.kind])])
  const before = pageText(source)
  const now = pageText(proof.source)
  const isMainBlock = isOfMain(now.blocks)
  const addressed = addressing(reading, before)
  const view: Pick<GalleyView, 'blocks' | 'starts' | 'ends'> = { blocks: [], starts: [], ends: [] }
  const kept = new Map<string, Known>()
  let words = 0
  let isLeadOver = false
  for (const one of now.blocks) {
    const { block } = one
    const range = rangeOf(block, now.parsed, proof.source.text.length)
    const address = addressed(one)
    const said = knownOf(one, range, proof.source.text, address.key)
    if (address.key !== null) kept.set(address.key, said)
    if (said.hits.of !== lookedFor) said.hits = { of: lookedFor, hits: hitsIn(said.text, phrases) }
    const { hits } = said.hits
    const isMain = isMainBlock(one)
    if (isMain) {
      words += said.words
      for (const hit of hits) phrases[hit.phrase]!.count++
    }
    const endsLead: boolean = isMain && !isLeadOver && words >= style.limits.leadWords
    isLeadOver ||= endsLead
    view.starts.push(block.isStretch ? (range?.[0] ?? block.at) : block.at)
    view.ends.push(range?.[1] ?? block.element.place?.closes ?? null)
    view.blocks.push({
      // Each by its name: to spread them first made this the slowest line of a key.
      key: address.key,
      original: address.original,
      readOnly: address.readOnly,
      putIn: address.putIn,
      links: address.links,
      behind: address.behind,
      isEdited: address.isEdited,
      linksLost: address.linksLost,
      tag: block.tag,
      className: attribute(block.element, 'class') ?? '',
      text: said.text,
      isMain,
      words: said.words,
      hits,
      endsLead,
    })
  }
  known = kept
  return {
    ...view,
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

/** What a block says: the same source and the same tree of it say the same as before. */
function knownOf(one: PageBlock, range: [number, number] | null, source: string, key: string | null): Known {
  const { block } = one
  const written = range === null ? '' : source.slice(range[0], range[1])
  const before = key === null ? undefined : known.get(key)
  if (before && before.of.written === written && before.of.block === block.text) return before
  const text = textOfBlock(one)
  return { of: { block: block.text, written }, text, words: countWords(text), hits: { of: '', hits: [] } }
}

const textOfBlock = (one: PageBlock): string => {
  const items = one.items()
  return items.ok ? textOf(shownOf(items.items.items)) : one.block.text
}

function hitsIn(text: string, phrases: ReturnType<typeof phrasesToFind>): Hit[] {
  return phrases.flatMap(({ compiled, kind }, phrase) =>
    findKeyword(text, compiled).map(({ start, end }) => ({ from: start, to: end, kind, phrase })),
  )
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
        links: NONE,
        behind: Number(after.slice('after@'.length)),
        isEdited: true,
        linksLost: NONE,
      }
    }
    const byte = one.byte === null ? null : toSourceByte(proof.changes, one.byte)
    const atSource = byte === null ? undefined : before.byByte.get(byte)
    const key = atSource ? `${/^h[1-6]$/.test(one.block.tag) ? 'heading' : 'text'}@${byte}` : null
    const edit = key === null ? undefined : draft[key]
    const was = atSource && originalOf(atSource)
    const items = edit?.value === undefined ? undefined : atSource?.items()
    return {
      key,
      original: was?.text ?? null,
      readOnly: was ? was.why : 'It is made by another edit of this page.',
      putIn: null,
      links: atSource ? linksLeft(links.get(atSource) ?? NONE, edit) : NONE,
      behind: atSource ? byte : null,
      isEdited: edit?.value !== undefined || (edit?.links ?? edit?.unlink ?? []).length > 0,
      linksLost: items?.ok ? linksLost(source.text, items.items, edit!.value!) : NONE,
    }
  }
}

const NONE: readonly never[] = []

const originals = new WeakMap<PageBlock, { text: string | null; why: string | null }>()
/** What a block of a source says, or why it cannot be changed; worked out once. */
function originalOf(one: PageBlock): { text: string | null; why: string | null } {
  let original = originals.get(one)
  if (!original) {
    const items = one.items()
    original = items.ok
      ? { text: textOf(shownOf(items.items.items)), why: null }
      : { text: null, why: items.why }
    originals.set(one, original)
  }
  return original
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
  const placedLinks: { one: PageBlock; link: BlockLink; start: number }[] = []
  for (const one of blocks) {
    const items = one.items()
    const open: { link: BlockLink; words: string[] }[] = []
    for (const item of items.ok ? items.items.items : []) {
      if (item.kind === 'text') open.at(-1)?.words.push(item.value)
      if ((item.kind !== 'open' && item.kind !== 'close') || item.element.tagName !== 'a') continue
      if (item.kind === 'open') {
        const link: BlockLink = { words: '', href: attribute(item.element, 'href') ?? '', byte: null }
        open.push({ link, words: [] })
        placedLinks.push({ one, link, start: item.start })
      } else {
        const closed = open.pop()
        if (closed) closed.link.words = fold(closed.words.join(''))
      }
    }
  }
  placedLinks.sort((a, b) => a.start - b.start)
  const bytes = toBytePlaces(
    source,
    placedLinks.map(({ start }) => start),
  )
  const links = new Map<PageBlock, BlockLink[]>()
  for (const [i, { one, link }] of placedLinks.entries()) {
    if (link.href === '') continue
    const ofBlock = links.get(one)
    const placed = { ...link, byte: bytes[i]! }
    if (ofBlock) ofBlock.push(placed)
    else links.set(one, [placed])
  }
  return links
}

/** Of a block's links those that the draft leaves, and those that it puts in. */
function linksLeft(own: readonly BlockLink[], edit: Edit | undefined): readonly BlockLink[] {
  if (!edit?.unlink && !edit?.links) return own
  const gone = new Set(edit.unlink)
  return [
    ...own.filter(({ byte }) => !gone.has(byte!)),
    ...(edit.links ?? []).map(({ phrase, href }) => ({ words: phrase, href, byte: null })),
  ]
}

function linksLost(text: string, items: Parameters<typeof editText>[1], wanted: string): string[] {
  const edit = editText(text, items, wanted, '<br>')
  return edit.ok ? edit.linksLost : []
}
