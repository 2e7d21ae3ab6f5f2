/** Taking pages in by their address: asked for through our own server, planned, fetched and put where intake finds them. */
import { readFetched } from '../../core/exchange/fetched-message.ts'
import type { Ask } from '../../core/site/fetched.ts'
import { planOf } from '../../core/site/intake-plan.ts'
import { fetchSite, type FetchedSite, type FetchingProgress } from '../../core/work/fetch-site.ts'
import { planSite, type SitePlan, type SiteQuestion } from '../../core/work/site-plan.ts'
import { inventedWeb, type WebState } from '../store/invented-web.ts'
import { newTicket, opened } from './open-input.ts'

/** Asks our own server for an address. */
export const askServer =
  (web: WebState): Ask =>
  async (address, as, signal) => {
    const down = (message: string) => ({
      ok: false as const,
      url: address,
      hops: [],
      code: 'server',
      message,
    })
    let response: Response
    try {
      response = await fetch('/fetching', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ address, as, web }),
        signal: signal ?? null,
      })
    } catch {
      return down('Keen Quill’s own server does not answer. Start it again, then try once more.')
    }
    const message = response.ok ? readFetched(new Uint8Array(await response.arrayBuffer())) : null
    return (
      message ??
      down(`Keen Quill’s own server could not fetch it (${response.status}). Reload this page and try again.`)
    )
  }

/** What a view shows of a plan: a robots.txt is a matter for the worker. */
export interface PlanView {
  ticket: number
  how: SitePlan['how']
  start: string
  addresses: SitePlan['addresses']
  remarks: string[]
}

const plans = new Map<number, SitePlan>()
const controllers = new Map<number, AbortController>()

export async function planByAddress(
  ticket: number,
  question: SiteQuestion,
  tell: (address: string) => void,
): Promise<{ ok: true; plan: PlanView } | { ok: false; why: string }> {
  const ask = askServer(await inventedWeb())
  const planned = await planSite(question, ask, tell, controllerOf(ticket).signal)
  if (!planned.ok) return planned
  const { plan } = planned
  plans.set(ticket, plan)
  const { how, start, addresses, remarks } = plan
  return { ok: true, plan: { ticket, how, start, addresses, remarks } }
}

/** The same addresses with others left out, or fewer of them: nothing is asked for again. */
export function replan(
  ticket: number,
  { leaveOut, most }: Pick<SiteQuestion, 'leaveOut' | 'most'>,
): PlanView | null {
  const plan = plans.get(ticket)
  if (!plan) return null
  const scope = { ...plan.scope, leaveOut, most }
  const addresses = planOf(plan.sitemap ?? [plan.start], scope)
  plans.set(ticket, { ...plan, scope, addresses })
  return { ticket, how: plan.how, start: plan.start, addresses, remarks: plan.remarks }
}

/** A number that names an intake by address, for cancelling it. */
export const addressTicket = (): number => newTicket()

function controllerOf(ticket: number): AbortController {
  let controller = controllers.get(ticket)
  if (!controller) controllers.set(ticket, (controller = new AbortController()))
  return controller
}

export function cancelFetching(ticket: number): void {
  controllers.get(ticket)?.abort()
}

/** What came, without the pages themselves: they wait for `takeIn` under the ticket. */
export interface FetchedView extends Omit<FetchedSite, 'pages'> {
  pages: number
  /** Addresses that led to pages that were taken in. */
  redirected: { url: string; to: string }[]
  base: string
  name: string
}

/** Fetches what the plan takes. */
export async function fetchPlanned(
  ticket: number,
  date: string,
  progress: (p: FetchingProgress) => void,
): Promise<FetchedView | null> {
  const plan = plans.get(ticket)
  if (!plan) return null
  const { signal } = controllerOf(ticket)
  const fetched = await fetchSite(plan, askServer(await inventedWeb()), {
    date,
    newId: () => crypto.randomUUID(),
    progress,
    signal,
  })
  controllers.delete(ticket)
  const { pages, ...rest } = fetched
  const [first] = pages
  const base = first ? `${new URL(first.identity.url).origin}/` : plan.scope.under
  opened.set(ticket, {
    kind: 'address',
    whole: fetched.whole,
    root: '',
    paths: [],
    unread: fetched.failed.map(({ url, why }) => ({ path: url, why })),
    read: async () => ({ files: new Map(), failed: [] }),
    identities: pages.map(({ identity }) => identity),
    served: new Map(pages.map(({ identity, bytes }) => [identity.id, bytes])),
    addresses: { sitemap: plan.sitemap, files: fetched.files },
    from: {
      by: 'address',
      start: plan.start,
      how: plan.how,
      leftOut: [...plan.scope.leaveOut],
      most: plan.scope.most,
      path: new URL(plan.scope.under).pathname,
      queries: plan.scope.queries,
    },
  })
  const redirected = pages.flatMap(({ identity: { url, served } }) =>
    served!.redirects.map((hop) => ({ url: hop.url, to: url })),
  )
  return { ...rest, redirected, pages: pages.length, base, name: new URL(base).host.replace(/^www\./, '') }
}

/** Forgets what was planned or fetched. */
export function dropFetched(ticket: number): void {
  cancelFetching(ticket)
  plans.delete(ticket)
  opened.delete(ticket)
  controllers.delete(ticket)
}
