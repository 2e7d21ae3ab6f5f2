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
import { toSourceByte } from '../../core/page/proof.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { pageLinks, type PageLink } from '../../core/site/page-links.ts'
import { compileKeyword } from '../../core/words/match.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import { readDraft, type Reading } from '../../core/work/evaluate.ts'
import { current, sourceFor, type Open } from './open-site.ts'

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

/** What was learnt of the open site's pages and holds still. */
export function learntOf(open: Open): Map<PageId, Learnt> {
  let known = learntBySite.get(open)
  if (!known) learntBySite.set(open, (known = new Map()))
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
  learntOf(open).set(id, {
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

export type { Mention, PageLink, SuggestedPage }
