/** One address asked for: redirects followed by hand and each checked, the body unpacked and bounded. */
import type { Readable } from 'node:stream'
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib'
import { Refused, type Response, type Transport } from './transport.ts'
import { defaultVetting, vetAddress, type VettingPolicy } from './vet-address.ts'

/** One answer on the way to the last. */
export interface Hop {
  url: string
  status: number
}
export type Fetched =
  | {
      ok: true
      /** The address that gave the page, after redirects. */
      url: string
      /** The answers that led there, the last one not among them. */
      hops: Hop[]
      status: number
      /** In lower case, without parameters; "" where none is said. */
      mediaType: string
      /** The encoding that the header names, as it is written; null where it names none. */
      charset: string | null
      /** Each X-Robots-Tag header. */
      robots: string[]
      /** The address that a Link header names as canonical, as it is written. */
      canonical: string | null
      body: Uint8Array
    }
  | { ok: false; url: string; hops: Hop[]; code: string; message: string }

export interface FetchLimits {
  redirects: number
  /** Bytes of a body once it is unpacked. */
  bytes: number
  /** ms for all of it. */
  whole: number
}
export const defaultFetchLimits: FetchLimits = { redirects: 5, bytes: 10_000_000, whole: 60_000 }

/** Says what we are to the servers that are asked. */
export const USER_AGENT = 'KeenQuill/0.1 (an editor looks at the pages of a site)'

/** An answer that ends the fetching; its code is for programs, its message for people. */
export class Ended extends Error {
  readonly code: string
  constructor(code: string, message: string) {
    super(message)
    this.code = code
  }
}

/**
 * Waits until an address may be asked for, and gives the turn back when it is called again. Throws an `Ended` where the
 * address may not be asked for at all.
 */
export type Gate = (url: URL, signal: AbortSignal | undefined) => Promise<() => void>

export interface FetchOptions {
  policy?: VettingPolicy
  limits?: FetchLimits
  /** Asked before every hop; the time that it takes is not counted. */
  gate?: Gate
  /** Ends the fetching. */
  signal?: AbortSignal | undefined
}

/** Fetches an address. Never throws: what goes wrong is named. */
export async function fetchPage(
  address: string,
  transport: Transport,
  { policy = defaultVetting, limits = defaultFetchLimits, gate = noGate, signal }: FetchOptions = {},
): Promise<Fetched> {
  const hops: Hop[] = []
  let deadline: AbortSignal | null = null
  let giveBack = () => {}
  let asked = address
  try {
    for (;;) {
      const vetted = vetAddress(asked, policy)
      if (!vetted.ok) throw new Ended(vetted.code, vetted.message)
      const { url } = vetted
      url.hash = ''
      asked = url.href
      giveBack = await gate(url, signal)
      signal?.throwIfAborted()
      deadline = AbortSignal.timeout(limits.whole)
      const ends = signal ? AbortSignal.any([signal, deadline]) : deadline
      if (hops.some((hop) => hop.url === asked))
        throw new Ended(
          'redirect-loop',
          'Its redirects lead round in a circle. Whoever runs the site must mend that.',
        )
      const response = await transport(url, {
        headers: {
          'user-agent': USER_AGENT,
          accept: 'text/html,application/xhtml+xml,application/xml;q=0.9,text/plain;q=0.5',
          'accept-encoding': 'gzip, br, deflate',
        },
        signal: ends,
      })
      const to = redirectOf(response, url)
      if (to === null) return { ok: true, url: asked, hops, ...(await readAnswer(response, limits.bytes)) }
      response.body.destroy()
      giveBack()
      hops.push({ url: asked, status: response.status })
      if (hops.length > limits.redirects)
        throw new Ended(
          'redirects',
          `It redirects more than ${limits.redirects} times. Enter the address that it ends at.`,
        )
      asked = to
    }
  } catch (error) {
    const { code, message } = endOf(error, deadline, signal, limits)
    return { ok: false, url: asked, hops, code, message }
  } finally {
    giveBack()
  }
}
const noGate: Gate = () => Promise.resolve(() => {})

function endOf(
  error: unknown,
  deadline: AbortSignal | null,
  signal: AbortSignal | undefined,
  { whole }: FetchLimits,
): { code: string; message: string } {
  if (error instanceof Ended) return error
  if (error instanceof Refused) return { code: 'private', message: error.message }
  if (signal?.aborted) return { code: 'cancelled', message: 'Fetching was cancelled.' }
  if (deadline?.aborted)
    return {
      code: 'too-slow',
      message: `It did not arrive within ${Math.round(whole / 1000)} seconds. Try it again later.`,
    }
  const { code = '', message = '' } = error as { code?: string; message?: string }
  const said: Record<string, string> = {
    ENOTFOUND: 'No site has this name. Check the address.',
    EAI_AGAIN: 'Names cannot be looked up just now. Check the network and try again.',
    ECONNREFUSED: 'The server does not answer. Check the address, or try again later.',
    ECONNRESET: 'The server broke the connection off. Try it again later.',
    UND_ERR_CONNECT_TIMEOUT: 'The server does not answer. Check the address, or try again later.',
    UND_ERR_HEADERS_TIMEOUT: 'The server does not answer. Try it again later.',
    UND_ERR_BODY_TIMEOUT: 'The server stopped in the middle of the page. Try it again later.',
    UND_ERR_HEADERS_OVERFLOW:
      'What the server says before the page is too long. Whoever runs the site must mend that.',
    Z_DATA_ERROR:
      'The page arrived compressed in a way that cannot be read. Whoever runs the site must mend that.',
    Z_BUF_ERROR: 'The page ended before it was whole. Try it again later.',
  }
  const own = said[code] ?? (/^ERR__ERROR_FORMAT|^Z_/.test(code) ? said.Z_DATA_ERROR : undefined)
  return {
    code: code || 'failed',
    message:
      own ??
      `It could not be fetched (${(message || code).slice(0, 120)}). Check the address, or try again later.`,
  }
}

const first = (value: string | string[] | undefined): string =>
  Array.isArray(value) ? (value[0] ?? '') : (value ?? '')
const all = (value: string | string[] | undefined): string[] => (value === undefined ? [] : [value].flat())
/** Header values come as bytes, one character each; addresses in them are UTF-8. */
const utf8 = (value: string): string => Buffer.from(value, 'latin1').toString('utf8')

const REDIRECTS = new Set([301, 302, 303, 307, 308])
function redirectOf({ status, headers }: Response, from: URL): string | null {
  if (!REDIRECTS.has(status)) return null
  const location = first(headers.location).trim()
  if (location === '') return null
  try {
    return new URL(utf8(location), from).href
  } catch {
    throw new Ended(
      'redirect',
      'It redirects to something that is no address. Whoever runs the site must mend that.',
    )
  }
}

async function readAnswer(response: Response, most: number) {
  const { status, headers } = response
  const type = first(headers['content-type'])
  const link = all(headers.link).join(', ')
  return {
    status,
    mediaType: type.split(';', 1)[0]!.trim().toLowerCase(),
    charset: /;\s*charset\s*=\s*"?([^\s";]{1,40})/i.exec(type)?.[1] ?? null,
    robots: all(headers['x-robots-tag']).slice(0, 20),
    canonical: canonicalOf(link),
    body: await readBody(response, most),
  }
}

/** The address of the first link of relation canonical. Source: RFC 8288, 3. */
function canonicalOf(link: string): string | null {
  for (const [, address, parameters] of link.slice(0, 16_000).matchAll(/<([^<>]{1,2048})>([^<]{0,300})/g))
    if (/;\s*rel\s*=\s*(?:"[^"]*\bcanonical\b[^"]*"|canonical\b)/i.test(parameters!)) return utf8(address!)
  return null
}

/** Bodies come in at most so many wrappings, one around the other. */
const MOST_WRAPPINGS = 2

async function readBody({ headers, body }: Response, most: number): Promise<Uint8Array> {
  const encodings = all(headers['content-encoding'])
    .join(',')
    .toLowerCase()
    .split(',')
    .map((e) => e.trim())
    .filter((e) => e !== '' && e !== 'identity')
  if (encodings.length > MOST_WRAPPINGS) {
    body.destroy()
    throw new Ended('encoding', 'The page is packed many times over. Whoever runs the site must mend that.')
  }
  let stream: Readable = body
  for (const encoding of encodings.reverse()) {
    const unpacked = unpackerOf(encoding)
    if (unpacked === null) {
      body.destroy()
      throw new Ended(
        'encoding',
        `The page is packed as “${encoding.slice(0, 20)}”, which cannot be read. Whoever runs the site must mend that.`,
      )
    }
    const packed = stream
    packed.on('error', (error) => unpacked.destroy(error))
    stream = packed.pipe(unpacked)
  }
  const pieces: Buffer[] = []
  let length = 0
  try {
    for await (const piece of stream as AsyncIterable<Buffer>) {
      length += piece.length
      if (length > most)
        throw new Ended(
          'too-large',
          `The page is larger than ${(most / 1e6).toLocaleString('en')} MB, which is more than a page has. It is left out.`,
        )
      pieces.push(piece)
    }
  } finally {
    body.destroy()
    stream.destroy()
  }
  return new Uint8Array(Buffer.concat(pieces))
}

function unpackerOf(encoding: string) {
  switch (encoding) {
    case 'gzip':
    case 'x-gzip':
      return createGunzip()
    case 'br':
      return createBrotliDecompress()
    case 'deflate':
      return createInflate()
    default:
      return null
  }
}
