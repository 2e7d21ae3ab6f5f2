/** Many pages at once in Chromium: a replacement on 5,000 pages previewed, kept and undone; a filter with counts. */
import { zipSync } from 'fflate'
import { launch, NAME_HELPER, serve } from '../tests/fixtures/chromium.ts'
import { median, say } from './ratio.ts'

const PORT = 4480
const PAGES = 5000
const page = (i: number) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Lamp ${i} by Oldshire</title><meta name="description" content="Lamp number ${i}, made on the island by hand."></head><body><main><h1>Lamp ${i}</h1><p>${'It burns for hours on one filling of oil. '.repeat(20)}</p></main></body></html>`

export async function benchBulk(): Promise<void> {
  const server = await serve(PORT)
  const browser = await launch()
  try {
    const window = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await window.goto(server.address)
    await window.waitForSelector('html[data-hydrated]')
    const files = Object.fromEntries(
      Array.from({ length: PAGES }, (_, i) => [`f${i % 40}/${i}.html`, new TextEncoder().encode(page(i))]),
    )
    await window.getByTestId('file-input').setInputFiles({
      name: 'lamps.zip',
      mimeType: 'application/zip',
      buffer: Buffer.from(zipSync(files, { level: 1 })),
    })
    await window.getByRole('button', { name: /^Take in/ }).click()
    await window.getByTestId('what-is-left').waitFor({ timeout: 300_000 })
    await window.getByRole('button', { name: 'All pages' }).click()
    await window.getByTestId('ledger').waitFor()
    console.log('')
    await window.evaluate(NAME_HELPER)
    const filtered: number[] = []
    for (const folder of ['/f1/', '/f2/', '/f3/', '/f4/', '/f5/']) {
      await window.getByRole('combobox', { name: 'Folder' }).click()
      const option = window.getByRole('option', { name: new RegExp(`^${folder}, `) })
      await option.waitFor()
      filtered.push(
        await option.evaluate(async (element, wanted) => {
          const start = performance.now()
          const shown = () => document.querySelector(`[data-path^="${wanted}"]`) !== null
          element.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }))
          while (!shown()) await new Promise((resolve) => requestAnimationFrame(resolve))
          return performance.now() - start
        }, folder.slice(1)),
      )
    }
    say(`ledger of ${PAGES} pages filtered, counts and all, median ms`, median(filtered), 'at most 100')
    await window.getByRole('combobox', { name: 'Folder' }).click()
    await window.getByRole('option', { name: 'any', exact: true }).click()
    await window.getByLabel(/^Pick all/).check()
    await window.getByRole('button', { name: 'Change them …' }).click()
    await window.getByLabel('with', { exact: true }).fill('Newlight')
    let start = Date.now()
    await window.getByLabel('Replace').fill('Oldshire')
    const keep = window.getByRole('button', { name: /^Keep on 5,000 pages/ })
    await keep.waitFor()
    say(`a replacement on ${PAGES} pages previewed, ms`, Date.now() - start, 'at most 2,000')
    const saved = window.locator('[data-testid=saved][data-saved=saved]')
    // The longest that the window does not answer, while the step is kept and undone.
    await window.evaluate(() => {
      const at = globalThis as unknown as { longest: number; watching: boolean }
      at.longest = 0
      at.watching = true
      let last = performance.now()
      const frame = () => {
        const now = performance.now()
        at.longest = Math.max(at.longest, now - last)
        last = now
        if (at.watching) requestAnimationFrame(frame)
      }
      requestAnimationFrame(frame)
    })
    start = Date.now()
    await keep.click()
    await window.getByTestId('ledger').getByText('by Newlight').first().waitFor()
    await saved.waitFor()
    const kept = Date.now() - start
    start = Date.now()
    await window.keyboard.press('Control+z')
    await window.getByTestId('ledger').getByText('by Oldshire').first().waitFor()
    await saved.waitFor()
    say('kept, and in the store, ms', kept, 'with its undo at most 3,000')
    say('undone, and in the store, ms', Date.now() - start, '')
    say(
      'the longest that the window did not answer meanwhile, ms',
      await window.evaluate(() => (globalThis as unknown as { longest: number }).longest),
      '',
    )
  } finally {
    await browser.close()
    server.stop()
  }
}
