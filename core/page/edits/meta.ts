/** A meta element by its name: written, made, or taken out. */
import type { Edit } from './draft.ts'
import type { Located, Locations } from '../splice/locate.ts'
import {
  clean,
  escapeAttribute,
  insertInHead,
  removal,
  setAttribute,
  voidEnd,
  type Splices,
} from '../splice/splice.ts'

export function metaSplices(
  places: Locations,
  element: Located | undefined,
  name: string,
  edit: Edit,
): Splices {
  if (edit.remove) return element ? removal(places.view, element) : []
  const value = clean(edit.value ?? '')
  if (!element)
    return insertInHead(
      places,
      `<meta ${name.startsWith('og:') ? 'property' : 'name'}="${name}" content="${escapeAttribute(value, '"', places)}"${voidEnd(places)}`,
    )
  return [setAttribute(places, element, 'content', value)]
}
