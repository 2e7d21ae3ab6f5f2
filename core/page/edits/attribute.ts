/** One attribute of an element: written or taken out. */
import type { Edit } from './draft.ts'
import type { Source } from '../source/source.ts'
import { attributePlaces, type Located, type Locations } from '../splice/locate.ts'
import { clean, present, setAttribute, type Splices } from '../splice/splice.ts'

/** An attribute of an element that an edit addresses; it goes where the edit takes it out. */
export function attributeSplices(
  source: Source,
  places: Locations,
  element: Located,
  name: string,
  edit: Edit,
): Splices {
  if (edit.remove) {
    const place = attributePlaces(places.view, element)[name]
    if (!place) return []
    const space = /[ \t\r\n\f]+$/.exec(places.view.slice(element.place.start, place.start))?.[0].length ?? 0
    return [{ start: place.start - space, end: place.end, text: '' }]
  }
  if (edit.value === undefined || present(source, places, element, name) === clean(edit.value)) return []
  return [setAttribute(places, element, name, clean(edit.value))]
}
