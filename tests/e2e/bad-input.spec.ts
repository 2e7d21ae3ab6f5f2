/** What people drop by mistake, and what is made to do harm: a clear word, nothing lost, the rest taken in. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { allPages, openDemo, openShelf, takeInZip, zipOf } from './helpers.ts'

const PAGE =
  '<!doctype html><html lang=en><head><meta charset=utf-8><title>A page that is fine as it is</title></head><body><h1>Fine</h1></body></html>'

test('an empty file, a JPEG named .html, a path that climbs and a bomb are named; the rest is taken in', async ({
  page,
}) => {
  await openShelf(page)
  const zip = zipOf({
    'good.html': PAGE,
    'empty.html': '',
    'picture.html': new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 0, 16]),
    '../climbs.html': PAGE,
    'bomb.html': new Uint8Array(40 * 1024 * 1024),
  })
  await takeInZip(page, 'mixed.zip', zip)
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('1 page taken in')
  await expect(dialog).toContainText('empty.html The file is empty')
  await expect(dialog).toContainText('This is a JPEG picture')
  await expect(dialog).toContainText('leads out of the archive')
  await expect(dialog).toContainText('as archives made to do harm do')
  await page.getByRole('button', { name: 'Open the ledger' }).click()
  await allPages(page)
  await expect(page.getByTestId('ledger')).toContainText('A page that is fine as it is')
})

test('an archive that is none is refused with what to do', async ({ page }) => {
  await openShelf(page)
  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'broken.zip', mimeType: 'application/zip', buffer: Buffer.from('not a zip') })
  await expect(page.getByRole('alert')).toContainText('Make it again')
})

test('a page of 20 MB is taken in, and the desk opens it', async ({ page }) => {
  test.slow()
  await openShelf(page)
  const big = PAGE.replace(
    '</body>',
    '<p>A line of a very long page, of which there are far too many for one page.</p>\n'.repeat(260_000) +
      '</body>',
  )
  expect(big.length).toBeGreaterThan(20e6)
  // From the disk, as an editor's is: so large a message to the browser would take longer than all the rest.
  const file = join(mkdtempSync(join(tmpdir(), 'kq-big-')), 'big.html')
  writeFileSync(file, big)
  await page.getByTestId('file-input').setInputFiles(file)
  await page.getByRole('button', { name: /^Take in 1 page/ }).click()
  await allPages(page, 240_000)
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect(page.locator('[data-testid=desk][data-ready=true]')).toBeVisible({ timeout: 240_000 })
})

test('keywords from a sheet with a broken quote: the row is named, and nothing is changed', async ({
  page,
}) => {
  await openDemo(page)
  await page.getByRole('link', { name: 'Keywords' }).click()
  await page.getByTestId('keywords-input').setInputFiles({
    name: 'keywords.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('path,primary\ncontact.html,"radio\n'),
  })
  await expect(page.getByText(/a double quote is opened and not closed/)).toBeVisible()
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeDisabled()
  await page.getByTestId('keywords-input').setInputFiles({
    name: 'keywords.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('path,primary,secondary\ncontact.html,island radio,phone; post\nnowhere.html,x,\n'),
  })
  await expect(page.getByText(/Keywords for 1 page taken in\. No such page: nowhere\.html/)).toBeVisible()
})

test('a hostile page is only ever read: no script runs, nothing is fetched', async ({ page }) => {
  const fetched: string[] = []
  page.on('request', (r) => fetched.push(r.url()))
  await openShelf(page)
  const hostile =
    '<!doctype html><html lang=en><head><title>"><img src=x onerror="window.bitten=1"><script>window.bitten=1</script></title>' +
    '<meta name=description content="&lt;svg onload=window.bitten=1&gt;"><base href="https://elsewhere.example/"></head>' +
    '<body onload="window.bitten=1"><h1><img src="https://elsewhere.example/pixel.gif" onerror="window.bitten=1" alt="<b>x</b>"></h1>' +
    '<script>window.bitten=1</script><iframe src="javascript:window.parent.bitten=1"></iframe></body></html>'
  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'hostile.html', mimeType: 'text/html', buffer: Buffer.from(hostile) })
  await page.getByRole('button', { name: /^Take in 1 page/ }).click()
  await allPages(page)
  await expect(page.getByTestId('ledger')).toContainText('onerror')
  for (const sheet of ['Snippet', 'Outline', 'Source']) {
    if (sheet === 'Snippet') await page.getByRole('link', { name: 'Desk' }).click()
    await page.getByRole('tab', { name: sheet }).click()
    await expect(page.getByRole('tab', { name: sheet })).toHaveAttribute('aria-selected', 'true')
    await page.waitForSelector('[data-testid=desk][data-ready=true]')
  }
  expect(await page.evaluate(() => (window as { bitten?: number }).bitten)).toBeUndefined()
  expect(fetched.filter((u) => u.includes('elsewhere'))).toEqual([])
})

test('a cancelled intake leaves nothing behind', async ({ page }) => {
  await openDemo(page)
  await openShelf(page)
  const pages = Object.fromEntries(
    Array.from({ length: 2500 }, (_, i) => [
      `p${i}.html`,
      PAGE.replace('</body>', `<p>${'words '.repeat(900)}</p></body>`),
    ]),
  )
  await takeInZip(page, 'large.zip', zipOf(pages))
  await expect(page.getByLabel('Files read')).toBeVisible()
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByRole('alert')).toContainText('Nothing was kept')
  await page.getByRole('button', { name: 'Back to the shelf' }).click()
  await expect(page.getByRole('link', { name: 'Open the ledger' })).toHaveCount(1)
})
