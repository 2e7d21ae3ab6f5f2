/** The line-up in Chromium, on the demo: a key in ours until its figures, the comparison and the page's marks are new. */
import { launch, NAME_HELPER, serve } from '../tests/fixtures/chromium.ts'
import { median, percentile, say } from './ratio.ts'

const PORT = 4479

export async function benchLineUp(): Promise<void> {
  const server = await serve(PORT, { KEEN_QUILL_DEMO: '1' })
  const browser = await launch()
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(server.address)
    await page.waitForSelector('html[data-hydrated]')
    await page.getByRole('link', { name: 'Farrowskerry Light' }).click()
    await page.getByTestId('what-is-left').waitFor()
    const site = /sites\/([^/]+)/.exec(page.url())![1]!
    await page.goto(`${server.address}/sites/${site}/desk?page=tours/index.html&sheet=line-up`)
    await page.getByTestId('our-result').waitFor()
    await page.waitForSelector('[data-testid=desk][data-ready=true]')
    await page.evaluate(NAME_HELPER)
    // Titles by turns so short that they are marked and without a mark, so that the list of pages says when it is new.
    const times = await page.evaluate(async () => {
      const field = document.querySelector<HTMLTextAreaElement>('[data-testid=line-up-title]')!
      const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!
      const figures = () => document.querySelector('[data-testid=our-result] [data-figures]')!.textContent
      const words = () => document.querySelector('[data-testid=what-others-do]')!.textContent
      const marks = () => document.querySelector('li [aria-current=page]')!.textContent
      const out: number[] = []
      for (let i = 0; i < 120; i++) {
        const before = [figures(), words(), marks()]
        const start = performance.now()
        set.call(field, i % 2 === 0 ? `Boats ${i}` : `Lighthouse Tours for Small Groups, Every Hour ${i}`)
        field.dispatchEvent(new Event('input', { bubbles: true }))
        await new Promise<void>((resolve) => {
          const done = () => figures() !== before[0] && words() !== before[1] && marks() !== before[2]
          if (done()) return resolve()
          const observer = new MutationObserver(() => {
            if (!done()) return
            observer.disconnect()
            resolve()
          })
          observer.observe(document.body, { subtree: true, childList: true, characterData: true })
        })
        if (i >= 20) out.push(performance.now() - start)
        await new Promise((resolve) => setTimeout(resolve, 60))
      }
      return out
    })
    console.log('')
    say('key in ours → line-up, comparison and marks, median ms', median(times), 'at most 50')
    say('the same, 95th percentile ms', percentile(times, 0.95), '')
  } finally {
    await browser.close()
    server.stop()
  }
}
