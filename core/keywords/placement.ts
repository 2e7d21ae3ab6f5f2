/** Where a page has a phrase and where it has not, of all the places where it counts. */
import { descriptionOf, isEmptyHeading, outlineOf, titleOf, type PageFacts } from '../page/read/facts.ts'
import { contentHeadings, nameOf } from '../page/read/content-headings.ts'
import { shownImages } from '../page/read/shown-images.ts'
import { segmentsOf } from '../site/path-below.ts'
import { firstWords } from '../words/count-words.ts'
import { findKeyword, hasKeyword, type Keyword } from '../words/match.ts'
import { isInSegments } from './in-slug.ts'

/** In the order in which they are said. */
export const places = ['title', 'description', 'slug', 'h1', 'h2', 'lead', 'body', 'alt'] as const
export type PlaceName = (typeof places)[number]
/** null: the page has no such thing. */
export type Placement = Record<PlaceName, boolean | null>

export interface Placed {
  placement: Placement
  /** Matches in the main content. */
  matches: number
  /** Matches times the phrase's words, in per cent of the words of the main content; 0 for a page without any. */
  density: number
}

/** `leadWords`: how many of the first words are the lead. */
export function placementOf(
  page: PageFacts,
  keyword: Keyword,
  { base, leadWords }: { base: string; leadWords: number },
): Placed {
  const inText = (text: string | null | undefined) => (text ? hasKeyword(text, keyword) : null)
  const inAny = (texts: string[]) =>
    texts.length === 0 ? null : texts.some((text) => hasKeyword(text, keyword))
  const first = outlineOf(page)
    .filter((h) => h.level === 1 && !isEmptyHeading(h))
    .map(nameOf)
  const second = contentHeadings(page)
    .filter((h) => h.level === 2)
    .map(nameOf)
  const segments = segmentsOf(page, { base })
  const { text, words } = page.main
  const matches = findKeyword(text, keyword).length
  return {
    placement: {
      title: inText(titleOf(page)?.text),
      description: inText(descriptionOf(page)?.content),
      slug: segments.length === 0 ? null : isInSegments(segments, keyword),
      // Several that are one headline carry it together.
      h1: first.length === 0 ? null : inAny(first) || hasKeyword(first.join(' '), keyword),
      h2: inAny(second),
      lead: text === '' ? null : hasKeyword(firstWords(text, leadWords), keyword),
      body: text === '' ? null : matches > 0,
      alt: inAny(shownImages(page).flatMap(({ alt }) => (alt?.trim() ? [alt] : []))),
    },
    matches,
    density: words === 0 ? 0 : (100 * matches * keyword.stems.length) / words,
  }
}

const names: Record<PlaceName, string> = {
  title: 'title',
  description: 'description',
  slug: 'slug',
  h1: 'H1',
  h2: 'H2',
  lead: 'first 100 words',
  body: 'text',
  alt: 'alternative texts',
}

/** "title, slug, first 100 words; not in: H2, text"; what the page has none of is left out. */
export function placementInWords(placement: Placement, leadWords = 100): string {
  const named = (place: PlaceName) => (place === 'lead' ? `first ${leadWords} words` : names[place])
  const inPlaces = places.filter((place) => placement[place] === true).map(named)
  const missing = places.filter((place) => placement[place] === false).map(named)
  if (inPlaces.length === 0) return missing.length === 0 ? '' : `nowhere: not in ${missing.join(', ')}`
  return missing.length === 0 ? inPlaces.join(', ') : `${inPlaces.join(', ')}; not in: ${missing.join(', ')}`
}
