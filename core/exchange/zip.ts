/** ZIP archives in and out, bounded: an archive from outside must not fill the memory or climb out of its folder. */
import { unzipSync, zipSync, type UnzipFileInfo, type Zippable } from 'fflate'

export interface ZipLimits {
  entries: number
  /** Bytes unpacked, in all and for one file. */
  total: number
  /** Unpacked ÷ packed, for files over a megabyte: text seldom passes 30, deflate ends near 1,030. */
  ratio: number
}
export const zipLimits: ZipLimits = { entries: 50_000, total: 500 * 1024 * 1024, ratio: 200 }

export interface ZipListing {
  paths: string[]
  refused: { path: string; why: string }[]
  /** Unpacks some of the listed files; those that cannot be are named with the reason. */
  read(paths: string[]): { files: Map<string, Uint8Array>; failed: { path: string; why: string }[] }
}

/** A path that stays inside its folder, `/` between folders; null for one that climbs, is absolute or is no path. */
export function safePath(raw: string): string | null {
  const path = raw.replace(/\\/g, '/')
  if (path === '' || path.startsWith('/') || /^[a-z]:/i.test(path) || path.includes('\0')) return null
  const parts = path.split('/').filter((p) => p !== '' && p !== '.')
  return parts.includes('..') || parts.length === 0 ? null : parts.join('/')
}

/** What systems leave in archives and folders that belongs to no site. */
export const isSystemFile = (path: string): boolean =>
  /(?:^|\/)(?:__MACOSX|\.DS_Store|Thumbs\.db|desktop\.ini|\.git)(?:\/|$)/.test(path)

const mb = (bytes: number) => `${Math.round(bytes / 1024 / 1024)} MB`

/** Lists an archive without unpacking it; refuses one that is damaged or over the limits as a whole. */
export function openZip(
  bytes: Uint8Array,
  limits: ZipLimits = zipLimits,
): { ok: true; zip: ZipListing } | { ok: false; why: string } {
  const infos: UnzipFileInfo[] = []
  try {
    unzipSync(bytes, {
      filter: (info) => {
        infos.push(info)
        return false
      },
    })
  } catch {
    return {
      ok: false,
      why: 'This is no ZIP archive, or it is damaged. Pack it again and take it in once more.',
    }
  }
  if (infos.length > limits.entries)
    return {
      ok: false,
      why: `The archive lists ${infos.length} files; at most ${limits.entries} are taken in. Pack the pages alone.`,
    }
  const refused: ZipListing['refused'] = []
  const names = new Map<string, string>()
  let total = 0
  for (const info of infos) {
    if (info.name.endsWith('/') || isSystemFile(info.name)) continue
    const path = safePath(info.name)
    if (path === null)
      refused.push({ path: info.name, why: 'Its path leads out of the archive’s folder. It was left out.' })
    else if (names.has(path))
      refused.push({ path, why: 'The archive holds two files of this name. The first was taken.' })
    else if (info.compression !== 0 && info.compression !== 8)
      refused.push({
        path,
        why: 'It is packed by a method other than deflate. Pack the archive again in the usual way.',
      })
    else if (info.originalSize > 1024 * 1024 && info.originalSize > limits.ratio * Math.max(1, info.size))
      refused.push({
        path,
        why: `It would unpack to ${mb(info.originalSize)}, over ${limits.ratio} times its packed size, as archives made to do harm do. It was left out.`,
      })
    else {
      names.set(path, info.name)
      total += info.originalSize
    }
  }
  if (total > limits.total)
    return {
      ok: false,
      why: `The archive would unpack to ${mb(total)}; at most ${mb(limits.total)} are taken in. Leave out pictures and videos.`,
    }
  return {
    ok: true,
    zip: {
      paths: [...names.keys()],
      refused,
      read(paths) {
        const wanted = new Set(paths.map((p) => names.get(p)))
        const files = new Map<string, Uint8Array>()
        const failed: { path: string; why: string }[] = []
        let unpacked: Record<string, Uint8Array> = {}
        try {
          unpacked = unzipSync(bytes, { filter: (i) => wanted.has(i.name) })
        } catch {
          // One damaged file fails the batch: each is tried alone.
          for (const name of wanted)
            try {
              Object.assign(unpacked, unzipSync(bytes, { filter: (i) => i.name === name }))
            } catch {
              // Reported below, for it is missing from what was unpacked.
            }
        }
        for (const path of paths) {
          const file = unpacked[names.get(path)!]
          if (file) files.set(path, file)
          else failed.push({ path, why: 'It could not be unpacked: it is damaged or encrypted.' })
        }
        return { files, failed }
      },
    },
  }
}

/** Packs files; pictures and other packed formats are stored as they are. Times are fixed, so that the same files give the same archive. */
export function writeZip(files: Iterable<[string, Uint8Array]>): Uint8Array {
  const tree: Zippable = {}
  for (const [path, bytes] of files)
    tree[path] = [
      bytes,
      {
        level: /\.(?:jpe?g|png|gif|webp|avif|woff2?|mp[34]|zip|gz|pdf)$/i.test(path) ? 0 : 6,
        mtime: '2026-01-01T12:00:00',
      },
    ]
  return zipSync(tree)
}
