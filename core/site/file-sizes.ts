/** How large the files of a site are, and of images how many pixels: read from their bytes. */
import { imageSize } from 'image-size'
import type { PageId } from './page-identity.ts'

export interface FileSize {
  bytes: number
  /** Of an image, in its own pixels; null for other files, and for images that cannot be read. */
  image: { width: number; height: number } | null
}
/** By the ids of files that are no pages; a file that the site does not have has no size. */
export interface FileSizes {
  get(id: PageId): FileSize | undefined
}
export const noFileSizes: FileSizes = new Map<PageId, FileSize>()

const isImagePath = (path: string): boolean =>
  /\.(?:avif|bmp|gif|heic|heif|ico|jpe?g|jxl|png|svg|tiff?|webp)$/i.test(path)

/** Drawings are text, in which a size is looked for by patterns: as much of it as any head takes. */
const MOST_OF_A_DRAWING = 8_192
/** A browser draws no larger images. From memory. */
const LARGEST_SIDE = 65_535

export function fileSizeOf(path: string, bytes: Uint8Array): FileSize {
  return { bytes: bytes.length, image: isImagePath(path) ? imageSizeOf(bytes) : null }
}

/** An image's size in its own pixels, turned as its camera says; null for anything that is not one. Never throws. */
export function imageSizeOf(bytes: Uint8Array): FileSize['image'] {
  try {
    const isText = bytes[0] === 0x3c || bytes[0] === 0xef || bytes[0] === 0x0a || bytes[0] === 0x20
    const { width, height, orientation } = imageSize(isText ? bytes.subarray(0, MOST_OF_A_DRAWING) : bytes)
    const isSize = (side: number) => Number.isFinite(side) && side > 0 && side <= LARGEST_SIDE
    if (!isSize(width) || !isSize(height)) return null
    // Exif 2.3, tag 0x0112: five to eight lie on their side.
    return orientation !== undefined && orientation >= 5
      ? { width: height, height: width }
      : { width, height }
  } catch {
    return null
  }
}

/** Sizes read when they are first asked for, by a reader that gives null where there is no such file. */
export function sizesOnDemand(read: (id: PageId) => Uint8Array | null): FileSizes {
  const known = new Map<PageId, FileSize | undefined>()
  return {
    get(id) {
      if (!known.has(id)) {
        const bytes = read(id)
        known.set(id, bytes ? fileSizeOf(id, bytes) : undefined)
      }
      return known.get(id)
    },
  }
}
