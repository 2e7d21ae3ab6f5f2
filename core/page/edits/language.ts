/** The page's language, on its html element. */
import type { Edit } from './draft.ts'
import type { Locations } from '../splice/locate.ts'
import { clean, escapeAttribute, setAttribute, type Splices } from '../splice/splice.ts'

export function langSplices(places: Locations, edit: Edit): Splices {
  const value = clean(edit.value ?? '')
  if (places.html) return [setAttribute(places, places.html, 'lang', value)]
  const at = places.doctypeEnd
  return [
    {
      start: at,
      end: at,
      text: `${at === 0 ? '' : places.eol}<html lang="${escapeAttribute(value, '"', places)}">${at === 0 ? places.eol : ''}`,
    },
  ]
}
