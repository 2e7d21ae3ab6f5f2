/**
 * Bytes to text and back, by the WHATWG Encoding Standard's labels. The platform's decoder does the work, with two
 * corrections: windows-1252 has a table of its own (Node 20 leaves its 0x80 to 0x9F as C1 controls), and encoding,
 * which the platform does for UTF-8 only, inverts the decoder.
 */

/** windows-1252, 0x80 to 0x9F. Source: WHATWG Encoding Standard, index-windows-1252. */
const WINDOWS_1252 =
  '\u20ac\x81\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\x8d\u017d\x8f' +
  '\x90\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\x9d\u017e\u0178'

export type Encoding = string

/** Labels of the replacement encoding, which no decoder reads. Source: WHATWG Encoding Standard, "Names and labels". */
const replaced = new Set([
  'csiso2022kr',
  'hz-gb-2312',
  'iso-2022-cn',
  'iso-2022-cn-ext',
  'iso-2022-kr',
  'replacement',
])

/** The encoding that a label names, in lower case (`latin1` → `windows-1252`), or null for an unknown label. */
export function encodingOfLabel(label: string): Encoding | null {
  const trimmed = label.trim().toLowerCase()
  if (trimmed === 'x-user-defined') return 'windows-1252'
  if (replaced.has(trimmed)) return 'replacement'
  try {
    return new TextDecoder(trimmed).encoding.toLowerCase()
  } catch {
    return null
  }
}

/** One UTF-16 unit for each byte: the view in which places are byte places. */
export function byteView(bytes: Uint8Array): string {
  let text = ''
  for (let i = 0; i < bytes.length; i += 16384)
    text += String.fromCharCode.apply(null, bytes.subarray(i, i + 16384) as unknown as number[])
  return text
}

const cp1252 = /[\x80-\x9f]/g

/** Decodes without a BOM (the caller has taken it off). Malformed input becomes U+FFFD; never throws. */
export function decode(bytes: Uint8Array, encoding: Encoding): string {
  if (encoding === 'windows-1252')
    return new TextDecoder(encoding)
      .decode(bytes)
      .replace(cp1252, (c) => WINDOWS_1252[c.charCodeAt(0) - 0x80]!)
  return new TextDecoder(encoding, { ignoreBOM: true }).decode(bytes)
}

/** Whether the bytes are valid UTF-8. */
export function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return true
  } catch {
    return false
  }
}

const multibyte = new Set(['big5', 'euc-jp', 'euc-kr', 'gbk', 'gb18030', 'shift_jis'])
const inverses = new Map<Encoding, Map<string, number[]>>()

function inverse(encoding: Encoding): Map<string, number[]> {
  const known = inverses.get(encoding)
  if (known) return known
  const map = new Map<string, number[]>()
  const learn = (bytes: number[]) => {
    const text = decode(Uint8Array.from(bytes), encoding)
    if (!text.includes('\ufffd') && [...text].length === 1 && !map.has(text)) map.set(text, bytes)
  }
  for (let b = 0; b < 256; b++) learn([b])
  if (multibyte.has(encoding))
    for (let lead = 0x81; lead < 0xff; lead++)
      for (let trail = 0x40; trail < 0xff; trail++) learn([lead, trail])
  inverses.set(encoding, map)
  return map
}

/** For pages that declare no encoding: whatever a reader takes them for, these bytes mean the same. */
export const ASCII = 'us-ascii'
const none = new Map<string, number[]>()

/**
 * Text to bytes in an encoding. What the encoding lacks is written by `missing` (a numeric reference in text and
 * attributes, `\uXXXX` in JSON), which must return ASCII.
 */
export function encode(text: string, encoding: Encoding, missing: (character: string) => string): Uint8Array {
  const wellFormed = text.isWellFormed() ? text : text.toWellFormed()
  if (encoding === 'utf-8') return new TextEncoder().encode(wellFormed)
  const out: number[] = []
  if (encoding === 'utf-16le' || encoding === 'utf-16be') {
    for (let i = 0; i < wellFormed.length; i++) {
      const unit = wellFormed.charCodeAt(i)
      if (encoding === 'utf-16le') out.push(unit & 255, unit >> 8)
      else out.push(unit >> 8, unit & 255)
    }
    return Uint8Array.from(out)
  }
  const map = encoding === ASCII ? none : inverse(encoding)
  for (const character of wellFormed) {
    const bytes = character < '\x80' ? [character.charCodeAt(0)] : map.get(character)
    if (bytes) for (const byte of bytes) out.push(byte)
    else for (const c of missing(character)) out.push(c.charCodeAt(0))
  }
  return Uint8Array.from(out)
}

export type DeclaredBy = 'bom' | 'header' | 'meta' | 'xml' | 'valid-utf-8' | 'fall-back'

/** A BOM's encoding and length in bytes, or null. */
export function bomOf(bytes: Uint8Array): { encoding: Encoding; length: number } | null {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return { encoding: 'utf-8', length: 3 }
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { encoding: 'utf-16le', length: 2 }
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return { encoding: 'utf-16be', length: 2 }
  return null
}

/** Elements whose content is no markup: what reads like a tag in it declares nothing. */
const textOnly = /^(?:title|textarea|style|script|xmp|iframe|noembed|noframes)$/
const isSpaceOrSlash = (c: string | undefined) => c !== undefined && /[\t\n\f\r /]/.test(c)

/** The attributes of a tag whose name ends at `from`, in lower case, and where the tag ends. Source: WHATWG HTML 13.2.3.2, "get an attribute". */
function attributesFrom(head: string, from: number): { attributes: Map<string, string>; end: number } {
  const attributes = new Map<string, string>()
  let i = from
  while (i < head.length) {
    while (isSpaceOrSlash(head[i])) i++
    if (i >= head.length || head[i] === '>') break
    let name = ''
    while (i < head.length && !/[\t\n\f\r />=]/.test(head[i]!)) name += head[i++]!
    // A sign of equality with no name before it is taken for part of one.
    if (name === '') name += head[i++]!
    let next = i
    while (next < head.length && /[\t\n\f\r ]/.test(head[next]!)) next++
    let value = ''
    if (head[next] === '=') {
      i = next + 1
      while (i < head.length && /[\t\n\f\r ]/.test(head[i]!)) i++
      const quote = head[i]
      if (quote === '"' || quote === "'") {
        const close = head.indexOf(quote, i + 1)
        value = head.slice(i + 1, close < 0 ? head.length : close)
        i = close < 0 ? head.length : close + 1
      } else while (i < head.length && !/[\t\n\f\r >]/.test(head[i]!)) value += head[i++]!
    }
    const key = name.toLowerCase()
    if (!attributes.has(key)) attributes.set(key, value.toLowerCase())
  }
  return { attributes, end: Math.min(i + 1, head.length) }
}

/** The label that a `content` names behind `charset=`; null for none. Source: WHATWG HTML 2.5.3. */
export function charsetOfContent(content: string): string | null {
  for (let at = content.toLowerCase().indexOf('charset'); at >= 0;) {
    const rest = content.slice(at + 7).trimStart()
    if (rest.startsWith('=')) {
      const value = rest.slice(1).trimStart()
      const quote = value[0]
      if (quote === '"' || quote === "'") {
        const close = value.indexOf(quote, 1)
        return close < 0 ? null : value.slice(1, close)
      }
      return value.split(/[\s;]/, 1)[0]!
    }
    at = content.toLowerCase().indexOf('charset', at + 7)
  }
  return null
}

export interface Declared {
  encoding: Encoding
  by: 'meta' | 'xml'
  /** Byte where the declaring tag begins, and where it ends. */
  start: number
  end: number
}

/**
 * The encoding declared within the first 1024 bytes. Source: WHATWG HTML 13.2.3.2, "prescan a byte stream"; a UTF-16
 * label means UTF-8 there, as the standard says, and what stands in a title or a script is passed over, as browsers do.
 */
export function prescan(bytes: Uint8Array): Declared | null {
  const head = byteView(bytes.subarray(0, 1024))
  const named = (label: string, by: Declared['by'], start: number, end: number): Declared | null => {
    const encoding = encodingOfLabel(label)
    if (encoding === null) return null
    return { encoding: encoding.startsWith('utf-16') ? 'utf-8' : encoding, by, start, end }
  }
  for (let i = head.indexOf('<'); i >= 0; i = head.indexOf('<', i)) {
    if (head.startsWith('<!--', i)) {
      const end = head.indexOf('-->', i + 2)
      if (end < 0) break
      i = end + 3
      continue
    }
    const tag = /^<(\/?)([a-z][^\t\n\f\r />]*)/i.exec(head.slice(i, i + 200))
    if (!tag) {
      const end = /^<[!/?]/.test(head.slice(i, i + 2)) ? head.indexOf('>', i) : i
      if (end < 0) break
      i = end + 1
      continue
    }
    const start = i
    const name = tag[2]!.toLowerCase()
    const { attributes, end } = attributesFrom(head, i + tag[0].length)
    // A tag that the 1024 bytes cut off declares nothing.
    if (head[end - 1] !== '>') break
    i = end
    if (name === 'meta' && tag[1] === '') {
      const charset = attributes.get('charset')
      const pragma = attributes.get('http-equiv') === 'content-type'
      const content = pragma ? charsetOfContent(attributes.get('content') ?? '') : null
      const declared =
        (charset === undefined ? null : named(charset, 'meta', start, end)) ??
        (content === null ? null : named(content, 'meta', start, end))
      if (declared) return declared
    } else if (textOnly.test(name) && tag[1] === '') {
      const close = head.toLowerCase().indexOf(`</${name}`, i)
      if (close < 0) break
      i = close
    }
  }
  const xml = /^<\?xml[^>]*?\sencoding\s*=\s*["']([^"']+)["'][^>]*>/.exec(head)
  return xml ? named(xml[1]!, 'xml', 0, xml[0].length) : null
}
