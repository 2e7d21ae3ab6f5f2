/** The pages of a plan fetched one after another, a few at a time; links followed where the plan says so. */
import { hash } from '../hash.ts'
import { queryKey } from '../addresses/addresses.ts'
import { pageFrom } from '../page/read/boundary.ts'
import { LARGEST_PAGE } from '../page/source/source.ts'
import { servedOf, type Ask, type FetchedPage } from '../site/fetched.ts'
import {
  leftOutBy,
  mayBePage,
  pageAddress,
  type LeftOutBy,
  type PlannedAddress,
} from '../site/intake-plan.ts'
import { walkLinks, type LinkWalk } from '../site/link-walk.ts'
import type { PageIdentity } from '../site/page-identity.ts'
import type { SitePlan } from './site-plan.ts'

/** Asked for at the same time; each host is asked two at a time, whatever is sent for here. */
const AT_ONCE = 4
/** All bytes of a site, as of a folder or ZIP. */
const MOST_BYTES = 500 * 1024 * 1024

export interface FetchedSite {
  /** With their bytes, in the order in which they were asked for. */
  pages: { identity: PageIdentity; bytes: Uint8Array }[]
  /** Addresses that gave no page, with the reason. */
  failed: { url: string; why: string }[]
  /** Addresses that were met on the way and left out. */
  leftOut: PlannedAddress[]
  /** Whether it was ended before its end. */
  cancelled: boolean
  /** Whether nothing that the sitemap or the links name was left out. */
  whole: boolean
  /** Addresses that are of the site and no pages. */
  files: string[]
}

export interface FetchingProgress {
  done: number
  /** As far as is known. */
  of: number
  now: string
  failed: number
}

export interface FetchSiteOptions {
  /** YYYY-MM-DD */
  date: string
  newId(): string
  progress?(progress: FetchingProgress): void
  signal?: AbortSignal
}

/** Addresses of the plan that are to be taken, in their order; `walk` gives more of them as pages are read. */
interface Source {
  next(): string | null
  total(): number
  walk: LinkWalk | null
}

export async function fetchSite(plan: SitePlan, ask: Ask, options: FetchSiteOptions): Promise<FetchedSite> {
  const { signal, progress } = options
  const source = sourceOfPlan(plan)
  const gathered = new Gathered(plan, source.walk, options)
  const underWay = new Set<Promise<void>>()
  let done = 0
  const tell = (now: string) => progress?.({ done, of: source.total(), now, failed: gathered.failed.length })
  const fetchOne = async (url: string) => {
    tell(url)
    try {
      const answer = await ask(url, 'page', signal)
      if (signal?.aborted) return
      if (answer.ok) gathered.take(url, answer)
      else if (answer.code === 'robots') gathered.leaveOut(url, 'robots')
      else gathered.failed.push({ url, why: answer.message })
    } catch (error) {
      if (!signal?.aborted) gathered.failed.push({ url, why: (error as Error).message })
    }
    done++
    tell(url)
  }
  for (;;) {
    const url = signal?.aborted || gathered.isFull ? null : underWay.size < AT_ONCE ? source.next() : null
    if (url !== null) {
      const one: Promise<void> = fetchOne(url).finally(() => underWay.delete(one))
      underWay.add(one)
      continue
    }
    if (underWay.size === 0) break
    await Promise.race(underWay)
  }
  progress?.({ done, of: done, now: '', failed: gathered.failed.length })
  return gathered.result(signal?.aborted ?? false)
}

function sourceOfPlan({ how, start, scope, addresses }: SitePlan): Source {
  if (how === 'links') {
    const walk = walkLinks(start, scope)
    let given = 0
    const next = () => {
      const url = walk.next()
      if (url !== null) given++
      return url
    }
    return { next, total: () => given + walk.waiting(), walk }
  }
  const wanted = addresses.filter(({ leftOut }) => leftOut === null)
  let at = 0
  return { next: () => wanted[at++]?.url ?? null, total: () => wanted.length, walk: null }
}

/** What has come so far. */
class Gathered {
  readonly failed: FetchedSite['failed'] = []
  isFull = false
  private bytes = 0
  private readonly pages: FetchedSite['pages'] = []
  private readonly byAddress = new Map<string, PageIdentity>()
  private readonly left: PlannedAddress[] = []
  private readonly files: string[] = []
  /** Addresses of pages that the links of a sitemap's pages name, as they are compared. */
  private readonly named = new Set<string>()
  private readonly plan: SitePlan
  private readonly walk: LinkWalk | null
  private readonly options: FetchSiteOptions

  constructor(plan: SitePlan, walk: LinkWalk | null, options: FetchSiteOptions) {
    this.plan = plan
    this.walk = walk
    this.options = options
  }

  leaveOut(url: string, leftOut: LeftOutBy): void {
    this.left.push({ url, leftOut })
  }

  take(asked: string, answer: FetchedPage): void {
    const { how, scope } = this.plan
    if (answer.hops.length > 0) {
      const known = this.byAddress.get(queryKey(answer.url))
      if (known) return void known.served!.redirects.push(...answer.hops)
      const outside = how === 'page' ? null : leftOutBy(answer.url, scope)
      if (outside !== null) return this.leaveOut(answer.url, outside)
      this.walk?.redirected(answer.url)
    }
    const known = this.byAddress.get(queryKey(answer.url))
    if (known) return
    const { mediaType, body } = answer
    if (mediaType !== '' && mediaType !== 'text/html' && mediaType !== 'application/xhtml+xml') {
      this.files.push(answer.url)
      return this.leaveOut(answer.url, 'not a page')
    }
    if (body.length === 0)
      return void this.failed.push({
        url: asked,
        why: `The server answered ${answer.status} without a page.`,
      })
    if (body.length > LARGEST_PAGE)
      return void this.failed.push({ url: asked, why: 'The page is too large.' })
    this.bytes += body.length
    if (this.bytes > MOST_BYTES) {
      this.isFull = true
      return void this.failed.push({
        url: asked,
        why: `With it the site is larger than ${MOST_BYTES / 1024 / 1024} MB. Take in a part of it.`,
      })
    }
    const identity: PageIdentity = {
      id: this.options.newId(),
      url: answer.url,
      file: null,
      served: servedOf(answer, this.options.date),
      partial: null,
    }
    this.byAddress.set(queryKey(answer.url), identity)
    this.pages.push({ identity, bytes: body })
    if (how !== 'page' && answer.status < 400) this.readLinks(asked, identity, body)
  }

  private readLinks(asked: string, { url, served }: PageIdentity, bytes: Uint8Array): void {
    const read = pageFrom(bytes, { path: url, url }, served)
    if (!read.ok) return
    const { page, source } = read.value
    const links = page.links.flatMap((link) => link.url ?? [])
    if (this.walk) return this.walk.read(asked, links, hash(source.text))
    for (const link of links) {
      const address = pageAddress(link)
      if (address?.startsWith(this.plan.scope.under) && mayBePage(address)) this.named.add(queryKey(address))
    }
  }

  private isKnown(address: string): boolean {
    return (
      this.byAddress.has(address) ||
      this.pages.some(({ identity }) => identity.served!.redirects.some((r) => queryKey(r.url) === address))
    )
  }

  result(cancelled: boolean): FetchedSite {
    const { pages, failed, plan, walk } = this
    const leftOut = [...this.left, ...(walk?.leftOut() ?? plan.addresses.filter((a) => a.leftOut !== null))]
    const notPages = leftOut.filter((l) => l.leftOut === 'not a page')
    const harmless = (l: PlannedAddress) => l.leftOut === 'another site' || l.leftOut === 'not a page'
    return {
      pages,
      failed,
      leftOut,
      cancelled,
      whole:
        plan.how !== 'page' &&
        !cancelled &&
        failed.length === 0 &&
        leftOut.every(harmless) &&
        [...this.named].every((address) => this.isKnown(address)),
      files: [...new Set([...this.files, ...notPages.map((l) => l.url)])],
    }
  }
}
