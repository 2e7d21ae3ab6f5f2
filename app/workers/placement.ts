/** Where a page has its primary phrase, in one line of words. */
import { compileKeyword } from '../../core/words/match.ts'
import { placementInWords, placementOf } from '../../core/keywords/placement.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { keywordsOf, type Decisions } from '../../core/work/decisions.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { readingFor } from './open-site.ts'

/** Null for a page without a primary phrase. */
export async function placementLine(id: PageId, decisions: Decisions): Promise<string | null> {
  const primary = keywordsOf(decisions)?.primary
  const reading = primary ? await readingFor(id, decisions) : null
  if (!primary || !reading) return null
  const { page, setting } = reading
  const style = styleFor(setting.style, page.url)
  const { leadWords } = style.limits
  const keyword = compileKeyword(primary, page.lang ?? style.language)
  return placementInWords(placementOf(page, keyword, { base: setting.base, leadWords }).placement, leadWords)
}
