/** One request over a real connection, which is made only to an address that was checked. */
import { lookup, type LookupAddress } from 'node:dns'
import type { LookupFunction } from 'node:net'
import type { Readable } from 'node:stream'
import { Agent, buildConnector, request } from 'undici'
import { isPublicAddress, ownAddresses } from './public-address.ts'
import type { VettingPolicy } from './vet-address.ts'

export interface Response {
  status: number
  /** By name in lower case; one that came several times is a list. */
  headers: Record<string, string | string[] | undefined>
  /** As it came over the wire, perhaps compressed. */
  body: Readable
}
/** Asks once: redirects are not followed, bodies not unpacked. */
export type Transport = (
  url: URL,
  init: { headers: Record<string, string>; signal: AbortSignal },
) => Promise<Response>

/** A connection that is not made; its message says why. */
export class Refused extends Error {}

export interface ConnectionLimits {
  /** ms */
  connect: number
  /** ms from the request to its headers, and between two pieces of a body. */
  silence: number
}

/** Looks up a name as the platform does; another one in tests. */
export type Resolve = (host: string) => Promise<LookupAddress[]>
const bySystem: Resolve = (host) =>
  new Promise((resolve, reject) =>
    lookup(host, { all: true, verbatim: true }, (error, found) => (error ? reject(error) : resolve(found))),
  )

/** The public Internet. Every address that a name has is checked, and that of the socket once more when it is connected. */
export function publicTransport(
  policy: VettingPolicy,
  limits: ConnectionLimits,
  resolve: Resolve = bySystem,
): Transport {
  const machine = ownAddresses()
  const refusalOf = (host: string, address: string, port: number): Refused | null =>
    policy.allow.has(`${host}:${port}`) || (isPublicAddress(address) && !machine.has(address))
      ? null
      : new Refused(
          `${host} leads to ${address}, an address within a network. Only pages of the public web are fetched.`,
        )

  const connect: buildConnector.connector = (options, done) => {
    const host = options.hostname
    const port = Number(options.port || (options.protocol === 'https:' ? 443 : 80))
    const checkedLookup: LookupFunction = (name, asked, answer) => {
      resolve(name).then(
        (found) => {
          const refusal = found.map((f) => refusalOf(host, f.address, port)).find((r) => r !== null)
          const [first] = found
          if (refusal) return answer(refusal, '', 0)
          if (!first) return answer(new Refused(`${name} has no address.`), '', 0)
          if (asked.all) answer(null, found)
          else answer(null, first.address, first.family)
        },
        (error: NodeJS.ErrnoException) => answer(error, '', 0),
      )
    }
    // Names of addresses are never looked up: the socket's own is checked for them.
    buildConnector({ lookup: checkedLookup, timeout: limits.connect })(options, (...result) => {
      const [error, socket] = result
      if (error) return done(error, null)
      const refusal = refusalOf(host.replace(/^\[|\]$/g, ''), socket.remoteAddress ?? '', port)
      if (!refusal) return done(null, socket)
      socket.destroy()
      done(refusal, null)
    })
  }
  const agent = new Agent({
    connect,
    headersTimeout: limits.silence,
    bodyTimeout: limits.silence,
    maxHeaderSize: 16_384,
    pipelining: 1,
  })
  return async (url, { headers, signal }) => {
    const response = await request(url, { dispatcher: agent, method: 'GET', headers, signal })
    // A body that is let go says so by an error, which nobody waits for; who reads it hears of its errors all the same.
    response.body.on('error', () => {})
    return { status: response.statusCode, headers: response.headers, body: response.body }
  }
}
