/** Makes docs/screenshots/ anew from the demo data, at 1280 x 800. Run after `npm run build`; look at each picture. */
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { launch, serve } from '../tests/fixtures/chromium.ts'

const root = join(import.meta.dirname, '..')
const out = join(root, 'docs/screenshots')
const { address, stop } = await serve(4474, { KEEN_QUILL_DEMO: '1' })
const browser = await launch()

async function shot(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready.then(() => undefined))
  await page.waitForTimeout(400)
  await page.screenshot({ path: join(out, `${name}.png`) })
}

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(address)
  await page.getByRole('link', { name: 'Open the ledger' }).waitFor()
  await shot(page, 'shelf')
  await page.getByRole('link', { name: 'Open the ledger' }).click()
  await page.getByTestId('ledger').waitFor()
  await shot(page, 'ledger')
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  const desk = async (path: string, sheet: string) => {
    await page.goto(`${address}/sites/${site}/desk?page=${encodeURIComponent(path)}&sheet=${sheet}`)
    await page.waitForSelector('[data-testid=desk][data-ready=true]')
  }
  await desk('shop/index.html', 'snippet')
  await page.getByTestId('title').fill('The Lighthouse Shop: Charts, Lamps and a Fog Horn')
  await page.getByRole('button', { name: 'Approve' }).click()
  await desk('evenings/lamp-lighting.html', 'snippet')
  await page
    .getByTestId('description')
    .fill(
      'Climb the tower with the keeper, see the old lamp lit, and walk home by its beam. Lamp-lighting evenings run every Friday from October to March; boats leave at five.',
    )
  await page.waitForTimeout(300)
  await shot(page, 'desk-snippet')
  await desk('crossings/index.html', 'snippet')
  await shot(page, 'desk-fall-back')
  await desk('stories/last-keeper.html', 'snippet')
  await page.getByTestId('drawer-takes').getByRole('button').first().click()
  await page.getByTestId('title').fill('The Last Lighthouse Keeper and the Clock She Took Home')
  await page.keyboard.press('Alt+t')
  await page.getByTestId('title').blur()
  await page.getByTestId('take').nth(2).waitFor()
  await page.getByTestId('takes-description').scrollIntoViewIfNeeded()
  await shot(page, 'desk-takes')
  await desk('tours/index.html', 'snippet')
  await page.getByTestId('drawer-takes').getByRole('button').first().click()
  await page.getByTestId('slug').fill('guided-tours')
  await page.getByTestId('slug').blur()
  await page.getByTestId('slug-effect').waitFor()
  await page.getByText('Every one of them').click()
  await page.getByText('What follows').scrollIntoViewIfNeeded()
  await shot(page, 'desk-slug')
  await page.goto(`${address}/sites/${site}/house-style`)
  await page.getByLabel('The site’s name in titles').fill('Farrowskerry Light')
  await page.getByLabel('The site’s name in titles').press('Enter')
  await page.getByTestId('pattern').fill('{page} | {site}')
  await page.getByTestId('pattern-preview').waitFor()
  await shot(page, 'house-style')
  await page.getByRole('button', { name: 'Leave it as it was' }).click()
  await desk('stories/fog-signal.html', 'outline')
  await shot(page, 'desk-outline')
  const margin = page.getByTestId('margin')
  await margin.getByRole('button', { name: 'Join into one H1' }).click()
  await margin.getByRole('button', { name: 'Close the gap' }).click()
  await margin.getByRole('button', { name: 'Take it out' }).click()
  await margin.getByRole('button', { name: 'Make it a paragraph' }).first().click()
  await page.waitForTimeout(300)
  await shot(page, 'desk-outline-clean')
  await desk('tours/tower.html', 'outline')
  await page.getByTestId('compare-with').selectOption('tours/lens-room.html')
  await page.getByTestId('compare').locator('table').waitFor()
  await page.getByTestId('compare').evaluate((e) => scrollTo(0, e.getBoundingClientRect().top + scrollY - 80))
  await shot(page, 'compare')
  await desk('contact.html', 'head')
  await page.getByLabel('Content of keywords').focus()
  await page.getByTestId('excerpt').waitFor()
  await shot(page, 'desk-head')
  await page.goto(`${address}/sites/${site}/templates`)
  await page.getByTestId('suggestion').first().getByRole('button').click()
  await page.getByTestId('template-figures').waitFor()
  await shot(page, 'templates')
  await desk('crossings/weather.html', 'source')
  await shot(page, 'desk-source')
  await page.goto(`${address}/sites/${site}/hand-off`)
  await page.locator('[data-path]').first().waitFor()
  await shot(page, 'hand-off')
  await page.getByRole('button', { name: 'For approval' }).click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Save the file/ }).click(),
  ])
  const answered = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const saved = join(tmpdir(), 'keen-quill-for-approval.html')
  await file.saveAs(saved)
  await answered.goto(`file://${saved}`)
  await answered.getByLabel('Yes').first().check()
  await shot(answered, 'approval')
  await page.emulateMedia({ colorScheme: 'dark' })
  await desk('stories/last-keeper.html', 'snippet')
  await shot(page, 'desk-night')
} finally {
  await browser.close()
  stop()
}
