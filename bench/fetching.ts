/** Pages by address and from sheets: a site on this machine taken in, a large sitemap planned, a sheet matched. */
import { execFileSync } from 'node:child_process'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { recogniseColumns } from '../core/exchange/columns.ts'
import { readSheet, writeOffice } from '../core/exchange/sheet.ts'
import { readSuggestions } from '../core/exchange/suggestions.ts'
import { launch, serve } from '../tests/fixtures/chromium.ts'
import { say } from './ratio.ts'

const PORT = 4473
const PAGES = 1000
const ADDRESSES = 50_000
const ROWS = 5_000

function pageOf(i: number): string {
  const paragraph = `<p>Page ${i}. ${'The boat leaves at ten when the sea allows, and comes back at five with whoever is on the landing. '.repeat(9)}</p>`
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Crossing ${i}</title></head><body><main><h1>Crossing ${i}</h1>${`<h2>x</h2>${paragraph}`.repeat(28)}</main></body></html>`
}

/** A site of invented pages on this machine, with a sitemap of so many addresses. */
async function site(addresses: number): Promise<{ host: string; stop(): void }> {
  const server = createServer((request, response) => {
    const host = request.headers.host!
    if (request.url === '/robots.txt') return void response.writeHead(404).end()
    if (request.url === '/sitemap.xml') {
      const entries = Array.from(
        { length: addresses },
        (_, i) => `<url><loc>http://${host}/p/${i}</loc></url>`,
      )
      return void response
        .writeHead(200, { 'content-type': 'application/xml' })
        .end(`<urlset>${entries.join('')}</urlset>`)
    }
    response
      .writeHead(200, { 'content-type': 'text/html' })
      .end(pageOf(Number(/\d+/.exec(request.url!)?.[0] ?? 0)))
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return {
    host: `127.0.0.1:${(server.address() as AddressInfo).port}`,
    stop: () => {
      server.closeAllConnections()
      server.close()
    },
  }
}

/** MB that all processes of this machine's Chromium hold. */
function browserMemory(): number {
  const lines = execFileSync('ps', ['-eo', 'rss,comm'], { encoding: 'utf8' }).split('\n')
  return lines.reduce((sum, line) => (/chrom/.test(line) ? sum + Number.parseInt(line, 10) / 1024 : sum), 0)
}

export async function benchFetching(): Promise<void> {
  console.log('')
  await benchSheet()
  const [small, large] = [await site(PAGES), await site(ADDRESSES)]
  const server = await serve(PORT, { KEEN_QUILL_ALSO_FETCH: `${small.host},${large.host}` })
  const browser = await launch()
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const ask = async (host: string, most: number) => {
      await page.goto(`${server.address}/intake?address=${encodeURIComponent(`http://${host}/`)}`)
      await page.waitForSelector('html[data-hydrated]')
      await page.getByLabel('Pages, at most').fill(String(most))
      const start = performance.now()
      await page.getByRole('button', { name: 'See what would be taken in' }).click()
      await page.getByRole('tab').first().waitFor({ timeout: 120_000 })
      return performance.now() - start
    }
    const planned = await ask(large.host, 5000)
    say(`${ADDRESSES.toLocaleString('en')} addresses of a sitemap planned, s`, planned / 1000, '')

    await ask(small.host, PAGES)
    await page.evaluate(() => {
      const state = { longest: 0, last: performance.now(), over: false }
      ;(globalThis as unknown as { watch: typeof state }).watch = state
      const tick = () => {
        const now = performance.now()
        state.longest = Math.max(state.longest, now - state.last)
        state.last = now
        if (!state.over) setTimeout(tick, 0)
      }
      tick()
    })
    const before = browserMemory()
    const start = performance.now()
    await page.getByRole('button', { name: /^Take in/ }).click()
    await page
      .getByText(/pages read|taken in$/)
      .first()
      .waitFor({ timeout: 300_000 })
    const fetched = performance.now() - start
    await page
      .getByRole('heading', { name: `${PAGES.toLocaleString('en')} pages taken in` })
      .waitFor({ timeout: 300_000 })
    const whole = performance.now() - start
    const longest = await page.evaluate(
      () => (globalThis as unknown as { watch: { longest: number } }).watch.longest,
    )
    const cdp = await page.context().newCDPSession(page)
    const { usedSize } = (await cdp.send('Runtime.getHeapUsage')) as { usedSize: number }
    say('pages fetched a second, from this machine', PAGES / (fetched / 1000), '')
    say('pages fetched, read and kept a second', PAGES / (whole / 1000), '')
    say('longest stretch in which the window did not answer, ms', longest, 'at most 100')
    say('the window’s memory at the end, MB', usedSize / 1e6, '')
    say(
      'what the whole browser takes more than before, worker and store too, MB',
      browserMemory() - before,
      '',
    )

    await ask(small.host, PAGES)
    await page.getByRole('button', { name: /^Take in/ }).click()
    await page.getByText(/[1-9]\d* of 1,000 pages fetched/).waitFor()
    const cancelled = await page.evaluate(async () => {
      const begun = performance.now()
      ;[...document.querySelectorAll('button')].find((b) => b.textContent === 'Cancel')!.click()
      while (!document.querySelector('[role=alertdialog]'))
        await new Promise((resolve) => setTimeout(resolve, 5))
      return performance.now() - begun
    })
    say('from Cancel to its answer, ms', cancelled, 'at most 300')
  } finally {
    await browser.close()
    server.stop()
    small.stop()
    large.stop()
  }
}

async function benchSheet(): Promise<void> {
  const pages = Array.from({ length: ROWS }, (_, i) => {
    const url = `https://www.register.example/crossings/${i % 50}/page-${i}/`
    return { id: `p${i}`, path: url, url }
  })
  const bytes = await writeOffice(
    [
      ['Page', 'Suggested title', 'Suggested description'],
      ...pages.map(({ url }, i) => [
        i % 20 === 0 ? `${url}x` : url.replace('www.', ''),
        `A title for page ${i}`,
        'What the page says, in a sentence or two, for whoever looks at results.',
      ]),
    ],
    'xlsx',
  )
  const start = performance.now()
  const read = await readSheet(bytes)
  if (!read.ok) throw new Error(read.why)
  const opened = performance.now()
  const { matched } = readSuggestions(read.sheet, recogniseColumns(read.sheet, 'suggestions'), pages)
  const done = performance.now()
  say(`a sheet of ${ROWS.toLocaleString('en')} rows opened (XLSX), ms`, opened - start, '')
  say(`the same matched to as many pages, ${matched.length} found, ms`, done - opened, 'at most 1,000')
}
