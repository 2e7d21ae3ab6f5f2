/** The fetcher over a network of the test's own: robots.txt held to, turns kept, sitemaps unpacked. */
import { Readable } from 'node:stream'
import { gzipSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { createFetcher } from './fetcher.ts'
import type { Transport } from './transport.ts'
import { createTurns } from './turns.ts'

type Answer = { status?: number; headers?: Record<string, string>; body?: string | Buffer }
/** Answers by address; what is asked is noted. An address that is not in the table is not there. */
function network(table: Record<string, Answer | Error>) {
  const asked: string[] = []
  const transport: Transport = async (url) => {
    asked.push(url.href)
    const answer = table[url.href]
    if (answer instanceof Error) throw answer
    const {
      status = answer ? 200 : 404,
      headers = { 'content-type': 'text/html' },
      body = '<p>x',
    } = answer ?? {}
    return { status, headers, body: Readable.from([Buffer.from(body as string)]) }
  }
  return { asked, transport }
}
const robots = (text: string): Answer => ({ body: text })
const A = 'https://a.example'

describe('robots.txt', () => {
  it('is asked for once for a host, and held to', async () => {
    const { asked, transport } = network({
      [`${A}/robots.txt`]: robots('User-agent: *\nDisallow: /private/'),
    })
    const { fetch } = createFetcher({ transport })
    expect(await fetch(`${A}/open`, 'page')).toMatchObject({ ok: true })
    expect(await fetch(`${A}/private/x`, 'page')).toMatchObject({
      ok: false,
      code: 'robots',
      message: expect.stringMatching(/robots\.txt asks/),
    })
    expect(asked).toEqual([`${A}/robots.txt`, `${A}/open`])
  })
  it('holds back what a redirect leads to, on another host too', async () => {
    const { asked, transport } = network({
      [`${A}/go`]: { status: 302, headers: { location: 'https://b.example/private' } },
      'https://b.example/robots.txt': robots('User-agent: KeenQuill\nDisallow: /private'),
    })
    expect(await createFetcher({ transport }).fetch(`${A}/go`, 'page')).toMatchObject({
      ok: false,
      code: 'robots',
    })
    expect(asked).not.toContain('https://b.example/private')
  })
  it.each([
    ['that is not there allows all', { status: 404 }, true],
    ['that may not be read allows all', { status: 403 }, true],
    ['that fails allows nothing', { status: 503 }, false],
    ['that cannot be reached allows nothing', Object.assign(new Error('x'), { code: 'ECONNREFUSED' }), false],
    ['that redirects in a circle allows all', { status: 301, headers: { location: '/robots.txt' } }, true],
  ])('%s', async (_, answer, allowed) => {
    const { transport } = network({ [`${A}/robots.txt`]: answer as Answer, [`${A}/x`]: {} })
    expect((await createFetcher({ transport }).fetch(`${A}/x`, 'page')).ok).toBe(allowed)
  })
  it('is forgotten after a while', async () => {
    let now = 0
    const { asked, transport } = network({ [`${A}/robots.txt`]: robots('') })
    const { fetch } = createFetcher({ transport, now: () => now })
    await fetch(`${A}/1`, 'page')
    now = 3_600_000
    await fetch(`${A}/2`, 'page')
    expect(asked.filter((url) => url.endsWith('/robots.txt'))).toHaveLength(2)
  })
})

describe('a sitemap', () => {
  it('is unpacked where it is a gzip file', async () => {
    const { transport } = network({
      [`${A}/map.xml.gz`]: { headers: { 'content-type': 'application/gzip' }, body: gzipSync('<urlset/>') },
    })
    const fetched = await createFetcher({ transport }).fetch(`${A}/map.xml.gz`, 'sitemap')
    expect(fetched.ok && new TextDecoder().decode(fetched.body)).toBe('<urlset/>')
  })
  it('that is too large unpacked, or damaged, is refused', async () => {
    const { transport } = network({
      [`${A}/bomb.gz`]: { body: gzipSync(Buffer.alloc(60_000_000)) },
      [`${A}/damaged.gz`]: { body: gzipSync('x'.repeat(500)).subarray(0, 15) },
    })
    const { fetch } = createFetcher({ transport })
    expect(await fetch(`${A}/bomb.gz`, 'sitemap')).toMatchObject({ ok: false, code: 'too-large' })
    expect(await fetch(`${A}/damaged.gz`, 'sitemap')).toMatchObject({ ok: false, code: 'Z_DATA_ERROR' })
  })
})

describe('turns', () => {
  it('are two at a time for a host, and each host has its own', async () => {
    const turns = createTurns()
    const first = await turns.take('a', 0, undefined)
    const second = await turns.take('a', 0, undefined)
    await turns.take('b', 0, undefined)
    let third = false
    const waiting = turns.take('a', 0, undefined).then((giveBack) => {
      third = true
      return giveBack
    })
    await Promise.resolve()
    expect(third).toBe(false)
    first()
    // Giving a turn back twice gives no second one.
    first()
    ;(await waiting)()
    expect(third).toBe(true)
    second()
  })
  it('are not waited for by one who has left', async () => {
    const turns = createTurns()
    await turns.take('a', 0, undefined)
    const held = await turns.take('a', 0, undefined)
    const leaving = new AbortController()
    const waiting = turns.take('a', 0, leaving.signal)
    leaving.abort()
    await expect(waiting).rejects.toThrow()
    held()
    // The turn that was given back is there for the next.
    ;(await turns.take('a', 0, undefined))()
  })
  it('come no faster than the host asks for', async () => {
    let now = 0
    const turns = createTurns(() => now)
    ;(await turns.take('a', 20, undefined))()
    const leaving = new AbortController()
    let came = false
    const waiting = turns.take('a', 20, leaving.signal).then(
      () => (came = true),
      () => {},
    )
    await new Promise((resolve) => setTimeout(resolve, 20))
    expect(came).toBe(false)
    leaving.abort()
    await waiting
    now = 60_000
    ;(await turns.take('a', 20, undefined))()
  })
})
