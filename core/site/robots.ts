/** robots.txt: which addresses of a host a crawler may ask for. Source: RFC 9309. */

/** So much of a file is read, in UTF-16 units; RFC 9309, 2.5, asks for at least 500 KiB. */
export const MOST_ROBOTS = 500 * 1024

export interface Robots {
  /** Whether an address's path with its query may be asked for. */
  allows(pathAndQuery: string): boolean
  /** Addresses of sitemaps, as they are written; they belong to no group. */
  sitemaps: string[]
  /** Seconds between two requests, where the group asks for them. Common practice, no source: not in the RFC. */
  delay: number | null
}

/** A host whose robots.txt answers 4xx allows everything, one that cannot be reached or answers 5xx nothing (2.3.1). */
export const allowsAll: Robots = { allows: () => true, sitemaps: [], delay: null }
export const allowsNothing: Robots = { allows: () => false, sitemaps: [], delay: null }

interface Rule {
  allow: boolean
  /** What stands between stars, in order. */
  parts: string[]
  /** Whether the path must end where the rule does. */
  ends: boolean
  /** Octets of the rule: the longest one that matches decides. */
  length: number
}
interface Group {
  agents: string[]
  rules: Rule[]
  delay: number | null
}

/** Reads a robots.txt for the crawler with a product token such as `KeenQuill`. Never fails; what it cannot read it passes over. */
export function readRobots(text: string, token: string): Robots {
  const { groups, sitemaps } = groupsOf(text.slice(0, MOST_ROBOTS))
  const wanted = token.toLowerCase()
  const named = groups.filter((g) => g.agents.includes(wanted))
  const chosen = named.length > 0 ? named : groups.filter((g) => g.agents.includes('*'))
  const rules = chosen.flatMap((g) => g.rules)
  return {
    sitemaps,
    delay: chosen.find((g) => g.delay !== null)?.delay ?? null,
    allows(pathAndQuery) {
      const path = comparable(pathAndQuery, 'address')
      if (path === '/robots.txt') return true
      let decided: Rule | null = null
      for (const rule of rules) {
        const decides =
          decided === null || rule.length > decided.length || (rule.length === decided.length && rule.allow)
        if (decides && matches(rule, path)) decided = rule
      }
      return decided?.allow ?? true
    },
  }
}

function groupsOf(text: string): { groups: Group[]; sitemaps: string[] } {
  const groups: Group[] = []
  const sitemaps: string[] = []
  let group: Group | null = null
  /** Agents that follow one another, with other lines between them or not, share a group until a rule comes. */
  let isOpen = false
  for (const line of text.replace(/^\ufeff/, '').split(/\r\n?|\n/)) {
    const [, key, value] = /^[ \t]*([a-z-]+)[ \t]*:[ \t]*([^#]*)/i.exec(line) ?? []
    if (key === undefined) continue
    const said = value!.trim()
    switch (key.toLowerCase()) {
      case 'user-agent': {
        if (!isOpen) groups.push((group = { agents: [], rules: [], delay: null }))
        isOpen = true
        // A token is letters, hyphens and low lines; what comes behind it says nothing.
        group!.agents.push(
          said === '*' || said.startsWith('* ') ? '*' : /^[a-z_-]*/i.exec(said)![0].toLowerCase(),
        )
        break
      }
      case 'allow':
      case 'disallow':
        isOpen = false
        if (group && said !== '') group.rules.push(ruleOf(said, key.toLowerCase() === 'allow'))
        break
      case 'crawl-delay':
        if (group && /^\d{1,4}(?:\.\d{1,3})?$/.test(said)) group.delay ??= Number(said)
        break
      case 'sitemap':
        if (said !== '') sitemaps.push(said)
    }
  }
  return { groups, sitemaps }
}

function ruleOf(written: string, allow: boolean): Rule {
  const ends = written.endsWith('$')
  const path = comparable(ends ? written.slice(0, -1) : written, 'rule')
  return { allow, parts: path.split('*'), ends, length: path.length + (ends ? 1 : 0) }
}

/** Each part is sought once, behind the one before it, so that no rule can keep the reader busy. */
function matches({ parts, ends }: Rule, path: string): boolean {
  const [first = '', ...rest] = parts
  if (!path.startsWith(first)) return false
  if (rest.length === 0) return !ends || path.length === first.length
  const last = ends ? rest.pop()! : null
  let at = first.length
  for (const part of rest) {
    const partAt = path.indexOf(part, at)
    if (partAt < 0) return false
    at = partAt + part.length
  }
  return last === null || (path.length - last.length >= at && path.endsWith(last))
}

/**
 * Path or rule as they are compared (2.2.2): octets beyond ASCII percent-encoded, unreserved ones not, capitals in the
 * codes. In an address `*` and `$` are themselves, and are written as a rule must write them to mean them.
 */
function comparable(written: string, of: 'rule' | 'address'): string {
  return written.replace(/%([0-9a-f]{2})|[*$]|[^\x21-\x7e]+/gi, (piece, code?: string) => {
    if (code !== undefined) {
      const character = String.fromCharCode(parseInt(code, 16))
      return /[A-Za-z0-9\-._~]/.test(character) ? character : `%${code.toUpperCase()}`
    }
    if (piece === '*' || piece === '$') return of === 'rule' ? piece : piece === '*' ? '%2A' : '%24'
    return encodeURIComponent(piece.toWellFormed())
  })
}
