/**
 * What stands in for the world outside: the demo site for a live one, its pages under /stand-ins/site/ and all of it as one
 * archive; and the outside services.
 */
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import type { ServerResponse } from 'node:http'
import { extname, join, normalize, relative, sep } from 'node:path'
import { writeZip } from '../core/exchange/zip.ts'
import { standInDemand } from './services/stand-in-demand.ts'
import { standInResults } from './services/stand-in-results.ts'
import { standInStatistics } from './services/stand-in-statistics.ts'
import { typeOf } from './types.ts'

const folder = join(import.meta.dirname, '../stand-ins/site')

export function demoArchive(): Uint8Array {
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => relative(folder, join(e.parentPath, e.name)).split(sep).join('/'))
    .sort()
  return writeZip(files.map((path) => [path, readFileSync(join(folder, path))]))
}

const services: Record<string, (parameters: URLSearchParams) => { status: number; body: object }> = {
  '/stand-ins/demand': standInDemand,
  '/stand-ins/results': standInResults,
  '/stand-ins/statistics': standInStatistics,
}

export function serveStandIn({ pathname, searchParams }: URL, response: ServerResponse): void {
  // Pages of a site must never share the application's origin as scripts: they are served inert.
  response.setHeader(
    'content-security-policy',
    "sandbox; default-src 'none'; img-src 'self'; style-src 'self' 'unsafe-inline'",
  )
  response.setHeader('x-content-type-options', 'nosniff')
  if (pathname === '/stand-ins/site.zip') {
    response.writeHead(200, { 'content-type': 'application/zip' }).end(demoArchive())
    return
  }
  const service = Object.hasOwn(services, pathname) ? services[pathname] : undefined
  if (service) {
    const { status, body } = service(searchParams)
    response.writeHead(status, { 'content-type': typeOf('.json') }).end(JSON.stringify(body))
    return
  }
  const beside = /^\/stand-ins\/((?:keywords|house-style|hand-off)(\.csv|\.json))$/.exec(pathname)
  if (beside) {
    response
      .writeHead(200, { 'content-type': typeOf(beside[2]!) })
      .end(readFileSync(join(folder, '..', beside[1]!)))
    return
  }
  if (pathname.startsWith('/stand-ins/site/')) {
    const file = normalize(join(folder, decodeURIComponent(pathname.slice('/stand-ins/site/'.length))))
    const existing = [file, join(file, 'index.html')].find((f) => existsSync(f) && statSync(f).isFile())
    if (existing && (existing + sep).startsWith(folder + sep)) {
      response.writeHead(200, { 'content-type': typeOf(extname(existing)) }).end(readFileSync(existing))
      return
    }
  }
  response
    .writeHead(404, { 'content-type': 'text/plain; charset=utf-8' })
    .end('There is no such page on the demo site.')
}
