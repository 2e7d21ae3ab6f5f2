/** The production server: the built application, its assets, and the stand-ins. Address 127.0.0.1, PORT or 4460. */
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import sirv from 'sirv'
import { ownHosts, refusalOf } from './guards.ts'
import { serveStandIn } from './stand-ins.ts'

// @react-router/node and React choose their builds by this when they are imported.
process.env.NODE_ENV = 'production'
const { createRequestListener } = await import('@react-router/node')

const root = join(import.meta.dirname, '..')
/** Another build than that in build/: its folder. */
const built = process.env.KEEN_QUILL_BUILD ?? join(root, 'build')
const client = join(built, 'client')
const port = Number(process.env.PORT ?? 4460)
const build = await import(pathToFileURL(join(built, 'server/index.js')).href)
const application = createRequestListener({ build, mode: 'production' })

/** The built assets, compressed when they were built. Names of those in /assets/ hold a hash, so they never change. */
const serveAsset = sirv(client, {
  etag: true,
  gzip: true,
  brotli: true,
  setHeaders(response, pathname) {
    response.setHeader('x-content-type-options', 'nosniff')
    response.setHeader(
      'cache-control',
      pathname.startsWith('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
    )
  },
})

/** KEEN_QUILL_HOST is the name, with its port if it has one, under which a proxy leads to this server. */
const hosts = ownHosts(port, process.env.KEEN_QUILL_HOST)

function answer(request: IncomingMessage, response: ServerResponse): void {
  const refusal = refusalOf(request, hosts)
  if (refusal) {
    response.writeHead(refusal.status, { 'content-type': 'text/plain; charset=utf-8' }).end(refusal.why)
    request.resume()
    return
  }
  let url: URL
  try {
    url = new URL(request.url ?? '/', 'http://localhost')
    decodeURIComponent(url.pathname)
  } catch {
    response.writeHead(400).end('This address cannot be read.')
    return
  }
  if (request.method === 'GET' || request.method === 'HEAD') {
    if (url.pathname === '/alive') return void response.writeHead(204, { 'cache-control': 'no-store' }).end()
    if (url.pathname.startsWith('/stand-ins/')) return serveStandIn(url, response)
    if (url.pathname !== '/') return serveAsset(request, response, () => serveApplication(request, response))
  }
  serveApplication(request, response)
}

function serveApplication(request: IncomingMessage, response: ServerResponse): void {
  response.setHeader('x-content-type-options', 'nosniff')
  response.setHeader('referrer-policy', 'no-referrer')
  response.setHeader('cross-origin-opener-policy', 'same-origin')
  void application(request, response)
}

const server = createServer(answer)
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken. Choose another: PORT=4461 npm run demo`
      : error.message,
  )
  process.exit(1)
})
server.listen(port, '127.0.0.1', () => console.log(`Keen Quill is ready: http://127.0.0.1:${port}/`))
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    server.close(() => process.exit(0))
    server.closeAllConnections()
  })
