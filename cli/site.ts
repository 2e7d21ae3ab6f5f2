/** A site as a command works on it: its files, its pages and what was decided for them, in the setting that judges them. */
import { outlineItems } from '../core/headings/template-rules.ts'
import { addressOf, isPagePath } from '../core/addresses/addresses.ts'
import type { SiteAtHand } from '../core/exchange/hand-off.ts'
import type { Outcome } from '../core/page/read/boundary.ts'
import { readSource } from '../core/page/source/source.ts'
import { defaultStyle, type HouseStyle } from '../core/rules/house-style.ts'
import { noMoves } from '../core/site/moves.ts'
import { filePage, type PageId, type PageIdentity } from '../core/site/page-identity.ts'
import { emptyIndex } from '../core/site/site-index.ts'
import { sizesOnDemand } from '../core/site/file-sizes.ts'
import { styleOf, templatesOf, type Decisions } from '../core/work/decisions.ts'
import { sourceFacts } from '../core/work/page-proof.ts'
import { filesFromRoot, settleMoves, slugsOf, type SiteSetting } from '../core/work/setting.ts'
import { baseFrom } from './inputs.ts'
import { Problem } from './problem.ts'
import { openSite, type SiteFiles } from './site-files.ts'

export interface CommandSite extends SiteAtHand {
  /** Whether all of the site was given: one folder, one ZIP, one project file. */
  whole: boolean
  /** In the order of their paths. */
  inOrder: PageIdentity[]
  read(page: PageIdentity): Outcome<Uint8Array>
  /** A file's bytes; throws where it cannot be read. */
  bytes(path: string): Uint8Array
  unread: { path: string; why: string }[]
}

/** A site from what a command was given: pages, a folder, a ZIP archive, a project file. */
export const siteFrom = (given: string[], options: SiteOptions): CommandSite =>
  siteOf(openSite(given), options)

export interface SiteOptions {
  baseUrl: string | undefined
  date: string
  style?: HouseStyle | undefined
}

/** A site of files that were opened, or of pages that were fetched. */
export function siteOf(files: SiteFiles, { baseUrl, date, style }: SiteOptions): CommandSite {
  const { project, whole } = files
  const base = baseUrl === undefined && project ? project.site.base : baseFrom(baseUrl)
  const ofSite = project?.work.get('') ?? {}
  const pages = new Map<PageId, PageIdentity>()
  const pagePaths = whole ? files.paths.filter(isPagePath) : files.paths
  const listed = project?.pages ?? pagePaths.map((path) => filePage(path, path, ''))
  for (const page of listed)
    pages.set(
      page.id,
      page.file === null ? page : { ...page, url: addressOf(files.addressPath(page.file), base) },
    )
  const paths = new Set(files.paths)
  const ofPages = new Set([...pages.values()].map(({ file }) => file))
  const otherFiles = files.paths.filter((path) => !ofPages.has(path))
  const others = new Set(otherFiles)
  const [first = ''] = files.paths
  const root =
    project?.site.root ??
    (!whole && files.paths.length === 1 ? first.slice(0, first.length - files.addressPath(first).length) : '')
  const setting: SiteSetting = {
    index: emptyIndex(base, whole, [], {
      pages: pages.values(),
      ...project?.addresses,
      // Of pages that were fetched, no other files are at hand.
      sizes: sizesOnDemand((path) => (others.has(path) ? readOrNull(files, path) : null)),
      // A project says whether it has them marked; whoever asks for files alone asks for all there is.
      marksMentions: project === null || ofSite.mentions === true,
    }),
    style: style ?? (project ? styleOf(ofSite) : defaultStyle),
    name: project?.site.name ?? new URL(base).host,
    base,
    baseKnown: baseUrl !== undefined || project !== null,
    root,
    moves: noMoves,
    date,
    templates: templatesOf(ofSite),
  }
  const site: CommandSite = {
    setting,
    whole,
    pages,
    inOrder: [...pages.values()],
    otherFiles,
    decisionsOf: (id) => project?.work.get(id) ?? {},
    read(page) {
      const fetched = page.file === null ? project?.fetched.get(page.id) : undefined
      try {
        return { ok: true, value: fetched ?? files.read(page.file!) }
      } catch (error) {
        return {
          ok: false,
          why:
            error instanceof Problem ? error.message : `It could not be read (${(error as Error).message}).`,
        }
      }
    },
    bytes: (path) => files.read(path),
    async sourceOf(page) {
      const bytes = site.read(page)
      const read = bytes.ok ? readSource(bytes.value, page.served) : bytes
      return 'source' in read ? { ok: true, value: read.source } : read
    },
    bytesOf: async (path) => (paths.has(path) ? files.read(path) : null),
    async itemsOf(page) {
      const source = await site.sourceOf(page)
      return source.ok ? outlineItems(source.value, sourceFacts(page, source.value, setting)) : []
    },
    unread: [...files.unread],
  }
  decide(site, site.decisionsOf)
  return site
}

function readOrNull(files: SiteFiles, path: string): Uint8Array | null {
  try {
    return files.read(path)
  } catch {
    return null
  }
}

/** All files of the site by id and path from the root. */
export const filesOf = ({ pages, otherFiles, setting }: CommandSite) =>
  filesFromRoot(pages.values(), otherFiles, setting)

/** Takes over decisions: what they move has moved. */
export function decide(site: CommandSite, decisionsOf: (id: PageId) => Decisions): void {
  site.decisionsOf = decisionsOf
  settleMoves(site.setting, filesOf(site), slugsOf(site.pages.values(), decisionsOf, site.setting))
}
