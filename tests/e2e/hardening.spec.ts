import { expect, test, type Page } from '@playwright/test'
import { allPages, openDemo, openShelf, watchConsole, zipOf } from './helpers.ts'

const PAGE = (title: string, more = '') =>
  `<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>${title}</title>\n${more}\n</head>\n<body>\n<main><h1>${title}</h1>\n<p><center>The boat leaves at ten when the sea allows.</center></p></main>\n</body>\n</html>\n`

async function takeIn(page: Page, files: Record<string, string>): Promise<string> {
  await openShelf(page)
  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'site.zip', mimeType: 'application/zip', buffer: zipOf(files) })
  await page.getByRole('button', { name: /^Take in/ }).click()
  const open = page.getByRole('button', { name: 'Open the ledger' })
  await open.or(page.getByTestId('what-is-left')).first().waitFor()
  if (await open.isVisible()) await open.click()
  await allPages(page)
  return /sites\/([^/]+)/.exec(page.url())![1]!
}

test('the whole page’s HTML is checked on demand, each finding at its line, and again after an edit', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await takeIn(page, {
    'index.html': PAGE('Tides'),
    'a.html': PAGE('Boats', '<title>Again</title>'),
  })
  await page.goto(`/sites/${site}/desk?page=a.html&sheet=source`)
  await page.getByRole('button', { name: 'Check the whole page’s HTML' }).click()
  const findings = page.getByTestId('finding')
  // The first time, the checker itself has to be loaded.
  await expect(findings.filter({ hasText: 'center' }).first()).toBeVisible({ timeout: 60_000 })
  const twice = findings.filter({ hasText: '<title>' })
  await expect(twice).toContainText('Line 6')
  await page.getByTestId('margin').getByRole('button', { name: 'Keep the first' }).click()
  await expect(twice).toHaveCount(0)
  await expect(findings.filter({ hasText: 'center' }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Hide' }).click()
  await expect(findings).toHaveCount(0)
  expect(problems).toEqual([])
})

test('the check that is asked for before the source is there is made when it comes', async ({ page }) => {
  const site = await takeIn(page, { 'index.html': PAGE('Tides'), 'a.html': PAGE('Boats') })
  let release = () => {}
  const released = new Promise<void>((resolve) => (release = resolve))
  await page.route('**/source-editor*', async (route) => {
    await released
    await route.continue()
  })
  await page.goto(`/sites/${site}/desk?page=a.html&sheet=source`)
  await page.getByRole('button', { name: 'Check the whole page’s HTML' }).click()
  await expect(page.getByTestId('html-check')).toContainText('Checking the whole page’s HTML')
  release()
  await expect(page.getByTestId('finding').filter({ hasText: 'center' }).first()).toBeVisible({
    timeout: 60_000,
  })
})

test('a worker that does not answer is started again, which is said, and the site opens', async ({
  page,
}) => {
  const site = await takeIn(page, { 'index.html': PAGE('Tides'), 'a.html': PAGE('Boats') })
  await page.clock.install()
  let served = 0
  await page.route(/core\.worker-[^/]*\.js/, (route) =>
    ++served === 1
      ? route.fulfill({ contentType: 'text/javascript', body: 'for (;;) {}' })
      : route.continue(),
  )
  await page.goto(`/sites/${site}/ledger`)
  await expect.poll(() => served).toBe(1)
  await expect
    .poll(async () => {
      await page.clock.runFor(10_000)
      return served
    })
    .toBe(2)
  await expect(page.getByText(/The page checker had to be restarted/)).toBeVisible()
  await expect(page.getByTestId('ledger')).toContainText('Boats')
})

test('a page beyond what is read is named and left out, and the rest is taken in', async ({ page }) => {
  await openShelf(page)
  const bomb = Array.from({ length: 6000 }, (_, i) => `<p><font color=#${i}>x`).join('')
  await page.getByTestId('file-input').setInputFiles({
    name: 'site.zip',
    mimeType: 'application/zip',
    buffer: zipOf({ 'index.html': PAGE('Tides'), 'bomb.html': `<title>Bomb</title>${bomb}` }),
  })
  await page.getByRole('button', { name: /^Take in/ }).click()
  await expect(page.getByRole('dialog')).toContainText('bomb.html')
  await expect(page.getByRole('dialog')).toContainText(/formatting tags that are never closed/)
  await page.getByRole('button', { name: 'Open the ledger' }).click()
  await allPages(page)
  await expect(page.getByTestId('ledger')).toHaveAttribute('aria-rowcount', '2')
})

test('the ledger’s marks are listed with their pages, what matters most first', async ({ page }) => {
  await takeIn(page, {
    'index.html': PAGE('Tides'),
    'a.html': PAGE('Boats'),
    'b.html': '<!doctype html><html lang="en"><p>x',
  })
  await page.getByLabel('Mark', { exact: true }).click()
  const options = await page.getByRole('option').allTextContents()
  expect(options).toContain('No meta description, 3 pages')
  expect(options.indexOf('No title, 1 page')).toBeLessThan(options.indexOf('No meta description, 3 pages'))
  await page.getByRole('option', { name: 'No meta description, 3 pages' }).click()
  await expect(page.getByTestId('ledger')).toHaveAttribute('aria-rowcount', '4')
})

test('a demo whose putting on the shelf was cut off is put there anew before anybody can open it', async ({
  page,
}) => {
  const site = await openDemo(page)
  // As it is after a reload between the last page and the last word.
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open('keen-quill')
        opening.onerror = () => reject(opening.error!)
        opening.onsuccess = () => {
          const change = opening.result.transaction('settings', 'readwrite')
          change.objectStore('settings').delete('demo-seeded')
          change.oncomplete = () => {
            opening.result.close()
            resolve()
          }
        }
      }),
  )
  expect(await openDemo(page)).not.toBe(site)
})
