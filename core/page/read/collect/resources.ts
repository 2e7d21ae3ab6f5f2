/** What a page loads beside images and style sheets, and what holds its layout wider than a phone. */
import type { Frame } from '../frame.ts'
import { attribute, type Element } from '../parse.ts'
import { placeOf, type Reading } from '../reading.ts'

/** Types under which a script is run; anything else is data. Source: WHATWG HTML 4.12.1, JavaScript MIME type essence match. */
const runs = /^(?:module|(?:text|application)\/(?:x-)?(?:java|ecma)script)?$/

export function collectScript({ page, resolve }: Reading, node: Element, inHead: boolean): void {
  const src = (attribute(node, 'src') ?? '').trim()
  const type = (attribute(node, 'type') ?? '').trim().toLowerCase()
  if (src === '' || !runs.test(type)) return
  const waits = ['async', 'defer'].some((name) => attribute(node, name) !== null) || type === 'module'
  page.scripts.push({ src, url: resolve(src), blocks: inHead && !waits, inHead, ...placeOf(node) })
}

/** Elements whose width attribute holds whatever a style sheet says of pictures. Pictures are scaled by nearly every sheet. */
const holdsWidth = new Set(['table', 'td', 'th', 'col', 'iframe', 'embed', 'object', 'hr', 'pre', 'marquee'])

/** Notes a width in pixels that an element has by its attribute or its own style. */
export function collectFixedWidth({ page }: Reading, node: Element, frame: Frame): void {
  if (frame.unseen) return
  const tag = node.tagName
  const byStyle = frame.style === '' ? null : widthInStyle(frame.style)
  const byAttribute = holdsWidth.has(tag) ? widthInAttribute(attribute(node, 'width')) : null
  const px = byStyle ?? byAttribute
  if (px !== null)
    page.fixedWidths.push({ tag, px, by: byStyle === null ? 'attribute' : 'style', ...placeOf(node) })
}

/** A number of pixels; a share of what is around is none. Source: WHATWG HTML 2.4.4.4, rules for parsing dimension values. */
export function widthInAttribute(value: string | null): number | null {
  const read = /^\s*(\d{1,6})(?:\.\d*)?\s*(?:px)?\s*$/i.exec(value ?? '')
  return read ? Number(read[1]) : null
}

/** The width, or the least width, that a style attribute sets in pixels; null where a greatest width gives way. */
function widthInStyle(style: string): number | null {
  let px: number | null = null
  for (const declaration of style.split(';')) {
    const colon = declaration.indexOf(':')
    if (colon === -1) continue
    const property = declaration.slice(0, colon).trim().toLowerCase()
    const value = declaration.slice(colon + 1).trim()
    if (property === 'max-width' && value !== 'none') return null
    if (property !== 'width' && property !== 'min-width') continue
    const read = /^(\d{1,6}(?:\.\d{1,6})?)px(?:\s*!important)?$/i.exec(value)
    if (read) px = Math.max(px ?? 0, Number(read[1]))
  }
  return px
}

/** Whether a link's relations, in lower case with single spaces between, make it a sheet that is in use. */
export const isStyleSheet = (rel: string): boolean => {
  const words = rel.split(' ')
  return words.includes('stylesheet') && !words.includes('alternate')
}
/** Whether a media attribute is for screens, as far as its words tell. */
export const isForScreens = (media: string): boolean =>
  media.trim() === '' ||
  media.split(',').some((query) => !/^\s*(?:only\s+|not\s+)?(?:print|speech)\b/i.test(query))
