/** Splices of a page's view: stretches of it and what stands there from now on, written as the page writes its markup. */
import { fold } from '../../strings.ts'
import { attribute } from '../read/parse.ts'
import { sourceOf, type Source } from '../source/source.ts'
import { attributePlaces, type Located, type Locations } from './locate.ts'

/** One replacement in the view: `[start, end)` becomes `text`; `as` says how a character is written that the encoding lacks. */
export interface Splice {
  start: number
  end: number
  text: string
  as?: 'markup' | 'json'
  /** Which new block of its edit it puts in. */
  part?: string
}
export type Splices = Splice[] | { why: string }

const escapeText = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replaceAll(']]>', ']]&gt;')
export const clean = (text: string) => fold(text.replaceAll('\0', ''))
/** A value as it stands between quotes; in a page that is XML, too, `<` may not. */
export function escapeAttribute(value: string, quote: '"' | "'", { xml }: { xml: boolean }): string {
  const escaped = value.replace(/&/g, '&amp;').replaceAll(quote, quote === '"' ? '&quot;' : '&#39;')
  return xml ? escaped.replace(/</g, '&lt;') : escaped
}

/** How a tag without content ends in the page: closed where it is XML. */
export const voidEnd = ({ xml }: Locations) => (xml ? ' />' : '>')

/** Text for an element's content: folded, escaped. */
export const contentText = (value: string) => escapeText(clean(value))

/** Sets one attribute, keeping the quoting that is there; an unquoted value is quoted, a missing attribute added behind the others. */
export function setAttribute(places: Locations, element: Located, name: string, value: string): Splice {
  const { view } = places
  const attrs = attributePlaces(view, element)
  const place = attrs[name]
  if (!place) {
    const ends = Object.values(attrs).map((a) => a.end)
    const at = ends.length > 0 ? Math.max(...ends) : element.place.start + 1 + element.tagName.length
    return { start: at, end: at, text: ` ${name}="${escapeAttribute(value, '"', places)}"` }
  }
  const written = view.slice(place.start, place.end)
  const [lead, quote] = /^[^=]*=\s*(["']?)/.exec(written) ?? []
  if (lead === undefined)
    return { start: place.end, end: place.end, text: `="${escapeAttribute(value, '"', places)}"` }
  const start = place.start + lead.length
  if (quote === '"' || quote === "'")
    return { start, end: place.end - 1, text: escapeAttribute(value, quote, places) }
  return { start, end: place.end, text: `"${escapeAttribute(value, '"', places)}"` }
}

const isVoid = (element: Located) => /^(?:meta|link|base|basefont|bgsound)$/.test(element.tagName)

/** Takes an element out, with its line where it has one to itself. */
export function removal(view: string, element: Located): Splices {
  const { place } = element
  if (place.end === null && !isVoid(element))
    return {
      why: 'It is never closed in the source, so it is not certain where it ends. Close it there first.',
    }
  let start = place.start
  let end = place.end ?? place.startEnd
  while (start > 0 && (view[start - 1] === ' ' || view[start - 1] === '\t')) start--
  const after = /^[ \t]*(\r\n|\r|\n)/.exec(view.slice(end, end + 200))
  const atLineStart = start === 0 || view[start - 1] === '\n' || view[start - 1] === '\r'
  if (after && atLineStart) end += after[0].length
  else start = place.start
  return [{ start, end, text: '' }]
}

/** Where something new goes into the head, also when `<head>` or `<html>` is implied; `lead` and `tail` keep the lines. */
export function headInsertion({ view, html, head, headChildren, doctypeEnd, eol }: Locations): {
  at: number
  lead: string
  tail: string
} {
  const endTag = head?.place.endStart ?? null
  const closed = headChildren.filter(
    (c) => (isVoid(c) || c.place.end !== null) && (endTag === null || c.place.start < endTag),
  )
  const last = closed.length === headChildren.length || endTag !== null ? closed.at(-1) : undefined
  if (last) {
    const { start, startEnd, end } = last.place
    const indent = /(?:^|[\r\n])([ \t]*)$/.exec(view.slice(Math.max(0, start - 200), start))?.[1]
    return { at: end ?? startEnd, lead: indent === undefined ? '' : eol + indent, tail: '' }
  }
  if (endTag !== null && headChildren.length === 0) return { at: endTag, lead: '', tail: eol }
  const at = head?.place.startEnd ?? html?.place.startEnd ?? doctypeEnd
  return at === 0 ? { at, lead: '', tail: eol } : { at, lead: eol, tail: '' }
}

export const insertInHead = (places: Locations, markup: string): Splices => {
  const { at, lead, tail } = headInsertion(places)
  return [{ start: at, end: at, text: lead + markup + tail }]
}

/** What the target holds now, so that an edit which changes nothing touches nothing; null where that cannot be told. */
export function present(
  source: Source,
  places: Locations,
  element: Located,
  attributeName: string | null,
): string | null {
  const raw = attributeName
    ? attribute(element, attributeName)
    : element.childNodes.map((n) => ('value' in n ? n.value : '')).join('')
  if (raw === null) return null
  if (places.unit === 2) return fold(raw)
  return /[\x80-\uffff]/.test(raw) ? fold(redecode(raw, source)) : fold(raw)
}

/** Text of the byte view, with references decoded already, into the page's encoding; what was a reference stays. */
export function redecode(raw: string, source: Source): string {
  return raw.replace(
    /[\x80-\xff]+/g,
    (run) =>
      sourceOf(
        Uint8Array.from(run, (c) => c.charCodeAt(0)),
        source.encoding,
        source.encodingBy,
        0,
      ).text,
  )
}
