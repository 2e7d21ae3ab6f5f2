/**
 * The invented web that ships with the application: hosts under `.example`, answered from files and without a socket.
 * Each host is a JSON file of stand-ins/hosts/: a folder of pages, and what is answered at other addresses in each of
 * two states, some weeks apart.
 */
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { extname, join } from 'node:path'
import { Readable } from 'node:stream'
import { addressOf, decodedPath, isPagePath } from '../core/addresses/addresses.ts'
import { escapeMarkup } from '../core/strings.ts'
import type { Response, Transport } from './fetching/transport.ts'
import { competitorHosts, competitorPage } from './services/competitors.ts'
import { typeOf } from './types.ts'

/** `first` is what the demo begins with, `second` what is there some weeks later. */
export type WebState = 'first' | 'second'

interface StandInAnswer {
  status?: number
  headers?: Record<string, string>
  /** A file of the host's folder, or the text itself. */
  file?: string
  text?: string
  /** A sitemap of all pages of the folder, made when it is asked for. */
  sitemapOf?: 'pages'
  /** What is replaced in the file, each once: a text, and what stands there instead. */
  edits?: [string, string][]
  /** ms until it answers. */
  delay?: number
}
interface StandInHost {
  folder: string
  first: Record<string, StandInAnswer | null>
  second: Record<string, StandInAnswer | null>
}

/** The scripts of this project run at its root. */
const standIns = join(process.cwd(), 'stand-ins')

const hosts = new Map<string, StandInHost | null>()
function hostNamed(name: string): StandInHost | null {
  let host = hosts.get(name)
  if (host === undefined) {
    const file = join(standIns, 'hosts', `${name}.json`)
    // A name of the network holds no slash, so that it leads to no other folder.
    host = existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as StandInHost) : null
    hosts.set(name, host)
  }
  return host
}

/** Answers for `.example` itself, and leaves everything else to the transport that it is given. */
export const standInTransport =
  (state: WebState, elsewhere: Transport): Transport =>
  async (url, init) => {
    if (!url.hostname.endsWith('.example')) return elsewhere(url, init)
    const host = hostNamed(url.hostname)
    if (!host && competitorHosts().includes(url.hostname)) {
      const competitor = competitorPage(url.hostname, decodedPath(url.href))
      return {
        status: competitor === null ? 404 : 200,
        headers: { 'content-type': 'text/html; charset=utf-8' },
        body: Readable.from([Buffer.from(competitor ?? NOT_FOUND)]),
      }
    }
    if (!host) throw Object.assign(new Error('No stand-in has this name.'), { code: 'ENOTFOUND' })
    const answer = answerAt(host, url, state)
    if (answer.delay) await wait(answer.delay, init.signal)
    return { status: answer.status, headers: answer.headers, body: Readable.from([answer.body]) }
  }

const NOT_FOUND = '<!doctype html><html lang="en"><title>Not found</title><h1>There is no such page</h1>'

function answerAt(
  host: StandInHost,
  url: URL,
  state: WebState,
): { status: number; headers: Response['headers']; body: Buffer; delay: number } {
  const path = decodedPath(url.href)
  const given = state === 'second' && path in host.second ? host.second[path] : host.first[path]
  const file = given === undefined ? fileAt(host, path) : (given?.file ?? null)
  if (given === null || (given === undefined && file === null))
    return {
      status: 404,
      headers: { 'content-type': 'text/html; charset=utf-8' },
      body: Buffer.from(NOT_FOUND),
      delay: 0,
    }
  const type = file === null ? 'text/html' : typeOf(extname(file))
  return {
    status: given?.status ?? 200,
    headers: { 'content-type': type, ...given?.headers },
    body: bodyOf(host, given ?? {}, file, url.origin),
    delay: given?.delay ?? 0,
  }
}

function bodyOf(host: StandInHost, answer: StandInAnswer, file: string | null, origin: string): Buffer {
  if (answer.text !== undefined) return Buffer.from(answer.text)
  if (answer.sitemapOf) return Buffer.from(sitemapOf(host, origin))
  if (file === null) return Buffer.alloc(0)
  const bytes = readFileSync(join(standIns, host.folder, file))
  if (!answer.edits) return bytes
  let text = bytes.toString('utf8')
  for (const [from, to] of answer.edits) {
    if (!text.includes(from)) throw new Error(`stand-ins: ${file} has no “${from}”`)
    text = text.replace(from, () => to)
  }
  return Buffer.from(text)
}

/** The file at an address, as the folder's own server would find it. */
function fileAt({ folder }: StandInHost, path: string): string | null {
  const relative = path.slice(1)
  if (relative.split('/').includes('..')) return null
  const names = relative === '' || relative.endsWith('/') ? [`${relative}index.html`] : [relative]
  return names.find((name) => isFile(join(standIns, folder, name))) ?? null
}
const isFile = (path: string) => existsSync(path) && statSync(path).isFile()

function sitemapOf({ folder }: StandInHost, origin: string): string {
  const pages = readdirSync(join(standIns, folder), { recursive: true, encoding: 'utf8' })
    .map((path) => path.replaceAll('\\', '/'))
    .filter(isPagePath)
    .map((path) => addressOf(path, `${origin}/`))
    .sort()
  const entries = pages.map((url) => `<url><loc>${escapeMarkup(url)}</loc></url>`)
  return `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${entries.join('\n')}\n</urlset>\n`
}

function wait(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const leave = () => {
      clearTimeout(timer)
      reject(signal.reason as Error)
    }
    const timer = setTimeout(() => {
      signal.removeEventListener('abort', leave)
      resolve()
    }, ms)
    signal.addEventListener('abort', leave, { once: true })
  })
}
