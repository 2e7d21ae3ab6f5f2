/** What the rules need to know of a page, each fact with its place in the decoded text (UTF-16 units). */
import { sameAddress } from '../../addresses/addresses.ts'
import type { DeclaredBy } from '../source/encoding.ts'
import { headerRobots, type Served } from '../source/served.ts'
import type { ParseError } from './parse.ts'

/** `end` is null where only the start is known. */
export interface Place {
  start: number
  end: number | null
}

export type Landmark = 'header' | 'nav' | 'main' | 'aside' | 'footer' | 'search'

export interface TextFact extends Place {
  text: string
  /** Whether the element is in the head of the parsed tree. */
  inHead: boolean
}
export interface MetaFact extends Place {
  /** The `name`, `property` or `http-equiv`, in lower case. */
  name: string
  content: string
  inHead: boolean
}
export interface LinkFact extends Place {
  /** As written, trimmed. */
  href: string
  /** Resolved against the base; null where it is no URL. */
  url: string | null
  inHead: boolean
}
export interface HeadingFact extends Place {
  level: number
  /** As shown: white space folded, images by their alternative text. */
  text: string
  landmark: Landmark | null
  className: string
  id: string
  /** `aria-label`, which names the heading instead of its text. */
  label: string
  /** Not a heading by its tag (`role="heading"`), or a tag that a role takes out of the outline. */
  role: string | null
  hidden: boolean
  /** End of the start tag, and start of its own end tag. */
  startEnd: number
  endStart: number | null
  /** Nothing but white space stands between the heading before it and this one. */
  adjacent: boolean
  /** The tag in lower case: `h2`, or any other with `role="heading"`. */
  tag: string
  /** `aria-level` as written. */
  ariaLevel: string | null
  /** Alternative texts of images within it; they are part of `text`. */
  images: string[]
  /** Start of the `header`, the `hgroup` or the wrapper of headings only that it stands in directly. */
  group: number | null
  /** Whether it stands in the main content. */
  inMain: boolean
  /** Words of visible text from here to the next heading. */
  words: number
}
/** A short paragraph or div that is no heading and looks like one. */
export interface LookAlikeFact extends Place {
  tag: 'p' | 'div'
  text: string
  className: string
  /** What makes it look so. */
  by: 'bold' | 'class' | 'size'
  startEnd: number
  endStart: number | null
}
export interface LandmarkFact extends Place {
  landmark: Landmark
  label: string
  hidden: boolean
}
/** One of the things that the Tab key reaches; `href` of a link. */
export interface FocusableFact extends Place {
  href: string | null
}
export interface ImageFact extends Place {
  /** Whether it says how large it is drawn, by both attributes or in its style: the text does not jump when it arrives. */
  sized: boolean
  src: string
  /** The attributes as written, trimmed; "" for none. */
  srcset: string
  sizes: string
  /** The width attribute in px; null where it is none. */
  width: number | null
  alt: string | null
  /** A name by `aria-label`, `aria-labelledby` or `title`. */
  named: boolean
  presentational: boolean
  hidden: boolean
}
export interface AnchorFact extends Place {
  href: string
  url: string | null
  text: string
  landmark: Landmark | null
  /** Named by `aria-label`, `aria-labelledby` or `title` beside its text. */
  named: boolean
  /** An `area` of an image map, or one that the Tab key passes and assistive technology need not see. */
  untabbed: boolean
  hidden: boolean
}
/** A link without an address, or a button, as far as it is wrong: links go somewhere, buttons do something. */
export interface ControlFact extends Place {
  tag: 'a' | 'button'
  text: string
  /** Named by `aria-label`, `aria-labelledby` or `title`. */
  named: boolean
  /** The address that is all that a button goes to; null for none. */
  goesTo: string | null
  hidden: boolean
}
/** Another `link` of the head, such as a style sheet or an icon. */
export interface RelFact extends LinkFact {
  rel: string
  /** The media attribute; "" for none. */
  media: string
}
/** A script with an address of its own. */
export interface ScriptFact extends Place {
  src: string
  url: string | null
  /** Whether nothing is drawn before it was run: it stands in the head and is not put off. */
  blocks: boolean
  inHead: boolean
}
/** A width in pixels that an element has by its attribute or its own style. */
export interface FixedWidthFact extends Place {
  tag: string
  px: number
  by: 'style' | 'attribute'
}
export interface DataBlock extends Place {
  /** The block's text as it stands in the source, and where it starts. */
  json: string
  jsonStart: number
}

/** How main content was found; `chosen`: by what the house says for the site. */
export type MainBy = 'chosen' | 'main' | 'role' | 'article' | 'density' | 'body'

export interface PageFacts {
  /** Why the page is beyond what is read, as a sentence with what to do: the facts end there. Null for nearly every page. */
  beyond: string | null
  /** Path as taken in, `/` between folders. */
  path: string
  /** The page's address. */
  url: string
  /** What the server said with it; null for a file. */
  served: Served | null
  /** Length of the decoded text in UTF-16 units. */
  length: number
  /** What the page itself weighs. */
  bytes: number
  doctype: boolean
  charset: {
    encoding: string
    by: DeclaredBy
    /** Whether the bytes can be declared UTF-8 as they are. */
    utf8: boolean
    /** A declaration that stands after the first 1024 bytes. */
    late: Place | null
  }
  /** The html start tag, null where it is implied. */
  html: Place | null
  lang: string | null
  base: string | null
  titles: TextFact[]
  metas: MetaFact[]
  canonicals: LinkFact[]
  /** `link rel="alternate"`: the page in other languages and forms. */
  alternates: LinkFact[]
  /** Every other link element. */
  rels: RelFact[]
  scripts: ScriptFact[]
  fixedWidths: FixedWidthFact[]
  headings: HeadingFact[]
  lookAlikes: LookAlikeFact[]
  /** `section` elements without a heading and without a name. */
  unnamedSections: Place[]
  /** The first things that the Tab key reaches, as many as matter for a skip link. */
  focusables: FocusableFact[]
  /** The body's first element, where the head was closed; null for an empty body. */
  bodyStart: Place | null
  landmarks: LandmarkFact[]
  images: ImageFact[]
  links: AnchorFact[]
  /** Buttons, and `a` elements without `href` and without an id or a name that could be led to. */
  controls: ControlFact[]
  ids: (Place & { id: string })[]
  data: DataBlock[]
  /** Whether it describes things in its markup too: microdata's `itemscope`, RDFa's `typeof`. */
  inline: { microdata: boolean; rdfa: boolean }
  comments: (Place & { text: string })[]
  parseErrors: ParseError[]
  /** All visible text, the main content's and the rest, blocks on lines of their own; white space not folded. */
  text: string
  /**
   * Main content as rules.md defines it: how it was found, its visible text (blocks on lines of their own), its words,
   * and how many of them stand before its first heading.
   */
  main: { by: MainBy; text: string; words: number; lead: number }
}

/** The title that counts: the first in the head. */
export const titleOf = (page: PageFacts): TextFact | null => page.titles.find((t) => t.inHead) ?? null

export const metasNamed = (page: PageFacts, name: string): MetaFact[] =>
  page.metas.filter((m) => m.name === name && m.inHead)

/** The meta description that counts, the first in the head; null where there is none. */
export const descriptionOf = (page: PageFacts): MetaFact | null =>
  page.metas.find((m) => m.name === 'description' && m.inHead) ?? null

/** The canonical that counts, the first in the head. */
export const canonicalOf = (page: PageFacts): LinkFact | null => page.canonicals.find((c) => c.inHead) ?? null

/** Robots directives of the page, in lower case, in order. */
export const robotsOf = (page: PageFacts): string[] =>
  metasNamed(page, 'robots').flatMap((m) =>
    m.content
      .toLowerCase()
      .split(',')
      .map((d) => d.trim())
      .filter(Boolean),
  )

/**
 * Why a page cannot stand in results, as it stands behind "which": an error of the server, `noindex` or `none` in the
 * page or its headers, another page's address as canonical. Null for one that can.
 */
export function whyNotIndexable(page: PageFacts): string | null {
  const status = page.served?.status ?? 200
  if (status >= 400) return `answers with an error, ${status}`
  const robots = [...robotsOf(page), ...headerRobots(page.served)]
  if (robots.includes('noindex') || robots.includes('none')) return 'is kept out of results by robots'
  const canonical = canonicalOf(page)
  return canonical === null || canonical.url === null || sameAddress(canonical.url, page.url)
    ? null
    : 'names another canonical'
}
export const isIndexable = (page: PageFacts): boolean => whyNotIndexable(page) === null

/** Headings that stand in the outline: visible, and headings by tag or by role. */
export const outlineOf = (page: PageFacts): HeadingFact[] =>
  page.headings.filter((h) => !h.hidden && (h.role === null || h.role === 'heading'))

/** Whether a heading says nothing: no text, no image with alternative text, no label. */
export const isEmptyHeading = (h: HeadingFact): boolean => h.text === '' && h.label === ''

/** The parts of facts that a page known only from a sheet may lack; every rule names those it needs. */
export type Need =
  'title' | 'description' | 'address' | 'head' | 'headings' | 'text' | 'images' | 'links' | 'data'
