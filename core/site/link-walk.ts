/**
 * Following links from page to page, breadth first: which address is asked for next. Traps are bounded: by the number of
 * pages, by depth, by what lies outside, by pages that say the same again, and by links that lead on and on in one form.
 */
import { queryKey } from '../addresses/addresses.ts'
import { leftOutBy, pageAddress, type LeftOutBy, type PlannedAddress, type Scope } from './intake-plan.ts'

/** Links followed one after another from the start page. From memory. */
const DEEPEST = 16
/** Steps one after another to an address of the same form, digits aside: a calendar leads on for ever. By experiment. */
const MOST_OF_A_FORM = 8
/** Parameters that number a visit, not a page. From memory. */
const VISITS = new Set(['phpsessid', 'jsessionid', 'sid', 'sessionid', 'session_id', 'aspsessionid'])
/** Addresses that are left out are listed up to this number. */
const MOST_LISTED = 20_000

interface Found {
  url: string
  depth: number
  /** How many steps led here from one address to the next of the same form. */
  ofForm: number
}

export interface LinkWalk {
  /** The next address to ask for; null where none waits: one that is being read may still name more. */
  next(): string | null
  /** Tells what a page links to, once it was read; `body` is a fingerprint of what was served. */
  read(url: string, links: Iterable<string>, body: string): void
  /** Tells that an address was another's after all: it redirected there. Answers whether that one is to be read. */
  redirected(to: string): boolean
  /** Addresses that were met and are left out, in the order in which they were met. */
  leftOut(): PlannedAddress[]
  /** How many wait. */
  waiting(): number
}

export function walkLinks(start: string, scope: Scope): LinkWalk {
  const met = new Set<string>()
  const queue: Found[] = []
  /** Where the next to be asked for stands in the queue. */
  let at = 0
  const asked = new Map<string, Found>()
  const bodies = new Set<string>()
  const left: PlannedAddress[] = []

  const leaveOut = (url: string, leftOut: LeftOutBy) => {
    if (left.length < MOST_LISTED) left.push({ url, leftOut })
  }
  function meet(url: string, from: Found | null): void {
    const key = queryKey(url)
    if (met.has(key)) return
    met.add(key)
    const depth = from === null ? 0 : from.depth + 1
    const ofForm = from !== null && formOf(from.url) === formOf(url) ? from.ofForm + 1 : 0
    const outside = leftOutBy(url, scope)
    if (outside !== null) return leaveOut(url, outside)
    if (depth > DEEPEST || ofForm > MOST_OF_A_FORM || queue.length >= scope.most)
      return leaveOut(url, 'limit')
    queue.push({ url, depth, ofForm })
  }
  meet(withoutVisit(start), null)

  return {
    next() {
      const nextAsked = queue[at]
      if (!nextAsked) return null
      at++
      asked.set(nextAsked.url, nextAsked)
      return nextAsked.url
    },
    read(url, links, body) {
      const from = asked.get(url)
      if (!from || bodies.has(body)) return
      bodies.add(body)
      for (const link of links) {
        const address = pageAddress(link)
        if (address !== null) meet(withoutVisit(address), from)
      }
    },
    redirected(to) {
      const key = queryKey(to)
      if (met.has(key)) return false
      met.add(key)
      return leftOutBy(to, scope) === null
    },
    leftOut: () => left,
    waiting: () => queue.length - at,
  }
}

/** An address without what numbers a visit. */
function withoutVisit(address: string): string {
  const question = address.indexOf('?')
  const path = (question < 0 ? address : address.slice(0, question)).replace(/;jsessionid=[^/]*/i, '')
  if (question < 0) return path
  const kept = address
    .slice(question + 1)
    .split('&')
    .filter((pair) => !VISITS.has(pair.split('=', 1)[0]!.toLowerCase()))
  return kept.length === 0 ? path : `${path}?${kept.join('&')}`
}

/** An address with its numbers left open. */
const formOf = (url: string): string => url.replace(/\d+/g, '#')
