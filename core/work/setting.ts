/** The site that a page is judged in: what every question about one of its pages starts from. */
import { addressBook, addressOf, decodedPath, sameAddress } from '../addresses/addresses.ts'
import type { TemplateRule } from '../headings/template-rules.ts'
import type { HouseStyle } from '../rules/house-style.ts'
import { movesOf, type Moves, type SlugEdit } from '../site/moves.ts'
import type { PageId, PageIdentity } from '../site/page-identity.ts'
import type { SiteIndex } from '../site/site-index.ts'
import { draftOf, type Decisions } from './decisions.ts'

export interface SiteSetting {
  index: SiteIndex
  style: HouseStyle
  /** The site's name on the shelf. */
  name: string
  /** The address of the site's root, ending in `/`; and whether it is known rather than assumed. */
  base: string
  baseKnown: boolean
  /** The folder of the archive that is the site's root, `site/`; "" where it is the top. */
  root: string
  /** Addresses that changed, by paths from the root. */
  moves: Moves
  /** YYYY-MM-DD */
  date: string
  /** Rules for what recurs on pages built alike. */
  templates: readonly TemplateRule[]
}

/** The name that the site goes by in its pages' data: the house's own, or the shelf's where that is no mere address. */
export const siteNameOf = ({ style, name }: Pick<SiteSetting, 'style' | 'name'>): string | null =>
  style.siteName ?? (/^[^\s]+\.[a-z]{2,}$/i.test(name) ? null : name)

/** A file's path from the site's root. */
export const fromRoot = (file: string, { root }: Pick<SiteSetting, 'root'>): string =>
  root !== '' && file.startsWith(root) ? file.slice(root.length) : file

/**
 * The path whose segments a slug changes: the file's from the root, or that which a file at the page's address would
 * have. Null for an address that no file has: one with a query, or outside of the site.
 */
export function slugPath(
  { file, url }: Pick<PageIdentity, 'file' | 'url'>,
  site: Pick<SiteSetting, 'root' | 'base'>,
): string | null {
  if (file !== null) return fromRoot(file, site)
  if (!url.startsWith(site.base)) return null
  const root = decodedPath(site.base)
  const path = decodedPath(url).slice(root.length)
  const inFolder = path === '' || path.endsWith('/') ? `${path}index.html` : path
  return sameAddress(addressOf(inFolder, site.base), url) ? inFolder : null
}

/** A page's address as it is handed off, and as it was taken in. */
export function addressesFor(page: PageIdentity, setting: SiteSetting): { url: string; oldUrl: string } {
  if (setting.moves.paths.size === 0) return { url: page.url, oldUrl: page.url }
  const path = slugPath(page, setting)
  const moved = path === null ? undefined : setting.moves.paths.get(path)
  return { url: moved === undefined ? page.url : addressOf(moved, setting.base), oldUrl: page.url }
}

/** The slug that was decided for a page; null where none was. */
export function slugOf(decisions: Decisions): SlugEdit | null {
  const edit = draftOf(decisions).slug
  return edit?.value === undefined ? null : { value: edit.value, ...(edit.alone ? { alone: true } : {}) }
}

/** All of a site that has a path, by id and path from the root: pages, by their file or by their address, then other files. */
export const filesFromRoot = (
  pages: Iterable<PageIdentity>,
  otherFiles: readonly string[],
  site: Pick<SiteSetting, 'root' | 'base'>,
): (readonly [PageId, string])[] => [
  ...[...pages].flatMap((page) => {
    const path = slugPath(page, site)
    return path === null ? [] : [[page.id, path] as const]
  }),
  ...otherFiles.map((path) => [path, fromRoot(path, site)] as const),
]

/** The slugs that were decided, by path from the root. */
export function slugsOf(
  pages: Iterable<PageIdentity>,
  decisionsOf: (id: PageId) => Decisions,
  site: Pick<SiteSetting, 'root' | 'base'>,
): Map<string, SlugEdit> {
  const slugs = new Map<string, SlugEdit>()
  for (const page of pages) {
    const slug = slugOf(decisionsOf(page.id))
    const path = slug && slugPath(page, site)
    if (slug && path) slugs.set(path, slug)
  }
  return slugs
}

/**
 * Works out what moves under the slugs given, by path from the root, and under which addresses everything answers then.
 * `files` are all files of the site by id and path from the root.
 */
export function settleMoves(
  setting: SiteSetting,
  files: readonly (readonly [PageId, string])[],
  slugs: ReadonlyMap<string, SlugEdit>,
): void {
  setMoves(
    setting,
    files,
    movesOf(
      files.map(([, path]) => path),
      slugs,
      setting.base,
    ),
  )
}

/** Takes over moves that were worked out. */
export function setMoves(
  setting: SiteSetting,
  files: readonly (readonly [PageId, string])[],
  moves: Moves,
): void {
  setting.moves = moves
  setting.index.addresses = addressBook(
    setting.base,
    files.map(([id, path]) => [id, moves.paths.get(path) ?? path] as const),
  )
}
