/** The one fetcher of each state of the invented web; in both, every other host is asked over the network. */
import { createFetcher, type Fetcher } from './fetching/fetcher.ts'
import { publicTransport } from './fetching/transport.ts'
import { createTurns } from './fetching/turns.ts'
import { defaultVetting } from './fetching/vet-address.ts'
import { standInTransport, type WebState } from './stand-in-network.ts'

const turns = createTurns()
const network = publicTransport(defaultVetting, { connect: 10_000, silence: 15_000 })
const fetchers = new Map<WebState, Fetcher>()

export function fetcherFor(state: WebState): Fetcher {
  let fetcher = fetchers.get(state)
  if (!fetcher) {
    fetcher = createFetcher({ transport: standInTransport(state, network), turns })
    fetchers.set(state, fetcher)
  }
  return fetcher
}
