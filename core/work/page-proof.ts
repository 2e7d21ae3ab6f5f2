/**
 * The proof of a page in its site: the one function that makes it. The desk, the ledger, the review, the hand-off, the
 * approval file and `quill` all show or write what comes of it.
 */
import { type PageMoves } from '../addresses/page-moves.ts'
import { addressOf } from '../addresses/addresses.ts'
import { outlineItems, overTemplates, templateDraft, type OutlineItem } from '../headings/template-rules.ts'
import type { Draft } from '../page/edits/draft.ts'
import { applyDraft, type Proof } from '../page/proof.ts'
import { descriptionOf, titleOf, type PageFacts } from '../page/read/facts.ts'
import { readPage } from '../page/read/read-page.ts'
import type { Source } from '../page/source/source.ts'
import { styleFor } from '../rules/house-style.ts'
import { placeName } from '../rules/resolve.ts'
import type { Moves } from '../site/moves.ts'
import { pathOf, type PageIdentity } from '../site/page-identity.ts'
import { draftHasTokens, fillDraft, followDraft, tokenValues } from '../site/page-tokens.ts'
import { siteSideOf } from '../site/site-side.ts'
import { followPage, hasBuilt, withoutBuilt } from '../structured-data/follow.ts'
import type { TokenValues } from '../wording/tokens.ts'
import { draftOf, followOf, type Decisions } from './decisions.ts'
import { addressesFor, siteNameOf, slugPath, type SiteSetting } from './setting.ts'

/** What a file at a path from the site's root needs to follow the moves; null where nothing moves. */
export function pageMovesFor(path: string, moves: Moves, base: string): PageMoves | null {
  if (moves.paths.size === 0) return null
  return {
    from: addressOf(path, base),
    to: addressOf(moves.paths.get(path) ?? path, base),
    addresses: moves.addresses,
  }
}

/** What a page needs to follow the moves; null where nothing moves. One at an address that no file has stays where it is. */
function movesOfPage(page: PageIdentity, { moves, base, root }: SiteSetting): PageMoves | null {
  if (moves.paths.size === 0) return null
  const path = slugPath(page, { root, base })
  return path === null
    ? { from: page.url, to: page.url, addresses: moves.addresses }
    : pageMovesFor(path, moves, base)
}

/** A page's draft with what the site's rules for many pages make of it below. */
export function wholeDraft(
  page: PageIdentity,
  source: Source,
  decisions: Decisions,
  setting: SiteSetting,
): Draft {
  const draft = draftOf(decisions)
  if (setting.templates.length === 0) return draft
  return overTemplates(draft, templateDraft(itemsOf(page, source, setting), setting.templates, page.id))
}

const outlines = new WeakMap<Source, OutlineItem[]>()
/** What rules for many pages look at in a source, found once: it never changes. */
export function itemsOf(page: PageIdentity, source: Source, setting: SiteSetting): OutlineItem[] {
  let items = outlines.get(source)
  if (!items) {
    items = outlineItems(source, sourceFacts(page, source, setting))
    outlines.set(source, items)
  }
  return items
}

const factsOfSources = new WeakMap<Source, { main: string | null; facts: PageFacts }>()
/** The facts of a page as it was taken in, read once: a source never changes. */
export function sourceFacts(page: PageIdentity, source: Source, { style }: SiteSetting): PageFacts {
  const known = factsOfSources.get(source)
  if (known?.main === style.main) return known.facts
  const facts = readPage(source, { path: pathOf(page), url: page.url, main: style.main })
  factsOfSources.set(source, { main: style.main, facts })
  return facts
}

/** A page as it is handed off: its draft with tokens filled and metas that follow, and its addresses following the moves. */
export function pageProof(
  page: PageIdentity,
  source: Source,
  decisions: Decisions,
  setting: SiteSetting,
): Proof {
  const draft = filledDraft(page, source, decisions, setting)
  const pageMoves = movesOfPage(page, setting)
  return applyDraft(
    source,
    hasBuilt(draft) ? followedData(page, source, draft, pageMoves, setting) : draft,
    pageMoves,
  )
}

/** The whole draft, its tokens filled, and the metas that follow the title or the description written like them. */
function filledDraft(page: PageIdentity, source: Source, decisions: Decisions, setting: SiteSetting): Draft {
  const typed = wholeDraft(page, source, decisions, setting)
  const follow = followOf(decisions)
  if (!draftHasTokens(typed) && follow.length === 0) return typed
  const before = sourceFacts(page, source, setting)
  const filled = fillDraft(typed, valuesFor(page, before, source, typed, setting))
  return followDraft(filled, follow, {
    title: titleOf(before)?.text ?? null,
    description: descriptionOf(before)?.content ?? null,
  })
}

/** The draft with the data that was built from the page written anew from the page as the rest of the draft leaves it. */
function followedData(
  page: PageIdentity,
  source: Source,
  draft: Draft,
  pageMoves: PageMoves | null,
  setting: SiteSetting,
): Draft {
  const { url, oldUrl } = addressesFor(page, setting)
  const rest = applyDraft(source, withoutBuilt(draft), pageMoves)
  const facts =
    rest.source === source && url === oldUrl
      ? sourceFacts(page, source, setting)
      : readPage(rest.source, { path: pathOf(page), url, main: setting.style.main })
  return followPage(
    draft,
    facts,
    rest.source.text,
    (start) => placeName(rest, start),
    siteSideOf(facts, setting.index, siteNameOf(setting)),
    setting.style.language ?? 'en',
  )
}

/** Token values of a page; headings as the draft leaves them, where it changes any. */
function valuesFor(
  page: PageIdentity,
  before: PageFacts,
  source: Source,
  draft: Draft,
  setting: SiteSetting,
): TokenValues {
  const { url } = addressesFor(page, setting)
  const headings = Object.fromEntries(Object.entries(draft).filter(([key]) => key.startsWith('heading@')))
  const facts =
    Object.keys(headings).length > 0
      ? readPage(applyDraft(source, headings).source, { path: pathOf(page), url })
      : { ...before, url }
  return tokenValues(facts, {
    site: setting.index,
    style: styleFor(setting.style, url),
    date: setting.date,
  })
}

/** Whether a page's proof depends on what other pages say: a name of its section, of its site, of the pages above. */
export const looksAtOthers = (decisions: Decisions): boolean => {
  const draft = draftOf(decisions)
  return draftHasTokens(draft) || hasBuilt(draft)
}
