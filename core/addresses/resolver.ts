/** Addresses of one page, resolved against one base: what most of them look like by looking, the rest by URL, each once. */
import { resolveAddress } from './addresses.ts'

/** A path that URL leaves as it is: no scheme, no query, no dot segments, nothing to escape; a fragment may follow. */
const plainPath =
  /^[A-Za-z0-9_~$(),;=@-][A-Za-z0-9_~$(),;=@.-]*(?:\/[A-Za-z0-9_~$(),;=@-][A-Za-z0-9_~$(),;=@.-]*)*\/?(?:#[A-Za-z0-9_~$(),;=@./-]*)?$/
const plainFragment = /^#[A-Za-z0-9_~$(),;=@./-]*$/
/** Longer ones are rare, and are URL's. */
const LONGEST_PLAIN = 300

/** A function that gives what `resolveAddress(href, base)` gives. */
export function resolverFor(base: string): (href: string) => string | null {
  const known = new Map<string, string | null>()
  const whole = resolveAddress('', base)
  const folder =
    whole !== null && /^https?:\/\//.test(whole)
      ? ((path) => path.slice(0, path.lastIndexOf('/') + 1))(whole.replace(/\?.*$/s, ''))
      : null
  function byLooking(href: string): string | null {
    if (folder === null || href.length > LONGEST_PLAIN) return null
    if (href.startsWith('#')) return plainFragment.test(href) ? whole + href : null
    if (!href.startsWith('../')) return plainPath.test(href) ? folder + href : null
    let up = 0
    while (href.startsWith('../', up * 3)) up++
    const rest = href.slice(up * 3)
    if (!plainPath.test(rest)) return null
    const root = folder.indexOf('/', 'https://'.length) + 1
    let above = folder
    for (let i = 0; i < up && above.length > root; i++)
      above = above.slice(0, above.lastIndexOf('/', above.length - 2) + 1)
    return above + rest
  }
  return (href) => {
    const looked = byLooking(href)
    if (looked !== null) return looked
    let address = known.get(href)
    if (address === undefined) known.set(href, (address = resolveAddress(href, base)))
    return address
  }
}
