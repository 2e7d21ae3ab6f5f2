/** Phone and weight: the page as it looks, what its layout tells, what it weighs; and nothing in it that runs or asks. */
import { expect, test, type Page } from '@playwright/test'
import { dusk } from '../../scripts/dusk.ts'
import { hostileFrames } from '../fixtures/hostile-frames.ts'
import { checkAccess, openDemo, openDesk, openShelf, takeInZip, watchConsole, zipOf } from './helpers.ts'

const drawer = (page: Page) => page.getByRole('button', { name: /Phone and weight/ })
async function openDrawer(page: Page): Promise<void> {
  if ((await drawer(page).getAttribute('aria-expanded')) !== 'true') await drawer(page).click()
  await expect(page.locator('[data-testid=layout-findings][data-ready=true]')).toBeVisible()
}

test('a page looks as it does on a phone and on a wide screen, and weighs what its files do', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'evenings/storm-watching.html', 'head')
  await openDrawer(page)
  const still = page.frameLocator('[data-testid=still]')
  await expect(still.getByRole('heading', { name: 'Storm watching', exact: true })).toBeAttached()
  const image = still.getByAltText(/Storm watching at dusk/)
  expect(await image.evaluate((img: HTMLImageElement) => [img.naturalWidth, img.width])).toEqual([960, 320])
  expect(await still.locator('html').evaluate((html) => html.clientWidth)).toBe(390)
  // The style sheet is the site's own.
  expect(await still.locator('body').evaluate((body) => getComputedStyle(body).fontFamily)).toContain(
    'Georgia',
  )

  const weight = (kind: string) => page.locator(`[data-testid=weights] [data-kind=${kind}] td`)
  await expect(weight('image').nth(2)).toHaveText(`${Math.round(dusk().length / 1000)} kB`)
  await expect(weight('style').nth(2)).toHaveText('189 bytes')
  await expect(page.getByTestId('weighed-images')).toContainText('960 × 600')
  await expect(page.getByTestId('weighed-images')).toContainText('640 px would do and save 320 kB')
  for (const rule of ['image-heavy', 'image-oversize', 'page-heavy'])
    await expect(page.locator(`[data-rule=${rule}]`)).toBeVisible()
  await checkAccess(page, 'phone and weight')

  await page.getByLabel('Wide screen, 1,280 px').check()
  await expect(page.locator('[data-testid=layout-findings][data-ready=true]')).toBeVisible()
  await expect.poll(() => still.locator('html').evaluate((html) => html.clientWidth)).toBe(1280)

  // What is edited is what is looked at.
  await openDesk(page, site, 'stay/booking.html', 'head')
  await openDrawer(page)
  const wide = page.getByRole('region', { name: 'Too wide' })
  await expect(wide).toContainText('px beyond the edge')
  await wide.getByRole('button', { name: /^Line \d+/ }).click()
  await expect(page.getByTestId('excerpt')).toContainText('<p style="width: 640px">')
  await page.getByRole('tab', { name: 'Outline' }).click()
  await page.getByRole('treeitem').first().press('Enter')
  await page.keyboard.type(' indeed')
  await page.keyboard.press('Enter')
  await page.getByRole('tab', { name: 'Head' }).click()
  await openDrawer(page)
  await expect(still.getByRole('heading', { level: 1 })).toHaveText(/indeed$/)
  await page.setViewportSize({ width: 390, height: 800 })
  await drawer(page).scrollIntoViewIfNeeded()
  await checkAccess(page, 'phone and weight, 390 px', 'day')
  expect(problems).toEqual([])
})

test('what is too small to read or to tap, and a page without a viewport', async ({ page }) => {
  await openShelf(page)
  const body =
    '<main><h1>Tides</h1><p>The tides of the island.</p><p style="font-size:9px">Small print of the harbour.</p><nav><button style="width:16px;height:16px;padding:0">a</button><button style="width:16px;height:16px;padding:0">b</button></nav></main>'
  const head = (more: string) =>
    `<!doctype html><html lang=en><head><meta charset=utf-8>${more}<title>Tides</title></head>`
  await takeInZip(
    page,
    'tides.zip',
    zipOf({
      'index.html': `${head('<meta name=viewport content="width=device-width, initial-scale=1">')}<body>${body}</body></html>`,
      'old.html': `${head('')}<body>${body}</body></html>`,
    }),
    'https://tides.example/',
  )
  await expect(page.getByTestId('what-is-left')).toBeVisible()
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  await openDesk(page, site, 'index.html', 'head')
  await openDrawer(page)
  await expect(page.getByRole('region', { name: 'Too small to read' })).toContainText(
    'Small print of the harbour',
  )
  await expect(page.getByRole('region', { name: 'Too small to read' })).toContainText('9 px')
  await expect(page.getByRole('region', { name: 'Too small to tap' }).getByRole('listitem')).toHaveCount(2)
  await expect(page.getByRole('region', { name: 'Too small to tap' })).toContainText('16 × 16 px')
  await openDesk(page, site, 'old.html', 'head')
  await openDrawer(page)
  await expect(page.getByTestId('layout-findings')).toContainText(
    'a phone draws it 980 px wide and shrinks it',
  )
  await expect(page.getByRole('region', { name: 'Too small to read' })).toContainText('3.6 px')
})

test('hostile pages in the frame: nothing runs, nothing is asked for', async ({ page }) => {
  const asked: string[] = []
  page.on('request', (request) => asked.push(request.url()))
  const dialogs: string[] = []
  page.on('dialog', (dialog) => (dialogs.push(dialog.message()), dialog.dismiss()))
  await openShelf(page)
  const names = Object.keys(hostileFrames).filter((name) => /place 1$/.test(name))
  // Several on each page: what one page tries, it tries beside others.
  const pages: Record<string, string> = {}
  for (let i = 0; i < names.length; i += 17)
    pages[`p${i}.html`] = names
      .slice(i, i + 17)
      .map((name) => hostileFrames[name])
      .join('\n</svg></table></style>')
  await takeInZip(page, 'hostile.zip', zipOf(pages), 'https://hostile.example/')
  const ledger = page.getByTestId('what-is-left').or(page.getByRole('button', { name: 'Open the ledger' }))
  await expect(ledger.first()).toBeVisible()
  if (!(await page.getByTestId('what-is-left').isVisible()))
    await page.getByRole('button', { name: 'Open the ledger' }).click()
  await expect(page.getByTestId('what-is-left')).toBeVisible()
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  for (const path of Object.keys(pages)) {
    await openDesk(page, site, path, 'head')
    await openDrawer(page)
    const frame = page.locator('[data-testid=still]')
    await expect(frame).toHaveAttribute('sandbox', 'allow-same-origin')
    expect(
      await frame.evaluate((element: HTMLIFrameElement) => [
        element.contentWindow!.location.href,
        element.contentDocument!.body.childElementCount > 0,
        element.inert,
      ]),
    ).toEqual(['about:srcdoc', true, true])
  }
  expect(await page.evaluate(() => (globalThis as { ran?: number }).ran ?? 0)).toBe(0)
  expect(asked.filter((url) => !/^(?:http:\/\/127\.0\.0\.1:|blob:|data:)/.test(url))).toEqual([])
  expect(asked.filter((url) => /\/ran$/.test(url))).toEqual([])
  expect(dialogs).toEqual([])
})
