/** ZIP archives in and out, bounded: an archive from outside must not fill the memory or climb out of its folder. */
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import { unpackEntry, zipDirectory, type ZipEntry } from './zip-read.ts'

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
  /** Bytes of all listed files, unpacked, as the archive declares them. */
  size: number
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
  const directory = zipDirectory(bytes, limits.entries + 1)
  if (!directory.ok)
    return {
      ok: false,
      why: 'This is not a ZIP archive, or it is damaged. Make it again and take it in once more.',
    }
  if (directory.count > limits.entries)
    return {
      ok: false,
      why: `The archive lists ${directory.count.toLocaleString('en')} files; at most ${limits.entries.toLocaleString('en')} are taken in. Pack only the pages.`,
    }
  const refused: ZipListing['refused'] = []
  const entries = new Map<string, ZipEntry>()
  let total = 0
  for (const entry of directory.entries) {
    const { name, method, encrypted, size, packed } = entry
    if (name.endsWith('/') || isSystemFile(name)) continue
    const path = safePath(name)
    if (path === null)
      refused.push({ path: name, why: 'Its path leads out of the archive’s folder. It was left out.' })
    else if (entries.has(path))
      refused.push({ path, why: 'The archive holds two files of this name. The first was taken.' })
    else if (encrypted)
      refused.push({ path, why: 'It is encrypted. Pack the archive again without a password.' })
    else if (method !== 0 && method !== 8)
      refused.push({
        path,
        why: 'It is packed by a method other than deflate. Pack the archive again in the usual way.',
      })
    else if (size > 1024 * 1024 && size > limits.ratio * Math.max(1, packed))
      refused.push({
        path,
        why: `It would unpack to ${mb(size)}, over ${limits.ratio} times its packed size, as archives made to do harm do. It was left out.`,
      })
    else {
      entries.set(path, entry)
      total += size
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
      paths: [...entries.keys()],
      size: total,
      refused,
      read(paths) {
        const files = new Map<string, Uint8Array>()
        const failed: { path: string; why: string }[] = []
        for (const path of paths) {
          const entry = entries.get(path)
          const unpacked = entry
            ? unpackEntry(bytes, entry)
            : { ok: false as const, why: 'It is not in the archive.' }
          if (unpacked.ok) files.set(path, unpacked.bytes)
          else failed.push({ path, why: unpacked.why })
        }
        return { files, failed }
      },
    },
  }
}

/** Packs files; pictures and other packed formats are stored as they are. Times are fixed, so that the same files give the same archive. */
export function writeZip(files: Iterable<[string, Uint8Array]>): Uint8Array {
  const parts: Uint8Array[] = []
  const zip = new Zip((error, part) => {
    if (error) throw error
    parts.push(part)
  })
  for (const [path, bytes] of files) {
    const packed = /\.(?:jpe?g|png|gif|webp|avif|woff2?|mp[34]|zip|gz|pdf)$/i.test(path)
    const file = packed ? new ZipPassThrough(path) : new ZipDeflate(path, { level: 6 })
    file.mtime = '2026-01-01T12:00:00'
    zip.add(file)
    file.push(bytes, true)
  }
  zip.end()
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const part of parts) {
    out.set(part, at)
    at += part.length
  }
  return out
}
