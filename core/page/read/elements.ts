/** What kinds of elements mean to a reader of a page: which hold no text, stand in a line, divide a page. */
import type { Landmark } from './facts.ts'
import type { Element } from './parse.ts'

/** Its text is not shown as running text. */
export const NOT_TEXT = 1
/** It stands in a line of text. */
export const INLINE = 2
/** Within it a header or footer is the part's own, not the page's (HTML-AAM 1.0, header and footer). */
export const SECTIONING = 4
/** Short bold lines in it are something else than headings of the page. */
export const NO_HEADINGS = 8
/** The main content may stand in it where no landmark says so. */
export const CONTAINER = 16
/** The Tab key reaches it unless it is disabled. */
export const FORM_CONTROL = 32

const kinds: [number, string][] = [
  [
    NOT_TEXT,
    'script style template noscript textarea iframe noframes noembed object select desc metadata head title audio video canvas datalist',
  ],
  [
    INLINE,
    'a abbr acronym b bdi bdo big cite code data del dfn em font i img ins kbd label mark nobr q rp rt ruby s samp small span strike strong sub sup time tt u var wbr picture source',
  ],
  [SECTIONING, 'article aside main nav section'],
  [
    NO_HEADINGS,
    'a address aside blockquote button caption details dl fieldset figure footer form h1 h2 h3 h4 h5 h6 header label nav ol pre table ul',
  ],
  [CONTAINER, 'div section article td center form dl'],
  [FORM_CONTROL, 'button input select textarea summary'],
]
const byTag = new Map<string, number>()
for (const [kind, tags] of kinds)
  for (const tag of tags.split(' ')) byTag.set(tag, (byTag.get(tag) ?? 0) | kind)

/** What an element is, as a sum of the kinds above. */
export const kindOf = (tag: string): number => byTag.get(tag) ?? 0

const ROLE_LANDMARK = new Map<string, Landmark>([
  ['banner', 'header'],
  ['navigation', 'nav'],
  ['main', 'main'],
  ['complementary', 'aside'],
  ['contentinfo', 'footer'],
  ['search', 'search'],
])

/** The landmark that an element is, by its role or its tag; null for any other. */
export function landmarkOf(node: Element, role: string | null, sectioning: boolean): Landmark | null {
  if (role !== null && role !== '') return ROLE_LANDMARK.get(role) ?? null
  switch (node.tagName) {
    case 'main':
    case 'nav':
    case 'aside':
    case 'search':
      return node.tagName
    case 'header':
    case 'footer':
      return sectioning ? null : node.tagName
    default:
      return null
  }
}

/** `h1` to `h6`. */
export const isHeadingTag = (tag: string) => tag.length === 2 && tag[0] === 'h' && tag >= 'h1' && tag <= 'h6'
