/** What each kind of edit makes of its target: the one place that knows them all. */
import { attribute } from '../read/parse.ts'
import { afterSplices } from './after.ts'
import type { Source } from '../source/source.ts'
import type { Located, Locations } from '../splice/locate.ts'
import { clean, present, removal, type Splices } from '../splice/splice.ts'
import { attributeSplices } from './attribute.ts'
import { canonicalSplices } from './canonical.ts'
import { charsetSplices } from './charset.ts'
import { dataSplices, jsonSplices } from './data.ts'
import { parseKey, type Edit, type TargetKey } from './draft.ts'
import { blockSplices, headingSplices } from './headings.ts'
import { langSplices } from './language.ts'
import { metaSplices } from './meta.ts'
import { commentSplices, doctypeSplices, newSplices, skipSplices } from './shell.ts'
import { textSplices } from './text.ts'
import { titleSplices } from './title.ts'

/** An edit as splices of the page's view, or why it cannot be applied. */
export function splicesFor(source: Source, places: Locations, key: TargetKey, edit: Edit): Splices {
  const { kind, name, at } = parseKey(key)
  const view = at === null ? null : (at - places.bom) / places.unit
  const addressed = view === null ? undefined : places.byStart.get(view)
  if (kind === 'text') return textSplices(source, places, at!, edit)
  if (kind === 'after') return afterSplices(source, places, at!, edit)
  if (kind === 'comment') return commentSplices(places, view!, edit)
  if (at !== null && !addressed)
    return { why: 'The part of the page that it changes is no longer in the source.' }
  const unchanged = (element: Located | undefined, attr: string | null) =>
    element &&
    !edit.remove &&
    edit.value !== undefined &&
    present(source, places, element, attr) === clean(edit.value)
  switch (kind) {
    case 'title': {
      const element = addressed ?? places.titles[0]
      return unchanged(element, null) ? [] : titleSplices(places, element, edit)
    }
    case 'meta': {
      const named = (m: Located) =>
        (attribute(m, 'name') ?? attribute(m, 'property') ?? '').trim().toLowerCase() === name
      const element = addressed ?? places.metas.find(named)
      return unchanged(element, 'content') ? [] : metaSplices(places, element, name, edit)
    }
    case 'canonical': {
      const element = addressed ?? places.canonicals[0]
      return unchanged(element, 'href') ? [] : canonicalSplices(places, element, edit)
    }
    case 'lang':
      return langSplices(places, edit)
    case 'charset':
      return charsetSplices(places)
    case 'heading':
      return headingSplices(source, places, addressed!, edit)
    case 'jsonld':
      return jsonSplices(places, addressed!, edit)
    case 'data':
      return dataSplices(places, edit)
    case 'block':
      return blockSplices(source, places, addressed!, edit)
    case 'alt':
      return attributeSplices(source, places, addressed!, 'alt', edit)
    case 'id':
      return attributeSplices(source, places, addressed!, 'id', edit)
    case 'link':
      return edit.remove
        ? removal(places.view, addressed!)
        : attributeSplices(source, places, addressed!, 'href', edit)
    case 'doctype':
      return doctypeSplices(places)
    case 'skip':
      return skipSplices(places, edit)
    case 'new':
      return newSplices(source, places, edit)
    default:
      return { why: `No such target: ${key}.` }
  }
}
