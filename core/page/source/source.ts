/** A page's source: its bytes as they were taken in, never changed, and the text that they decode to. */
import type { Served } from './served.ts'
import {
  bomOf,
  decode,
  encodingOfLabel,
  isUtf8,
  prescan,
  type DeclaredBy,
  type Encoding,
} from './encoding.ts'

export interface Source {
  /** All bytes, the BOM included. */
  readonly bytes: Uint8Array
  readonly encoding: Encoding
  readonly encodingBy: DeclaredBy
  /** Length of the BOM in bytes, 0 without one. */
  readonly bom: number
  /** The decoded text without the BOM; every place in the facts counts its UTF-16 units. */
  readonly text: string
  /** What the server said with it; null for a file. */
  readonly served: Served | null
}

export type SourceResult = { ok: true; source: Source } | { ok: false; why: string }

/** File signatures of what is often saved with a page's extension by mistake. Source: the formats' own specifications. */
const signatures: [string, string][] = [
  ['\xff\xd8\xff', 'a JPEG picture'],
  ['\x89PNG\r\n', 'a PNG picture'],
  ['GIF8', 'a GIF picture'],
  ['%PDF-', 'a PDF document'],
  ['PK\x03\x04', 'a ZIP archive or an office document'],
  ['\x1f\x8b', 'a gzip archive'],
  ['RIFF', 'a WebP picture, a sound or a video'],
  ['\x7fELF', 'a program'],
  ['wOF2', 'a font'],
]

/** A source without questions asked, for bytes that were taken in before or made by a patch. */
export function sourceOf(
  bytes: Uint8Array,
  encoding: Encoding,
  encodingBy: DeclaredBy,
  bom: number,
  served: Served | null = null,
): Source {
  return { bytes, encoding, encodingBy, bom, text: decode(bytes.subarray(bom), encoding), served }
}

/** With more than one NUL in so many bytes a file is no text; a stray one is read as browsers read it. From memory. */
const FEWEST_TO_NUL = 32
/** A page of more bytes than this is not read: nobody's copy is that long, and the desk could not show it. */
export const LARGEST_PAGE = 32 * 1024 * 1024

/**
 * Bytes to source. The encoding is the BOM's, else that of the server's header, else that declared in the first 1024
 * bytes, else UTF-8 where the bytes are valid UTF-8, else windows-1252. Source: WHATWG HTML 13.2.3.2. Refuses, with what
 * to do, bytes that are no text.
 */
export function readSource(bytes: Uint8Array, served: Served | null = null): SourceResult {
  if (bytes.length === 0)
    return { ok: false, why: 'The file is empty. Save the page again and take it in once more.' }
  if (bytes.length > LARGEST_PAGE)
    return {
      ok: false,
      why: `It is larger than ${LARGEST_PAGE / 1024 / 1024} MB. Divide the page and take it in again.`,
    }
  const start = String.fromCharCode(...bytes.subarray(0, 8))
  const signature = signatures.find(([magic]) => start.startsWith(magic))
  if (signature)
    return {
      ok: false,
      why: `This is ${signature[1]}, not a page, whatever its name says. Give it its own extension.`,
    }
  const bom = bomOf(bytes)
  if (bom) return { ok: true, source: sourceOf(bytes, bom.encoding, 'bom', bom.length, served) }
  const head = bytes.subarray(0, 1024)
  if (head.reduce((n, byte) => n + Number(byte === 0), 0) * FEWEST_TO_NUL > head.length)
    return {
      ok: false,
      why: 'The file holds binary data, or UTF-16 without a byte order mark. Save it as UTF-8 and take it in again.',
    }
  const header = served?.charset ? encodingOfLabel(served.charset) : null
  const declared = header ? { encoding: header, by: 'header' as const } : prescan(bytes)
  if (declared?.encoding === 'replacement')
    return { ok: false, why: 'It declares an encoding that browsers no longer read. Save it as UTF-8.' }
  if (declared) return { ok: true, source: sourceOf(bytes, declared.encoding, declared.by, 0, served) }
  return isUtf8(bytes)
    ? { ok: true, source: sourceOf(bytes, 'utf-8', 'valid-utf-8', 0, served) }
    : { ok: true, source: sourceOf(bytes, 'windows-1252', 'fall-back', 0, served) }
}

/** Whether it is said which encoding the bytes are in: by a BOM, the server, a meta or the XML declaration. */
export const declaresEncoding = ({ encodingBy }: Pick<Source, 'encodingBy'>): boolean =>
  encodingBy !== 'valid-utf-8' && encodingBy !== 'fall-back'

/** Why a source can be read but not patched, or null where it can. */
export function whyUnpatchable(source: Source): string | null {
  return source.encoding === 'iso-2022-jp'
    ? 'The page is in ISO-2022-JP, in which parts of a page cannot be changed safely. Save it as UTF-8 to edit it.'
    : null
}
