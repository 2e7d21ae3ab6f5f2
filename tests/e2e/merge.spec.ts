/** Two people on one site: a colleague's project file taken into the site on the shelf. */
import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import {
  allPages,
  checkAccess,
  go,
  openDesk,
  openShelf,
  saved,
  takeInZip,
  watchConsole,
  zipOf,
} from './helpers.ts'

const lamp = (name: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${name} lamp</title></head><body><main><h1>${name} lamp</h1><p>It burns for hours.</p></main></body></html>`
const files = { 'index.html': lamp('Our'), 'storm.html': lamp('Storm'), 'table.html': lamp('Table') }

async function projectFile(page: Page, site: string): Promise<Buffer> {
  await go(page, `/sites/${site}/hand-off`)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Project file, with all work' }).click(),
  ])
  return readFileSync(await download.path())
}
const drop = (page: Page, buffer: Buffer) =>
  page.getByTestId('file-input').setInputFiles({ name: 'lamps.zip', mimeType: 'application/zip', buffer })
const siteOf = (page: Page) => /sites\/([^/]+)/.exec(page.url())![1]!
async function write(page: Page, site: string, path: string, title: string) {
  await openDesk(page, site, path)
  await page.getByTestId('title').fill(title)
  await saved(page)
}

test('what only one decided is there, what both decided is chosen, and all of it is one step', async ({
  page,
  browser,
  baseURL,
}) => {
  const problems = watchConsole(page)
  await openShelf(page)
  await takeInZip(page, 'lamps.zip', zipOf(files), 'https://lamps.example/')
  await expect(page.getByTestId('what-is-left')).toBeVisible()
  const ours = siteOf(page)
  await write(page, ours, 'storm.html', 'Storm lamps that stay lit')
  const begun = await projectFile(page, ours)

  const colleague = await (await browser.newContext({ baseURL: baseURL! })).newPage()
  await openShelf(colleague)
  await drop(colleague, begun)
  await colleague.getByRole('button', { name: 'Take in 3 pages' }).click()
  await expect(colleague.getByTestId('what-is-left')).toBeVisible()
  const theirs = siteOf(colleague)
  await write(colleague, theirs, 'storm.html', 'Storm lamps for boats')
  await write(colleague, theirs, 'table.html', 'Table lamps by hand')
  const work = await projectFile(colleague, theirs)
  await colleague.context().close()

  await write(page, ours, 'index.html', 'Lamps of the island')
  await openShelf(page)
  await drop(page, work)
  await page.getByRole('button', { name: /^Into “/ }).click()
  const merge = page.getByTestId('merge')
  await expect(merge).toContainText('1 thing was decided differently. Ours stays unless you choose theirs.')
  await expect(merge.getByTestId('dispute')).toHaveCount(1)
  await expect(merge.getByTestId('dispute')).toContainText('Storm lamps that stay lit')
  await checkAccess(page, 'two people’s work')
  await merge.getByRole('radio', { name: /Theirs/ }).check()
  await merge.getByRole('button', { name: /^Take in 2 decisions on 2 pages/ }).click()
  await allPages(page)
  const ledger = page.getByTestId('ledger')
  for (const title of ['Storm lamps for boats', 'Table lamps by hand', 'Lamps of the island'])
    await expect(ledger).toContainText(title)
  await saved(page)
  await page.keyboard.press('Control+z')
  await expect(ledger).toContainText('Storm lamps that stay lit')
  await expect(ledger).toContainText('Table lamp')
  await expect(ledger).not.toContainText('Table lamps by hand')
  await expect(ledger).toContainText('Lamps of the island')
  expect(problems).toEqual([])
})
