/** A site's files from a folder, a ZIP or single files, read when they are asked for. */
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { basename, join, relative, sep } from 'node:path'
import { isSystemFile, openZip } from '../core/exchange/zip.ts'
import { Problem } from './problem.ts'

export interface SiteFiles {
  /** All files, pages or not, in order of their paths. */
  paths: string[]
  /** Whether this is a whole site: one folder or one ZIP. */
  whole: boolean
  read(path: string): Uint8Array
  /** The path that counts for the address, where it is not the path as given. */
  addressPath(path: string): string
  unread: { path: string; why: string }[]
}

const byPath = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0)

function folder(root: string): SiteFiles {
  const paths = readdirSync(root, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => relative(root, join(entry.parentPath, entry.name)).split(sep).join('/'))
    .filter((path) => !isSystemFile(path))
    .sort(byPath)
  return {
    paths,
    whole: true,
    read: (path) => readFileSync(join(root, path)),
    addressPath: (p) => p,
    unread: [],
  }
}

function archive(file: string): SiteFiles {
  const opened = openZip(readFileSync(file))
  if (!opened.ok) throw new Problem(`${file}: ${opened.why}`)
  const { zip } = opened
  return {
    paths: [...zip.paths].sort(byPath),
    whole: true,
    read(path) {
      const { files, failed } = zip.read([path])
      const bytes = files.get(path)
      if (!bytes) throw new Problem(failed[0]?.why ?? 'It could not be unpacked.')
      return bytes
    },
    addressPath: (p) => p,
    unread: zip.refused,
  }
}

const isZip = (path: string) => /\.zip$/i.test(path)

export function openSite(given: string[]): SiteFiles {
  if (given.length === 0) throw new Problem('Name a page, a folder or a ZIP archive.')
  for (const path of given)
    if (!existsSync(path)) throw new Problem(`${path}: there is no such file or folder.`)
  const open = (path: string) =>
    statSync(path).isDirectory() ? folder(path) : isZip(path) ? archive(path) : null
  const only = given.length === 1 ? open(given[0]!) : null
  if (only) return only
  const parts = given.map((path) => ({
    path: path.split(sep).join('/').replace(/\/$/, ''),
    site: open(path),
  }))
  const where = new Map<string, { read: () => Uint8Array; address: string }>()
  for (const { path, site } of parts) {
    if (!site) where.set(path, { read: () => readFileSync(path), address: basename(path) })
    else for (const p of site.paths) where.set(`${path}/${p}`, { read: () => site.read(p), address: p })
  }
  return {
    paths: [...where.keys()],
    whole: false,
    read: (path) => where.get(path)!.read(),
    addressPath: (path) => where.get(path)!.address,
    unread: parts.flatMap(({ path, site }) =>
      (site?.unread ?? []).map((u) => ({ ...u, path: `${path}/${u.path}` })),
    ),
  }
}
