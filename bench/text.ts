/** The text and its phrases in Chromium: a key in a block of the galley; the map, and mentions, of 5,000 pages. */
import type { Page } from 'playwright-core'
import { zipSync } from 'fflate'
import { launch, NAME_HELPER, serve } from '../tests/fixtures/chromium.ts'
import { median, percentile, say } from './ratio.ts'

const PORT = 4478
const PAGES = 4990
const PHRASES = 2000

const paragraph = (i: number) =>
  `<p>The boat leaves at ten when the sea allows, crossing ${i} of the register, and comes back at five with whoever is on the <a href="p30.html">landing</a> &amp; the post.</p>`
/** A page of about so many bytes in so many paragraphs. */
const longPage = (title: string, paragraphs: number) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title></head><body><main><h1>${title}</h1><p>first</p>${Array.from({ length: paragraphs }, (_, i) => (i % 8 === 0 ? `<h2>Part ${i}</h2>` : '') + paragraph(i)).join('\n')}</main></body></html>`
const NAMES = ['lamp', 'rope', 'chart', 'tide', 'anchor', 'signal', 'harbour', 'lens', 'knot', 'beacon']
const phraseOf = (i: number) => `${NAMES[i % 10]} ${NAMES[Math.floor(i / 10) % 10]} number${i}`
const smallPage = (i: number) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${phraseOf(i)}</title></head><body><main><h1>${phraseOf(i)}</h1><p>Here we speak of the ${phraseOf((i * 7 + 1) % PAGES)} as well, and of ${i % 100 === 0 ? 'the great lamp room' : 'nothing else'}.</p></main></body></html>`

export async function benchText(): Promise<void> {
  const server = await serve(PORT)
  const browser = await launch()
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const files: Record<string, Uint8Array> = {
      'p30.html': new TextEncoder().encode(longPage('Thirty', 140)),
      'p300.html': new TextEncoder().encode(longPage('Three hundred', 1400)),
      'p2000.html': new TextEncoder().encode(longPage('Two thousand blocks', 1780)),
    }
    for (let i = 0; i < PAGES; i++) files[`c/${i}.html`] = new TextEncoder().encode(smallPage(i))
    const site = await takeIn(page, server.address, files)
    console.log('')
    for (const [name, kB, most] of [
      ['p30.html', 30, 50],
      ['p300.html', 300, 100],
    ] as const) {
      const times = await keysInBlock(page, `${server.address}/sites/${site}/desk?page=${name}&sheet=galley`)
      say(
        `key in a block → marks and counts, page of ${kB} kB, median ms`,
        median(times.counts),
        `at most ${most}`,
      )
      say('the same, the typed text drawn, median ms', median(times.drawn), 'at once: within a frame, 17')
    }
    const frames = await scrolled(page, `${server.address}/sites/${site}/desk?page=p2000.html&sheet=galley`)
    say(
      'galley of 2,000 blocks scrolled: 95th percentile of a frame, ms',
      percentile(frames, 0.95),
      'at most 50',
    )
    await benchMap(page, `${server.address}/sites/${site}`)
  } finally {
    await browser.close()
    server.stop()
  }
}

async function takeIn(page: Page, address: string, files: Record<string, Uint8Array>): Promise<string> {
  await page.goto(address)
  await page.waitForSelector('html[data-hydrated]')
  await page.getByTestId('file-input').setInputFiles({
    name: 'register.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(zipSync(files, { level: 1 })),
  })
  await page.getByRole('button', { name: /^Take in/ }).click()
  await page.getByTestId('what-is-left').waitFor({ timeout: 300_000 })
  return /sites\/([^/]+)/.exec(page.url())![1]!
}

/** Keys typed in the first paragraph, each a word more or less, so that the words counted say when the answer is there. */
async function keysInBlock(page: Page, address: string): Promise<{ counts: number[]; drawn: number[] }> {
  await page.goto(address)
  await page.locator('[data-block]').nth(1).getByRole('button').click()
  await page.locator('[data-block] textarea').waitFor()
  await page.evaluate(NAME_HELPER)
  return page.evaluate(async () => {
    const field = document.querySelector<HTMLTextAreaElement>('[data-block] textarea')!
    const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!
    const phrases = document.querySelector('[data-testid=phrases]')!
    const counts: number[] = []
    const drawn: number[] = []
    for (let i = 0; i < 60; i++) {
      const before = phrases.textContent
      const start = performance.now()
      set.call(field, i % 2 === 0 ? 'first and second' : 'first')
      field.dispatchEvent(new Event('input', { bubbles: true }))
      await new Promise((resolve) => requestAnimationFrame(resolve))
      drawn.push(performance.now() - start)
      await new Promise<void>((resolve) => {
        const done = () => phrases.textContent !== before
        if (done()) return resolve()
        const observer = new MutationObserver(() => {
          if (!done()) return
          observer.disconnect()
          resolve()
        })
        observer.observe(phrases, { subtree: true, childList: true, characterData: true })
      })
      if (i >= 10) counts.push(performance.now() - start)
      await new Promise((resolve) => setTimeout(resolve, 60))
    }
    return { counts, drawn: drawn.slice(10) }
  })
}

/** The time of each frame while the galley is scrolled from top to bottom. */
async function scrolled(page: Page, address: string): Promise<number[]> {
  await page.goto(address)
  await page.locator('[data-block]').first().waitFor()
  return page.evaluate(async () => {
    const frames: number[] = []
    const step = document.documentElement.scrollHeight / 150
    let last = performance.now()
    for (let i = 1; i <= 150; i++) {
      scrollTo(0, i * step)
      await new Promise((resolve) => requestAnimationFrame(resolve))
      const now = performance.now()
      frames.push(now - last)
      last = now
    }
    return frames.slice(5)
  })
}

async function benchMap(page: Page, site: string): Promise<void> {
  await page.goto(`${site}/keywords`)
  const sheet = `phrase,monthly\n${Array.from({ length: PHRASES }, (_, i) => `${phraseOf(i)},${PHRASES - i}`).join('\n')}\n`
  await page
    .getByTestId('phrases-input')
    .setInputFiles({ name: 'phrases.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) })
  await page.getByRole('button', { name: /^Read / }).click()
  await page.getByRole('button', { name: /^Keep all/ }).click()
  await page.locator('[data-saved=saved]').waitFor()
  await page.getByTestId('keywords-input').setInputFiles({
    name: 'keywords.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `path,primary\n${Array.from({ length: 1500 }, (_, i) => `c/${i}.html,${phraseOf(i)}`).join('\n')}\nc/4989.html,great lamp room\n`,
    ),
  })
  await page.locator('[data-saved=saved]').waitFor()
  await page.getByTestId('judging').waitFor({ state: 'hidden', timeout: 300_000 })
  await page.getByRole('button', { name: 'The map' }).click()
  await page.getByTestId('map-phrases').locator('li').first().waitFor()
  await page.evaluate(NAME_HELPER)
  const times = await page.evaluate(async () => {
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!
    const field = document.querySelectorAll<HTMLInputElement>('input[aria-label="Find a page"]')[0]!
    const said = document.querySelector('[data-testid=map-pages-shown]')!
    const out: number[] = []
    for (let i = 0; i < 20; i++) {
      const before = said.textContent
      const start = performance.now()
      set.call(field, i % 2 === 0 ? 'lamp' : '')
      field.dispatchEvent(new Event('input', { bubbles: true }))
      while (said.textContent === before) await new Promise((resolve) => requestAnimationFrame(resolve))
      out.push(performance.now() - start)
    }
    return out
  })
  say(`map of ${PHRASES} phrases and ${PAGES} pages filtered, median ms`, median(times), 'at most 100')

  const mentions = async () => {
    const start = performance.now()
    await page.goto(`${site}/desk?page=c%2F4989.html&sheet=links`)
    await page
      .getByRole('region', { name: /Pages that speak of/ })
      .getByText('50 mentions')
      .waitFor({ timeout: 300_000 })
    return performance.now() - start
  }
  say(`mentions over ${PAGES} pages, the first time, s`, (await mentions()) / 1000, 'with progress')
  // Within the same tab: what was learnt is at hand.
  await page.getByRole('tab', { name: 'Snippet' }).click()
  const start = performance.now()
  await page.getByRole('tab', { name: 'Links' }).click()
  await page
    .getByRole('region', { name: /Pages that speak of/ })
    .getByText('50 mentions')
    .waitFor()
  say('the same, the second time, s', (performance.now() - start) / 1000, 'under 1')
}
