/** A whole site with its decisions carried out: its files at their places, with what points to moved pages following. */
import { handOffFiles, placeOf, type HandedOff } from '../core/exchange/hand-off.ts'
import { looksAtOthers } from '../core/work/page-proof.ts'
import { prepareIndex } from '../core/work/run.ts'
import { namesThatClash, writeFolder } from './output-folder.ts'
import { Problem } from './problem.ts'
import type { CommandSite } from './site.ts'

export interface Written {
  files: number
  changed: number
  moved: number
  /** What could not be carried out. */
  refused: string[]
}

/**
 * Carries the decisions out in memory and writes the site. `strict`: whatever cannot be carried out is named, all of it,
 * and nothing is written. `lists`: with the sheet of changes. `changedOnly`: without the files that stay as they are.
 */
export async function writeSite(
  site: CommandSite,
  out: string,
  how: { strict: boolean; lists: boolean; changedOnly?: boolean; problems?: readonly string[] },
): Promise<Written> {
  const { setting } = site
  // Where a draft takes names from other pages, these are read first.
  if (site.inOrder.some((page) => looksAtOthers(site.decisionsOf(page.id))))
    await prepareIndex({ ...site, pages: site.inOrder })
  const refused = setting.moves.refused.map((r) => `${r.path}: ${r.why}`)
  const handed = new Map<string, HandedOff>()
  const made: HandedOff[] = []
  for await (const file of handOffFiles(site, { which: 'changed', lists: how.lists })) {
    if (file.from === null) made.push(file)
    else handed.set(file.from, file)
    for (const { key, why } of file.refused) refused.push(`${file.from}, ${key}: ${why}`)
    if (file.asTakenIn !== null) refused.push(`${file.from}: ${file.asTakenIn}`)
  }
  // A single page is written under its own name, wherever it stood.
  const within = (place: string) => (site.whole ? place : place.slice(setting.root.length))
  const all = [...site.pages.values()].flatMap(({ file }) => (file === null ? [] : [file]))
  const places = new Map<string, string>()
  const replaced = new Set(made.map((file) => within(file.path)))
  for (const path of [...all, ...site.otherFiles]) {
    const place = within(placeOf(path, setting))
    if (!replaced.has(place) && (!how.changedOnly || handed.get(path)?.changed)) places.set(path, place)
  }
  const wrong = [...(how.problems ?? []), ...(how.strict ? refused : [])]
  for (const clash of namesThatClash([...places.values(), ...replaced], out)) wrong.push(clash)
  if (wrong.length > 0) throw new Problem(`nothing was written. ${wrong.join('; ')}`)

  function* files(): Generator<[string, Uint8Array]> {
    for (const [path, place] of places) yield [place, handed.get(path)?.bytes ?? site.bytes(path)]
    for (const file of made) yield [within(file.path), file.bytes]
  }
  writeFolder(out, files())
  const changed = [...handed.values()].filter((f) => f.asTakenIn === null && !unchanged(site, f)).length
  return { files: all.length + site.otherFiles.length, changed, moved: setting.moves.paths.size, refused }
}

/** Whether a file leaves with the bytes that it came with, at whatever place. */
function unchanged(site: CommandSite, { from, bytes }: HandedOff): boolean {
  return from !== null && Buffer.compare(bytes, site.bytes(from)) === 0
}
