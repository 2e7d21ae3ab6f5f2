/** Our own server answers to its own names, and acts for its own pages alone. */
import { describe, expect, it } from 'vitest'
import { ownHosts, refusalOf } from './guards.ts'

const hosts = ownHosts(4460, 'quill.office.example')
const status = (method: string, headers: Record<string, string | undefined>) =>
  refusalOf({ method, headers }, hosts)?.status ?? 200
const own = { host: '127.0.0.1:4460', origin: 'http://127.0.0.1:4460', 'sec-fetch-site': 'same-origin' }

describe('a request', () => {
  it.each([
    ['127.0.0.1:4460', 200],
    ['localhost:4460', 200],
    ['LOCALHOST:4460', 200],
    ['[::1]:4460', 200],
    ['quill.office.example', 200],
    ['127.0.0.1', 421],
    ['127.0.0.1:80', 421],
    ['rebound.example:4460', 421],
    ['127.0.0.1:4460.rebound.example', 421],
    ['', 421],
    [undefined, 421],
  ])('by the name %s: %i', (host, expected) => {
    expect(status('GET', { host })).toBe(expected)
    expect(status('POST', { ...own, host, origin: `http://${host}` })).toBe(expected)
  })
  it.each([
    ['from our own page', {}, 200],
    ['over a proxy’s https', { host: 'quill.office.example', origin: 'https://quill.office.example' }, 200],
    ['from another site', { 'sec-fetch-site': 'cross-site', origin: 'https://evil.example' }, 403],
    [
      'from another port of this machine',
      { 'sec-fetch-site': 'same-site', origin: 'http://127.0.0.1:9999' },
      403,
    ],
    ['with a forged site', { origin: 'https://evil.example' }, 403],
    ['from a sandboxed page', { origin: 'null' }, 403],
    ['without an origin', { origin: undefined }, 403],
    ['without what a browser adds', { 'sec-fetch-site': undefined }, 403],
    ['from a bookmark', { 'sec-fetch-site': 'none' }, 403],
  ])('that acts, %s: %s', (_, headers, expected) => {
    for (const method of ['POST', 'PUT', 'DELETE', 'PATCH'])
      expect(status(method, { ...own, ...headers })).toBe(expected)
  })
})
