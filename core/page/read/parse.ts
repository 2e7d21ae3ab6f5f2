/**
 * One parse of a page with the places of its tags. parse5 builds the tree; its tokens come from the scanner where that
 * models the page, else from parse5's own tokenizer. Places are recorded on the way, at a small part of the cost of
 * parse5's own location info. This leans on members that parse5's types call private or internal: the version is
 * pinned in package.json, and parse.test.ts compares everything with what parse5 says by itself.
 */
import { defaultTreeAdapter, Parser, Token, Tokenizer, type DefaultTreeAdapterTypes, type html } from 'parse5'
import type { Source } from '../source/source.ts'
import { NotModelled, placed, Scanner, type TreeBuilder } from './scan/scanner.ts'

export type Element = DefaultTreeAdapterTypes.Element & { place?: TagPlace }
export type Node = DefaultTreeAdapterTypes.Node
export type Document = DefaultTreeAdapterTypes.Document

/**
 * A start tag from `start` to `startEnd`; the element's own end tag, where it has one, from `endStart` to `end`. `closes` is
 * where its content ends: at its end tag, or at the tag that implies one; null where the end of the file does. UTF-16 units.
 */
export interface TagPlace {
  start: number
  startEnd: number
  endStart: number | null
  end: number | null
  closes: number | null
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
  /** Where the body's end tag begins; null without one. */
  bodyEnd: number | null
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

/** What is used of parse5's parser beyond its public types. */
interface ParserInternals extends TreeBuilder {
  document: Document
  tokenizer: { preprocessor: { offset: number } }
  options: { sourceCodeLocationInfo: boolean }
  currentToken: Token.Token | null
  openElements: { stackTop: number }
  onParseError: ((error: { code: string; startOffset: number }) => void) | null
  onItemPop(node: Element, isTop: boolean): void
  _attachElementToTree(element: Element, location: Token.Location | null, parent: unknown): void
}
const ParserWithInternals = Parser as unknown as new (options: object) => ParserInternals

const isTag = (token: Token.Token): token is Token.TagToken =>
  token.type === Token.TokenType.START_TAG || token.type === Token.TokenType.END_TAG

/** Builds the tree, and records the places of tags, comments and parse errors. */
class PlacingParser extends ParserWithInternals {
  readonly comments: CommentPlace[] = []
  readonly errors: ParseError[] = []
  doctypeEnd = 0
  bodyEnd: number | null = null
  private elements = 0
  private readonly mostElements: number

  constructor(text: string) {
    super({ treeAdapter: elementsWithPlace })
    this.mostElements = Math.min(parseLimits.elements, text.length + parseLimits.elementsBeyondLength)
    this.onParseError = ({ code, startOffset }) =>
      this.addError(code, startOffset >= 0 ? startOffset : this.tokenizer.preprocessor.offset)
  }

  addError(code: string, at: number): void {
    if (this.errors.length < MOST_ERRORS) this.errors.push({ code, at: Math.max(0, at) })
  }

  override onComment(token: Token.CommentToken): void {
    const { location, data } = token
    // The standard hands one in a table's white space over a second time.
    if (location && this.comments.at(-1)?.start !== location.startOffset)
      this.comments.push({ text: data, start: location.startOffset, end: location.endOffset })
    super.onComment(token)
  }

  override onDoctype(token: Token.DoctypeToken): void {
    const end = this.tokenizer.preprocessor.offset + 1
    super.onDoctype(token)
    // One that comes too late is dropped by the standard, and is no place to put anything after.
    if (this.doctypeEnd === 0 && this.document.childNodes.some((n) => n.nodeName === '#documentType'))
      this.doctypeEnd = end
  }

  override _attachElementToTree(element: Element, location: Token.Location | null, parent: unknown): void {
    if (++this.elements > this.mostElements)
      throw new Beyond(
        `It holds more than ${this.mostElements.toLocaleString('en')} elements, many of them opened again and again by formatting tags that are never closed. Close them in the source and take the page in again.`,
      )
    if (this.openElements.stackTop > parseLimits.depth)
      throw new Beyond(
        `Its elements are nested more than ${parseLimits.depth.toLocaleString('en')} deep. Close what is left open in the source and take the page in again.`,
      )
    if (location)
      element.place = {
        start: location.startOffset,
        startEnd: location.endOffset,
        endStart: null,
        end: null,
        closes: null,
      }
    super._attachElementToTree(element, location, parent)
  }

  override onEndTag(token: Token.TagToken): void {
    if (token.tagName === 'body' && token.location) this.bodyEnd ??= token.location.startOffset
    super.onEndTag(token)
  }

  override onItemPop(node: Element, isTop: boolean): void {
    const token = this.currentToken
    if (node.place && token !== null && isTag(token) && token.location) {
      node.place.closes ??= token.location.startOffset
      if (token.type === Token.TokenType.END_TAG && token.tagName === node.tagName) {
        node.place.endStart = token.location.startOffset
        node.place.end = token.location.endOffset
      }
    }
    super.onItemPop(node, isTop)
  }
}

/** What is used of parse5's tokenizer beyond its public types. */
interface TokenizerInternals {
  preprocessor: { offset: number }
  currentToken: Token.TagToken | Token.CommentToken
  currentLocation: Token.Location | null
  _createStartTagToken(): void
  _createEndTagToken(): void
  _createCommentToken(offset: number): void
  _leaveAttrName(): void
  write(text: string, isLast: boolean): void
}
const TokenizerWithInternals = Tokenizer as unknown as new (
  options: object,
  parser: TreeBuilder,
) => TokenizerInternals

/** parse5's tokenizer, each tag and comment with the place where it starts; parse5 sets where it ends. */
class PlacingTokenizer extends TokenizerWithInternals {
  override _createStartTagToken(): void {
    super._createStartTagToken()
    this.placeToken(1)
  }
  override _createEndTagToken(): void {
    super._createEndTagToken()
    this.placeToken(2)
  }
  override _createCommentToken(offset: number): void {
    super._createCommentToken(offset)
    this.placeToken(offset)
  }
  private placeToken(charactersBefore: number): void {
    const start = this.preprocessor.offset - charactersBefore
    this.currentToken.location = placed(start, start)
  }
  override _leaveAttrName(): void {
    if ((this.currentToken as Token.TagToken).attrs.length >= parseLimits.attributes)
      throw new Beyond(
        `A tag has more than ${parseLimits.attributes.toLocaleString('en')} attributes. Mend it in the source and take the page in again.`,
      )
    super._leaveAttrName()
  }
}

/** The parse of a text whose tokens come from `feed`. */
function parseWith(text: string, feed: (parser: PlacingParser) => void): Parsed {
  const parser = new PlacingParser(text)
  let beyond: string | null = null
  try {
    feed(parser)
  } catch (error) {
    if (!(error instanceof Beyond)) throw error
    beyond = error.message
  }
  const { document, doctypeEnd, bodyEnd, comments, errors } = parser
  return { beyond, document, doctypeEnd, bodyEnd, comments, errors }
}

/** The parse with parse5's own tokenizer: the standard's way, on any text. */
export const parseByStandard = (text: string): Parsed =>
  parseWith(text, (parser) => {
    // Only the handler of parse errors is given: asking for them by the options would switch location info on as well.
    const tokenizer = new PlacingTokenizer({ sourceCodeLocationInfo: false }, parser)
    parser.tokenizer = tokenizer
    tokenizer.write(text, true)
  })

/** The parse with the scanner; null where the page holds what it does not model. */
export function parseByScan(text: string): Parsed | null {
  try {
    return parseWith(text, (parser) => {
      const scanner = new Scanner(text, parser, (code, at) => parser.addError(code, at))
      parser.tokenizer = scanner
      scanner.run()
    })
  } catch (error) {
    if (error instanceof NotModelled) return null
    throw error
  }
}

/**
 * Parses a whole document, scripting on, as a browser does. Never throws on any text; work grows linearly with it: where
 * it would not, the parse ends, and `beyond` says why.
 */
export const parsePage = (text: string): Parsed => parseByScan(text) ?? parseByStandard(text)

/** The value of an attribute, or null. Names are in lower case. */
export function attribute(element: Element, name: string): string | null {
  for (const a of element.attrs) if (a.name === name) return a.value
  return null
}

export const isElement = (node: Node): node is Element => 'tagName' in node
export const HTML = 'http://www.w3.org/1999/xhtml'

let last: { source: Source; parsed: Parsed } | null = null
/** The parse of a source, kept until another one is asked for: its facts and its text blocks are of one tree, which nobody changes. */
export function parsedSource(source: Source): Parsed {
  if (last?.source !== source) last = { source, parsed: parsePage(source.text) }
  return last.parsed
}
