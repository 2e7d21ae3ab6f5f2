/**
 * One parse of a page by parse5, with the places of tags: start offsets at a small cost, where parse5's own location
 * info more than doubles the time. It hooks methods of parse5 that its types call private: the version is pinned in
 * package.json, and parse.test.ts compares every place with parse5's own location info.
 */
import { defaultTreeAdapter, Parser, Token, type DefaultTreeAdapterTypes, type html } from 'parse5'

export type Element = DefaultTreeAdapterTypes.Element & { place?: TagPlace }
export type Node = DefaultTreeAdapterTypes.Node
export type Document = DefaultTreeAdapterTypes.Document

/** A start tag from `start` to `startEnd`; the element's own end tag, where it has one, from `endStart` to `end`. UTF-16 units. */
export interface TagPlace {
  start: number
  startEnd: number
  endStart: number | null
  end: number | null
}

export interface ParseError {
  code: string
  at: number
}
export interface CommentPlace {
  text: string
  start: number
  end: number
}

export interface Parsed {
  /** Why the parse was ended early, as a sentence with what to do; null where the whole text was parsed. */
  beyond: string | null
  document: Document
  /** End of the doctype, 0 without one. */
  doctypeEnd: number
  comments: CommentPlace[]
  errors: ParseError[]
}

/** More parse errors than this on one page are counted as this many: an editor needs the first. */
const MOST_ERRORS = 200

/**
 * Beyond these a page is no page, and its tree may grow faster than its text: the standard opens again, in every new
 * paragraph, each formatting element that was left open. Counted, so that the same text gives the same answer. From
 * memory: real pages of Debian's documentation packages stay under a tenth of each.
 */
export const parseLimits = {
  /** Elements more than the page has characters. */
  elementsBeyondLength: 1000,
  elements: 1_000_000,
  /** Elements open at one time; browsers stop nesting at 512. */
  depth: 20_000,
  /** Attributes of one tag. */
  attributes: 1000,
}

/** Ends the parse of a page beyond the limits. */
class Beyond extends Error {}

interface Location {
  startLine: number
  startCol: number
  startOffset: number
  endLine: number
  endCol: number
  endOffset: number
}
interface TagToken {
  type: number
  tagName: string
  location: Location | null
  data: string
  attrs: unknown[]
}
/** What is used of parse5's tokenizer and parser beyond their public types. */
interface Internals {
  tokenizer: {
    preprocessor: { offset: number }
    currentToken: TagToken
    currentLocation: null
    _createStartTagToken(): void
    _createEndTagToken(): void
    _createCommentToken(offset: number): void
    _leaveAttrName(): void
    write(html: string, last: boolean): void
  }
  options: { sourceCodeLocationInfo: boolean }
  currentToken: TagToken | null
  openElements: { stackTop: number }
  onParseError: ((error: { code: string; startOffset: number }) => void) | null
  onComment(token: TagToken): void
  onDoctype(token: TagToken): void
  onItemPop(node: Element, isTop: boolean): void
  _attachElementToTree(element: Element, location: Location | null, insertion: unknown): void
}
const { END_TAG } = Token.TokenType

const placeAt = (offset: number): Location => ({
  startLine: 0,
  startCol: 0,
  startOffset: offset,
  endLine: 0,
  endCol: 0,
  endOffset: offset,
})

/** parse5's own tree, each element made with room for its place: one shape for all, which the engine reads faster. */
const elementsWithPlace = {
  ...defaultTreeAdapter,
  createElement: (
    tagName: string,
    namespaceURI: html.NS,
    attrs: Token.Attribute[],
  ): DefaultTreeAdapterTypes.Element =>
    ({
      nodeName: tagName,
      tagName,
      attrs,
      namespaceURI,
      childNodes: [],
      parentNode: null,
      place: undefined,
    }) as DefaultTreeAdapterTypes.Element,
}

/**
 * Parses a whole document, scripting on, as a browser does. Never throws on any text; work grows linearly with it: where
 * it would not, the parse ends, and `beyond` says why.
 */
export function parsePage(text: string): Parsed {
  const errors: ParseError[] = []
  const comments: CommentPlace[] = []
  const parser = new Parser({
    onParseError: () => {},
    treeAdapter: elementsWithPlace,
  }) as unknown as Internals & { document: Document }
  const { tokenizer } = parser
  const proto = {
    start: tokenizer._createStartTagToken,
    end: tokenizer._createEndTagToken,
    comment: tokenizer._createCommentToken,
    leaveAttrName: tokenizer._leaveAttrName,
    onComment: parser.onComment,
    onDoctype: parser.onDoctype,
    onItemPop: parser.onItemPop,
    attach: parser._attachElementToTree,
  }
  // Asking for parse errors switches location info on, which is what costs: it is put back before the first byte.
  parser.options.sourceCodeLocationInfo = false
  tokenizer.currentLocation = null
  parser.onParseError = ({ code, startOffset }) => {
    if (errors.length < MOST_ERRORS)
      errors.push({ code, at: Math.max(0, startOffset >= 0 ? startOffset : tokenizer.preprocessor.offset) })
  }
  tokenizer._createStartTagToken = function () {
    proto.start.call(this)
    this.currentToken.location = placeAt(this.preprocessor.offset - 1)
  }
  tokenizer._createEndTagToken = function () {
    proto.end.call(this)
    this.currentToken.location = placeAt(this.preprocessor.offset - 2)
  }
  tokenizer._createCommentToken = function (offset) {
    proto.comment.call(this, offset)
    this.currentToken.location = placeAt(this.preprocessor.offset - offset)
  }
  parser.onComment = function (token) {
    if (token.location)
      comments.push({ text: token.data, start: token.location.startOffset, end: token.location.endOffset })
    proto.onComment.call(this, token)
  }
  let doctypeEnd = 0
  parser.onDoctype = function (token) {
    const end = tokenizer.preprocessor.offset + 1
    proto.onDoctype.call(this, token)
    // One that comes too late is dropped by the standard, and is no place to put anything after.
    if (doctypeEnd === 0 && parser.document.childNodes.some((n) => n.nodeName === '#documentType'))
      doctypeEnd = end
  }
  tokenizer._leaveAttrName = function () {
    if (this.currentToken.attrs.length >= parseLimits.attributes)
      throw new Beyond(
        `A tag has more than ${parseLimits.attributes.toLocaleString('en')} attributes. Mend it in the source and take the page in again.`,
      )
    proto.leaveAttrName.call(this)
  }
  const mostElements = Math.min(parseLimits.elements, text.length + parseLimits.elementsBeyondLength)
  let elements = 0
  parser._attachElementToTree = function (element, location, insertion) {
    if (++elements > mostElements)
      throw new Beyond(
        `It holds more than ${mostElements.toLocaleString('en')} elements, many of them opened again and again by formatting tags that are never closed. Close them in the source and take the page in again.`,
      )
    if (this.openElements.stackTop > parseLimits.depth)
      throw new Beyond(
        `Its elements are nested more than ${parseLimits.depth.toLocaleString('en')} deep. Close what is left open in the source and take the page in again.`,
      )
    if (location)
      element.place = { start: location.startOffset, startEnd: location.endOffset, endStart: null, end: null }
    proto.attach.call(this, element, location, insertion)
  }
  parser.onItemPop = function (node, isTop) {
    const token = this.currentToken
    if (node.place && token?.type === END_TAG && token.tagName === node.tagName && token.location) {
      node.place.endStart = token.location.startOffset
      node.place.end = token.location.endOffset
    }
    proto.onItemPop.call(this, node, isTop)
  }
  let beyond: string | null = null
  try {
    tokenizer.write(text, true)
  } catch (error) {
    if (!(error instanceof Beyond)) throw error
    beyond = error.message
  }
  return { beyond, document: parser.document, doctypeEnd, comments, errors }
}

/** The value of an attribute, or null. Names are in lower case. */
export function attribute(element: Element, name: string): string | null {
  for (const a of element.attrs) if (a.name === name) return a.value
  return null
}

export const isElement = (node: Node): node is Element => 'tagName' in node
export const HTML = 'http://www.w3.org/1999/xhtml'
