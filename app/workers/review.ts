/** Pages before and after, for whoever looks at them before they go out. */
import { reviewOf, type Review } from '../../core/exchange/review.ts'
import type { Wording } from '../../core/exchange/approval.ts'
import type { Slots } from '../../core/measure/snippet.ts'
import { descriptionOf, titleOf, type PageFacts } from '../../core/page/read/facts.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { pathOf, type PageId } from '../../core/site/page-identity.ts'
import { keywordsOf, type Decisions } from '../../core/work/decisions.ts'
import { readingFor } from './open-site.ts'

export interface PageReview extends Review {
  path: string
  lang: string | null
  before: Wording
  after: Wording
  slots: Slots
  keywords: string[]
  /** Edits that could not be made, each with the reason. */
  refused: string[]
}

/** Null for a page that is no longer there. */
export async function reviewPage(id: PageId, decisions: Decisions): Promise<PageReview | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const { before, page, proof, identity, setting } = reading
  const wording = (p: PageFacts): Wording => ({
    title: titleOf(p)?.text ?? '',
    description: descriptionOf(p)?.content ?? '',
    url: p.url,
  })
  const keywords = keywordsOf(decisions)
  return {
    ...reviewOf(before, page),
    path: pathOf(identity),
    lang: page.lang,
    before: wording(before),
    after: wording(page),
    slots: styleFor(setting.style, page.url).slots,
    keywords: keywords ? [keywords.primary, ...keywords.secondary].filter(Boolean) : [],
    refused: proof.refused.map((r) => r.why),
  }
}

/** The page's source as it was taken in, and as it would go out. */
export async function sourcesOf(
  id: PageId,
  decisions: Decisions,
): Promise<{ before: string; after: string } | null> {
  const reading = await readingFor(id, decisions)
  return reading && { before: reading.source.text, after: reading.proof.source.text }
}
