/** Which addresses of the Internet may be asked for pages: public ones alone, and none of this machine's own. */
import { networkInterfaces } from 'node:os'
import ipaddr from 'ipaddr.js'

/** All of IPv6 that is routed in public stands in 2000::/3. Source: IANA, IPv6 global unicast address assignments. */
const PUBLIC_V6 = ipaddr.parseCIDR('2000::/3')

/**
 * Whether an IP address, written in any usual way, is one of the public Internet. Addresses of version 4 within
 * version 6 count as what they hold. What is no address at all is not public.
 */
export function isPublicAddress(written: string): boolean {
  if (!ipaddr.isValid(written)) return false
  const address = ipaddr.process(written)
  if (address.kind() === 'ipv4') return address.range() === 'unicast'
  // Translation (64:ff9b::/96) and tunnels (6to4, Teredo) lead to an address that would be checked by nobody.
  return address.range() === 'unicast' && address.match(PUBLIC_V6)
}

/** The addresses of this machine's own interfaces: a public one of them is no way out. */
export function ownAddresses(): Set<string> {
  const addresses = new Set<string>()
  for (const interfaces of Object.values(networkInterfaces()))
    for (const { address } of interfaces ?? []) addresses.add(ipaddr.process(address).toString())
  return addresses
}
