/**
 * The HTML standard's tokenizer for the common case: it jumps from tag to tag over the whole text, and hands a run of
 * text over as one token, where parse5's own goes letter by letter (about six times the time). It stands in for that
 * tokenizer in front of parse5's tree construction. Whatever it does not model (unusual comments and doctypes, a page
 * that ends in a tag, control characters) it refuses, and the page is tokenized by parse5: on every text that it does
 * take, tree, places, comments and parse errors are parse5's own (parse.test.ts, `npm run fuzz`, `npm run check-real`).
 * Section numbers are those of the WHATWG HTML standard.
 */
import { html as names, InsertionMode, Token, TokenizerMode, type TokenHandler } from 'parse5'
import {
  ENDS_NAME,
  is,
  kindsOf,
  LETTER,
  ODD_IN_NAME,
  ODD_UNQUOTED,
  OPENS,
  SPACE,
  UPPER,
} from './characters.ts'
import { Names } from './names.ts'
import { knownReference, readReference } from './references.ts'

/** The text holds what the scanner does not model. */
export class NotModelled extends Error {}

const refuse = (what: string): never => {
  const traced = Error.stackTraceLimit
  Error.stackTraceLimit = 0
  const refusal = new NotModelled(what)
  Error.stackTraceLimit = traced
  throw refusal
}

/** What a page seldom holds: control characters, non-characters, and surrogates, most of them in pairs. */
const uncommon = /[\0-\x08\x0b\x0e-\x1f\x7f-\x9f\ud800-\udfff\ufdd0-\ufdef\ufffe\uffff]/
/** NUL, non-characters and halves of surrogate pairs: some are replaced, each is a parse error (13.2.3.5). */
const notModelled =
  /[\0\ufdd0-\ufdef\ufffe\uffff]|[\ud83f\ud87f\ud8bf\ud8ff\ud93f\ud97f\ud9bf\ud9ff\uda3f\uda7f\udabf\udaff\udb3f\udb7f\udbbf\udbff][\udffe\udfff]/
const halfPair = /[\ud800-\udfff]/u
/** Control characters stay as they are; each is a parse error where it stands. */
const control = /[\x01-\x08\x0b\x0e-\x1f\x7f-\x9f]/g

/** A tag with more attributes is left to parse5, which looks for repeated names in the same way. */
const MOST_ATTRIBUTES = 64
const NONE = Number.MAX_SAFE_INTEGER

const doctype =
  /<!doctype[ \t\n\f\r]+([^\s>]+)(?:[ \t\n\f\r]+(?:public[ \t\n\f\r]+(?:"([^">\r]*)"|'([^'>\r]*)')(?:[ \t\n\f\r]+(?:"([^">\r]*)"|'([^'>\r]*)'))?|system[ \t\n\f\r]+(?:"([^">\r]*)"|'([^'>\r]*)')))?[ \t\n\f\r]*>/iy

const tagNames = new Names()
const attributeNames = new Names()

/** What the scanner must know of the parser that it feeds, beside where its tokens go. */
export interface TreeBuilder extends TokenHandler {
  insertionMode: InsertionMode
  skipNextNewLine: boolean
}
/** A token's location without lines and columns, for which nobody asks. */
export const placed = (startOffset: number, endOffset: number): Token.Location =>
  ({ startOffset, endOffset }) as Token.Location

const { START_TAG, END_TAG, CHARACTER, WHITESPACE_CHARACTER, COMMENT, DOCTYPE, EOF } = Token.TokenType

export class Scanner {
  /** Set by the parser for the text behind a tag: TokenizerMode. */
  state: number = TokenizerMode.DATA
  /** Set by the parser: whether the element that is open is SVG's or MathML's. */
  inForeignNode = false
  /** Where the standard's tokenizer stands as it hands a token over; parse errors without a place get this one. */
  readonly preprocessor = { offset: 0 }
  private readonly text: string
  private readonly parser: TreeBuilder
  private readonly onError: (code: string, at: number) => void
  private readonly lastTagEnd: number
  private readonly hasReturns: boolean
  /** Where the next control character stands that was not passed yet; NONE behind the last. */
  private nextControl = NONE
  /** The next `&` that was not passed yet; NONE behind the last. */
  private ampersand = -1
  private nameHash = 0
  /** What readTag found. */
  private tagName = ''
  private attributes: Token.Attribute[] = []
  private selfClosing = false
  /** Errors of one run of text or one value, put into their order before they are said. */
  private held: { code: string; at: number; read: number }[] | null = null

  /** Throws NotModelled on a text with characters that it does not model. */
  constructor(text: string, parser: TreeBuilder, onError: (code: string, at: number) => void) {
    this.text = text
    this.parser = parser
    this.onError = onError
    this.lastTagEnd = text.lastIndexOf('>')
    this.hasReturns = text.includes('\r')
    if (uncommon.test(text)) this.lookCloser()
  }
  private lookCloser(): void {
    if (notModelled.test(this.text) || halfPair.test(this.text)) refuse('non-characters')
    this.findControl(0)
  }

  /** Tokenizes the whole text. Throws NotModelled where it meets what it does not model. */
  run(): void {
    const { text, parser } = this
    let at = 0
    for (;;) {
      const open = this.textRun(at)
      if (open < 0) break
      const behind = text.charCodeAt(open + 1)
      if (behind === 0x2f /* / */) at = this.endTagOrBogus(open)
      else if (behind === 0x21 /* ! */) at = this.markupDeclaration(open)
      else if (behind === 0x3f /* ? */) {
        this.error('unexpected-question-mark-instead-of-tag-name', open + 1)
        at = this.bogusComment(open, open + 1)
      } else at = this.startTag(open)
    }
    this.standAt(text.length)
    parser.onEof({ type: EOF, location: null })
  }

  /** Called before a token is handed over: where the standard's tokenizer stands by then. */
  private standAt(offset: number): void {
    this.preprocessor.offset = offset
    if (this.nextControl <= offset) this.sayControls(offset)
  }
  private sayControls(to: number): void {
    while (this.nextControl <= to) {
      this.onError('control-character-in-input-stream', this.nextControl)
      this.findControl(this.nextControl + 1)
    }
  }
  private findControl(from: number): void {
    control.lastIndex = from
    this.nextControl = control.exec(this.text)?.index ?? NONE
  }

  /** `read` is the last character that the standard's tokenizer has read when it finds the error. */
  private error(code: string, at: number, read = at): void {
    if (this.held !== null) this.held.push({ code, at, read })
    else this.sayError(code, at, read)
  }
  private sayError(code: string, at: number, read: number): void {
    if (this.nextControl <= read) this.sayControls(read)
    this.onError(code, at)
  }

  /** Reads what may hold several errors of two kinds, and says them in the order of their places. */
  private inOrder<T>(read: () => T): T {
    const held: { code: string; at: number; read: number }[] = []
    this.held = held
    const value = read()
    this.held = null
    // Stable, and of two at one place the reference's comes first, as it was begun before.
    for (const { code, at, read } of held.sort((a, b) => a.at - b.at)) this.sayError(code, at, read)
    return value
  }

  /** 13.2.5.1, data state: text up to the next markup. Returns where that opens, -1 at the end of the page. */
  private textRun(from: number): number {
    const { text } = this
    const open = text.indexOf('<', from)
    if (open >= 0 && !is(text.charCodeAt(open + 1), OPENS)) return this.textRunWithSigns(from, open)
    const end = open < 0 ? text.length : open
    if (end > from) {
      const decoded = this.decoded(from, end, false)
      this.standAt(end)
      this.handText(decoded)
    }
    return open
  }
  /** The same where a `<` stands in the text that opens nothing. */
  private textRunWithSigns(from: number, firstSign: number): number {
    const { text } = this
    let open = firstSign
    const decoded = this.inOrder(() => {
      const signs: number[] = []
      while (open >= 0 && !is(text.charCodeAt(open + 1), OPENS)) {
        if (open + 1 >= text.length) refuse('a page that ends in <')
        signs.push(open + 1)
        open = text.indexOf('<', open + 1)
      }
      const run = this.decoded(from, open < 0 ? text.length : open, false)
      for (const at of signs) this.error('invalid-first-character-of-tag-name', at)
      return run
    })
    this.standAt(open < 0 ? text.length : open)
    this.handText(decoded)
    return open
  }

  /**
   * Hands a run of text over. The standard tells leading white space from other text; in the modes where that makes no
   * difference one token is enough.
   */
  private handText(chars: string): void {
    const { parser } = this
    const mode = parser.insertionMode
    if (
      mode === InsertionMode.IN_FRAMESET ||
      mode === InsertionMode.AFTER_FRAMESET ||
      mode === InsertionMode.AFTER_AFTER_FRAMESET
    )
      refuse('text in a frameset')
    let rest = chars
    if (is(chars.charCodeAt(0), SPACE)) {
      let spaces = 1
      while (is(chars.charCodeAt(spaces), SPACE)) spaces++
      const whole = spaces === chars.length
      const asOne =
        !parser.skipNextNewLine &&
        (mode === InsertionMode.IN_BODY || mode === InsertionMode.TEXT || mode === InsertionMode.IN_CELL)
      if (whole || !asOne) {
        const white = whole ? chars : chars.slice(0, spaces)
        parser.onWhitespaceCharacter({ type: WHITESPACE_CHARACTER, chars: white, location: null })
        if (whole) return
        rest = chars.slice(spaces)
      }
    }
    if (parser.insertionMode === InsertionMode.INITIAL) refuse('text before all markup')
    parser.onCharacter({ type: CHARACTER, chars: rest, location: null })
  }

  private startTag(open: number): number {
    const end = this.readTag(open + 1)
    this.standAt(end - 1)
    const { tagName } = this
    this.parser.onStartTag({
      type: START_TAG,
      tagName,
      tagID: names.getTagID(tagName),
      selfClosing: this.selfClosing,
      ackSelfClosing: false,
      attrs: this.attributes,
      location: placed(open, end),
    })
    return this.state === TokenizerMode.DATA ? end : this.rawText(tagName, end)
  }

  /** 13.2.5.7, end tag open state. */
  private endTagOrBogus(open: number): number {
    const { text } = this
    const first = text.charCodeAt(open + 2)
    if (is(first, LETTER)) return this.endTag(open)
    if (open + 2 >= text.length) refuse('a page that ends in </')
    if (first === 0x3e /* > */) {
      this.error('missing-end-tag-name', open + 2)
      return open + 3
    }
    this.error('invalid-first-character-of-tag-name', open + 2)
    return this.bogusComment(open, open + 2)
  }
  private endTag(open: number): number {
    const end = this.readTag(open + 2)
    this.standAt(end - 1)
    if (this.attributes.length > 0) this.error('end-tag-with-attributes', end - 1)
    if (this.selfClosing) this.error('end-tag-with-trailing-solidus', end - 1)
    const { tagName } = this
    this.parser.onEndTag({
      type: END_TAG,
      tagName,
      tagID: names.getTagID(tagName),
      selfClosing: this.selfClosing,
      ackSelfClosing: false,
      attrs: this.attributes,
      location: placed(open, end),
    })
    return end
  }

  /** 13.2.5.2 to 4: the text of script, style, title and the like, and the end tag that ends it. */
  private rawText(name: string, from: number): number {
    const { text, state } = this
    if (state === TokenizerMode.PLAINTEXT) refuse('plaintext')
    let open = from
    for (;;) {
      open = text.indexOf('</', open)
      if (open < 0 || open > this.lastTagEnd) refuse('a page that ends in raw text')
      if (this.endsElement(open + 2, name)) break
      open += 2
    }
    if (state === TokenizerMode.SCRIPT_DATA) {
      // In the slice: a search to the end of the page for each script would take time by the square of the page.
      const script = text.slice(from, open)
      const comment = script.indexOf('<!--')
      if (comment >= 0 && /<script[\t\n\f\r />]/i.test(script.slice(comment))) refuse('a script in a script')
    }
    if (open > from) {
      const chars =
        state === TokenizerMode.RCDATA ? this.decoded(from, open, false) : this.verbatim(from, open)
      this.standAt(open)
      this.handText(chars)
    }
    this.state = TokenizerMode.DATA
    return this.endTag(open)
  }
  private endsElement(at: number, name: string): boolean {
    for (let k = 0; k < name.length; k++)
      if ((this.text.charCodeAt(at + k) | 32) !== name.charCodeAt(k)) return false
    const behind = this.text.charCodeAt(at + name.length)
    return behind === 0x3e || behind === 0x2f || is(behind, SPACE)
  }

  /** 13.2.5.41, bogus comment state. */
  private bogusComment(open: number, from: number): number {
    const end = this.text.indexOf('>', from)
    if (end < 0) refuse('a page that ends in a bogus comment')
    return this.comment(this.verbatim(from, end), open, end + 1)
  }
  private comment(data: string, open: number, end: number): number {
    this.standAt(end - 1)
    this.parser.onComment({ type: COMMENT, data, location: placed(open, end) })
    return end
  }

  /** 13.2.5.42, markup declaration open state. */
  private markupDeclaration(open: number): number {
    const { text } = this
    if (text.startsWith('--', open + 2)) return this.wholeComment(open)
    if (/^doctype$/i.test(text.slice(open + 2, open + 9))) return this.doctype(open)
    if (text.startsWith('[CDATA[', open + 2)) {
      if (this.inForeignNode) refuse('CDATA in a drawing')
      this.error('cdata-in-html-content', open + 8)
    } else {
      if (open + 2 >= text.length) refuse('a page that ends in <!')
      this.error('incorrectly-opened-comment', open + 2)
    }
    return this.bogusComment(open, open + 2)
  }
  private wholeComment(open: number): number {
    const { text } = this
    const from = open + 4
    const close = text.indexOf('-->', from)
    if (close < 0) refuse('a page that ends in a comment')
    const data = this.verbatim(from, close)
    // A comment that is closed as it opens (`<!-->`, `<!--->`) and those that would be nested or closed oddly.
    const odd = text[from] === '>' || text.startsWith('->', from)
    if (odd || data.includes('--!>') || data.includes('<!--') || data.endsWith('<!-'))
      refuse('an odd comment')
    return this.comment(data, open, close + 3)
  }
  private doctype(open: number): number {
    doctype.lastIndex = open
    const declaration = doctype.exec(this.text)
    if (declaration === null) return refuse('an odd doctype')
    const end = open + declaration[0].length
    this.standAt(end - 1)
    this.parser.onDoctype({
      type: DOCTYPE,
      name: declaration[1]!.replace(/[A-Z]+/g, (letters) => letters.toLowerCase()),
      publicId: declaration[2] ?? declaration[3] ?? null,
      systemId: declaration[4] ?? declaration[5] ?? declaration[6] ?? declaration[7] ?? null,
      forceQuirks: false,
      location: null,
    })
    return end
  }

  /** 13.2.5.8 and 32 to 40: a tag from the first letter of its name. Returns the place behind it. */
  private readTag(from: number): number {
    const { text } = this
    if (from > this.lastTagEnd) refuse('a page that ends in a tag')
    let at = this.nameEnd(from, false)
    this.tagName = tagNames.at(text, from, at, this.nameHash)
    this.selfClosing = false
    this.attributes = []
    for (;;) {
      let unit = text.charCodeAt(at)
      while (is(unit, SPACE)) unit = text.charCodeAt(++at)
      if (unit === 0x3e /* > */) return at + 1
      if (unit === 0x2f /* / */) {
        if (text.charCodeAt(++at) === 0x3e) {
          this.selfClosing = true
          return at + 1
        }
        this.error('unexpected-solidus-in-tag', at)
      } else at = this.readAttribute(at)
    }
  }

  /** Where a name ends, and its hash in `nameHash`. In a tag's name `=` is a letter like others. */
  private nameEnd(from: number, ofAttribute: boolean): number {
    const { text } = this
    let at = from
    let hash = 0
    for (let unit = text.charCodeAt(at); ; unit = text.charCodeAt(++at)) {
      if (unit < 128) {
        const kinds = kindsOf[unit]!
        if ((kinds & (ENDS_NAME | UPPER | ODD_IN_NAME)) !== 0) {
          if ((kinds & ENDS_NAME) !== 0 && (ofAttribute || unit !== 0x3d)) break
          if ((kinds & UPPER) !== 0) unit |= 32
          else if (ofAttribute) this.error('unexpected-character-in-attribute-name', at)
        }
      }
      hash = (Math.imul(hash, 31) + unit) | 0
    }
    this.nameHash = hash
    return at
  }

  private readAttribute(from: number): number {
    const { text, attributes } = this
    if (text.charCodeAt(from) === 0x3d /* = */) refuse('= before the name of an attribute')
    let at = this.nameEnd(from, true)
    const name = attributeNames.at(text, from, at, this.nameHash)
    let repeated = false
    for (const a of attributes) if (a.name === name) repeated = true
    if (repeated) this.error('duplicate-attribute', at)
    let unit = text.charCodeAt(at)
    while (is(unit, SPACE)) unit = text.charCodeAt(++at)
    let value = ''
    if (unit === 0x3d) {
      unit = text.charCodeAt(++at)
      while (is(unit, SPACE)) unit = text.charCodeAt(++at)
      if (unit === 0x22 || unit === 0x27) {
        const close = text.indexOf(unit === 0x22 ? '"' : "'", at + 1)
        if (close < 0 || close > this.lastTagEnd) refuse('a page that ends in an attribute')
        if (close > at + 1) value = this.decoded(at + 1, close, true)
        at = close + 1
        unit = text.charCodeAt(at)
        if (unit !== 0x3e && unit !== 0x2f && !is(unit, SPACE))
          this.error('missing-whitespace-between-attributes', at)
      } else if (unit === 0x3e) this.error('missing-attribute-value', at)
      else {
        const end = this.unquotedEnd(at)
        value = this.unquoted(at, end)
        at = end
      }
    }
    if (!repeated) {
      if (attributes.length === MOST_ATTRIBUTES) refuse('very many attributes')
      attributes.push({ name, value })
    }
    return at
  }
  private unquotedEnd(from: number): number {
    let end = from
    for (let unit = this.text.charCodeAt(end); unit !== 0x3e && !is(unit, SPACE);)
      unit = this.text.charCodeAt(++end)
    return end
  }
  private unquoted(from: number, end: number): string {
    const { text } = this
    let at = from
    while (at < end && !is(text.charCodeAt(at), ODD_UNQUOTED)) at++
    if (at === end) return this.decoded(from, end, true)
    return this.inOrder(() => {
      const value = this.decoded(from, end, true)
      for (; at < end; at++)
        if (is(text.charCodeAt(at), ODD_UNQUOTED))
          this.error('unexpected-character-in-unquoted-attribute-value', at)
      return value
    })
  }

  /** A slice with line ends as the standard reads them (13.2.3.5). */
  private verbatim(from: number, to: number): string {
    const slice = this.text.slice(from, to)
    return this.hasReturns && slice.includes('\r') ? slice.replace(/\r\n?/g, '\n') : slice
  }
  /** The same with its references decoded. */
  private decoded(from: number, to: number, inAttribute: boolean): string {
    if (this.ampersand < from) this.ampersand = this.nextAmpersand(from)
    if (this.ampersand >= to) return this.verbatim(from, to)
    const { text } = this
    let decoded = ''
    let done = from
    while (this.ampersand < to) {
      decoded += this.verbatim(done, this.ampersand)
      const known = knownReference(text, this.ampersand)
      if (known !== null) {
        decoded += known.text
        done = known.end
      } else {
        const reference = readReference(text, this.ampersand, inAttribute)
        for (const { code, at } of reference.errors) this.error(code, at, at - 1)
        decoded += reference.text
        done = reference.end
      }
      this.ampersand = this.nextAmpersand(done)
    }
    if (done > to) refuse('a reference over the end of a run')
    return decoded + this.verbatim(done, to)
  }
  private nextAmpersand(from: number): number {
    const at = this.text.indexOf('&', from)
    return at < 0 ? NONE : at
  }
}
