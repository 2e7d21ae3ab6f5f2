/** What is asked for at all: an address as it was typed or followed, before any name is looked up. */
import ipaddr from 'ipaddr.js'
import { isPublicAddress } from './public-address.ts'

export type Vetted = { ok: true; url: URL } | { ok: false; code: RefusalCode; message: string }
export type RefusalCode = 'no-address' | 'scheme' | 'credentials' | 'port' | 'name' | 'private'

export interface VettingPolicy {
  /** Ports that may be asked. */
  ports: ReadonlySet<number>
  /** `host:port` that may be asked although it is not public: for tests on this machine. */
  allow: ReadonlySet<string>
}
export const defaultVetting: VettingPolicy = { ports: new Set([80, 443]), allow: new Set() }

/** Longer than this is no address that a page has. From memory: what browsers take. */
const LONGEST = 2048

/**
 * The address, where it is one of the public web: http or https, a public name or IP address, the usual port, no name
 * and password. A name must be looked up and its answers checked as well; nothing is looked up here.
 */
export function vetAddress(written: string, policy: VettingPolicy = defaultVetting): Vetted {
  const refuse = (code: RefusalCode, message: string): Vetted => ({ ok: false, code, message })
  if (written.length > LONGEST)
    return refuse('no-address', 'The address is too long to be one of a page. Check what was pasted.')
  let url: URL
  try {
    url = new URL(written.trim())
  } catch {
    return refuse(
      'no-address',
      `“${shortened(written)}” is no address. Write it with https:// and the site’s name.`,
    )
  }
  if (url.protocol !== 'https:' && url.protocol !== 'http:')
    return refuse(
      'scheme',
      `Only addresses that begin with https:// or http:// can be fetched, not ${shortened(url.protocol)}`,
    )
  if (url.username !== '' || url.password !== '')
    return refuse(
      'credentials',
      'The address has a name and a password in it. Take them out: pages behind a password are not fetched.',
    )
  const port = Number(url.port || (url.protocol === 'https:' ? 443 : 80))
  if (policy.allow.has(`${url.hostname}:${port}`)) return { ok: true, url }
  if (!policy.ports.has(port))
    return refuse(
      'port',
      `Port ${port} is not fetched from, only the web’s own ${[...policy.ports].join(' and ')}.`,
    )
  const host = url.hostname.replace(/^\[|\]$/g, '')
  if (ipaddr.isValid(host))
    return isPublicAddress(host)
      ? { ok: true, url }
      : refuse(
          'private',
          `${host} is an address within a network, not one of the public web. Enter the site’s public address.`,
        )
  return isPublicName(host)
    ? { ok: true, url }
    : refuse(
        'name',
        `“${shortened(host)}” is no name of the public web. Enter the site’s public address, such as https://www.site.example/.`,
      )
}

/** Names that lead nowhere in public. Source: RFC 6761 and RFC 8375, special-use names; `internal`: ICANN, 2024. */
const NOT_PUBLIC = new Set([
  'localhost',
  'local',
  'localdomain',
  'internal',
  'intranet',
  'lan',
  'home',
  'corp',
  'private',
  'test',
  'invalid',
  'onion',
  'arpa',
])

function isPublicName(host: string): boolean {
  const labels = host.replace(/\.$/, '').split('.')
  const top = labels.at(-1)!
  return (
    labels.length > 1 &&
    !NOT_PUBLIC.has(top) &&
    !/^\d+$/.test(top) &&
    labels.every((label) => /^[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?$/.test(label))
  )
}
const shortened = (text: string): string => (text.length > 60 ? `${text.slice(0, 60)} …` : text)
