/** Real pages to try things on: Debian's documentation packages, fetched by apt into .cache/, never committed. */
import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join, relative, resolve } from 'node:path'
import { isPagePath } from '../../core/addresses/addresses.ts'

/** Commands run at the project's root; bundled, a file does not know where it lay. */
const cache = resolve('.cache/corpora')
export const packages = ['apache2-doc', 'debian-handbook', 'sqlite3-doc', 'vim-doc'] as const
/** One more, for edits of text alone. */
export const textPackages = [...packages, 'git-doc'] as const
export type Package = (typeof textPackages)[number]

/** The folder of a package's files; fetched when it is not there. Throws when apt cannot give it. */
export function corpus(name: Package): string {
  const folder = join(cache, name)
  const stamp = join(folder, '.complete')
  if (existsSync(stamp)) return join(folder, 'usr/share/doc')
  mkdirSync(folder, { recursive: true })
  console.error(`Fetching ${name} …`)
  try {
    execFileSync('apt-get', ['download', name], { cwd: folder, stdio: 'ignore' })
  } catch {
    execFileSync('apt-get', ['update'], { stdio: 'ignore' })
    execFileSync('apt-get', ['download', name], { cwd: folder, stdio: 'inherit' })
  }
  const deb = readdirSync(folder).find((f) => f.endsWith('.deb'))!
  execFileSync('dpkg-deb', ['-x', join(folder, deb), folder])
  writeFileSync(stamp, '')
  return join(folder, 'usr/share/doc')
}

/** Pages of a folder as the command line counts them: path and a way to read it. */
export function pagesOf(folder: string): { path: string; read(): Uint8Array }[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile() && isPagePath(e.name))
    .map((e) => join(e.parentPath, e.name))
    .sort()
    .map((file) => ({ path: relative(folder, file), read: () => new Uint8Array(readFileSync(file)) }))
}
