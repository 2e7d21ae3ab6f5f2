/** The one fetcher of each state of the invented web; in both, every other host is asked over the network. */
import { createFetcher, type Fetcher } from './fetching/fetcher.ts'
import { publicTransport } from './fetching/transport.ts'
import { createTurns } from './fetching/turns.ts'
import { defaultVetting, type VettingPolicy } from './fetching/vet-address.ts'
import { standInTransport, type WebState } from './stand-in-network.ts'

/**
 * KEEN_QUILL_ALSO_FETCH names hosts with their ports (`staging.office:8080`, separated by commas) that may be asked although
 * they are not of the public web: a team's own staging server.
 */
const alsoFetched = (process.env.KEEN_QUILL_ALSO_FETCH ?? '')
  .split(',')
  .map((h) => h.trim().toLowerCase())
  .filter(Boolean)
const policy: VettingPolicy = { ...defaultVetting, allow: new Set(alsoFetched) }

const turns = createTurns()
const network = publicTransport(policy, { connect: 10_000, silence: 15_000 })
const fetchers = new Map<WebState, Fetcher>()

export function fetcherFor(state: WebState): Fetcher {
  let fetcher = fetchers.get(state)
  if (!fetcher) {
    fetcher = createFetcher({ transport: standInTransport(state, network), policy, turns })
    fetchers.set(state, fetcher)
  }
  return fetcher
}
