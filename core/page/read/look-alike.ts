/** Whether a paragraph or div that is no heading looks like one: all bold, or by its class or its inline size. */
import type { LookAlikeFact } from './facts.ts'

/** Longer than this it is read as a sentence, not as a heading; common practice, no source. */
const MOST_CHARACTERS = 80
const MOST_WORDS = 12

/** What the walk counts of a box's own text, in characters that are no white space. */
export interface Box {
  bold: number
  plain: number
  linked: number
  /** Something that is no running text stands within: a block, an image, a form control. */
  mixed: boolean
}
export const emptyBox = (): Box => ({ bold: 0, plain: 0, linked: 0, mixed: false })

/** A class by which houses name their headings: `heading`, `page-title`, `card__headline`, `h2`. */
const headingClass =
  /(?:^|\s)(?:h[1-6]|(?:[\w-]+[-_])?(?:title|heading|headline|subheading|subhead))(?:[-_](?:lg|md|sm|xl|[1-6]))?(?=\s|$)/i

/** Whether an inline style asks for a size well above running text: 20 px, 1.3 times, or a size by name. */
function isLarge(style: string): boolean {
  const [, value] = /(?:^|;)\s*font-size\s*:\s*([^;]+)/i.exec(style) ?? []
  if (value === undefined) return false
  if (/^\s*(?:large|x-large|xx-large|xxx-large)/i.test(value)) return true
  const [, figure, unit] = /^\s*([\d.]+)(px|pt|r?em|%)/i.exec(value) ?? []
  const least = { px: 20, pt: 15, em: 1.3, rem: 1.3, '%': 130 }[unit?.toLowerCase() ?? '']
  return least !== undefined && Number(figure) >= least
}

/** What makes a box look like a heading, before its words are looked at; null where nothing does. */
export function looksBy(box: Box, className: string, style: string): LookAlikeFact['by'] | null {
  if (box.mixed || box.bold + box.plain === 0 || box.linked === box.bold + box.plain) return null
  if (box.plain === 0) return 'bold'
  if (className !== '' && headingClass.test(className)) return 'class'
  return style !== '' && isLarge(style) ? 'size' : null
}

/** Whether words could be a heading's: short, some letters, and no sentence. */
export const couldBeHeading = (text: string): boolean =>
  text.length <= MOST_CHARACTERS &&
  /\p{L}/u.test(text) &&
  !/[.:;,!…]["”’)]?$/u.test(text) &&
  text.split(' ').length <= MOST_WORDS
