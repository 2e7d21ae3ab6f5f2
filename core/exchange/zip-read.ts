/**
 * The directory of a ZIP archive and its files, by the format's public specification (APPNOTE 6.3.10): names, sizes and
 * check sums are compared with what is unpacked, and nothing unpacks to more than it declares.
 */
import { inflateSync } from 'fflate'

export interface ZipEntry {
  name: string
  method: number
  encrypted: boolean
  crc: number
  /** Bytes packed and unpacked, as declared. */
  packed: number
  size: number
  /** Where its own header stands. */
  at: number
}

/** Code page 437, 0x80 to 0xFF: the encoding of names that are not UTF-8. From memory. */
const CP437 =
  'ÇüéâäàåçêëèïîìÄÅÉæÆôöòûùÿÖÜ¢£¥₧ƒáíóúñÑªº¿⌐¬½¼¡«»░▒▓│┤╡╢╖╕╣║╗╝╜╛┐└┴┬├─┼╞╟╚╔╩╦╠═╬╧╨╤╥╙╘╒╓╫╪┘┌█▄▌▐▀αßΓπΣσµτΦΘΩδ∞φε∩≡±≥≤⌠⌡÷≈°∙·√ⁿ²■\u00a0'
const utf8 = new TextDecoder('utf-8', { fatal: true })

/** A file's name: UTF-8 where its bytes are valid, whatever the archive's flag says; else code page 437. */
function nameOf(bytes: Uint8Array): string {
  try {
    return utf8.decode(bytes)
  } catch {
    return Array.from(bytes, (b) => (b < 0x80 ? String.fromCharCode(b) : CP437[b - 0x80]!)).join('')
  }
}

const END = 0x06054b50
const END64_LOCATOR = 0x07064b50
const END64 = 0x06064b50
const ENTRY = 0x02014b50
const LOCAL = 0x04034b50
/** The end record and the longest comment behind it. */
const END_WITHIN = 22 + 0xffff
const FULL = 0xffffffff

const damaged = { ok: false as const }
export type Directory = { ok: true; entries: ZipEntry[]; count: number } | typeof damaged

/** Lists an archive's entries, at most `most` of them; `count` is how many it says it has. Not ok: no archive, or damaged. */
export function zipDirectory(bytes: Uint8Array, most: number): Directory {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const long = (at: number) => Number(view.getBigUint64(at, true))
  let end = bytes.length - 22
  for (const least = Math.max(0, bytes.length - END_WITHIN); end >= least; end--)
    if (view.getUint32(end, true) === END) break
  if (end < 0 || end < bytes.length - END_WITHIN || view.getUint32(end, true) !== END) return damaged
  let count = view.getUint16(end + 10, true)
  let size = view.getUint32(end + 12, true)
  let start = view.getUint32(end + 16, true)
  let upTo = end
  const locator = end - 20
  if (locator >= 0 && view.getUint32(locator, true) === END64_LOCATOR) {
    const at = long(locator + 8)
    if (at + 56 > bytes.length || view.getUint32(at, true) !== END64) return damaged
    count = long(at + 32)
    size = long(at + 40)
    start = long(at + 48)
    upTo = at
  }
  // What stands before the archive, as in one that unpacks itself, moves all places on.
  const moved = upTo - size - start
  if (moved < 0) return damaged
  const entries: ZipEntry[] = []
  let at = start + moved
  for (let i = 0; i < count && i < most; i++) {
    if (at + 46 > upTo || view.getUint32(at, true) !== ENTRY) return damaged
    const nameLength = view.getUint16(at + 28, true)
    const extraLength = view.getUint16(at + 30, true)
    const next = at + 46 + nameLength + extraLength + view.getUint16(at + 32, true)
    if (next > upTo) return damaged
    const entry: ZipEntry = {
      name: nameOf(bytes.subarray(at + 46, at + 46 + nameLength)),
      method: view.getUint16(at + 10, true),
      encrypted: (view.getUint16(at + 8, true) & 1) === 1,
      crc: view.getUint32(at + 16, true),
      packed: view.getUint32(at + 20, true),
      size: view.getUint32(at + 24, true),
      at: view.getUint32(at + 42, true),
    }
    // Sizes of four gigabytes and more, and archives written as if they had them: the extra field of kind 1.
    for (let e = at + 46 + nameLength; e + 4 <= at + 46 + nameLength + extraLength;) {
      const length = view.getUint16(e + 2, true)
      if (view.getUint16(e, true) === 1) {
        let field = e + 4
        for (const key of ['size', 'packed', 'at'] as const)
          if (entry[key] === FULL && field + 8 <= e + 4 + length) {
            entry[key] = long(field)
            field += 8
          }
      }
      e += 4 + length
    }
    entry.at += moved
    entries.push(entry)
    at = next
  }
  return { ok: true, entries, count }
}

const crcTable = new Uint32Array(256)
for (let n = 0; n < 256; n++) {
  let c = n
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1
  crcTable[n] = c
}
/** CRC-32 as ZIP has it (APPNOTE 4.4.7). */
export function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff
  for (let i = 0; i < bytes.length; i++) crc = crcTable[(crc ^ bytes[i]!) & 0xff]! ^ (crc >>> 8)
  return (crc ^ 0xffffffff) >>> 0
}

const again = 'Pack the archive again.'

/** Unpacks one entry, or says why it cannot be. */
export function unpackEntry(
  bytes: Uint8Array,
  entry: ZipEntry,
): { ok: true; bytes: Uint8Array } | { ok: false; why: string } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const { at, packed, size } = entry
  if (at + 30 > bytes.length || view.getUint32(at, true) !== LOCAL)
    return { ok: false, why: `It is not where the archive says. ${again}` }
  const start = at + 30 + view.getUint16(at + 26, true) + view.getUint16(at + 28, true)
  if (start + packed > bytes.length) return { ok: false, why: `It is cut short. ${again}` }
  const data = bytes.subarray(start, start + packed)
  let out: Uint8Array
  try {
    // A byte more than declared, so that more than that is noticed and never kept.
    out = entry.method === 0 ? data.slice() : inflateSync(data, { out: new Uint8Array(size + 1) })
  } catch {
    return { ok: false, why: `It could not be unpacked: it is damaged. ${again}` }
  }
  if (out.length > size)
    return { ok: false, why: `It unpacks to more than the archive declares (${size} bytes). ${again}` }
  if (out.length < size)
    return { ok: false, why: `It is cut short: ${out.length} of ${size} bytes. ${again}` }
  if (crc32(out) !== entry.crc) return { ok: false, why: `Its check sum is wrong: it is damaged. ${again}` }
  return { ok: true, bytes: out }
}
