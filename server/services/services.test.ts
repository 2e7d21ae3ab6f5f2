/** Outside services: what is asked, what comes of answers that are slow, wrong, too much or none; the stand-in. */
import { createServer, type RequestListener, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterEach, describe, expect, it } from 'vitest'
import { demandAnswerSchema, type DemandAnswer } from '../../core/keywords/demand.ts'
import { addressOfService, askService } from './ask.ts'
import { demandService } from './demand.ts'
import { resultsAnswerSchema, type Result, type ResultsAnswer } from '../../core/results/line-up.ts'
import { competitorPage } from './competitors.ts'
import { standInDemand } from './stand-in-demand.ts'
import { standInResults } from './stand-in-results.ts'

const servers: Server[] = []
async function serving(listener: RequestListener): Promise<void> {
  const server = createServer(listener)
  servers.push(server)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  process.env.KEEN_QUILL_DEMAND = `http://127.0.0.1:${(server.address() as AddressInfo).port}/d?key=1`
}
afterEach(() => {
  delete process.env.KEEN_QUILL_DEMAND
  for (const server of servers.splice(0)) {
    server.closeAllConnections()
    server.close()
  }
})
const ask = (limits?: { time: number; bytes: number }) =>
  askService<DemandAnswer>(demandService, { topic: 'lamps & ropes' }, demandAnswerSchema, undefined, limits)
const answer: DemandAnswer = { market: 'national', place: null, asOf: '2026-11', phrases: [] }

describe('a service', () => {
  it('is asked at its address, and its answer shown with where it comes from', async () => {
    let asked = ''
    await serving((request, response) => {
      asked = request.url!
      response.end(JSON.stringify(answer))
    })
    const got = await ask()
    expect(got).toMatchObject({ ok: true, answer: { asOf: '2026-11' } })
    expect(got.ok && got.source).toMatch(/^127\.0\.0\.1:\d+$/)
    expect(asked).toBe('/d?key=1&topic=lamps+%26+ropes')
  })
  const failures: [string, RequestListener, RegExp][] = [
    ['an error', (_, r) => void r.writeHead(503).end(), /answered with status 503/],
    ['no JSON', (_, r) => void r.end('<html>'), /not JSON/],
    ['another shape', (_, r) => void r.end('{"phrases":1}'), /cannot be used/],
    ['hostile keys', (_, r) => void r.end('{"__proto__":{"x":1},"market":"moon"}'), /cannot be used/],
    ['too much', (_, r) => void r.end('x'.repeat(5000)), /more than can be used/],
    [
      'a redirect',
      (_, r) => void r.writeHead(302, { location: 'http://127.0.0.1:1/' }).end(),
      /cannot be reached/,
    ],
    ['nothing at all', (_, r) => void r.destroy(), /cannot be reached/],
  ]
  it.each(failures)('that sends %s is named, with what to do', async (_, listener, why) => {
    await serving(listener)
    const got = await ask({ time: 10_000, bytes: 4000 })
    expect(got.ok).toBe(false)
    expect(!got.ok && got.why).toMatch(why)
    expect(!got.ok && got.why).toMatch(/^The demand service .*(?:Try again|Ask for less|Tell whoever)/)
    expect(({} as Record<string, unknown>).x).toBeUndefined()
  })
  it('that never answers is given up', async () => {
    await serving(() => {})
    const got = await ask({ time: 50, bytes: 4000 })
    expect(!got.ok && got.why).toMatch(/has not answered/)
  })
  it('can be switched off, and an address that is none is said', async () => {
    process.env.KEEN_QUILL_DEMAND = 'off'
    expect(await ask()).toMatchObject({ ok: false, off: true })
    process.env.KEEN_QUILL_DEMAND = 'ftp://x'
    expect(await ask()).toMatchObject({ ok: false, off: false })
    expect(addressOfService(demandService, { PORT: '4471' })).toEqual({
      url: 'http://127.0.0.1:4471/stand-ins/demand',
      source: 'invented for the demo',
    })
  })
})

describe('the stand-in for demand', () => {
  const asked = (query: string) => standInDemand(new URLSearchParams(query))
  const demand = (query: string) => asked(query).body as DemandAnswer
  it('answers as the contract says, the same each time', () => {
    const query = 'topic=lighthouse+tours&market=national&language=en&limit=200'
    const { value, error } = demandAnswerSchema.validate(demand(query))
    expect(error).toBeUndefined()
    expect(value!.phrases[0]).toMatchObject({ phrase: 'lighthouse tours' })
    expect(value!.phrases.length).toBeGreaterThanOrEqual(20)
    expect(demand(query)).toEqual(demand(query))
    const questions = value!.phrases.filter((p: DemandAnswer['phrases'][number]) => p.question).length
    expect(questions / value!.phrases.length).toBeGreaterThan(0.08)
  })
  it('has places in local phrases, and a share of the country’s demand', () => {
    const national = demand('topic=island+ferry&market=national').phrases[0]!
    const local = demand('topic=island+ferry&market=local&place=Skerry').phrases[0]!
    expect(local.phrase).toBe('island ferry skerry')
    expect(local.monthly! / national.monthly!).toBeCloseTo(0.06, 1)
    expect(demand('topic=island+ferry&market=worldwide').phrases[0]!.monthly).toBeGreaterThan(
      national.monthly! * 5,
    )
  })
  it('knows seasons, several topics by one word, and nothing of what it has not heard of', () => {
    const { months } = demand('topic=fish+soup&market=national').phrases[0]!
    expect(months![1]).toBeGreaterThan(months![7]!)
    expect(
      new Set(demand('topic=knots&market=national&limit=500').phrases.map((p) => p.phrase.split(' ')[0]))
        .size,
    ).toBeGreaterThan(3)
    expect(demand('topic=zeppelin&market=national').phrases).toEqual([])
    expect(demand('topic=fyrtårn&market=national&language=da').phrases.length).toBeGreaterThan(10)
    expect(demand('topic=knots&market=national&limit=3').phrases).toHaveLength(3)
  })
  it.each([
    'market=national',
    'topic=x&market=moon',
    'topic=x&market=local',
    'topic=x&market=national&limit=0',
  ])('refuses what does not keep to the contract: %s', (query) => {
    expect(asked(query).status).toBe(400)
  })
})

describe('the stand-in for results', () => {
  const results = (query: string) => standInResults(new URLSearchParams(query)).body as ResultsAnswer
  it('lines up ten results as the contract says, others in another market, the same each time', () => {
    const query = 'phrase=lighthouse+tours&market=national'
    const { value, error } = resultsAnswerSchema.validate(results(query))
    expect(error).toBeUndefined()
    expect(value!.results.map((r: Result) => r.position)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])
    expect(results(query)).toEqual(results(query))
    const order = (q: string) => results(q).results.map((r) => r.url)
    expect(order('phrase=lighthouse+tours&market=worldwide')).not.toEqual(order(query))
    expect(value!.questions.length).toBeGreaterThan(0)
    expect(standInResults(new URLSearchParams('market=national')).status).toBe(400)
  })
  it('has our page among some of them, now and then in other words', () => {
    const ours = [
      'lighthouse tours',
      'knot course',
      'island lighthouse',
      'sea chart',
      'fog signal',
      'lighthouse jobs',
      'boat crossing',
    ].flatMap((phrase) =>
      results(`phrase=${encodeURIComponent(phrase)}&market=national`).results.filter((r) =>
        r.url.startsWith('https://farrowskerry.example/'),
      ),
    )
    expect(ours.length).toBeGreaterThan(1)
  })
  it('names pages that can be fetched and read', () => {
    for (const { url, title } of results('phrase=knot+course&market=national').results) {
      const { hostname, pathname } = new URL(url)
      if (hostname === 'farrowskerry.example') continue
      const html = competitorPage(hostname, decodeURIComponent(pathname))!
      expect(html).toContain('<h1>Knot Course</h1>')
      expect(html).toContain(`<title>${title.replace(/&/g, '&amp;')}</title>`)
    }
    expect(competitorPage('nobody.example', '/')).toBeNull()
    expect(competitorPage('chartroom.example', '/a/b/')).toBeNull()
  })
})
