/** The server's part: the demo's pages are served inert, and nothing outside its folder is. */
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { serveStandIn } from './stand-ins.ts'
import { typeOf } from './types.ts'

let server: Server
let base: string
beforeAll(async () => {
  server = createServer((request, response) => serveStandIn(new URL(request.url!, 'http://x'), response))
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(() => server.close())

describe('the stand-ins', () => {
  it('serve pages and folders in a sandbox, without scripts', async () => {
    for (const path of [
      '/stand-ins/site/',
      '/stand-ins/site/shop/',
      '/stand-ins/site/Press/Old%20Notice.html',
    ]) {
      const response = await fetch(base + path)
      expect([response.status, response.headers.get('content-type')]).toEqual([200, 'text/html'])
      expect(response.headers.get('content-security-policy')).toMatch(/^sandbox; default-src 'none'/)
    }
  })
  it('serve the whole site as one archive, and its keywords', async () => {
    const archive = unzipSync(new Uint8Array(await (await fetch(`${base}/stand-ins/site.zip`)).arrayBuffer()))
    expect(Object.keys(archive).filter((p) => p.endsWith('.html') || p.endsWith('.htm'))).toHaveLength(45)
    expect(await (await fetch(`${base}/stand-ins/keywords.csv`)).text()).toMatch(/^path,primary,secondary/)
  })
  it('do not lead out of their folder', async () => {
    for (const path of [
      '/stand-ins/site/..%2fplanted.csv',
      '/stand-ins/site/%2e%2e/%2e%2e/package.json',
      '/stand-ins/site/nowhere.html',
    ])
      expect((await fetch(base + path)).status).toBe(404)
  })
  it('name media types by extension', () => {
    expect([typeOf('.HTML'), typeOf('.woff2'), typeOf('.unknown')]).toEqual([
      'text/html',
      'font/woff2',
      'application/octet-stream',
    ])
  })
})
