/** Blocks of JSON-LD: written, taken out, or new at the end of the head. */
import { safeJson } from '../../json/edit-json.ts'
import type { Edit } from './draft.ts'
import type { Located, Locations } from '../splice/locate.ts'
import { headInsertion, removal, type Splices } from '../splice/splice.ts'

/** JSON as it can stand in the page's script: where the page is XML, nothing in it reads as markup. */
const scriptJson = (json: string, { xml }: Locations) =>
  xml
    ? safeJson(json)
        .replace(/[<&]/g, (c) => `\\u00${c.charCodeAt(0).toString(16)}`)
        .replaceAll(']]>', ']]\\u003e')
    : safeJson(json)

export function jsonSplices(places: Locations, element: Located, edit: Edit): Splices {
  if (edit.remove) return removal(places.view, element)
  if (edit.value === undefined) return []
  const { startEnd, endStart } = element.place
  if (endStart === null)
    return { why: 'The script element is never closed in the source. Close it there first.' }
  return [{ start: startEnd, end: endStart, text: scriptJson(edit.value, places), as: 'json' }]
}

/** A new JSON-LD block at the end of the head, with the page's line ends. */
export function dataSplices(places: Locations, edit: Edit): Splices {
  if (!edit.value) return []
  const lines = scriptJson(edit.value, places).replace(/\r\n?|\n/g, places.eol)
  const { at, lead, tail } = headInsertion(places)
  const text = `${lead}<script type="application/ld+json">${places.eol}${lines}${places.eol}</script>${tail}`
  return [{ start: at, end: at, text, as: 'json' }]
}
