/**
 * Changed addresses. From the slugs that editors decided follow the files that move, the addresses that change with
 * them, and the redirects. Paths are from the site's root, `/` between folders.
 */
import { safeSegment } from '../wording/slug.ts'
import {
  addressBook,
  addressesOf,
  addressKey,
  addressOf,
  collisionKey,
  isPagePath,
} from '../addresses/addresses.ts'

/**
 * What an editor decided for a page's address. `value` is the new last segment, without its extension; with a slash
 * at its beginning, all segments from the root. `alone`: a folder's page moves without what stands under it.
 */
export interface SlugEdit {
  value: string
  alone?: boolean
}

/** A page's path in parts: `a/b.html` is the segments a, b with the extension `.html`; `a/b/index.html` is a, b with `/index.html`. */
export interface PathParts {
  segments: string[]
  extension: string
  /** Whether it is a folder's own page. */
  folder: boolean
}

export function pathParts(path: string): PathParts {
  const index = /(?:^|\/)(index\.(?:html?|xhtml))$/i.exec(path)
  if (index) {
    const folder = path.slice(0, index.index)
    return { segments: folder === '' ? [] : folder.split('/'), extension: `/${index[1]}`, folder: true }
  }
  const extension = /\.(?:html?|xhtml)(?:\.[a-z]{2,3}(?:-[a-z0-9]{2,8})*)?$/i.exec(path)?.[0] ?? ''
  return { segments: path.slice(0, path.length - extension.length).split('/'), extension, folder: false }
}

const joined = ({ segments, extension }: PathParts): string =>
  (segments.join('/') + extension).replace(/^\//, '')

/** The segments that an edit gives a page; null where nothing that can stand in an address is left of one. */
function editedSegments({ segments }: PathParts, { value }: SlugEdit): string[] | null {
  const whole = value.startsWith('/')
  const wanted = whole ? value.slice(1).split('/') : [...segments.slice(0, -1), value]
  // Segments that stay are left as they are, fit or not: they are not this edit's.
  const safe = wanted.map((s, i) => (s === segments[i] ? s : safeSegment(s)))
  return safe.every(Boolean) ? safe : null
}

export interface Moves {
  /** Old path to new path, of every file that moves. */
  paths: ReadonlyMap<string, string>
  /** Every old address to the new one that stands for it. */
  addresses: ReadonlyMap<string, string>
  /** Edits that are not carried out, with the reason. */
  refused: { path: string; why: string }[]
}
export const noMoves: Moves = { paths: new Map(), addresses: new Map(), refused: [] }

/** Where every file goes under these edits. */
function targetsUnder(paths: readonly string[], edits: ReadonlyMap<string, SlugEdit>): Map<string, string> {
  const folders = new Map<string, string[]>()
  for (const [path, edit] of edits) {
    const parts = pathParts(path)
    if (parts.folder && !edit.alone) folders.set(parts.segments.join('/'), editedSegments(parts, edit)!)
  }
  const known = new Map<string, string>([['', '']])
  const parentOf = (folder: string): string => folder.slice(0, Math.max(0, folder.lastIndexOf('/')))
  const folderOf = (asked: string): string => {
    // From the nearest folder above that is known, down: folders may lie deeper than calls can.
    const open: string[] = []
    for (let folder = asked; !known.has(folder); folder = parentOf(folder)) open.push(folder)
    for (let folder = open.pop(); folder !== undefined; folder = open.pop()) {
      const parent = parentOf(folder)
      const up = known.get(parent)!
      const renamed = folders.get(folder)
      // A renamed folder stays within its own, wherever that goes, unless the edit names all of its segments.
      const inPlace = renamed && renamed.slice(0, -1).join('/') === parent
      const name = renamed ? renamed.at(-1)! : folder.slice(folder.lastIndexOf('/') + 1)
      known.set(folder, renamed && !inPlace ? renamed.join('/') : up === '' ? name : `${up}/${name}`)
    }
    return known.get(asked)!
  }
  const moved = new Map<string, string>()
  for (const path of paths) {
    const edit = edits.get(path)
    const parts = pathParts(path)
    let to: string
    if (edit && !(parts.folder && !edit.alone)) {
      const segments = editedSegments(parts, edit)!
      const parent = parts.segments.slice(0, -1).join('/')
      const inPlace = segments.slice(0, -1).join('/') === parent
      const placed = inPlace ? [folderOf(parent), segments.at(-1)!].filter(Boolean) : segments
      to = joined({ ...parts, segments: placed })
    } else {
      const cut = path.lastIndexOf('/')
      const folder = folderOf(cut < 0 ? '' : path.slice(0, cut))
      to = folder === '' ? path.slice(cut + 1) : `${folder}/${path.slice(cut + 1)}`
    }
    if (to !== path) moved.set(path, to)
  }
  return moved
}

/** The edit that moves a path: its own, or that of the nearest folder above it. */
function causeOf(
  path: string,
  edits: ReadonlyMap<string, SlugEdit>,
  byFolder: ReadonlyMap<string, string>,
): string | null {
  if (edits.has(path)) return path
  for (let cut = path.lastIndexOf('/'); cut > 0; cut = path.lastIndexOf('/', cut - 1)) {
    const owner = byFolder.get(path.slice(0, cut))
    if (owner !== undefined) return owner
  }
  return null
}

/**
 * What moves when these slugs are carried out. An edit that leaves nothing of a segment, that is the home page's, or
 * that would put two pages under one address is refused with the reason; the others stand. `paths` are all files.
 */
export function movesOf(
  paths: readonly string[],
  wanted: ReadonlyMap<string, SlugEdit>,
  base: string,
): Moves {
  if (wanted.size === 0) return noMoves
  const refused: Moves['refused'] = []
  const edits = new Map<string, SlugEdit>()
  for (const [path, edit] of [...wanted].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const parts = pathParts(path)
    if (parts.segments.length === 0) refused.push({ path, why: 'The home page has no slug to change.' })
    else if (!editedSegments(parts, edit))
      refused.push({ path, why: 'The slug needs at least one letter or digit.' })
    else edits.set(path, edit)
  }
  const key = (path: string) => collisionKey(addressOf(path, base))
  const before = new Map<string, string>()
  for (const path of paths) before.set(path, key(path))
  for (;;) {
    const moved = targetsUnder(paths, edits)
    const byFolder = new Map<string, string>()
    for (const [path, edit] of edits) {
      const parts = pathParts(path)
      if (parts.folder && !edit.alone) byFolder.set(parts.segments.join('/'), path)
    }
    const holders = new Map<string, string[]>()
    for (const path of paths) {
      const to = moved.get(path)
      const at = to === undefined ? before.get(path)! : key(to)
      const others = holders.get(at)
      if (others) others.push(path)
      else holders.set(at, [path])
    }
    const stays = new Map<string, string>()
    const meets = new Map<string, string>()
    for (const sharing of holders.values()) {
      if (sharing.length < 2) continue
      const causes = sharing.map((path) => (moved.has(path) ? causeOf(path, edits, byFolder) : null))
      const unmoved = sharing.filter((_, i) => causes[i] === null)
      const first = causes.reduce((a, b) => (a === null || (b !== null && b < a) ? b : a), null)
      sharing.forEach((path, i) => {
        const cause = causes[i]!
        if (cause === null) return
        const differs = (other: string) => other !== path && before.get(other) !== before.get(path)
        const kept = unmoved.find(differs)
        if (kept !== undefined) {
          if (!stays.has(cause)) stays.set(cause, kept)
          return
        }
        const clash = cause === first ? undefined : sharing.find(differs)
        if (clash !== undefined && !meets.has(cause)) meets.set(cause, clash)
      })
    }
    // One that meets a page which stays gives way itself; of several that meet, the first keeps the address.
    const offenders = stays.size > 0 ? stays : meets
    if (offenders.size === 0)
      return {
        paths: moved,
        addresses: movedAddresses(paths, moved, base),
        refused: refused.sort((a, b) => (a.path < b.path ? -1 : 1)),
      }
    for (const [cause, clash] of [...offenders].sort(([a], [b]) => (a < b ? -1 : 1))) {
      refused.push({ path: cause, why: `${clash} already has this address. Choose another slug.` })
      edits.delete(cause)
    }
  }
}

function movedAddresses(
  paths: readonly string[],
  moved: ReadonlyMap<string, string>,
  base: string,
): Map<string, string> {
  const addresses = new Map<string, string>()
  if (moved.size === 0) return addresses
  // An address that another file answers at stays that file's: links to it do not follow.
  const holders = addressBook(
    base,
    paths.map((path) => [path, path] as const),
  )
  for (const [path, to] of moved) {
    const news = addressesOf(to, base)
    addressesOf(path, base).forEach((old, i) => {
      if (holders.get(addressKey(old)) === path) addresses.set(addressKey(old), news[i] ?? news[0]!)
    })
  }
  return addresses
}

export interface Redirect {
  from: string
  to: string
  status: string
}

/**
 * Redirects for everything that moved, on top of those that the site has already: each leads straight to where the
 * page is now, none from an address at which a page stands, none twice. Files that are no pages get one as well.
 */
export function redirectsOf(
  moves: Moves,
  paths: readonly string[],
  base: string,
  existing: readonly Redirect[] = [],
): Redirect[] {
  const live = new Set<string>()
  for (const path of paths) live.add(addressOf(moves.paths.get(path) ?? path, base))
  const leads = new Map<string, Redirect>()
  for (const r of existing) if (!leads.has(r.from)) leads.set(r.from, r)
  for (const path of paths) {
    const to = moves.paths.get(path)
    if (to === undefined) continue
    const [from, target] = [addressOf(path, base), addressOf(to, base)]
    // Two files that share an address, pages before others.
    if (from !== target && (isPagePath(path) || !leads.has(from)))
      leads.set(from, { from, to: target, status: '301' })
  }
  const end = (from: string): string => {
    const seen = new Set([from])
    let to = leads.get(from)!.to
    for (;;) {
      const moved = moves.addresses.get(addressKey(to))
      const next = live.has(to) ? undefined : (leads.get(to)?.to ?? moved)
      if (next === undefined || seen.has(next)) return to
      seen.add(to)
      to = next
    }
  }
  return [...leads.values()]
    .filter((r) => !live.has(r.from))
    .map((r) => ({ ...r, to: end(r.from) }))
    .filter((r) => r.to !== r.from)
}
