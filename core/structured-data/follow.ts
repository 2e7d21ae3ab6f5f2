/** Values that were built from a page follow it: where its text is edited, they are found again and written anew. */
import type { Draft, Edit } from '../page/edits/draft.ts'
import type { PageFacts } from '../page/read/facts.ts'
import { build, type Built, type BuildKind, type Found, type SiteSide } from './build.ts'
import { setValue } from '../json/edit-json.ts'
import { parseJson, valueAt } from '../json/json.ts'

/** The name under which a value is found again. */
const linkOf = ({ role, start }: Found, nameOf: (start: number) => string): string =>
  start === null ? role : `${role}@${nameOf(start)}`

/** What a block that was built has to remember. `nameOf` names a place of the page's text. */
export const linksOf = (built: Built, nameOf: (start: number) => string): NonNullable<Edit['built']> => ({
  kind: built.kind,
  links: Object.fromEntries(built.found.map((f) => [f.pointer, linkOf(f, nameOf)])),
})

export const hasBuilt = (draft: Draft): boolean =>
  Object.values(draft).some((e) => e.built && e.value !== undefined)
/** A draft without the blocks that were built: what they are to follow. */
export const withoutBuilt = (draft: Draft): Draft =>
  Object.fromEntries(Object.entries(draft).filter(([, e]) => !e.built))

/**
 * A draft whose built blocks say what the page says now. `page` and `text` are the page as the rest of the draft leaves
 * it. A value that is not found any more stays as it is: data-unseen says so.
 */
export function followPage(
  draft: Draft,
  page: PageFacts,
  text: string,
  nameOf: (start: number) => string,
  site: SiteSide,
  language: string,
): Draft {
  const next: Record<string, Edit> = { ...draft }
  for (const [key, edit] of Object.entries(draft)) {
    if (!edit.built || edit.value === undefined) continue
    const now = new Map(
      build(edit.built.kind as BuildKind, page, text, site, language).found.map((f) => [
        linkOf(f, nameOf),
        f.value,
      ]),
    )
    let value = edit.value
    for (const [pointer, link] of Object.entries(edit.built.links)) {
      const newValue = now.get(link)
      if (newValue === undefined) continue
      const parsed = parseJson(value)
      const at = parsed.ok ? valueAt(parsed.value, pointer) : undefined
      if (at?.kind === 'number') value = setValue(value, pointer, Number(newValue))
      else if (at?.kind === 'string') value = setValue(value, pointer, newValue)
    }
    if (value !== edit.value) next[key] = { ...edit, value }
  }
  return next
}
