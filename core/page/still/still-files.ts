/** The files that a still page may show: the site's own, as data, within limits. */
import { dataUrl } from './base64.ts'

/** A file of the site at an address; null where the site does not have it. */
export type FileAt = (url: string) => Promise<StillFile | null>
export interface StillFile {
  path: string
  bytes: Uint8Array
  /** Of an image, in its own pixels; null where it is not known. */
  image: { width: number; height: number } | null
}

const imageTypes = new Map([
  ['png', 'image/png'],
  ['jpg', 'image/jpeg'],
  ['jpeg', 'image/jpeg'],
  ['gif', 'image/gif'],
  ['webp', 'image/webp'],
  ['avif', 'image/avif'],
  ['svg', 'image/svg+xml'],
  ['bmp', 'image/bmp'],
  ['ico', 'image/x-icon'],
])
/** The media type of an image by its path; null for any other file. */
export const imageTypeOf = (path: string): string | null => imageTypes.get(endOf(path)) ?? null

const fontTypes = new Map([
  ['woff2', 'font/woff2'],
  ['woff', 'font/woff'],
  ['ttf', 'font/ttf'],
  ['otf', 'font/otf'],
])
const endOf = (path: string): string => /\.([a-z0-9]{1,8})$/i.exec(path)?.[1]?.toLowerCase() ?? ''

/** Bytes of all images and fonts together that are put into one still page, and of one of them. */
const MOST_IN_ALL = 12_000_000
const MOST_IN_ONE = 4_000_000

/** A drawing of nothing that keeps the room of an image. */
const roomFor = ({ width, height }: { width: number; height: number }): string =>
  `data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='${width}' height='${height}'/%3E`

/** What a still page was made with. */
export class StillFiles {
  /** Files that were named and are not of the site. */
  readonly absent = new Set<string>()
  /** Files of the site that were too much, and are shown as empty room. */
  readonly left = new Set<string>()
  private bytes = 0
  private readonly known = new Map<string, string | null>()
  private readonly fileAt: FileAt

  constructor(fileAt: FileAt) {
    this.fileAt = fileAt
  }

  /** A file by its address, noted as absent where the site does not have it. */
  async file(url: string | null): Promise<StillFile | null> {
    const file = url === null ? null : await this.fileAt(url)
    if (!file && url !== null) this.absent.add(url)
    return file
  }

  /** An image or a font as a data URL; null where it is neither, or not there. */
  async data(url: string | null): Promise<string | null> {
    if (url === null) return null
    const known = this.known.get(url)
    if (known !== undefined) return known
    const data = await this.read(url)
    this.known.set(url, data)
    return data
  }

  private async read(url: string): Promise<string | null> {
    const file = await this.file(url)
    if (!file) return null
    const type = imageTypeOf(file.path) ?? fontTypes.get(endOf(file.path))
    if (!type) return null
    if (file.bytes.length <= MOST_IN_ONE && this.bytes + file.bytes.length <= MOST_IN_ALL) {
      this.bytes += file.bytes.length
      return dataUrl(type, file.bytes)
    }
    this.left.add(file.path)
    return file.image && roomFor(file.image)
  }
}
