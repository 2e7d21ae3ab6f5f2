/** Title patterns: what the house puts around a page's own words, found in titles and put there. */
import { lowerInPlace, separatorsIn } from '../strings.ts'
import { fillTokens, type TokenValues } from './tokens.ts'

/** Signs that stand between a page's words and the site's name, with white space on both sides. Common practice, no source. */
const SEPARATORS = '|·•–—›»-'
/** Those that need no white space. */
const CLOSE = '|·•»'

/** What a pattern puts before and behind `{page}`; null where it has no `{page}`. */
export function aroundPage(pattern: string): { head: string; tail: string } | null {
  const at = pattern.indexOf('{page}')
  return at < 0 ? null : { head: pattern.slice(0, at), tail: pattern.slice(at + '{page}'.length) }
}

/** A title without the separator that it ends in; null where it ends in none. */
function withoutSeparator(title: string): string | null {
  const words = title.trimEnd()
  const sign = words.at(-1) ?? ''
  const spaced = words.length < title.length
  const before = words.slice(0, -1)
  if (sign !== '' && CLOSE.includes(sign)) return before.trimEnd()
  if (sign === ':' && spaced) return before
  return sign !== '' && SEPARATORS.includes(sign) && spaced && /\s$/.test(before) ? before.trimEnd() : null
}

/** A title without the site's name at its end, however often and behind whichever separator it stands there. */
export function withoutSite(title: string, site: string | null): string {
  if (!site) return title
  const names = [lowerInPlace(site), '{site}']
  let nameless = title.trimEnd()
  for (;;) {
    const lower = lowerInPlace(nameless)
    const name = names.find((n) => lower.endsWith(n))
    const rest =
      name === undefined ? null : withoutSeparator(nameless.slice(0, nameless.length - name.length))
    if (rest === null) break
    nameless = rest.trimEnd()
  }
  return nameless.trim() || title
}

/** A page's own words in a title: without the pattern's head and tail, tokens filled or not, and without the site's name. */
export function pageWords(title: string, pattern: string | null, values: TokenValues): string {
  let words = title.trim()
  const around = pattern ? aroundPage(pattern) : null
  if (around)
    for (const fill of [(t: string) => t, (t: string) => fillTokens(t, values).text]) {
      const [head, tail] = [fill(around.head).trim(), fill(around.tail).trim()]
      if (head && words.toLowerCase().startsWith(head.toLowerCase())) words = words.slice(head.length).trim()
      while (tail && words.toLowerCase().endsWith(tail.toLowerCase()) && words.length > tail.length)
        words = words.slice(0, -tail.length).trim()
    }
  return withoutSite(words, values.site ?? null)
}

/**
 * A title as the pattern has it: the page's own words written out in place of `{page}`, other tokens kept, so that
 * they stay current. A pattern without `{page}` is the whole title.
 */
export const inPattern = (pattern: string, words: string): string => pattern.replaceAll('{page}', words)

/** The separated last part that most titles share, as a first guess at the site's name; null where fewer than half do. */
export function commonSuffix(
  titles: readonly string[],
): { site: string; separator: string; pages: number } | null {
  const endings = new Map<string, { site: string; separator: string; pages: number }>()
  for (const title of titles) {
    const last = separatorsIn(title, SEPARATORS).at(-1)
    if (!last) continue
    const site = title.slice(last.end).trim()
    const key = site.toLowerCase()
    const known = endings.get(key)
    if (known) known.pages++
    else endings.set(key, { site, separator: ` ${last.sign} `, pages: 1 })
  }
  const [best] = [...endings.values()].sort((a, b) => b.pages - a.pages)
  return best && best.pages >= 3 && best.pages * 2 >= titles.length ? best : null
}
