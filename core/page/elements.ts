/** What kinds of elements mean to a reader of a page: which hold no text, stand in a line, divide a page. */
import type { Landmark } from './facts.ts'
import type { Element } from './parse.ts'

/** Elements whose text is not shown as running text. */
export const NOT_TEXT = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'textarea',
  'iframe',
  'noframes',
  'noembed',
  'object',
  'select',
  'desc',
  'metadata',
  'head',
  'title',
  'audio',
  'video',
  'canvas',
  'datalist',
])
/** Elements that stand in a line of text. */
export const INLINE = new Set([
  'a',
  'abbr',
  'acronym',
  'b',
  'bdi',
  'bdo',
  'big',
  'cite',
  'code',
  'data',
  'del',
  'dfn',
  'em',
  'font',
  'i',
  'img',
  'ins',
  'kbd',
  'label',
  'mark',
  'nobr',
  'q',
  'rp',
  'rt',
  'ruby',
  's',
  'samp',
  'small',
  'span',
  'strike',
  'strong',
  'sub',
  'sup',
  'time',
  'tt',
  'u',
  'var',
  'wbr',
  'picture',
  'source',
])
/** Within these a header or footer is the part's own, not the page's (HTML-AAM 1.0, header and footer). */
export const SECTIONING = new Set(['article', 'aside', 'main', 'nav', 'section'])
/** Where short bold lines are something else than headings of the page. */
export const NO_HEADINGS = new Set([
  'a',
  'address',
  'aside',
  'blockquote',
  'button',
  'caption',
  'details',
  'dl',
  'fieldset',
  'figure',
  'footer',
  'form',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'header',
  'label',
  'nav',
  'ol',
  'pre',
  'table',
  'ul',
])
/** What the main content may stand in where no landmark says it. */
export const CONTAINERS = new Set(['div', 'section', 'article', 'td', 'center', 'form', 'dl'])
export const FORM_CONTROLS = new Set(['button', 'input', 'select', 'textarea', 'summary'])
const ROLE_LANDMARK: Record<string, Landmark> = {
  banner: 'header',
  navigation: 'nav',
  main: 'main',
  complementary: 'aside',
  contentinfo: 'footer',
  search: 'search',
}

/** The landmark that an element is, by its role or its tag; null for any other. */
export function landmarkOf(node: Element, role: string | null, sectioning: boolean): Landmark | null {
  if (role !== null && role !== '') return ROLE_LANDMARK[role] ?? null
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
