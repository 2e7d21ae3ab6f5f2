/** A site fetched by the address of a page or of a sitemap, politely and only where its robots.txt allows it. */
import type { AskedAs, FetchedMessage } from '../core/site/fetched.ts'
import { fetchSite } from '../core/work/fetch-site.ts'
import { planSite, type How } from '../core/work/site-plan.ts'
import { Problem } from './problem.ts'
import type { SiteFiles } from './site-files.ts'

export const isAddress = (given: string): boolean => /^https?:\/\//i.test(given)

const leftOutNames = {
  'no address': 'It is not an address.',
  'another site': 'It is on another site.',
  outside: 'It is outside the path.',
  robots: 'The site’s robots.txt asks that it is not fetched.',
  'not a page': 'It is not a page.',
  query: 'It has a query.',
  pattern: 'It was left out.',
  limit: 'It is over the limit; raise --limit to take it.',
} as const

export async function fetchedSite(address: string, most: number, date: string): Promise<SiteFiles> {
  // What asks the network is loaded only where something is asked for.
  const { fetcherFor } = await import('../server/fetchers.ts')
  const fetcher = fetcherFor('first')
  const ask = (asked: string, as: AskedAs): Promise<FetchedMessage> => fetcher.fetch(asked, as)
  const how: How = /\.(?:xml|xml\.gz|gz|txt)$/i.test(new URL(address).pathname) ? 'sitemap' : 'page'
  const planned = await planSite({ address, how, most, leaveOut: [], path: '/', queries: true }, ask)
  if (!planned.ok) throw new Problem(`${address}: ${planned.why}`)
  const { plan } = planned
  let pages = 0
  const fetched = await fetchSite(plan, ask, { date, newId: () => `page-${pages++}` })
  const unread = [
    ...fetched.failed.map(({ url, why }) => ({ path: url, why })),
    ...fetched.leftOut.map(({ url, leftOut }) => ({ path: url, why: leftOutNames[leftOut!] })),
  ]
  if (fetched.pages.length === 0)
    throw new Problem(
      `${address}: no page could be fetched. ${unread[0] ? `${unread[0].path}: ${unread[0].why}` : ''}`,
    )
  const base = `${new URL(fetched.pages[0]!.identity.url).origin}/`
  const inOrder = [...fetched.pages].sort((a, b) => (a.identity.url < b.identity.url ? -1 : 1))
  return {
    paths: [],
    whole: fetched.whole,
    read: (path) => {
      throw new Problem(`${path} is not a file.`)
    },
    addressPath: (path) => path,
    project: {
      site: { name: new URL(base).host, base, whole: fetched.whole, root: '', takenIn: date },
      pages: inOrder.map(({ identity }) => identity),
      addresses: { sitemap: plan.sitemap, files: fetched.files },
      work: new Map(),
      log: [],
      files: new Map(),
      fetched: new Map(inOrder.map(({ identity, bytes }) => [identity.id, bytes])),
    },
    unread,
  }
}
