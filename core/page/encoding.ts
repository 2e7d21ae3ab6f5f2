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
      out.push(...(encoding === 'utf-16le' ? [unit & 255, unit >> 8] : [unit >> 8, unit & 255]))
    }
    return Uint8Array.from(out)
  }
  const map = inverse(encoding)
  for (const character of wellFormed) {
    const bytes = character < '\x80' ? [character.charCodeAt(0)] : map.get(character)
    if (bytes) out.push(...bytes)
    else for (const c of missing(character)) out.push(c.charCodeAt(0))
  }
  return Uint8Array.from(out)
}

export type DeclaredBy = 'bom' | 'meta' | 'xml' | 'valid-utf-8' | 'fall-back'

/** A BOM's encoding and length in bytes, or null. */
export function bomOf(bytes: Uint8Array): { encoding: Encoding; length: number } | null {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return { encoding: 'utf-8', length: 3 }
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { encoding: 'utf-16le', length: 2 }
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return { encoding: 'utf-16be', length: 2 }
  return null
}

/**
 * The encoding declared within the first 1024 bytes. Source: WHATWG HTML 13.2.3.2, "prescan a byte stream", read
 * by tags rather than byte by byte; a UTF-16 label means UTF-8 there, as the standard says.
 */
export function prescan(bytes: Uint8Array): { encoding: Encoding; by: 'meta' | 'xml' } | null {
  const head = byteView(bytes.subarray(0, 1024)).replace(/<!--[\s\S]*?(?:-->|$)/g, (c) =>
    ' '.repeat(c.length),
  )
  for (const tag of head.matchAll(/<meta[\s/][^>]*>/gi)) {
    const charset = /[\s/"']charset\s*=\s*["']?\s*([^\s"'/>;]+)/i.exec(tag[0])
    const found = charset && encodingOfLabel(charset[1]!)
    if (!found) continue
    const isContent = /charset\s*=/i.test(/content\s*=\s*("[^"]*"|'[^']*')/i.exec(tag[0])?.[0] ?? '')
    if (isContent && !/http-equiv\s*=\s*["']?\s*content-type/i.test(tag[0])) continue
    return { encoding: found.startsWith('utf-16') ? 'utf-8' : found, by: 'meta' }
  }
  const xml = /^<\?xml[^>]*?\sencoding\s*=\s*["']([^"']+)["']/.exec(head)
  const found = xml && encodingOfLabel(xml[1]!)
  return found ? { encoding: found.startsWith('utf-16') ? 'utf-8' : found, by: 'xml' } : null
}
