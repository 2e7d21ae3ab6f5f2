/** A page's title as a pattern has it: the page's own words, and around them what the pattern puts there. */
import type { HouseStyle } from '../../rules/house-style.ts'
import { inPattern, pageWords } from '../../wording/patterns.ts'
import { fillTokens, type TokenValues } from '../../wording/tokens.ts'

export type PatternTitle =
  /** `value` as it is kept, tokens to be filled; `text` as it reads now. */
  { ok: true; value: string; text: string } | { ok: false; why: string }

/** `typed` is the title as it stands, tokens and all; `style` the house's as the title was written in it. */
export function titleInPattern(
  pattern: string,
  { typed, h1 }: { typed: string; h1: string | null },
  values: TokenValues,
  { titlePattern, siteName }: Pick<HouseStyle, 'titlePattern' | 'siteName'>,
): PatternTitle {
  const words =
    pageWords(pageWords(typed, titlePattern, { ...values, site: siteName }), pattern, values) || h1 || ''
  if (words === '' && pattern.includes('{page}')) return { ok: false, why: 'neither a title nor an H1' }
  const value = inPattern(pattern, words)
  const { text, unfilled } = fillTokens(value, values)
  return unfilled.length > 0 ? { ok: false, why: nothingFor(unfilled) } : { ok: true, value, text }
}

/** Which tokens of a page cannot be filled, in words. */
export const nothingFor = (unfilled: readonly string[]): string =>
  `nothing for ${unfilled.map((token) => `{${token}}`).join(', ')}`
