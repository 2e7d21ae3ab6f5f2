/** Who may ask this server: our own pages, by our own name. Read before anything else of a request. */
import type { IncomingMessage } from 'node:http'

export interface Refusal {
  status: number
  why: string
}

/**
 * Why a request is refused; null where it is not. `hosts` are the names, with their ports, that we answer to: another
 * one is a name that was led to this machine from outside. What acts must come from a page of our own.
 */
export function refusalOf(
  { method = 'GET', headers }: Pick<IncomingMessage, 'method' | 'headers'>,
  hosts: ReadonlySet<string>,
): Refusal | null {
  const host = headers.host?.toLowerCase() ?? ''
  if (!hosts.has(host))
    return {
      status: 421,
      why: 'This server does not answer to that name. Open the address that it printed when it was started.',
    }
  if (method === 'GET' || method === 'HEAD') return null
  const origin = headers.origin?.toLowerCase()
  const site = headers['sec-fetch-site']
  const isOwn = site === 'same-origin' && (origin === `http://${host}` || origin === `https://${host}`)
  return isOwn ? null : { status: 403, why: 'Only pages of Keen Quill itself may ask for this.' }
}

/** The names of this machine at a port, and one more that a proxy may answer to. */
export const ownHosts = (port: number, more = ''): Set<string> =>
  new Set([
    `127.0.0.1:${port}`,
    `localhost:${port}`,
    `[::1]:${port}`,
    ...(more === '' ? [] : [more.toLowerCase()]),
  ])
