/** The sign by which a heading links to itself: documentation generators add one to every heading. */

/** Pilcrow, number sign, section sign, links of a chain, an anchor; common practice, no source. */
const SIGNS = new Set(['¶', '#', '§', '🔗', '⛓', '⚓'])
/** Characters without a width, and those that ask for a coloured or plain sign. */
const invisible = /[\u200b-\u200d\u2060\ufe0e\ufe0f\ufeff]/g

/** Whether a link's text says nothing but that it is a link to the heading; a character of an icon font counts as a sign. */
export function isOwnSign(linkText: string): boolean {
  if (linkText.length > 20) return false
  const seen = linkText.replace(invisible, '').trim()
  return (seen === '' && linkText !== '') || SIGNS.has(seen) || /^[\ue000-\uf8ff]$/.test(seen)
}
