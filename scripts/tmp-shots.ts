import { launch, serve } from '../tests/fixtures/chromium.ts'
const { address, stop } = await serve(4479, { KEEN_QUILL_DEMO: '1' })
const browser = await launch()
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()))
  page.on('pageerror', (e) => console.log('PAGEERROR', e.message))
  await page.goto(address)
  await page.getByRole('link', { name: 'Open the ledger' }).click()
  await page.getByTestId('ledger').waitFor()
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  const desk = async (path: string, sheet: string) => {
    await page.goto(`${address}/sites/${site}/desk?page=${encodeURIComponent(path)}&sheet=${sheet}`)
    await page.waitForSelector('[data-testid=desk][data-ready=true]')
    await page.waitForTimeout(500)
  }
  const shot = async (n: string) => { await page.waitForTimeout(400); await page.screenshot({ path: `/tmp/t/${n}.png` }) }
  await desk('stories/fog-signal.html', 'outline'); await shot('outline')
  await desk('tours/tower.html', 'outline'); await shot('outline2')
  await page.getByTestId('compare-with').selectOption('tours/lens-room.html'); await page.waitForTimeout(500)
  await page.getByTestId('compare').scrollIntoViewIfNeeded(); await page.mouse.wheel(0, 800); await shot('compare')
  await desk('contact.html', 'head'); await shot('head')
  await page.mouse.wheel(0, 700); await shot('head2')
  await page.goto(`${address}/sites/${site}/templates`); await page.waitForTimeout(4000); await shot('templates')
  await page.getByRole('button', { name: 'See what it would change' }).first().click(); await page.getByTestId('template-figures').waitFor(); await shot('templates2')
} finally { await browser.close(); stop() }
