/** What came of asking for an address. */
import type { Served } from '../page/source/served.ts'

export interface FetchedPage {
  ok: true
  /** The address that gave the page, after redirects. */
  url: string
  hops: { url: string; status: number }[]
  status: number
  mediaType: string
  charset: string | null
  robots: string[]
  canonical: string | null
  body: Uint8Array
}
export interface NotFetched {
  ok: false
  url: string
  hops: { url: string; status: number }[]
  /** For programs; `message` is for people. */
  code: string
  message: string
}
export type FetchedMessage = FetchedPage | NotFetched

/** What an address is asked for as: what it may be, and how large. */
export type AskedAs = 'page' | 'robots' | 'sitemap'
/** Asks for an address. Never throws but when `signal` ends it. */
export type Ask = (address: string, as: AskedAs, signal?: AbortSignal) => Promise<FetchedMessage>

/** What the server said, as a page keeps it; `date` is YYYY-MM-DD. */
export const servedOf = (fetched: FetchedPage, date: string): Served => ({
  status: fetched.status,
  address: fetched.url,
  redirects: fetched.hops,
  contentType: fetched.mediaType || null,
  charset: fetched.charset,
  robots: fetched.robots,
  canonical: fetched.canonical,
  date,
})
