/** A page's structure in figures, for setting several side by side, and what all others have that one lacks. */
import { addressKey } from '../addresses/addresses.ts'
import { measure, type Slots } from '../measure/snippet.ts'
import { countGraphemes } from '../measure/width.ts'
import {
  descriptionOf,
  isEmptyHeading,
  outlineOf,
  titleOf,
  type Landmark,
  type PageFacts,
} from '../page/read/facts.ts'
import { typesDescribed } from '../structured-data/things.ts'
import { firstWords } from '../words/count-words.ts'
import { compileKeyword, findKeyword } from '../words/match.ts'
import { languageOf, wordsOf } from '../words/stem.ts'

export interface StructureHeading {
  level: number
  text: string
  landmark: Landmark | null
  /** Words of the section that it opens, to the next heading. */
  words: number
  hasKeyword: boolean
}
interface Wording {
  text: string
  px: number
  characters: number
}
export interface PageStructure {
  /** What the page is called beside the others: its path, or its address. */
  name: string
  headings: StructureHeading[]
  /** Words of main content, and those that stand before its first heading. */
  words: number
  lead: number
  /** H2s of the main content. */
  sections: number
  images: number
  imagesWithoutAlt: number
  /** Links to its own site, and to others. */
  linksWithin: number
  linksOut: number
  title: Wording | null
  description: Wording | null
  /** Types of the things that its JSON-LD describes, each once, in the order of their first mention. */
  types: string[]
  /** Where the phrase stands; null without one. */
  keyword: { text: string; places: string[]; inText: number } | null
}

export function structureOf(
  name: string,
  page: PageFacts,
  primary: string | undefined,
  { language, slots, leadWords }: { language: string | null; slots: Slots; leadWords: number },
): PageStructure {
  const keyword = primary ? compileKeyword(primary, page.lang ?? language) : null
  const has = (text: string) => keyword !== null && findKeyword(text, keyword).length > 0
  const outline = outlineOf(page).filter((h) => !isEmptyHeading(h))
  const title = titleOf(page)?.text ?? ''
  const description = descriptionOf(page)?.content ?? ''
  const wording = (text: string, role: 'title' | 'description') =>
    text === '' ? null : { text, px: measure(text, role, slots).px, characters: countGraphemes(text) }
  const places: [string, boolean][] = [
    ['title', has(title)],
    ['description', has(description)],
    ['H1', outline.some((h) => h.level === 1 && has(h.text))],
    ['H2', outline.some((h) => h.level === 2 && has(h.text))],
    [`first ${leadWords} words`, has(firstWords(page.main.text, leadWords))],
    ['alternative texts', page.images.some((i) => has(i.alt ?? ''))],
  ]
  const host = hostOf(page.url)
  const linked = page.links.flatMap(({ url }) => {
    const of = url === null ? null : hostOf(url)
    return of === null ? [] : [of]
  })
  return {
    name,
    headings: outline.map((h) => ({
      level: h.level,
      text: h.label || h.text,
      landmark: h.landmark,
      words: h.words,
      hasKeyword: has(h.label || h.text),
    })),
    words: page.main.words,
    lead: page.main.lead,
    sections: outline.filter((h) => h.level === 2 && h.inMain).length,
    images: page.images.length,
    imagesWithoutAlt: page.images.filter((i) => i.alt === null && !i.presentational && !i.named).length,
    linksWithin: linked.filter((of) => of === host).length,
    linksOut: linked.filter((of) => of !== host).length,
    title: wording(title, 'title'),
    description: wording(description, 'description'),
    types: typesDescribed(page),
    keyword: keyword && {
      text: keyword.text,
      places: places.filter(([, ok]) => ok).map(([place]) => place),
      inText: findKeyword(page.main.text, keyword).length,
    },
  }
}

/** The host of an address on the web; null for `mailto:` and the like. */
function hostOf(url: string): string | null {
  if (!/^https?:/i.test(url)) return null
  try {
    return new URL(addressKey(url)).host
  } catch {
    return null
  }
}

/** What all others have and ours has not. */
export interface Lacks {
  /** Words of headings, by their most usual form. */
  subjects: string[]
  /** Places where the phrase stands. */
  places: string[]
  /** Types of things described. */
  types: string[]
  /** Countable things of which ours has fewer than any of the others; `least` is the fewest of theirs. */
  fewer: { what: CountedName; ours: number; least: number }[]
}
export const counted = {
  words: 'words of main content',
  lead: 'words before the first heading',
  sections: 'sections (H2)',
  images: 'images',
  linksWithin: 'links within the site',
  linksOut: 'links to other sites',
} as const
export type CountedName = keyof typeof counted

/** Needs one other page at least; `lang` folds the words of headings. */
export function lacksOf(ours: PageStructure, others: readonly PageStructure[], lang: string | null): Lacks {
  const [first, ...rest] = others
  if (!first) return { subjects: [], places: [], types: [], fewer: [] }
  const ourSubjects = subjectsOf(ours, lang)
  const theirs = others.map((other) => subjectsOf(other, lang))
  const inAll = (list: string[], of: (structure: PageStructure) => readonly string[]) =>
    list.filter((item) => rest.every((other) => of(other).includes(item)) && !of(ours).includes(item))
  return {
    subjects: [...theirs[0]!]
      .filter(([stem]) => !ourSubjects.has(stem) && theirs.every((subjects) => subjects.has(stem)))
      .map(([, word]) => word),
    places: inAll(first.keyword?.places ?? [], (structure) => structure.keyword?.places ?? []),
    types: inAll(first.types, (structure) => structure.types),
    fewer: (Object.keys(counted) as CountedName[]).flatMap((what) => {
      const least = Math.min(...others.map((other) => other[what]))
      return ours[what] < least ? [{ what, ours: ours[what], least }] : []
    }),
  }
}

/** Content words of a page's headings by their stems, each with its first form in small letters; the menu's aside. */
function subjectsOf({ headings }: PageStructure, lang: string | null): Map<string, string> {
  const { stem, isStopWord } = languageOf(lang)
  const subjects = new Map<string, string>()
  for (const { text, landmark } of headings) {
    if (landmark === 'nav' || landmark === 'footer') continue
    for (const { word } of wordsOf(text)) {
      const key = stem(word)
      if (/\p{L}/u.test(word) && !isStopWord(word) && !subjects.has(key))
        subjects.set(key, word.toLowerCase())
    }
  }
  return subjects
}
