/** Which page already speaks of a phrase the most: by its title, H1, address, headings and text, rare words weighing more. */
import { descriptionOf, outlineOf, titleOf, type PageFacts } from '../page/read/facts.ts'
import { contentHeadings, nameOf } from '../page/read/content-headings.ts'
import { shownImages } from '../page/read/shown-images.ts'
import type { PageId } from '../site/page-identity.ts'
import { segmentsOf } from '../site/path-below.ts'
import { compileKeyword } from '../words/match.ts'
import { languageOf, wordsOf } from '../words/stem.ts'

/** Where a word counts how much; all from memory, tried on the demo's phrases alone. */
const WEIGHTS = { title: 5, h1: 5, slug: 4, description: 2, heading: 2, alt: 1 } as const
type Field = keyof typeof WEIGHTS
const fields = Object.keys(WEIGHTS) as Field[]
const fieldNames: Record<Field, string> = {
  title: 'title',
  h1: 'H1',
  slug: 'address',
  description: 'description',
  heading: 'headings',
  alt: 'alternative texts',
}
/** A word in the text counts more the oftener it occurs, up to this. */
const MOST_OF_TEXT = 3

/** What is kept of a page: each word form, where it is, and how often in the text. */
export interface PageWords {
  id: PageId
  lang: string | null
  stems: Map<string, { fields: Set<Field>; count: number }>
}

export function pageWords(id: PageId, page: PageFacts, base: string, language: string | null): PageWords {
  const lang = page.lang ?? language
  const stemmer = languageOf(lang)
  const stems: PageWords['stems'] = new Map()
  const entry = (stem: string) => {
    let known = stems.get(stem)
    if (!known) stems.set(stem, (known = { fields: new Set(), count: 0 }))
    return known
  }
  const add = (field: Field, text: string | null | undefined) => {
    for (const { word } of wordsOf(text ?? '')) entry(stemmer.stem(word)).fields.add(field)
  }
  add('title', titleOf(page)?.text)
  add('description', descriptionOf(page)?.content)
  add(
    'slug',
    segmentsOf(page, { base })
      .join(' ')
      .replace(/[-_.+]/g, ' '),
  )
  for (const h of outlineOf(page)) if (h.level === 1) add('h1', nameOf(h))
  for (const h of contentHeadings(page)) if (h.level > 1) add('heading', nameOf(h))
  for (const { alt } of shownImages(page)) add('alt', alt)
  for (const { word } of wordsOf(page.main.text)) entry(stemmer.stem(word)).count++
  return { id, lang, stems }
}

export interface SuggestedPage {
  id: PageId
  /** 0 for no word of the phrase anywhere, 1 for all of them everywhere. */
  score: number
  /** Where the page speaks of it, in words. */
  why: string
}

/** The pages that speak of a phrase the most, the best first. */
export function suggestPages(phrase: string, pages: readonly PageWords[], most = 5): SuggestedPage[] {
  const all: SuggestedPage[] = []
  const known = new Map<string | null, { stems: string[]; weights: number[] }>()
  for (const page of pages) {
    let wanted = known.get(page.lang)
    if (!wanted) {
      const { stems } = compileKeyword(phrase, page.lang)
      wanted = { stems, weights: stems.map((stem) => rarity(stem, pages)) }
      known.set(page.lang, wanted)
    }
    const scored = scoreOf(page, wanted.stems, wanted.weights)
    if (scored) all.push(scored)
  }
  return all.sort((a, b) => b.score - a.score).slice(0, most)
}

/** How much a word tells one page from the others: Spärck Jones 1972, inverse document frequency. */
function rarity(stem: string, pages: readonly PageWords[]): number {
  let having = 0
  for (const page of pages) if (page.stems.has(stem)) having++
  return Math.log(1 + pages.length / (1 + having))
}

const MOST = fields.reduce((sum, field) => sum + WEIGHTS[field], 0) + MOST_OF_TEXT

function scoreOf(
  page: PageWords,
  stems: readonly string[],
  weights: readonly number[],
): SuggestedPage | null {
  let score = 0
  let covered = 0
  let whole = 0
  const inFields = new Map<Field, number>()
  for (const [i, stem] of stems.entries()) {
    const weight = weights[i]!
    whole += weight
    const uses = page.stems.get(stem)
    if (!uses) continue
    covered += weight
    let ofStem = Math.min(MOST_OF_TEXT, Math.log2(1 + uses.count))
    for (const field of uses.fields) {
      ofStem += WEIGHTS[field]
      inFields.set(field, (inFields.get(field) ?? 0) + 1)
    }
    score += (weight * ofStem) / MOST
  }
  if (covered === 0 || whole === 0) return null
  const inAll = fields.filter((field) => inFields.get(field) === stems.length)
  const inSome = fields.filter((field) => inFields.has(field) && !inAll.includes(field))
  const said = (list: Field[]) => list.map((field) => fieldNames[field]).join(', ')
  const why =
    inAll.length > 0
      ? `in its ${said(inAll)}`
      : inSome.length > 0
        ? `partly in its ${said(inSome)}`
        : 'in its text'
  // A page that has half of the words speaks of something else.
  return { id: page.id, score: (score / whole) * (covered / whole), why }
}
