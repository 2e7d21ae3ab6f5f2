/** The store looked after: how much room there is, work that no project file holds, a site that is too large. */
import { expect, test, type Page } from '@playwright/test'
import { openDesk, openShelf, saved, takeInZip, watchConsole, zipOf } from './helpers.ts'

const html = (name: string) =>
  `<!doctype html><html lang="en"><head><title>${name}</title></head><body><main><h1>${name}</h1><p>${'Made by hand. '.repeat(4000)}</p></main></body></html>`

/** Makes all steps of the log a month old, as if the editor came back after a holiday. */
const age = (page: Page) =>
  page.evaluate(async () => {
    const answered = <T>(request: IDBRequest<T>) =>
      new Promise<T>((resolve, reject) => {
        request.onsuccess = () => resolve(request.result)
        request.onerror = () => reject(request.error!)
      })
    const db = await answered(indexedDB.open('keen-quill'))
    const log = db.transaction('log', 'readwrite').objectStore('log')
    const steps = (await answered(log.getAll())) as { at: string }[]
    const then = new Date(Date.now() - 30 * 86_400_000).toISOString()
    for (const step of steps) await answered(log.put({ ...step, at: then }))
    db.close()
  })

test('the shelf says how much is kept, and reminds of work that is in this browser alone', async ({
  page,
}) => {
  const problems = watchConsole(page)
  await page.addInitScript('globalThis.__name = (f) => f')
  await openShelf(page)
  await takeInZip(page, 'lamps.zip', zipOf({ 'index.html': html('Lamps') }), 'https://lamps.example/')
  await expect(page.getByTestId('what-is-left')).toBeVisible()
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  await openDesk(page, site, 'index.html')
  await page.getByTestId('title').fill('Lamps of the island')
  await saved(page)
  await openShelf(page)
  await expect(page.getByText('1 page, 0.1 MB')).toBeVisible()
  await expect(page.getByTestId('room')).toContainText(
    /Kept so far: [\d.,]+ [MG]B; this browser has room for about/,
  )
  // Work of today is not old.
  await expect(page.getByTestId('unsaved-work')).toHaveCount(0)
  await age(page)
  await page.reload()
  const reminder = page.getByTestId('unsaved-work')
  await expect(reminder).toContainText(/Work on “lamps” since \d+ \w+ is in this browser alone\./)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    reminder.getByRole('button', { name: 'Save its project file' }).click(),
  ])
  expect(download.suggestedFilename()).toMatch(/keen-quill\.zip$/)
  await expect(reminder).toHaveCount(0)
  await page.reload()
  await expect(page.getByTestId('room')).toBeVisible()
  await expect(reminder).toHaveCount(0)
  expect(problems).toEqual([])
})

test('a site that is larger than what is left says so before it is taken in', async ({ page }) => {
  await page.addInitScript(() => {
    navigator.storage.estimate = () => Promise.resolve({ usage: 99_900_000, quota: 100_000_000 })
  })
  await openShelf(page)
  await page.getByTestId('file-input').setInputFiles({
    name: 'lamps.zip',
    mimeType: 'application/zip',
    buffer: zipOf(Object.fromEntries(Array.from({ length: 4 }, (_, i) => [`${i}.html`, html(`Lamp ${i}`)]))),
  })
  await expect(page.getByRole('alert')).toHaveText(
    'It needs about 0.2 MB, and this browser has 0.1 MB left. Take in a part of it, remove a site from the shelf, or free disk space.',
  )
  await expect(page.getByRole('button', { name: 'Take in 4 pages' })).toBeDisabled()
})
