/** The fetcher: pages, robots.txt files and sitemaps by their addresses, asked for politely and only where a host allows it. */
import { createGunzip } from 'node:zlib'
import { Readable } from 'node:stream'
import type { Robots } from '../../core/site/robots.ts'
import { robotsOf } from '../../core/work/site-plan.ts'
import { MOST_SITEMAP_BYTES } from '../../core/site/read-sitemap.ts'
import {
  defaultFetchLimits,
  Ended,
  fetchPage,
  type Fetched,
  type FetchLimits,
  type Gate,
} from './fetch-page.ts'
import type { Transport } from './transport.ts'
import type { AskedAs } from '../../core/site/fetched.ts'
import { createTurns, type Turns } from './turns.ts'
import { defaultVetting, type VettingPolicy } from './vet-address.ts'

export interface Fetcher {
  /** Never throws: what goes wrong is named. A robots.txt that is not there comes as it is, with its status. */
  fetch(address: string, as: AskedAs, signal?: AbortSignal): Promise<Fetched>
}

/** A robots.txt is asked for again after so long, in ms; RFC 9309, 2.4, allows a day. */
const ROBOTS_KEPT = 10 * 60_000
/** Of so many hosts it is kept. */
const MOST_HOSTS = 500

export function createFetcher({
  transport,
  policy = defaultVetting,
  limits = defaultFetchLimits,
  turns = createTurns(),
  now = Date.now,
}: {
  transport: Transport
  policy?: VettingPolicy
  limits?: FetchLimits
  turns?: Turns
  now?: () => number
}): Fetcher {
  const known = new Map<string, { robots: Promise<Robots>; until: number }>()
  /** robots.txt is asked for without asking itself; a host's turn it waits for all the same. */
  const ownGate: Gate = (url, signal) => turns.take(url.host, 0, signal)
  const fetchRobots = (origin: string, signal?: AbortSignal) =>
    fetchPage(`${origin}/robots.txt`, transport, { policy, limits, gate: ownGate, signal })

  function robotsFor(origin: string): Promise<Robots> {
    const kept = known.get(origin)
    if (kept && kept.until > now()) return kept.robots
    known.delete(origin)
    const robots = fetchRobots(origin).then(robotsOf)
    if (known.size === MOST_HOSTS) known.delete(known.keys().next().value!)
    known.set(origin, { robots, until: now() + ROBOTS_KEPT })
    return robots
  }
  const gate: Gate = async (url, signal) => {
    const robots = await robotsFor(url.origin)
    if (!robots.allows(url.pathname + url.search))
      throw new Ended(
        'robots',
        'The site’s robots.txt asks that this address is not fetched. Ask whoever runs the site, or take the page in as a file.',
      )
    return turns.take(url.host, robots.delay ?? 0, signal)
  }
  return {
    async fetch(address, as, signal) {
      if (as === 'robots') {
        const origin = URL.canParse(address) ? new URL(address).origin : address
        return fetchRobots(origin, signal)
      }
      const most = as === 'sitemap' ? { ...limits, bytes: MOST_SITEMAP_BYTES } : limits
      const fetched = await fetchPage(address, transport, { policy, limits: most, gate, signal })
      return as === 'sitemap' && fetched.ok ? unpackedSitemap(fetched) : fetched
    },
  }
}

/** Sitemaps may be gzip files, whatever the headers say of them. */
async function unpackedSitemap(fetched: Extract<Fetched, { ok: true }>): Promise<Fetched> {
  const { body, url, hops } = fetched
  if (body[0] !== 0x1f || body[1] !== 0x8b) return fetched
  const pieces: Buffer[] = []
  let length = 0
  const unpacker = Readable.from([Buffer.from(body)]).pipe(createGunzip())
  try {
    for await (const piece of unpacker as AsyncIterable<Buffer>) {
      length += piece.length
      if (length > MOST_SITEMAP_BYTES) {
        unpacker.destroy()
        return {
          ok: false,
          url,
          hops,
          code: 'too-large',
          message: `The sitemap is larger than ${MOST_SITEMAP_BYTES / 1024 / 1024} MB, which is all that one may have. Divide it.`,
        }
      }
      pieces.push(piece)
    }
  } catch {
    return {
      ok: false,
      url,
      hops,
      code: 'Z_DATA_ERROR',
      message:
        'The sitemap is compressed in a way that cannot be read. Whoever runs the site must mend that.',
    }
  }
  return { ...fetched, body: new Uint8Array(Buffer.concat(pieces)) }
}
