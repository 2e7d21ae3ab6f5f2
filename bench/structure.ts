/** The outline in Chromium: a rule over 1,000 pages; a wish on a page of 2,000 headings and on one of 5 MB. */
import type { Page } from '@playwright/test'
import { zipSync } from 'fflate'
import { launch, NAME_HELPER, serve } from '../tests/fixtures/chromium.ts'
import { median, say } from './ratio.ts'

const PORT = 4475
const PAGES = 1000
const encode = (text: string) => new TextEncoder().encode(text)

const sections = (n: number, words: string) =>
  Array.from({ length: n }, (_, i) => `<h${2 + (i % 3)}>Part ${i}</h${2 + (i % 3)}><p>${words}</p>`).join('')
const pageOf = (title: string, body: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title></head><body>${body}</body></html>`

/** A page built on a template that has no H1, as its class tells; invented. */
const templated = (i: number) =>
  pageOf(
    `Register of crossings, page ${i}`,
    `<nav><h3>Menu</h3></nav><main><div class="page-title">Register, page ${i}</div>${sections(12, 'The boat leaves at ten when the sea allows. '.repeat(8))}</main><footer><h4>Hours</h4></footer>`,
  )

async function takeIn(page: Page, address: string, files: Record<string, string>): Promise<string> {
  await page.goto(address)
  await page.waitForSelector('html[data-hydrated]')
  const buffer = Buffer.from(
    zipSync(
      Object.fromEntries(Object.entries(files).map(([p, t]) => [p, encode(t)])), // Stored as it is: text that repeats itself so often packs like a bomb.
      { level: 0 },
    ),
  )
  await page.getByTestId('file-input').setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer })
  await page.getByRole('button', { name: /^Take in/ }).click()
  await page.getByTestId('what-is-left').waitFor({ timeout: 300_000 })
  return /sites\/([^/]+)/.exec(page.url())![1]!
}

/** From the key to the new level in the tree, ms. */
async function levels(page: Page, address: string, site: string, path: string): Promise<number[]> {
  await page.goto(`${address}/sites/${site}/desk?page=${path}&sheet=outline`)
  await page.waitForSelector('[data-testid=desk][data-ready=true]', { timeout: 120_000 })
  await page.evaluate(NAME_HELPER)
  return page.evaluate(async () => {
    const out: number[] = []
    for (let i = 0; i < 30; i++) {
      const row = document.querySelectorAll<HTMLElement>('[role=treeitem]')[2]!
      row.focus()
      const { key } = row.dataset
      const level = () => document.querySelector(`[data-key="${key}"]`)?.getAttribute('aria-level')
      const before = level()
      const start = performance.now()
      row.dispatchEvent(
        new KeyboardEvent('keydown', {
          key: i % 2 === 0 ? 'ArrowRight' : 'ArrowLeft',
          altKey: true,
          bubbles: true,
        }),
      )
      while (level() === before && performance.now() - start < 5000)
        await new Promise((r) => requestAnimationFrame(r))
      if (i >= 4) out.push(performance.now() - start)
      await new Promise((r) => setTimeout(r, 60))
    }
    return out
  })
}

/** From a heading set to another level to the mark that it brings, or takes away, ms: H5 under H2 skips two. */
async function levelsToMarks(page: Page, address: string, site: string, path: string): Promise<number[]> {
  await page.goto(`${address}/sites/${site}/desk?page=${path}&sheet=outline`)
  await page.waitForSelector('[data-testid=desk][data-ready=true]', { timeout: 120_000 })
  await page.evaluate(NAME_HELPER)
  return page.evaluate(async () => {
    const out: number[] = []
    const marks = () => document.querySelectorAll('[data-testid=margin] [data-rule=heading-skip]').length
    for (let i = 0; i < 40; i++) {
      const row = document.querySelectorAll<HTMLElement>('[role=treeitem]')[2]!
      row.focus()
      const before = marks()
      const start = performance.now()
      row.dispatchEvent(new KeyboardEvent('keydown', { key: i % 2 === 0 ? '5' : '2', bubbles: true }))
      await new Promise<void>((resolve) => {
        const observer = new MutationObserver(() => {
          if (marks() === before) return
          observer.disconnect()
          resolve()
        })
        observer.observe(document.querySelector('[data-testid=margin]')!, { subtree: true, childList: true })
        setTimeout(resolve, 5000)
      })
      if (i >= 6) out.push(performance.now() - start)
      await new Promise((r) => setTimeout(r, 300))
    }
    return out
  })
}

export async function benchStructure(): Promise<void> {
  const server = await serve(PORT)
  const browser = await launch()
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const site = await takeIn(
      page,
      server.address,
      Object.fromEntries(Array.from({ length: PAGES }, (_, i) => [`p${i}.html`, templated(i)])),
    )
    await page.goto(`${server.address}/sites/${site}/templates`)
    await page.getByTestId('suggestion').first().waitFor({ timeout: 120_000 })
    console.log('')
    const previews: number[] = []
    for (let i = 0; i < 5; i++) {
      const start = Date.now()
      await page
        .getByTestId('suggestion')
        .nth(i % 2)
        .getByRole('button')
        .click()
      await page.getByText(`${PAGES.toLocaleString('en')} pages would change`, { exact: false }).waitFor()
      previews.push(Date.now() - start)
      await page.getByRole('button', { name: 'Leave it' }).click()
    }
    say(`a rule over ${PAGES} pages: preview, median ms`, median(previews), 'under 2000')
    await page.getByTestId('suggestion').filter({ hasText: 'page-title' }).getByRole('button').click()
    let start = Date.now()
    await page.getByRole('button', { name: /^Apply to/ }).click()
    await page.getByTestId('kept-rule').waitFor()
    say('the same: applied, ms', Date.now() - start)
    start = Date.now()
    await page.locator('body').press('Control+z')
    await page.getByTestId('kept-rule').waitFor({ state: 'detached' })
    say('the same: undone, ms', Date.now() - start)

    const long = await takeIn(page, server.address, {
      'long.html': pageOf(
        'A page of two thousand headings',
        `<main><h1>Parts</h1>${sections(2000, 'Some words.')}</main>`,
      ),
      'large.html': pageOf(
        'A page of five megabytes',
        `<main><h1>Parts</h1>${sections(300, 'The boat leaves at ten when the sea allows. '.repeat(380))}</main>`,
      ),
      'middle.html': pageOf(
        'A page of 300 kB',
        `<main><h1>Parts</h1>${Array.from({ length: 460 }, (_, i) => `<h2>Part ${i}</h2><p>${'The boat leaves at ten when the sea allows. '.repeat(14)}</p>`).join('')}</main>`,
      ),
    })
    say(
      'key to new marks, one heading of a page of 300 kB, median ms',
      median(await levelsToMarks(page, server.address, long, 'middle.html')),
      'at most half of 62d2c44',
    )
    for (const [path, name] of [
      ['long.html', 'a page of 2,000 headings'],
      ['large.html', 'a page of 5 MB'],
    ] as const)
      say(
        `key to new level in the tree, ${name}, median ms`,
        median(await levels(page, server.address, long, path)),
        'under 100',
      )
  } finally {
    await browser.close()
    server.stop()
  }
}
