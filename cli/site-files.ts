/** A site's files from a folder, a ZIP or single files, read when they are asked for. */
import { existsSync, readdirSync, readFileSync, realpathSync, statSync, type Dirent } from 'node:fs'
import { basename, join, sep } from 'node:path'
import { isProject, readProject, type Project } from '../core/exchange/project.ts'
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
  /** The project file that the site came in with its work, where it did. */
  project: Project | null
  unread: { path: string; why: string }[]
}

const byPath = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0)

/** Files of a folder. A link is followed where it leads to a file within the folder; any other is named. */
function folder(root: string): SiteFiles {
  const unread: SiteFiles['unread'] = []
  const paths: string[] = []
  const real = realpathSync(root)
  const leadsTo = (path: string): string | null => {
    try {
      return realpathSync(path)
    } catch {
      return null
    }
  }
  const open = ['']
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    let entries: Dirent[]
    try {
      entries = readdirSync(join(root, at), { withFileTypes: true })
    } catch (error) {
      if (at === '') throw new Problem(`${root} cannot be read (${(error as Error).message}).`)
      unread.push({ path: at, why: 'The folder cannot be opened. Change its permissions and try again.' })
      continue
    }
    for (const entry of entries) {
      const path = at === '' ? entry.name : `${at}/${entry.name}`
      if (isSystemFile(path)) continue
      if (entry.isDirectory()) open.push(path)
      else if (entry.isFile()) paths.push(path)
      else if (entry.isSymbolicLink()) {
        const target = leadsTo(join(root, path))
        const within = target !== null && (target === real || target.startsWith(real + sep))
        if (within && statSync(target).isFile()) paths.push(path)
        else
          unread.push({
            path,
            why:
              target === null
                ? 'It is a symbolic link that leads nowhere. It was left out.'
                : within
                  ? 'It is a symbolic link to a folder that is already part of the site. It was left out.'
                  : 'It is a symbolic link that leads out of the folder. It was left out.',
          })
      }
    }
  }
  return {
    paths: paths.sort(byPath),
    whole: true,
    read: (path) => readFileSync(join(root, path)),
    addressPath: (p) => p,
    project: null,
    unread: unread.sort((a, b) => byPath(a.path, b.path)),
  }
}

function archive(file: string): SiteFiles {
  const archived = readFileSync(file)
  const opened = openZip(archived)
  if (!opened.ok) throw new Problem(`${file}: ${opened.why}`)
  const { zip } = opened
  if (isProject(zip.paths)) return projectFiles(file, archived)
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
    project: null,
    unread: zip.refused,
  }
}

/** Whether a path names a project file. */
export function isProjectFile(path: string): boolean {
  if (!existsSync(path)) throw new Problem(`${path}: there is no such file.`)
  if (!statSync(path).isFile()) return false
  const opened = openZip(readFileSync(path))
  return opened.ok && isProject(opened.zip.paths)
}

/** The files of a project, with the work that was done on them. */
function projectFiles(file: string, archived: Uint8Array): SiteFiles {
  const read = readProject(archived)
  if (!read.ok) throw new Problem(`${file}: ${read.why}`)
  const { project } = read
  const { root, whole } = project.site
  return {
    paths: [...project.files.keys()].sort(byPath),
    whole,
    read: (path) => project.files.get(path)!,
    addressPath: (path) => (path.startsWith(root) ? path.slice(root.length) : path),
    project,
    unread: [],
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
    project: null,
    unread: parts.flatMap(({ path, site }) =>
      (site?.unread ?? []).map((u) => ({ ...u, path: `${path}/${u.path}` })),
    ),
  }
}
