/** The title element: written, made, or taken out. */
import type { Edit } from './draft.ts'
import type { Located, Locations } from '../splice/locate.ts'
import { contentText, insertInHead, removal, type Splices } from '../splice/splice.ts'

export function titleSplices(places: Locations, element: Located | undefined, edit: Edit): Splices {
  if (edit.remove) return element ? removal(places.view, element) : []
  const value = edit.value ?? ''
  if (!element) return insertInHead(places, `<title>${contentText(value)}</title>`)
  const { startEnd, endStart } = element.place
  if (endStart === null)
    return { why: 'The title is never closed in the source. Close it there first: </title>.' }
  return [{ start: startEnd, end: endStart, text: contentText(value) }]
}
