/** Where a page stands in the results for a phrase, and whose wording is shown there. */
import { sameAddress } from '../addresses/addresses.ts'
import { fold } from '../strings.ts'
import type { ResultsAnswer } from './line-up.ts'

/** What of a page's own wording the results show: all of it, one part, or none. */
export type WhoseWording = 'own' | 'own title' | 'own description' | 'another'

export interface OwnResult {
  /** From 1. */
  position: number
  wording: WhoseWording
  title: string
  description: string
}

/** `own` holds the page's wordings that may be live: as it was taken in, and as it is drafted. Null where the page is not among the results. */
export function ownResult(
  { results }: ResultsAnswer,
  addresses: readonly string[],
  own: readonly { title: string | null; description: string | null }[],
): OwnResult | null {
  const ourResult = results
    .filter(({ url }) => addresses.some((address) => sameAddress(address, url)))
    .sort((a, b) => a.position - b.position)[0]
  if (!ourResult) return null
  const isOwn = (shown: string, texts: (string | null)[]) =>
    texts.some((text) => text !== null && startsAlike(fold(shown), fold(text)))
  const title = isOwn(
    ourResult.title,
    own.map((o) => o.title),
  )
  const description = isOwn(
    ourResult.description,
    own.map((o) => o.description),
  )
  return {
    position: ourResult.position,
    wording: title ? (description ? 'own' : 'own title') : description ? 'own description' : 'another',
    title: ourResult.title,
    description: ourResult.description,
  }
}

/** Results may show a text cut: then what is left of it counts. */
function startsAlike(shown: string, text: string): boolean {
  const left = shown.replace(/\s*(?:…|\.\.\.)$/, '')
  return left === text || (left !== shown && left !== '' && text.startsWith(left))
}
