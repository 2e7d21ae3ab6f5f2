/**
 * What the site's pages speak of and link to: learnt page by page, kept while a page stays as it is, and asked of all at
 * once. The window learns what is missing in small portions, so that it can show how far it is and stop.
 */
import { mentionsIn, type Mention } from '../../core/keywords/mentions.ts'
import { namingPhrases, recurringPhrases } from '../../core/keywords/site-phrases.ts'
import {
  pageWords,
  suggestPages,
  type PageWords,
  type SuggestedPage,
} from '../../core/keywords/suggest-pages.ts'
import { newBlockAt, toSourceByte } from '../../core/page/proof.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { linkState, pageLinks, type LinkState, type PageLink } from '../../core/site/page-links.ts'
import { compileKeyword } from '../../core/words/match.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import { readDraft, type Reading } from '../../core/work/evaluate.ts'
import { current, readingFor, sourceFor, type Open } from './open-site.ts'

interface Learnt {
  /** The basis of the row: what was learnt holds while it stands. */
  basis: string | undefined
  words: PageWords
  naming: { key: string; phrase: string }[]
  links: PageLink[]
  /** By phrase and language: where the page speaks of it without a link. */
  mentions: Map<string, Mention[]>
}
const learntBySite = new WeakMap<Open, Map<PageId, Learnt>>()

/** What was learnt, whether it holds or not. */
function keptOf(open: Open): Map<PageId, Learnt> {
  let known = learntBySite.get(open)
  if (!known) learntBySite.set(open, (known = new Map()))
  return known
}

/** What was learnt of the open site's pages and holds still. */
export function learntOf(open: Open): Map<PageId, Learnt> {
  const known = keptOf(open)
  for (const [id, { basis }] of known) if (open.rows.get(id)?.basis !== basis) known.delete(id)
  return known
}

/** Which pages are to be learnt, for the first time or anew. */
export function pagesToLearn(): PageId[] {
  if (!current) return []
  const known = learntOf(current)
  return [...current.rows.keys()].filter((id) => !known.has(id))
}

/** A page of the open site and what was decided for it. */
export interface DecidedPage {
  page: PageId
  decisions: Decisions
}

/** Learns some pages, each read once; one that cannot be read is passed over. */
export async function learnPages(pages: DecidedPage[]): Promise<void> {
  const open = current
  if (!open) return
  await eachReading(open, pages, (reading) => learn(open, reading))
}

export function learn(open: Open, { identity, page }: Reading): void {
  const { id } = identity
  const { setting } = open
  const { language } = setting.style
  // Put in without a look at all others: this is done for every page.
  keptOf(open).set(id, {
    basis: open.rows.get(id)?.basis,
    words: pageWords(id, page, setting.base, language),
    naming: namingPhrases(page, language),
    links: pageLinks(page, setting.index),
    mentions: new Map(),
  })
}

/** Reads pages one after the other; a page that cannot be read is passed over. */
async function eachReading(
  open: Open,
  pages: readonly DecidedPage[],
  look: (reading: Reading) => void,
): Promise<void> {
  for (const { page: id, decisions } of pages) {
    const identity = open.pages.get(id)
    const source = identity && (await sourceFor(open, id))
    if (!source) continue
    onePage(() => {
      look(readDraft(identity, source, decisions, open.setting))
      return { ok: true, value: null }
    })
  }
}

/** Phrases that the pages learnt so far use themselves. */
export const sitePhrases = (most: number): { phrase: string; places: number }[] =>
  current
    ? recurringPhrases(
        [...learntOf(current).values()].map(({ naming }) => naming),
        most,
      )
    : []

/** For each phrase the pages that speak of it the most, of those learnt so far. */
export function suggestedPages(phrases: string[], most = 5): { phrase: string; pages: SuggestedPage[] }[] {
  if (!current) return []
  const words = [...learntOf(current).values()].map((l) => l.words)
  return phrases.map((phrase) => ({ phrase, pages: suggestPages(phrase, words, most) }))
}

/** A link from another page. */
export interface LinkFrom {
  from: PageId
  words: string
  where: PageLink['where']
}
export interface LinkTo extends PageLink {
  state: LinkState
}
export interface LinksView {
  /** Links that lead here, of the pages learnt so far. */
  from: LinkFrom[]
  /** Links of this page, as its draft leaves them. */
  to: LinkTo[]
}

/**
 * Pages whose marks hang on which keyword another page has: those that speak of the one it had or of the one it has now, and
 * those of which that is not known. None where mentions are not marked.
 */
export function pagesSpeakingOf(open: Open, phrases: readonly (string | null | undefined)[]): PageId[] {
  const { index, style } = open.setting
  const asked = phrases.filter((p) => p !== null && p !== undefined)
  if (!index.marksMentions || asked.length === 0) return []
  const known = learntOf(open)
  return [...open.rows.keys()].filter((id) => {
    const learnt = known.get(id)
    if (!learnt) return true
    return asked.some((phrase) => {
      const { stems } = compileKeyword(phrase, learnt.words.lang ?? style.language)
      return stems.every((stem) => learnt.words.stems.has(stem))
    })
  })
}

/** Who links to a page, and what it links to. */
export async function linksView(id: PageId, decisions: Decisions): Promise<LinksView | null> {
  const open = current
  const reading = await readingFor(id, decisions)
  if (!open || !reading) return null
  const { index } = open.setting
  const from: LinkFrom[] = []
  for (const [page, { links }] of learntOf(open))
    if (page !== id)
      for (const { to, words, where } of links) if (to === id) from.push({ from: page, words, where })
  const to = pageLinks(reading.page, index).map((link) => ({ ...link, state: linkState(link, index) }))
  return { from, to }
}

/** A mention of one page in the text of another, and the edit that would link it. */
export interface FoundMention extends Mention {
  /** The page in whose text it is, and the page that it speaks of. */
  on: PageId
  of: PageId
  /** The draft's key of the block. */
  key: string
  href: string
}

/**
 * Pages whose words have all of a phrase's and that do not link to its page in their text: where a mention may be. Of the pages learnt so
 * far; cheap, for no page is read.
 */
export function pagesToSearch(id: PageId, phrase: string): PageId[] {
  const open = current
  if (!open) return []
  const { style } = open.setting
  return [...learntOf(open).values()].flatMap(({ words, links }) => {
    if (words.id === id || links.some((link) => link.to === id && isInText(link))) return []
    const { stems } = compileKeyword(phrase, words.lang ?? style.language)
    return stems.length > 0 && stems.every((stem) => (words.stems.get(stem)?.count ?? 0) > 0)
      ? [words.id]
      : []
  })
}

/** Mentions of a page's phrase in the texts of other pages; what was found once is kept while those pages stay as they are. */
export async function mentionsOf(id: PageId, phrase: string, pages: DecidedPage[]): Promise<FoundMention[]> {
  const open = current
  const target = open?.rows.get(id)
  if (!open || !target) return []
  const known = learntOf(open)
  const unread = pages.filter(({ page }) => !known.get(page)?.mentions.has(phrase))
  await eachReading(open, unread, (reading) => {
    const learnt = known.get(reading.identity.id)
    learnt?.mentions.set(phrase, mentionsOn(reading, phrase))
  })
  return pages.flatMap(({ page }) =>
    (known.get(page)?.mentions.get(phrase) ?? []).map((m) => mentionFound(open, m, page, id)),
  )
}

/** Mentions of other pages' primary keywords in one page's text, as far as that does not link to them. */
export async function mentionsHere(id: PageId, decisions: Decisions): Promise<FoundMention[]> {
  const open = current
  const reading = await readingFor(id, decisions)
  if (!open || !reading) return []
  const { page, setting } = reading
  const lang = page.lang ?? setting.style.language
  const linked = new Set(
    pageLinks(page, setting.index)
      .filter(isInText)
      .map((link) => link.to),
  )
  const words = pageWords(id, page, setting.base, setting.style.language)
  const mentions: FoundMention[] = []
  for (const row of open.rows.values()) {
    if (!row.phrase || row.id === id || linked.has(row.id)) continue
    const { stems } = compileKeyword(row.phrase, lang)
    if (stems.length === 0 || !stems.every((stem) => (words.stems.get(stem)?.count ?? 0) > 0)) continue
    const [first] = mentionsOn(reading, row.phrase)
    if (first) mentions.push(mentionFound(open, first, id, row.id))
    if (mentions.length === MOST_HERE) break
  }
  return mentions
}
const MOST_HERE = 200

/** Mentions on a page, their blocks by their byte in the source; those in blocks that the draft puts in are passed over. */
function mentionsOn({ proof, page, setting }: Reading, phrase: string): Mention[] {
  const keyword = compileKeyword(phrase, page.lang ?? setting.style.language)
  return mentionsIn(proof.source, keyword).flatMap((mention) =>
    newBlockAt(proof.changes, mention.byte) === null
      ? [{ ...mention, byte: toSourceByte(proof.changes, mention.byte) }]
      : [],
  )
}

const mentionFound = (open: Open, mention: Mention, on: PageId, of: PageId): FoundMention => ({
  ...mention,
  on,
  of,
  key: `text@${mention.byte}`,
  href: pathFromRoot(open.rows.get(of)!.url),
})
/** A menu leads everywhere, and says nothing of what is read. */
const isInText = ({ where }: PageLink) => where === 'text' || where === 'heading'

/** An address within the site as links of its pages are written: from the root of its host. */
const pathFromRoot = (url: string): string => {
  const { pathname, search } = new URL(url)
  return pathname + search
}

export type { Mention, PageLink, SuggestedPage }
