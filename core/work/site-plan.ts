/** What would be taken of a site by its address: its robots.txt and its sitemaps looked at, and no page yet. */
import { queryKey } from '../addresses/addresses.ts'
import type { Ask, FetchedMessage } from '../site/fetched.ts'
import { planOf, pageAddress, type PlannedAddress, type Scope } from '../site/intake-plan.ts'
import { MOST_ADDRESSES, readSitemap, type SitemapEntry } from '../site/read-sitemap.ts'
import { allowsAll, allowsNothing, MOST_ROBOTS, readRobots, type Robots } from '../site/robots.ts'

/** The name that a robots.txt has rules for us under. */
export const ROBOTS_TOKEN = 'KeenQuill'

/** One page; the pages of the site's sitemap; the pages that links lead to, from page to page. */
export type How = 'page' | 'sitemap' | 'links'

export interface SiteQuestion {
  /** Of a page, a site or a sitemap, as it was typed. */
  address: string
  how: How
  most: number
  leaveOut: readonly string[]
  /** The path that all pages lie under: `/en/`; "/" for all of the site. */
  path: string
  queries: boolean
}

export interface SitePlan {
  start: string
  how: How
  scope: Scope
  /** Addresses in their order, each once. Of links, the start page alone: they are met on the way. */
  addresses: PlannedAddress[]
  /** All that the sitemaps list, as it is written; null where none was read. */
  sitemap: string[] | null
  /** What an editor should know of it, as sentences. */
  remarks: string[]
}
export type Planned = { ok: true; plan: SitePlan } | { ok: false; why: string }

/** Sitemaps that an index names are read up to this number, and addresses up to that. */
const MOST_SITEMAPS = 200
const MOST_LISTED = 2 * MOST_ADDRESSES

/** The address as it was meant: with https:// where no scheme was typed. Null where it is none. */
export function typedAddress(typed: string): string | null {
  const trimmed = typed.trim()
  if (trimmed === '' || /\s/.test(trimmed)) return null
  return pageAddress(/^[a-z][a-z0-9+.-]*:\/\//i.test(trimmed) ? trimmed : `https://${trimmed}`)
}

/** Asks for robots.txt and, for a sitemap, for that; `tell` hears what is being asked for. */
export async function planSite(
  question: SiteQuestion,
  ask: Ask,
  tell: (address: string) => void = () => {},
  signal?: AbortSignal,
): Promise<Planned> {
  const start = typedAddress(question.address)
  if (start === null)
    return {
      ok: false,
      why: 'This is not a web address. Write it like https://www.your-site.example/.',
    }
  const origin = new URL(start).origin
  const remarks: string[] = []
  tell(`${origin}/robots.txt`)
  const answer = await ask(start, 'robots', signal)
  if (!answer.ok && answer.code !== 'robots' && !answer.code.startsWith('redirect'))
    return { ok: false, why: answer.message }
  const robots = robotsOf(answer)
  if (robots === allowsNothing)
    remarks.push('Its robots.txt cannot be had, so that nothing may be fetched. Try again later.')
  const given = question.path.startsWith('/') ? question.path : `/${question.path}`
  const scope: Scope = {
    under: new URL(given.replace(/\*+$/, ''), origin).href,
    leaveOut: question.leaveOut,
    most: question.most,
    queries: question.queries,
    robots,
  }
  if (question.how !== 'sitemap') {
    const first =
      question.how === 'page' ? { ...scope, under: `${origin}/`, queries: true, leaveOut: [] } : scope
    return {
      ok: true,
      plan: {
        start,
        how: question.how,
        scope: first,
        addresses: planOf([start], first),
        sitemap: null,
        remarks,
      },
    }
  }
  const listed = await listedAddresses(start, robots, ask, tell, signal)
  if (!listed.ok) return listed
  remarks.push(...listed.remarks)
  const sitemap = listed.entries.map(({ address }) => address)
  const ofSite = onSite(sitemap, scope)
  if (ofSite.remark) remarks.push(ofSite.remark)
  return {
    ok: true,
    plan: {
      start,
      how: 'sitemap',
      scope: ofSite.scope,
      addresses: planOf(sitemap, ofSite.scope),
      sitemap,
      remarks,
    },
  }
}

/** What a host's answer to the question for its robots.txt allows. Source: RFC 9309, 2.3.1. */
export function robotsOf(answer: FetchedMessage): Robots {
  if (!answer.ok) return answer.code.startsWith('redirect') ? allowsAll : allowsNothing
  if (answer.status >= 500) return allowsNothing
  if (answer.status >= 400) return allowsAll
  return readRobots(new TextDecoder().decode(answer.body.subarray(0, MOST_ROBOTS)), ROBOTS_TOKEN)
}

/** A site that was typed without www. and whose sitemap has it, or with another scheme, is the site that the sitemap means. */
function onSite(sitemap: string[], scope: Scope): { scope: Scope; remark: string | null } {
  const { origin, pathname } = new URL(scope.under)
  const bare = (of: string) => of.replace(/^https?:\/\/(?:www\.)?/, '')
  const origins = new Set(sitemap.slice(0, 1000).flatMap((a) => (URL.canParse(a) ? [new URL(a).origin] : [])))
  const same = origins.has(origin) ? undefined : [...origins].find((other) => bare(other) === bare(origin))
  return same === undefined
    ? { scope, remark: null }
    : {
        scope: { ...scope, under: new URL(pathname, same).href },
        remark: `Its sitemap lists pages of ${same}, which is taken for the site’s own address.`,
      }
}

type Listed = { ok: true; entries: SitemapEntry[]; remarks: string[] } | { ok: false; why: string }

/** All addresses of the sitemaps that an address is, names, or has at the usual place. */
async function listedAddresses(
  start: string,
  robots: Robots,
  ask: Ask,
  tell: (address: string) => void,
  signal?: AbortSignal,
): Promise<Listed> {
  const { origin, pathname } = new URL(start)
  const isItself = /\.(?:xml|xml\.gz|txt|gz)$/i.test(pathname)
  const named = isItself
    ? [start]
    : robots.sitemaps.map((s) => pageAddress(s, start)).filter((s) => s !== null)
  const waiting = named.length > 0 ? [...named] : [`${origin}/sitemap.xml`]
  const asked = new Set<string>()
  const entries: SitemapEntry[] = []
  const remarks: string[] = []
  let whyNone = ''
  for (let sitemap = waiting.shift(); sitemap !== undefined; sitemap = waiting.shift()) {
    if (asked.has(queryKey(sitemap)) || asked.size === MOST_SITEMAPS || entries.length >= MOST_LISTED)
      continue
    asked.add(queryKey(sitemap))
    tell(sitemap)
    const read = readAnswer(await ask(sitemap, 'sitemap', signal))
    if (!read.ok) {
      whyNone ||= `${sitemap}: ${read.why}`
      remarks.push(`The sitemap ${sitemap} could not be used. ${read.why}`)
      continue
    }
    if (read.problem) remarks.push(`${sitemap}: ${read.problem}`)
    if (read.of === 'pages') entries.push(...read.entries)
    else
      for (const { address } of read.entries) {
        const other = pageAddress(address, sitemap)
        if (other !== null) waiting.push(other)
      }
  }
  if (asked.size === MOST_SITEMAPS)
    remarks.push(`It has more than ${MOST_SITEMAPS} sitemaps; the rest is left out.`)
  if (entries.length > 0) return { ok: true, entries: entries.slice(0, MOST_LISTED), remarks }
  return {
    ok: false,
    why: whyNone
      ? `No sitemap could be read. ${whyNone} Have its links followed instead, or enter the sitemap’s own address.`
      : 'The site’s sitemap lists no pages. Have its links followed instead.',
  }
}

function readAnswer(answer: FetchedMessage): ReturnType<typeof readSitemap> {
  if (!answer.ok) return { ok: false, why: answer.message }
  if (answer.status >= 400) return { ok: false, why: `The server answered ${answer.status}: there is none.` }
  return readSitemap([new TextDecoder().decode(answer.body)])
}
